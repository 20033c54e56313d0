import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import type { RunSummary, WaveDetail, WaveSummary } from '@hand-relay/contract';
import {
  addressOf,
  api,
  remember,
  remembered,
  notify,
  troubleOf,
  useMay,
  useMe,
  useNow,
  useAppDispatch,
  words,
} from '../state/index.ts';
import { clock, distance, duration, number, relative, timeOf } from '../text/index.ts';
import {
  Choice,
  Facts,
  Failed,
  Button,
  Loading,
  Row,
  Shape,
  Signal,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ConfirmWaveSheet } from '../confirmRun/index.ts';
import { CHANCE_SHAPE } from './LaneHead.tsx';
import { ReplanSheet } from './ReplanSheet.tsx';
import { RunBoard } from './RunBoard.tsx';
import { RunPlan } from './RunPlan.tsx';
import { RunTable } from './RunTable.tsx';
import { SplitSheet } from './SplitSheet.tsx';
import { sayWave } from './sayWave.ts';
import { WaveBaton } from './TrackView.tsx';
import { WaveOrders } from './WaveOrders.tsx';
import { WaveWay } from './WaveSettings.tsx';

type Shown = 'board' | 'list' | 'orders';
const SHOWN = 'wave-shows';

/** One wave: plan it, start it, say who picks what, watch its runs. */
export function WaveView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const surface = useSurface();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const { data, error, refetch } = api.useWaveQuery(id);
  const [current, setCurrent] = useState<string>();
  const [shown, setShown] = useState<Shown>(() => (remembered(SHOWN) === 'list' ? 'list' : 'board'));
  useShortcuts({ Escape: () => router.navigate('/waves') });
  if (error)
    return (
      <Page title="" onBack={() => router.navigate('/waves')}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!data) return <Loading />;
  const { wave } = data;
  const runs = data.runs.filter((r) => r.state !== 'cancelled');
  const show = (next: Shown) => {
    if (next !== 'orders') remember(SHOWN, next);
    setShown(next);
  };
  // Without runs there is nothing else to show yet.
  const orders = shown === 'orders' || runs.length === 0;
  const head = <WaveHead wave={wave} orders={data.orders} runs={runs} />;
  const choice = runs.length > 0 && (
    <View style={{ paddingHorizontal: 12, paddingBottom: 8 }}>
      <Choice
        label={t('board.show1')}
        value={shown}
        onChange={show}
        options={[
          { value: 'board', title: t('board.board') },
          { value: 'list', title: t('board.list') },
          { value: 'orders', title: t('waves.orders') },
        ]}
      />
    </View>
  );
  const open = (run: string) => (wide ? setCurrent(run) : router.navigate(`/floor/runs/${run}`));
  const work = orders ? (
    <WaveOrders wave={wave} orders={data.orders} />
  ) : shown === 'board' ? (
    <RunBoard runs={runs} current={current} onCurrent={setCurrent} />
  ) : (
    <RunTable runs={runs} current={current} onOpen={(run) => open(run.id)} />
  );
  return (
    <Page
      title={t('waves.number', { number: wave.number })}
      filled
      onBack={() => router.navigate('/waves')}
      aside={
        <Text kind="heading" colour="quiet">
          {[wave.entry, t(`waves.state.${wave.state}`)].filter(Boolean).join(' · ')}
        </Text>
      }
    >
      {wide ? (
        <>
          {head}
          <View style={{ flex: 1, minHeight: 0, flexDirection: 'row', borderTopWidth: 1, borderColor: surface.line }}>
            <View style={{ flex: 3, minWidth: 0, paddingTop: 8 }}>
              {choice}
              {shown === 'board' && !orders ? <ScrollView style={{ flex: 1 }}>{work}</ScrollView> : work}
            </View>
            {runs.length > 0 && (
              <ScrollView
                style={{ flex: 2, minWidth: 340, borderLeftWidth: 1, borderColor: surface.line }}
                contentContainerStyle={{ padding: 16 }}
              >
                <RunPlan id={runs.some((r) => r.id === current) ? current! : runs[0]!.id} />
              </ScrollView>
            )}
          </View>
        </>
      ) : (
        <ScrollView style={{ flex: 1 }}>
          {head}
          {choice}
          <View
            style={
              orders
                ? { height: 60 * data.orders.length + 160 }
                : shown === 'list'
                  ? { height: 60 * runs.length + 44 }
                  : {}
            }
          >
            {work}
          </View>
        </ScrollView>
      )}
    </Page>
  );
}

