import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { RunSummary, WaveDetail, WaveSummary } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { clock, distance, duration, relative, timeOf } from '../text/index.ts';
import { Failed, Button, Row, Shape, Signal, Text, useSurface, WIDE } from '../ui/index.ts';
import { ConfirmWaveSheet } from '../confirmRun/index.ts';
import { CHANCE_SHAPE } from './LaneHead.tsx';
import { ReplanSheet } from './ReplanSheet.tsx';
import { SplitSheet } from './SplitSheet.tsx';
import { sayWave } from './sayWave.ts';
import { WaveBaton } from './TrackView.tsx';
import { WaveSettings } from './WaveSettings.tsx';

interface HeadProps {
  wave: WaveSummary;
  orders: WaveDetail['orders'];
  runs: RunSummary[];
}

/** How the wave stands, what it holds, what is to spare, and what comes next. */
export function WaveHead({ wave, orders, runs }: HeadProps) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const mayRun = useMay('waves.run');
  const waits = wave.state === 'gathering' || wave.state === 'planned' || wave.state === 'started';
  const split = orders.filter((o) => o.trips > 1);
  const facts = [
    t('unit.orders', { count: wave.orders }),
    t('unit.lines', { count: wave.lines }),
    t('unit.units', { count: wave.units }),
    wave.runs > 0 && t('unit.runs', { count: wave.runs }),
    wave.runs > 0 && distance(wave.metres),
    wave.forecast && wave.forecast.left > 0 && t('waves.left', { time: duration(wave.forecast.left) }),
    wave.foreseen && t('waves.forPeople', { count: wave.foreseen.people }),
    wave.earliestDeparture &&
      t('waves.firstLeaves', {
        time: timeOf(wave.earliestDeparture, me.site.timeZone, now),
        in: relative(wave.earliestDeparture, now),
      }),
    t('waves.made', { name: wave.createdBy, time: clock(wave.createdAt, me.site.timeZone) }),
  ];
  return (
    <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 10, gap: 8 }}>
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          columnGap: 20,
          rowGap: 8,
          alignItems: wide ? 'center' : 'stretch',
        }}
      >
        <View style={{ flex: wide ? 1 : undefined, minWidth: 0, gap: 2 }}>
          <Row gap={12} style={{ flexWrap: 'nowrap' }}>
            <WaveBaton wave={wave} scale={1.3} />
            {wave.chance && <Shape kind={CHANCE_SHAPE[wave.chance]} />}
            <Text kind="strong" style={{ flexShrink: 1 }}>
              {sayWave(wave, me.site.timeZone, now)}
            </Text>
          </Row>
          <Text kind="small" colour="quiet">
            {facts.filter(Boolean).join(' · ')}
          </Text>
        </View>
        <Slack wave={wave} />
        {wide && mayRun && waits && <WaveKeys wave={wave} orders={orders} runs={runs} />}
      </View>
      {split.length > 0 && (
        <Signal
          kind="caution"
          text={t('waves.split', {
            orders: split.map((o) => t('waves.splitOrder', { order: o.number, count: o.trips })).join(', '),
          })}
        />
      )}
      {!wide && mayRun && waits && <WaveKeys wave={wave} orders={orders} runs={runs} />}
    </View>
  );
}

/** What is to spare before the last run must end, or how much it is over. */
function Slack({ wave }: { wave: WaveSummary }) {
  const { t } = useTranslation();
  if (!wave.forecast?.ends || wave.doneBy === null || wave.forecast.left === 0) return null;
  const seconds = (Date.parse(wave.doneBy) - Date.parse(wave.forecast.ends)) / 1000;
  const over = seconds < 0;
  return (
    <Row gap={6} style={{ flexWrap: 'nowrap' }}>
      {over && <Shape kind="refused" />}
      <Text kind="large" colour={over ? 'refused' : 'ink'}>
        {duration(Math.abs(seconds))}
      </Text>
      <Text kind="small" colour={over ? 'refused' : 'quiet'}>
        {t(over ? 'track.overTime' : 'track.spare')}
      </Text>
    </Row>
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
  const [more, setMore] = useState(false);
  const [settings, setSettings] = useState(false);
  return (
    <>
      {made && !replanning && (
        <View style={{ gap: 4 }}>
          <Text>{t('track.planning', { share: Math.round(100 * (wave.planProgress ?? 0)) })}</Text>
          <Progress share={wave.planProgress ?? 0} />
        </View>
      )}
      <Row gap={8}>
        {made && !replanning ? (
          <Button title={t('waves.stopPlan')} busy={stopping.isLoading} onPress={() => void stop(id)} />
        ) : (
          <>
            {wave.state === 'gathering' && <Button kind="act" title={t('waves.plan')} onPress={() => void plan(id)} />}
            {wave.state === 'planned' && (
              <Button kind="act" title={t('waves.start')} busy={starting.isLoading} onPress={() => void begin()} />
            )}
            <Button title={t('waves.how')} onPress={() => setSettings(true)} />
            <Button title={t('order.more')} pressed={more} onPress={() => setMore(!more)} />
          </>
        )}
      </Row>
      {more && !made && (
        <Row gap={8}>
          {wave.state !== 'gathering' && <Button title={t('replan.look')} onPress={() => setReplanning(true)} />}
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
          {wave.runs > 0 && (
            <Button
              title={t('waves.slips')}
              icon="file-document-outline"
              onPress={() => window.open(addressOf({ name: 'waveSlips', id }), '_blank')}
            />
          )}
          {parts > 1 && <Button title={t('split.key')} onPress={() => setSplitting(true)} />}
          {wave.state === 'planned' && (
            <Button title={t('waves.reopenWave')} busy={backing.isLoading} onPress={() => void back(id)} />
          )}
          <Button kind="danger" title={t('waves.cancel')} busy={cancelling.isLoading} onPress={() => void takeBack()} />
        </Row>
      )}
      {refused && <Failed text={words(troubleOf(refused))} />}
      {settings && <WaveSettings wave={wave} onClose={() => setSettings(false)} />}
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
