import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { LoadDetail } from '@hand-relay/contract';
import { api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { clock, dayOf } from '../text/index.ts';
import { Failed, Button, Loading, Row, Sheet, Signal, Text, useShortcuts, WIDE } from '../ui/index.ts';
import { ReleaseSheet } from '../desk/index.ts';
import { Page } from '../shell/index.ts';
import { LoadBars } from './LoadBars.tsx';
import { LoadCandidates } from './LoadCandidates.tsx';
import { LoadFloor } from './LoadFloor.tsx';
import { LoadInside } from './LoadInside.tsx';
import { LoadLeft } from './LoadLeft.tsx';
import { LoadStages } from './LoadStages.tsx';
import { WhenAndWhere } from './LoadsView.tsx';
import { PlanSheet } from './PlanSheet.tsx';
import { putBack } from './stops.ts';

/** One load: how full and how far it is, what is in it and left on it, and what could still go in. */
export function LoadView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const wide = useWindowDimensions().width >= WIDE;
  const mayPlan = useMay('orders.release');
  const mayClose = useMay('shipments.confirm') || mayPlan;
  const { data: load, error, refetch } = api.useLoadQuery(id);
  const { data: list } = api.useLoadsQuery({ state: 'planned' });
  const [fill, filling] = api.useFillLoadMutation();
  const [order, ordering] = api.useOrderStopsMutation();
  const [dissolve, dissolving] = api.useCancelLoadMutation();
  const [sheet, setSheet] = useState<'change' | 'release' | 'close' | null>(null);
  const back = () => router.navigate('/desk/loads');
  useShortcuts({ Escape: back }, sheet === null);
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!load) return <Loading />;
  const planned = load.state === 'planned';
  const may = mayPlan && planned;
  const toRelease = load.shares.filter((s) => s.released < s.units).map((s) => s.id);
  const putStops = async (stops: number[]) => {
    const done = await order({ id, stops });
    if (!done.data) return;
    const undo = { name: 'orderStops' as const, id, body: { stops: putBack(stops) } };
    send(notify({ kind: 'done', text: t('loads.stopsOrdered'), undo }));
  };
  const put = async (body: { add?: string[]; remove?: string[]; whatFits?: boolean }) => {
    const before = new Set(load.shares.map((s) => s.id));
    const done = await fill({ id, ...body });
    if (!done.data) return;
    const added = done.data.shares.filter((s) => !before.has(s.id)).map((s) => s.id);
    const text = body.remove
      ? t('loads.out', { orders: t('unit.orders', { count: body.remove.length }) })
      : t('loads.in', { orders: t('unit.orders', { count: added.length }) });
    const undo = { name: 'fillLoad' as const, id, body: { add: body.remove ?? [], remove: added } };
    send(notify({ kind: 'done', text, ...(added.length + (body.remove?.length ?? 0) > 0 ? { undo } : {}) }));
  };
  const giveUp = async () => {
    const done = await dissolve(id);
    if (done.error) return;
    back();
    const { vehicle, departure, door, note, shares } = load;
    const again = { vehicle, departure, door, note, orders: shares.map((s) => s.id) };
    send(
      notify({
        kind: 'done',
        text: t('loads.dissolved', { number: load.number }),
        undo: { name: 'planLoad', body: again },
      }),
    );
  };
  const goods = (
    <>
      {planned && (
        <LoadInside
          load={load}
          may={may}
          busy={ordering.isLoading}
          onOut={(share) => void put({ remove: [share.id] })}
          onStops={(stops) => void putStops(stops)}
        />
      )}
      <LoadLeft load={load} />
    </>
  );
  return (
    <Page
      title={t('loads.number', { number: load.number })}
      onBack={back}
      foot={
        may && (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            <Button title={t('loads.change')} onPress={() => setSheet('change')} />
            {load.shipped === 0 && (
              <Button
                kind="danger"
                title={t('loads.dissolve')}
                busy={dissolving.isLoading}
                onPress={() => void giveUp()}
              />
            )}
            {load.shipped > 0 && mayClose && (
              <Button
                kind={toRelease.length === 0 ? 'act' : 'plain'}
                title={t('loads.close')}
                onPress={() => setSheet('close')}
              />
            )}
            {toRelease.length > 0 && (
              <Button
                kind="act"
                title={t('orders.release', { count: toRelease.length })}
                onPress={() => setSheet('release')}
              />
            )}
          </Row>
        )
      }
    >
      <Ended load={load} />
      <View style={wide ? { flexDirection: 'row', gap: 32 } : { gap: 20 }}>
        <View style={{ flex: wide ? 1 : undefined, minWidth: 0, gap: 12 }}>
          <Text kind="strong">{load.vehicle}</Text>
          <WhenAndWhere load={load} />
          <LoadStages load={load} />
          <LoadFloor
            widthMm={list?.vehicles.find((v) => v.name === load.vehicle)?.widthMm ?? 2400}
            places={load.fill.most.places}
            taken={load.fill.places}
          />
          <LoadBars fill={load.fill} />
          <Text kind="small" colour="quiet">
            {t('loads.rough')}
          </Text>
          {[filling, ordering, dissolving].map(
            (done, i) => done.error && <Failed key={i} text={words(troubleOf(done.error))} />,
          )}
          {(may || !wide) && goods}
        </View>
        {(may || wide) && (
          <View style={{ flex: wide ? 1 : undefined, minWidth: 0, gap: 12 }}>
            {may ? (
              <LoadCandidates id={id} busy={filling.isLoading} onIn={(add, whatFits) => void put({ add, whatFits })} />
            ) : (
              goods
            )}
          </View>
        )}
      </View>
      {sheet === 'change' && <PlanSheet load={load} onClose={() => setSheet(null)} onPlanned={() => setSheet(null)} />}
      {sheet === 'release' && <ReleaseSheet tray={{ orders: toRelease, lines: {} }} onClose={() => setSheet(null)} />}
      {sheet === 'close' && <CloseSheet load={load} onClose={() => setSheet(null)} />}
    </Page>
  );
}

