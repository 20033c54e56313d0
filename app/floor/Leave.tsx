import { useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { laneAdvice } from '@hand-relay/core/handling/picking';
import { api, serverNow } from '../state/index.ts';
import { duration, i18n, number } from '../text/index.ts';
import { Card, Failed, Finish, Button, Row, ScanField, Signal, Text, useNarrow } from '../ui/index.ts';
import { Page, PrintKey } from '../shell/index.ts';
import { CartonsOnCart } from './CartonsOnCart.tsx';
import { Beside } from './RunSheet.tsx';
import { PickList } from './PickList.tsx';
import { useTaking } from './useTaking.tsx';
import type { Verdict } from './verdict.ts';

/** What was picked, in how many cartons, and how long it took against what was planned. */
function summaryOf(run: RunDetail, picks: RunPick[]): string {
  const end = run.leftAt ? Date.parse(run.leftAt) : serverNow();
  const took = run.startedAt ? (end - Date.parse(run.startedAt)) / 1000 : null;
  const picked = i18n.t('floor.summary', {
    orders: i18n.t('unit.orders', { count: run.positions.length }),
    units: i18n.t('unit.units', { count: picks.reduce((n, p) => n + p.picked, 0) }),
    shorts: number(picks.filter((p) => p.state === 'short').length),
  });
  return [
    picked,
    run.cartons.length > 0 && i18n.t('unit.cartons', { count: run.cartons.length }),
    took !== null && i18n.t('floor.took', { took: duration(took), planned: duration(run.run.seconds) }),
  ]
    .filter(Boolean)
    .join(' · ');
}

/** A run that was left: its call sign, large enough to be called across the hall, and where the cart stands. */
export function Left({ run, picks }: { run: RunDetail; picks: RunPick[] }) {
  const { t } = useTranslation();
  const router = useRouter();
  const { data } = api.useMyRunsQuery(undefined, { refetchOnMountOrArgChange: true });
  const taking = useTaking();
  const next = data?.mine.length === 0 ? data.waiting[0] : undefined;
  const back = () => router.navigate('/floor');
  return (
    <Page
      title={t('floor.run', { number: run.run.number })}
      foot={
        <View style={{ gap: 10 }}>
          {taking.wrong !== null && <Failed text={taking.wrong} />}
          {next && (
            <Button
              kind="act"
              size="floor"
              title={t('floor.nextRun', { run: next.number, sign: next.callSign })}
              busy={taking.busy}
              onPress={() => taking.begin(next)}
            />
          )}
          <Button kind={next ? 'plain' : 'act'} size="floor" title={t('floor.backToRuns')} onPress={back} />
        </View>
      }
    >
      {taking.sheet}
      <View style={{ paddingVertical: 24, gap: 16 }}>
        <Text kind="code">{run.run.callSign}</Text>
        <Signal kind="done" text={t('floor.left', { cart: run.run.cart, lane: run.run.lane })} size="large" />
        <Text colour="quiet">{summaryOf(run, picks)}</Text>
      </View>
      <AfterRun run={run} />
      <PickList picks={picks} />
    </Page>
  );
}

/** The end of a run: where the cart goes. Scanning the lane passes the work to the bench. */
export function Leave({
  run,
  picks,
  verdict,
  onUndo,
  onLane,
  children,
}: {
  run: RunDetail;
  picks: RunPick[];
  /** What was said last of the run. */
  verdict: Verdict | null;
  onUndo: () => void;
  /** Scanned or touched: where the cart was left. */
  onLane: (lane: string) => void;
  /** What the last pick still asks. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const narrow = useNarrow();
  const cart = run.run.cart ?? '';
  const summary = summaryOf(run, picks);
  // The planned lane may have filled up in the meantime: better said before the walk than after it.
  const lane = run.lanes.find((l) => l.code === run.proposedLane);
  const advice = lane && laneAdvice(run.lanes, lane.code, lane.code);
  // A bench is scanned where the site sends no carts there: keys for all of them would hide the rest.
  const [benches, setBenches] = useState(false);
  const offered = run.lanes.filter((l) => benches || !l.bench || l.code === run.proposedLane);
  const full =
    lane && advice ? t('floor.laneFullAhead', { ...lane, lane: lane.code, to: advice.instead ?? '–' }) : null;
  return (
    <Page
      title={`${run.run.callSign}  ${picks.length}/${picks.length}`}
      onBack={() => router.navigate('/floor')}
      foot={
        <View style={{ gap: 10 }}>
          {children}
          <ScanField label={t('floor.laneAsk')} onCode={onLane} />
          <Row gap={8}>
            {offered.map((lane) => (
              <Button
                key={lane.code}
                size="floor"
                kind={lane.code === (advice?.instead ?? run.proposedLane) ? 'act' : 'plain'}
                title={lane.fits === null ? lane.name : `${lane.name} · ${lane.carts}/${lane.fits}`}
                label={lane.name}
                onPress={() => onLane(lane.code)}
              />
            ))}
            {offered.length < run.lanes.length && (
              <Button size="floor" title={t('floor.benches')} onPress={() => setBenches(true)} />
            )}
            <Button size="floor" icon="undo" title={t('floor.undo')} onPress={onUndo} />
          </Row>
        </View>
      }
    >
      {[...new Map(picks.filter((p) => p.order.hold !== null).map((p) => [p.order.id, p])).values()].map((p) => (
        <Signal
          key={p.order.id}
          kind="caution"
          size="body"
          text={t('hold.onCart', { order: p.order.number, position: p.step.position.number, why: p.order.hold })}
        />
      ))}
      <Card gap={10}>
        <Row gap={12}>
          <Finish />
          <Text kind="heading" colour="done">
            {t('floor.leaveTitle')}
          </Text>
        </Row>
        <Text kind="code" style={narrow ? { fontSize: 40, lineHeight: 44 } : { fontSize: 56 }}>
          {run.proposedLane ?? ''}
        </Text>
        <Text kind="heading">
          {run.proposedLane ? t('floor.leaveText', { cart, lane: run.proposedLane }) : t('floor.leaveAny', { cart })}
        </Text>
        {full && verdict?.kind !== 'caution' && <Signal kind="caution" size="body" text={full} />}
        <Text colour="quiet">{summary}</Text>
        {verdict?.kind === 'refused' && <Failed text={verdict.text} />}
        {verdict?.kind === 'caution' && <Signal kind="caution" size="heading" text={verdict.text} />}
      </Card>
      <AfterRun run={run} />
      <PickList picks={picks} />
    </Page>
  );
}

/** What is still missing of these orders, and the papers that go with the cart. */
function AfterRun({ run }: { run: RunDetail }) {
  const { t } = useTranslation();
  return (
    <>
      <Beside run={run.run.id} ours />
      <CartonsOnCart run={run} />
      <Row gap={8}>
        <PrintKey size="floor" kind="handoff-label" of={run.run.id} after={run.run.id} title={t('runMore.label')} />
        {run.positions.map(
          (p) =>
            p.shipment && (
              <PrintKey
                key={p.id}
                size="floor"
                kind="packing-slip"
                of={p.shipment}
                after={run.run.id}
                title={t('runMore.slip', { order: p.order })}
              />
            ),
        )}
      </Row>
    </>
  );
}
