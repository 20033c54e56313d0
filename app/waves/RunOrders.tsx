import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { RunSummary } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { Failed, Field, Button, Loading, Picker, Row, Sheet, Text } from '../ui/index.ts';
import { MarkList } from './MarkList.tsx';
import { ordersOfRun, waits } from './runOrders.ts';
import { useMoveOrders } from './useMoveOrders.ts';

const OWN = 'own';

/** Orders of a run that nobody has begun: marked ones go to another run, to one of their own or back; more are added. */
export function RunOrders({ run, runs, onClose }: { run: RunSummary; runs: RunSummary[]; onClose: () => void }) {
  const { t } = useTranslation();
  const { data } = api.useRunQuery(run.id);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [to, setTo] = useState(OWN);
  const [adding, setAdding] = useState(false);
  const moves = useMoveOrders();
  const orders = data ? ordersOfRun(data) : [];
  const others = runs.filter((r) => r.id !== run.id && waits(r));
  const chosen = orders.filter((o) => marked.has(o.id)).map((o) => o.id);
  const go = async () => {
    if ((await moves.move(run, chosen, others.find((r) => r.id === to) ?? null)) !== null) onClose();
  };
  if (adding) return <AddOrders run={run} onClose={onClose} onBack={() => setAdding(false)} />;
  return (
    <Sheet
      title={t('board.ordersOf', { run: run.number, sign: run.callSign })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button title={t('board.add')} icon="plus" onPress={() => setAdding(true)} />
          {chosen.length > 0 && (
            <Button
              title={t('board.takeOut', { count: chosen.length })}
              disabled={moves.busy}
              onPress={() => void moves.takeOut(run, chosen)}
            />
          )}
          <Button
            kind="act"
            title={chosen.length === 0 ? t('board.mark') : t('board.move', { count: chosen.length })}
            disabled={chosen.length === 0}
            busy={moves.busy}
            onPress={() => void go()}
          />
        </>
      }
    >
      {!data && <Loading rows={3} />}
      <Row gap={8}>
        <Text colour="quiet">{t('board.to')}</Text>
        <Picker
          label={t('board.to')}
          value={to}
          onChange={setTo}
          options={[
            { value: OWN, title: t('board.own') },
            ...others.map((r) => ({
              value: r.id,
              title: `${r.number} · ${r.callSign}, ${t('unit.orders', { count: r.orders })}`,
            })),
          ]}
        />
      </Row>
      {moves.error && <Failed text={words(troubleOf(moves.error))} />}
      <MarkList
        entries={orders.map((o) => ({
          id: o.id,
          title: `${o.position} · ${o.number}`,
          about: `${t('unit.lines', { count: o.lines })} · ${t('unit.units', { count: o.units })} · ${o.customer}`,
        }))}
        marked={marked}
        onMark={setMarked}
      />
    </Sheet>
  );
}

/** Orders that gather in other waves, to be added to a run. */
function AddOrders({ run, onClose, onBack }: { run: RunSummary; onClose: () => void; onBack: () => void }) {
  const { t } = useTranslation();
  const { data } = api.useWaitingOrdersQuery();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [search, setSearch] = useState('');
  const moves = useMoveOrders();
  const gathered = (data?.orders ?? []).filter((o) => o.run === null);
  const wanted = search.trim().toLowerCase();
  const shown = gathered.filter((o) => `${o.number} ${o.customer}`.toLowerCase().includes(wanted));
  const chosen = gathered.filter((o) => marked.has(o.id)).map((o) => o.id);
  const go = async () => {
    if (await moves.add(run, chosen)) onClose();
  };
  return (
    <Sheet
      title={t('board.addTo', { run: run.number, sign: run.callSign })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('nav.back')} onPress={onBack} />
          <Button
            kind="act"
            title={t('board.addCount', { count: chosen.length })}
            disabled={chosen.length === 0}
            busy={moves.busy}
            onPress={() => void go()}
          />
        </>
      }
    >
      {!data && <Loading rows={3} />}
      {data && gathered.length === 0 && <Text>{t('board.nothingGathers')}</Text>}
      {gathered.length > 8 && <Field label={t('board.findOrder')} value={search} onChange={setSearch} />}
      {moves.error && <Failed text={words(troubleOf(moves.error))} />}
      <MarkList
        entries={shown.slice(0, 100).map((o) => ({
          id: o.id,
          title: o.number,
          about: `${t('unit.lines', { count: o.lines })} · ${t('unit.units', { count: o.units })} · ${o.customer}`,
        }))}
        marked={marked}
        onMark={setMarked}
      />
    </Sheet>
  );
}
