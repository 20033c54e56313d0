import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, useMay, words } from '../state/index.ts';
import { Button, Failed, Field, Labelled, Loading, Picker, Row, Sheet, Signal, Text } from '../ui/index.ts';
import { faultsOf, firstExceptions, sentOf, shortOf } from './exception.ts';
import { PickRows } from './PickRows.tsx';

/** Confirms a run that was picked by paper: all as planned, except what is ticked. */
export function ConfirmRunSheet({ id, onClose }: { id: string; onClose: () => void }) {
  const { data: run, error, refetch } = api.useRunQuery(id);
  const { t } = useTranslation();
  if (run) return <Confirming run={run} onClose={onClose} />;
  return (
    <Sheet
      title={t('confirmRun.key')}
      onClose={onClose}
      keys={<Button title={t('release.cancel')} onPress={onClose} />}
    >
      {error ? <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} /> : <Loading rows={4} />}
    </Sheet>
  );
}

function Confirming({ run, onClose }: { run: RunDetail; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const mayArrange = useMay('runs.arrange');
  const { data: crew } = api.useCrewQuery(undefined, { skip: !mayArrange });
  const [confirm, { isLoading, error }] = api.useConfirmRunMutation();
  const open = run.picks.filter((p) => p.state === 'open');
  const [cart, setCart] = useState('');
  const [picker, setPicker] = useState('');
  const [lane, setLane] = useState(run.proposedLane ?? run.lanes[0]?.code ?? '');
  const [except, setExcept] = useState(() => firstExceptions(open));
  const [asked, setAsked] = useState(false);
  const needsCart = run.run.state === 'waiting' && !run.run.cart;
  const faults = new Map(open.map((p) => [p.step.id, faultsOf(p, except[p.step.id])]));
  const wrong = [...faults.values()].some((f) => Object.keys(f).length > 0);
  const shorts = shortOf(open, except);
  const go = async () => {
    setAsked(true);
    if (wrong || lane === '') return;
    const done = await confirm({
      id: run.run.id,
      lane,
      cart: (needsCart && cart.trim()) || null,
      picker: picker || null,
      except: sentOf(open, except),
    });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t('confirmRun.done', { run: run.run.number, lane }), about: run.run.id }));
    onClose();
  };
  return (
    <Sheet
      title={t('confirmRun.title', { run: run.run.number, sign: run.run.callSign })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind="act"
            title={t('confirmRun.do', { count: open.length })}
            busy={isLoading}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        {needsCart && (
          <View style={{ width: 170 }}>
            <Field
              focus
              label={t('confirmRun.cart')}
              value={cart}
              onChange={setCart}
              placeholder={t('confirmRun.anyCart')}
            />
          </View>
        )}
        <Labelled label={t('confirmRun.lane')}>
          <Picker
            label={t('confirmRun.lane')}
            value={lane}
            onChange={setLane}
            options={run.lanes.map((l) => ({ value: l.code, title: l.name }))}
          />
        </Labelled>
        {crew && (
          <Labelled label={t('confirmRun.picker')}>
            <Picker
              label={t('confirmRun.picker')}
              value={picker}
              onChange={setPicker}
              options={[
                { value: '', title: run.run.picker ?? run.run.assigned ?? t('confirmRun.me') },
                ...crew.people.map((p) => ({ value: p.id, title: p.name })),
              ]}
            />
          </Labelled>
        )}
      </Row>
      <Text colour="quiet">{t('confirmRun.text')}</Text>
      {shorts > 0 && <Signal kind="caution" size="body" text={t('confirmRun.short', { count: shorts })} />}
      <PickRows picks={open} except={except} faults={asked ? faults : null} onChange={setExcept} />
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}
