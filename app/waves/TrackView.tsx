import { Link, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { WaveSummary } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { clock, distance } from '../text/index.ts';
import {
  Baton,
  Card,
  Empty,
  Failed,
  Button,
  LinkBox,
  Loading,
  Row,
  Checkbox,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { batonOf, DepartureSheet, DeskTabs } from '../desk/index.ts';
import { ExceptionsRail } from '../exceptions/index.ts';
import { CompareSheet } from './CompareSheet.tsx';
import { CrewLine } from './CrewLine.tsx';
import { Clock, Lane, type LaneMarks } from './Lane.tsx';
import { DepartureLane } from './DepartureLane.tsx';
import { relayOfDeparture } from './departureRelay.ts';
import { LaneHead } from './LaneHead.tsx';
import { LaneRow } from './LaneRow.tsx';
import { LoadLane } from './LoadLane.tsx';
import { sayWave } from './sayWave.ts';
import { Timetable } from './Timetable.tsx';
import { axisOf, MOST, type Axis } from './track.ts';
import { TrackPeople } from './TrackPeople.tsx';
import { TrackRow } from './TrackRow.tsx';

/** How often it is asked who is offline: no event tells it. */
const CREW_MS = 60_000;

/** The baton of a wave: all it holds is released; then picked, packed, shipped. */
export function WaveBaton({ wave, scale = 1 }: { wave: WaveSummary; scale?: number }) {
  const now = useNow();
  const { state, label } = batonOf(
    {
      asked: wave.units,
      released: wave.state === 'gathering' || wave.state === 'cancelled' ? 0 : wave.units,
      picked: wave.picked,
      packed: wave.packed,
      shipped: wave.shipped,
    },
    wave.earliestDeparture,
    now,
  );
  return <Baton state={state} label={label} scale={scale} />;
}

const ms = (instant: string | null | undefined) => (instant ? Date.parse(instant) : null);
const marksOf = ({ forecast, earliestDeparture, chance }: WaveSummary): LaneMarks => ({
  ends: forecast && forecast.left > 0 ? ms(forecast.ends) : null,
  early: forecast && forecast.left > 0 ? ms(forecast.early) : null,
  late: forecast && forecast.left > 0 ? ms(forecast.late) : null,
  leaves: ms(earliestDeparture),
  chance,
});

/** Pixels of width from which on exceptions stand beside the track. */
const BESIDE = 1200;

const UNDER_WAY = new Set(['gathering', 'planned', 'started']);

/** The supervisor's home: every wave a lane against the clock, its departure a finish line, what is done below. */
export function TrackView() {
  const { t } = useTranslation();
  const router = useRouter();
  const now = useNow();
  const me = useMe();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const beside = width >= BESIDE;
  const mayRun = useMay('waves.run');
  const { data, error, refetch } = api.useWavesQuery();
  const { data: loads } = api.useLoadsQuery();
  const { data: crew } = api.useCrewQuery(undefined, { pollingInterval: CREW_MS });
  const busy = (crew?.people ?? []).filter((p) => p.ends !== null);
  const { data: track, error: untracked, refetch: trackAgain } = api.useTrackQuery();
  const [at, setAt] = useState(0);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [comparing, setComparing] = useState(false);
  const [releasing, setReleasing] = useState(false);
  const mayRelease = useMay('orders.release');
  const mayTrail = useMay('trail.see');
  const waves = useMemo(() => data?.waves ?? [], [data]);
  const lanes = waves.filter((w) => UNDER_WAY.has(w.state));
  const over = waves.filter((w) => !UNDER_WAY.has(w.state)).slice(0, 20);
  const departures = (track?.departures ?? []).map((departure) => ({
    departure,
    relay: relayOfDeparture(departure, { waves: lanes, now, pickers: track!.pickers, packers: track!.packers }),
  }));
  const current = lanes[Math.min(at, lanes.length - 1)];
  const chosen = lanes.filter((w) => marked.has(w.id));
  const [span, setSpan] = useState<keyof typeof MOST>('hours');
  const ahead = [
    ...departures.map((d) => d.departure.leavesAt),
    ...lanes.flatMap((w) => [w.earliestDeparture, w.forecast?.late]),
    ...(loads?.loads ?? []).map((l) => l.leavesAt),
    ...busy.map((p) => p.ends),
  ].flatMap((i) => (i ? [Date.parse(i)] : []));
  const axis = axisOf(now, ahead, MOST[span]);
  const further = ahead.some((i) => i > now + MOST.hours && i <= now + MOST.day);
  const toggle = (id: string) =>
    setMarked((before) => new Set(before.has(id) ? [...before].filter((m) => m !== id) : [...before, id]));
  const does = useWaveMoves(lanes, chosen, () => setMarked(new Set()));
  const step = (by: number) => setAt((i) => Math.max(0, Math.min(i + by, lanes.length - 1)));
  useShortcuts({
    Escape: () => (marked.size > 0 ? setMarked(new Set()) : router.navigate('/desk')),
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    ' ': () => current && toggle(current.id),
    Enter: () => current && router.navigate(`/waves/${current.id}`),
    c: () => chosen.length > 1 && setComparing(true),
    r: () => mayRelease && setReleasing(true),
    m: () => {
      if (mayRun) void does.merge();
    },
    '[': () => mayRun && current && does.place(current, -1),
    ']': () => mayRun && current && does.place(current, 1),
  });
  return (
    <Page
      title={t('track.title')}
      aside={<DeskTabs at="waves" />}
      foot={
        chosen.length > 0 && (
          <Row gap={8}>
            <Text colour="quiet">{t('track.marked', { count: chosen.length })}</Text>
            <Button title={t('track.compare')} disabled={chosen.length < 2} onPress={() => setComparing(true)} />
            {mayRun && (
              <Button
                title={t('track.merge')}
                disabled={chosen.length < 2}
                busy={does.busy}
                onPress={() => void does.merge()}
              />
            )}
            {mayRun && chosen.length === 1 && (
              <>
                <Button title={t('track.sooner')} icon="arrow-up" onPress={() => does.place(chosen[0]!, -1)} />
                <Button title={t('track.later')} icon="arrow-down" onPress={() => does.place(chosen[0]!, 1)} />
              </>
            )}
          </Row>
        )
      }
    >
      {!beside && <ExceptionsRail wide={false} />}
      <View style={{ flexDirection: 'row', gap: 20, alignItems: 'flex-start' }}>
        <View style={{ flex: 1, minWidth: 0, gap: 16 }}>
          {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
          {does.error && <Failed text={words(troubleOf(does.error))} />}
          {!data && !error && <Loading />}
          {untracked && <Failed text={words(troubleOf(untracked))} onRetry={() => void trackAgain()} />}
          <Row gap={16} style={{ justifyContent: 'space-between' }}>
            <View style={{ flexShrink: 1, minWidth: 0 }}>{crew && <CrewLine crew={crew} />}</View>
            <Row gap={8} style={{ flexShrink: 1 }}>
              <Button title={t('track.floor')} icon="floor-plan" onPress={() => router.navigate('/waves/floor')} />
              <Button title={t('day.title')} onPress={() => router.navigate('/desk/day')} />
              {mayTrail && <Button title={t('picks.title')} onPress={() => router.navigate('/desk/picks')} />}
              {mayRelease && <Button title={t('departure.key')} onPress={() => setReleasing(true)} />}
            </Row>
          </Row>
          {track && departures.length === 0 && <Text colour="quiet">{t('track.noDepartures')}</Text>}
          {departures.length > 0 && (
            <View>
              <TrackRow
                wide={wide}
                height={32}
                right={
                  further ? (
                    <Button
                      size="small"
                      title={t(span === 'day' ? 'track.fourHours' : 'track.wholeDay')}
                      onPress={() => setSpan(span === 'day' ? 'hours' : 'day')}
                    />
                  ) : null
                }
              >
                <Clock axis={axis} now={now} />
              </TrackRow>
              <View role="list" aria-label={t('track.departures')}>
                {departures.map(({ departure, relay }) => (
                  <DepartureLane
                    key={`${departure.id} ${departure.leavesAt}`}
                    departure={departure}
                    relay={relay}
                    axis={axis}
                    now={now}
                    wide={wide}
                  />
                ))}
              </View>
              {crew && <TrackPeople crew={crew} axis={axis} now={now} wide={wide} />}
            </View>
          )}
          {track && track.earlier.orders > 0 && (
            <Link href={`/desk?show=open&until=${addDays(localDate(now, me.site.timeZone), -1)}`}>
              <Text kind="small" colour="caution" style={{ textDecorationLine: 'underline' }}>
                {t('track.earlier', { count: track.earlier.orders })}
              </Text>
            </Link>
          )}
          {data && lanes.length === 0 && (
            <Empty
              title={t('waves.emptyTitle')}
              text={t('waves.emptyText')}
              action={{ title: t('waves.toOrders'), onPress: () => router.navigate('/desk') }}
            />
          )}
          {lanes.length > 0 && (
            <View>
              <Text kind="heading" level={2}>
                {t('track.waves')}
              </Text>
              <LaneRow wide={wide} head={null}>
                <Clock axis={axis} now={now} />
              </LaneRow>
              {lanes.map((wave) => (
                <WaveLane
                  key={wave.id}
                  wave={wave}
                  axis={axis}
                  now={now}
                  wide={wide}
                  here={wave.id === current?.id}
                  marked={marked.has(wave.id)}
                  onMark={() => toggle(wave.id)}
                  onOpen={() => router.navigate(`/waves/${wave.id}`)}
                />
              ))}
              {(loads?.loads ?? []).map((load) => (
                <LoadLane key={load.id} load={load} waves={lanes} axis={axis} now={now} wide={wide} />
              ))}
            </View>
          )}
          {data && <Timetable />}
          {over.length > 0 && <Over waves={over} />}
        </View>
        {beside && <ExceptionsRail wide />}
      </View>
      {releasing && <DepartureSheet onClose={() => setReleasing(false)} />}
      {comparing && <CompareSheet waves={chosen} onClose={() => setComparing(false)} />}
    </Page>
  );
}

function WaveLane({
  wave,
  axis,
  now,
  wide,
  here,
  marked,
  onMark,
  onOpen,
}: {
  wave: WaveSummary;
  axis: Axis;
  now: number;
  wide: boolean;
  here: boolean;
  marked: boolean;
  onMark: () => void;
  onOpen: () => void;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const name = t('waves.number', { number: wave.number });
  return (
    <LaneRow
      wide={wide}
      here={here}
      before={<Checkbox checked={marked} onPress={onMark} label={t('track.mark', { name })} />}
      onOpen={onOpen}
      href={`/waves/${wave.id}`}
      label={name}
      head={
        <LaneHead
          name={[name, wave.entry, t(`waves.state.${wave.state}`)].filter(Boolean).join(' · ')}
          says={sayWave(wave, me.site.timeZone, now)}
          chance={wave.chance}
          baton={<WaveBaton wave={wave} />}
        />
      }
    >
      <Lane axis={axis} now={now} marks={marksOf(wave)} label={sayWave(wave, me.site.timeZone, now)} />
    </LaneRow>
  );
}

function useWaveMoves(lanes: WaveSummary[], chosen: WaveSummary[], onDone: () => void) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [merge, merging] = api.useMergeWavesMutation();
  const [place, placing] = api.usePlaceWaveMutation();
  return {
    busy: merging.isLoading,
    error: merging.error ?? placing.error,
    async merge() {
      const [into, ...others] = chosen;
      if (!into || others.length === 0) return;
      const done = await merge({ id: into.id, waves: others.map((w) => w.id) });
      if (!done.data) return;
      onDone();
      send(notify({ kind: 'done', text: t('track.merged', { number: into.number }) }));
    },
    place(wave: WaveSummary, by: -1 | 1) {
      const at = lanes.findIndex((w) => w.id === wave.id);
      if (at + by < 0 || at + by >= lanes.length) return;
      void place({ id: wave.id, before: (by < 0 ? lanes[at - 1] : lanes[at + 2])?.id ?? null });
    },
  };
}

function Over({ waves }: { waves: WaveSummary[] }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  return (
    <View style={{ gap: 8 }}>
      <Text kind="heading" level={2}>
        {t('track.over')}
      </Text>
      {waves.map((w) => (
        <LinkBox
          key={w.id}
          href={`/waves/${w.id}`}
          label={t('waves.number', { number: w.number })}
          onOpen={() => router.navigate(`/waves/${w.id}`)}
        >
          <Card pad={10}>
            <Row gap={16} style={{ justifyContent: 'space-between' }}>
              <Text>
                {t('waves.number', { number: w.number })} · {t(`waves.state.${w.state}`)} ·{' '}
                {clock(w.createdAt, me.site.timeZone)}
              </Text>
              <Text colour="quiet">
                {[t('unit.orders', { count: w.orders }), t('unit.units', { count: w.units }), distance(w.metres)].join(
                  ' · ',
                )}
              </Text>
              <WaveBaton wave={w} />
            </Row>
          </Card>
        </LinkBox>
      ))}
    </View>
  );
}