/** When and by whom a load was ended. */
function Ended({ load }: { load: LoadDetail }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  if (load.state === 'planned') return null;
  const zone = me.site.timeZone;
  const at = load.endedAt ? `${dayOf(load.endedAt, zone, now)} ${clock(load.endedAt, zone)}`.trim() : '';
  const text = t(load.state === 'left' ? 'loads.hasLeft' : 'loads.isDissolved', { at });
  return (
    <Signal
      kind={load.state === 'left' ? 'done' : 'quiet'}
      text={load.endedBy ? t('loads.endedBy', { text, who: load.endedBy }) : text}
      size="body"
    />
  );
}

/** Says what stays behind before a load is closed. */
function CloseSheet({ load, onClose }: { load: LoadDetail; onClose: () => void }) {
  const { t } = useTranslation();
  const [close, closing] = api.useCloseLoadMutation();
  const staying = load.shares;
  return (
    <Sheet
      title={t('loads.closeTitle', { number: load.number })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind="act"
            title={t('loads.close')}
            busy={closing.isLoading}
            onPress={() => void close(load.id).then((done) => 'data' in done && onClose())}
          />
        </>
      }
    >
      <Text>{t('unit.shipments', { count: load.left.length }) + ' ' + t('loads.confirmedOn')}</Text>
      {staying.length > 0 && <Signal kind="caution" text={t('loads.staying', { count: staying.length })} size="body" />}
      {staying.map((s) => (
        <Text key={s.id}>
          {s.number}, {s.customer}: {t('unit.units', { count: s.units })}
        </Text>
      ))}
      {closing.error && <Failed text={words(troubleOf(closing.error))} />}
    </Sheet>
  );
}
