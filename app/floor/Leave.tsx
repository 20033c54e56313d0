import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { i18n, number } from '../text/index.ts';
import { Card, Failed, Key, Row, ScanField, Signal, Txt } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { PickList } from './PickList.tsx';

function summaryOf(run: RunDetail, picks: RunPick[]): string {
  return i18n.t('floor.summary', {
    orders: i18n.t('unit.orders', { count: run.positions.length }),
    units: i18n.t('unit.units', { count: picks.reduce((n, p) => n + p.picked, 0) }),
    shorts: number(picks.filter((p) => p.state === 'short').length),
  });
}

/** A run that was left: its call sign, large enough to be called across the hall, and where the cart stands. */
export function Left({ run, picks }: { run: RunDetail; picks: RunPick[] }) {
  const { t } = useTranslation();
  const router = useRouter();
  return (
    <Page
      title={t('floor.run', { number: run.run.number })}
      foot={<Key kind="act" size="floor" title={t('floor.backToRuns')} onPress={() => router.navigate('/floor')} />}
    >
      <View style={{ paddingVertical: 24, gap: 16 }}>
        <Txt kind="code">{run.run.callSign}</Txt>
        <Signal kind="done" text={t('floor.left', { cart: run.run.cart, lane: run.run.lane })} size="large" />
        <Txt colour="quiet">{summaryOf(run, picks)}</Txt>
      </View>
      <PickList picks={picks} />
    </Page>
  );
}

/** The end of a run: where the cart goes. Scanning the lane passes the work to the bench. */
export function Leave({
  run,
  picks,
  onUndo,
  sent,
}: {
  run: RunDetail;
  picks: RunPick[];
  onUndo: () => void;
  /** Resolves when every pick has reached the server: a cart is not left before. */
  sent: () => Promise<void>;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const [leave, { isLoading, error }] = api.useLeaveRunMutation();
  const cart = run.run.cart ?? '';
  const go = async (lane: string) => {
    await sent();
    await leave({ id: run.run.id, lane });
  };
  const summary = summaryOf(run, picks);
  return (
    <Page
      title={`${run.run.callSign}  ${picks.length}/${picks.length}`}
      onBack={() => router.navigate('/floor')}
      foot={
        <View style={{ gap: 10 }}>
          <ScanField label={t('floor.laneAsk')} onCode={(code) => void go(code)} disabled={isLoading} />
          <Row gap={8}>
            {run.lanes.map((lane) => (
              <Key
                key={lane.code}
                size="floor"
                kind={lane.code === run.proposedLane ? 'act' : 'plain'}
                title={lane.name}
                disabled={isLoading}
                onPress={() => void go(lane.code)}
              />
            ))}
            <Key size="floor" icon="undo" title={t('floor.undo')} onPress={onUndo} />
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
        <Signal kind="done" text={t('floor.leaveTitle')} size="heading" />
        <Txt kind="code" style={{ fontSize: 56 }}>
          {run.proposedLane ?? ''}
        </Txt>
        <Txt kind="heading">
          {run.proposedLane ? t('floor.leaveText', { cart, lane: run.proposedLane }) : t('floor.leaveAny', { cart })}
        </Txt>
        <Txt colour="quiet">{summary}</Txt>
        {error && <Failed text={words(troubleOf(error))} />}
      </Card>
      <PickList picks={picks} />
    </Page>
  );
}