/** What the wave holds, how it stands, and what can be done with it. */
function WaveHead({ wave, orders, runs }: { wave: WaveSummary; orders: WaveDetail['orders']; runs: RunSummary[] }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const mayRun = useMay('waves.run');
  const waits = wave.state === 'gathering' || wave.state === 'planned' || wave.state === 'started';
  const split = orders.filter((o) => o.trips > 1);
  return (
    <View style={{ paddingHorizontal: width >= WIDE ? 20 : 12, paddingBottom: 12, gap: 10 }}>
      <Row gap={24}>
        <WaveBaton wave={wave} scale={1.8} />
        <Row gap={6} style={{ flexShrink: 1, flexWrap: 'nowrap' }}>
          {wave.chance && <Shape kind={CHANCE_SHAPE[wave.chance]} />}
          <Text style={{ flexShrink: 1 }}>{sayWave(wave, me.site.timeZone, now)}</Text>
        </Row>
        <Text colour="quiet">
          {t('waves.made', { name: wave.createdBy, time: clock(wave.createdAt, me.site.timeZone) })}
        </Text>
      </Row>
      <Facts
        min={64}
        facts={[
          { name: t('waves.orders'), value: number(wave.orders) },
          { name: t('waves.lines'), value: number(wave.lines) },
          { name: t('waves.units'), value: number(wave.units) },
          { name: t('waves.runs'), value: number(wave.runs) },
          { name: t('waves.walk'), value: distance(wave.metres) },
          ...(wave.forecast
            ? [{ name: t('waves.workLeft'), value: wave.forecast.left > 0 ? duration(wave.forecast.left) : '–' }]
            : []),
          ...(wave.foreseen
            ? [{ name: t('waves.for'), value: t('waves.forPeople', { count: wave.foreseen.people }) }]
            : []),
          {
            name: t('waves.leaves'),
            value: wave.earliestDeparture
              ? `${timeOf(wave.earliestDeparture, me.site.timeZone, now)}, ${relative(wave.earliestDeparture, now)}`
              : '–',
          },
        ]}
      />
      {split.length > 0 && (
        <Signal
          kind="caution"
          text={t('waves.split', {
            orders: split.map((o) => t('waves.splitOrder', { order: o.number, count: o.trips })).join(', '),
          })}
        />
      )}
      {mayRun && waits && <WaveWay wave={wave} />}
      {mayRun && waits && <WaveKeys wave={wave} orders={orders} runs={runs} />}
    </View>
  );
}

function WaveKeys({ wave, orders, runs }: { wave: WaveSummary; orders: WaveDetail['orders']; runs: RunSummary[] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const { id } = wave;
  const [plan, planning] = api.usePlanWaveMutation();
  const [start, starting] = api.useStartWaveMutation();
  const [cancel, cancelling] = api.useCancelWaveMutation();
  const [stop, stopping] = api.useStopPlanMutation();
  const [back, backing] = api.useReopenWaveMutation();
  const [replanning, setReplanning] = useState(false);
  const [splitting, setSplitting] = useState(false);
  const [confirming, setConfirming] = useState(false);
  const mayConfirm = useMay('runs.arrange');
  const parts = wave.state === 'gathering' ? orders.length : wave.state === 'planned' ? runs.length : 0;
  const refused = [planning, starting, cancelling, stopping, backing].find((m) => m.error)?.error;
  const begin = async () => {
    const done = await start(id);
    if (done.data)
      send(
        notify({ kind: 'done', text: t('waves.started', { number: wave.number, count: wave.runs }), about: wave.id }),
      );
  };
  const takeBack = async () => {
    const done = await cancel(id);
    if (done.data) send(notify({ kind: 'done', text: t('waves.cancelled', { number: wave.number }), about: wave.id }));
  };
  const made = planning.isLoading || wave.planProgress !== null;
  return (
    <>
      {made && !replanning && (
        <View style={{ gap: 4 }}>
          <Text>{t('track.planning', { share: Math.round(100 * (wave.planProgress ?? 0)) })}</Text>
          <Progress share={wave.planProgress ?? 0} />
        </View>
      )}
      <Row gap={12}>
        {made && !replanning ? (
          <Button title={t('waves.stopPlan')} busy={stopping.isLoading} onPress={() => void stop(id)} />
        ) : (
          <>
            {wave.state === 'gathering' && <Button kind="act" title={t('waves.plan')} onPress={() => void plan(id)} />}
            {wave.state === 'planned' && (
              <Button kind="act" title={t('waves.start')} busy={starting.isLoading} onPress={() => void begin()} />
            )}
            {wave.state !== 'gathering' && <Button title={t('replan.look')} onPress={() => setReplanning(true)} />}
            {wave.state === 'planned' && (
              <Button title={t('waves.reopenWave')} busy={backing.isLoading} onPress={() => void back(id)} />
            )}
            {parts > 1 && <Button title={t('split.key')} onPress={() => setSplitting(true)} />}
            <Button title={t('waves.cancel')} busy={cancelling.isLoading} onPress={() => void takeBack()} />
            {mayConfirm && runs.some((r) => r.state === 'waiting' || r.state === 'picking') && (
              <Button title={t('confirmRun.waveKey')} onPress={() => setConfirming(true)} />
            )}
            {wave.runs > 0 && (
              <Button
                title={t('waves.paper')}
                icon="file-document-outline"
                onPress={() => window.open(addressOf({ name: 'wavePaper', id }), '_blank')}
              />
            )}
          </>
        )}
        {wave.state !== 'started' && !made && (
          <Text colour="quiet">{t(wave.state === 'gathering' ? 'waves.nextPlan' : 'waves.nextStart')}</Text>
        )}
      </Row>
      {refused && <Failed text={words(troubleOf(refused))} />}
      {splitting && <SplitSheet wave={wave} orders={orders} runs={runs} onClose={() => setSplitting(false)} />}
      {confirming && <ConfirmWaveSheet wave={wave} runs={runs} onClose={() => setConfirming(false)} />}
      {replanning && <ReplanSheet wave={wave} onClose={() => setReplanning(false)} />}
    </>
  );
}

function Progress({ share }: { share: number }) {
  const surface = useSurface();
  return (
    <View
      role="progressbar"
      aria-valuenow={Math.round(100 * share)}
      style={{ height: 8, maxWidth: 420, backgroundColor: surface.sunk }}
    >
      <View style={{ height: 8, width: `${100 * share}%`, backgroundColor: surface.ink }} />
    </View>
  );
}
