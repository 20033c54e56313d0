import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { FloorLayout, FloorPlan as Plan } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { duration, timeOf } from '../text/index.ts';
import {
  Choice,
  Drop,
  Failed,
  Field,
  FloorPlan,
  Button,
  HeatLegend,
  Loading,
  mostToPick,
  PanZoom,
  Picker,
  Row,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
  wholePlan,
  type PlanView,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { LayoutFaults, LoadFloor, saveLayout, saveLayoutTable, type FileFaults } from './LayoutFile.tsx';
import { aisleAt, binsLike, blockedAt, freedAt, turned } from './marks.ts';

const modes = ['look', 'block', 'way', 'ends', 'zone'] as const;
type Mode = (typeof modes)[number];

/** How often it is asked who is offline: no event tells it. */
const CREW_MS = 60_000;

/** Minutes without a scan after which something is wrong with a run in hand. */
const SILENT = 10;

/** The floor to scale: look at demand, walks and people; mark what is blocked, one-way, where runs begin and end. */
export function FloorView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data: plan, error, refetch } = api.useFloorPlanQuery(undefined, { refetchOnMountOrArgChange: true });
  useShortcuts({ Escape: () => router.navigate('/waves') });
  return (
    <Page title={t('plan.title')} filled onBack={() => router.navigate('/waves')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!plan && !error && <Loading />}
      {plan && <Floor plan={plan} />}
    </Page>
  );
}

function Floor({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const [mayMark, mayZone] = [useMay('waves.run'), useMay('setup.change')];
  const { data: layout } = api.useFloorLayoutQuery();
  const { data: crew } = api.useCrewQuery(undefined, { pollingInterval: CREW_MS });
  const { data: waves } = api.useWavesQuery();
  const whole = useMemo(() => wholePlan(plan), [plan]);
  const [view, setView] = useState<PlanView | null>(null);
  const [mode, setMode] = useState<Mode>('look');
  const [heat, setHeat] = useState(true);
  const [wave, setWave] = useState('');
  const [search, setSearch] = useState('');
  const [from, setFrom] = useState<{ aisle: string; y: number } | null>(null);
  const [end, setEnd] = useState<'start' | 'finish'>('start');
  const [zone, setZone] = useState('');
  const [faults, setFaults] = useState<FileFaults | null>(null);
  const found = useMemo(() => new Set(binsLike(plan, search)), [plan, search]);
  const most = useMemo(() => mostToPick(plan), [plan]);
  const me = useMe();
  const now = useNow();
  /** How long somebody with a run in hand has scanned nothing, where that is long. */
  const silence = (p: { run: string | null; lastScan: string | null; offlineSince: string | null }) => {
    if (p.offlineSince) return t('board.offline', { time: timeOf(p.offlineSince, me.site.timeZone, now) });
    const minutes = p.run && p.lastScan ? Math.floor((now - Date.parse(p.lastScan)) / 60_000) : 0;
    return minutes >= SILENT ? t('plan.silent', { time: duration(minutes * 60) }) : undefined;
  };
  const marks = useMarks(layout);
  const allowed = modes.filter((m) => m === 'look' || (m === 'zone' ? mayZone : mayMark || mayZone));
  const tap = (x: number, y: number) => {
    const at = aisleAt(plan, x, y);
    if (!at || !layout || mode === 'look') return;
    if (mode === 'way') void marks.change(turned(layout, at.aisle));
    else if (mode === 'ends') void marks.change({ ...layout, [end]: at });
    else if (mode === 'zone') void marks.zone(plan, at, x, zone || plan.zones[0]!.code);
    else {
      const freed = from ? null : freedAt(layout, at.aisle, at.y);
      if (freed) void marks.change(freed);
      else if (!from || from.aisle !== at.aisle) setFrom(at);
      else {
        setFrom(null);
        void marks.change(blockedAt(layout, at.aisle, from.y, at.y));
      }
    }
  };
  const centre = (text: string) => {
    setSearch(text);
    const [first] = binsLike(plan, text);
    const bin = plan.bins.find((b) => b.bin === first);
    if (!bin) return;
    const shown = view ?? whole;
    const near = Math.min(shown.width, 24);
    const scale = near / whole.width;
    const x = plan.aisles.find((a) => a.id === bin.aisle)!.x;
    setView({
      left: x - near / 2,
      bottom: bin.y - (whole.height * scale) / 2,
      width: near,
      height: whole.height * scale,
    });
  };
  const shownWaves = (waves?.waves ?? []).filter((w) => w.runs > 0 && (w.state === 'planned' || w.state === 'started'));
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8, gap: 8 }}>
        <Tools name={t('plan.show')}>
          <View style={{ width: 190 }}>
            <Field label={t('plan.find')} placeholder={t('plan.find')} bare value={search} onChange={centre} />
          </View>
          <Picker
            label={t('plan.wave')}
            value={wave}
            onChange={setWave}
            options={[
              { value: '', title: t('plan.noWave') },
              ...shownWaves.map((w) => ({ value: w.id, title: t('waves.number', { number: w.number }) })),
            ]}
          />
          <Button title={t('plan.heat')} size="small" pressed={heat} onPress={() => setHeat(!heat)} />
          <Button title={t('plan.all')} icon="fit-to-screen-outline" size="small" onPress={() => setView(null)} />
          {heat && <HeatLegend most={most} />}
        </Tools>
        {allowed.length > 1 && (
          <Tools name={t('plan.change')}>
            <Choice
              bare
              label={t('plan.change')}
              value={mode}
              onChange={setMode}
              options={allowed.map((value) => ({ value, title: t(`plan.mode.${value}`) }))}
            />
            {mode === 'ends' && (
              <Choice
                label={t('plan.end')}
                bare
                value={end}
                onChange={setEnd}
                options={(['start', 'finish'] as const).map((value) => ({ value, title: t(`plan.${value}`) }))}
              />
            )}
            {mode === 'zone' && (
              <Picker
                label={t('plan.zone')}
                value={zone || (plan.zones[0]?.code ?? '')}
                onChange={setZone}
                options={plan.zones.map((z) => ({ value: z.code, title: z.name }))}
              />
            )}
            <Text kind="small" colour="quiet" style={{ flexGrow: 1, flexShrink: 1, flexBasis: 200 }}>
              {from && mode === 'block' ? t('plan.other', from) : t(`plan.how.${mode}`)}
            </Text>
            {layout && (
              <Drop title={t('plan.files')} label={t('plan.files')}>
                <Row gap={8}>
                  <Button title={t('plan.save')} onPress={() => saveLayout(layout)} />
                  <Button title={t('plan.saveTable')} onPress={() => saveLayoutTable(layout)} />
                  {mayZone && <LoadFloor onLayout={(next) => void marks.change(next)} onFaults={setFaults} />}
                  {mayZone && (
                    <Button
                      title={t('plan.labels')}
                      onPress={() => window.open(addressOf({ name: 'binLabels' }), '_blank')}
                    />
                  )}
                </Row>
              </Drop>
            )}
          </Tools>
        )}
        {faults && <LayoutFaults file={faults.file} faults={faults.faults} />}
        {marks.error && <Failed text={words(troubleOf(marks.error))} />}
      </View>
      <View
        style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderColor: surface.line, backgroundColor: surface.raised }}
      >
        <PanZoom view={view ?? whole} whole={whole} onView={setView} onTap={tap} label={t('plan.move')}>
          <WaveWalks id={wave}>
            {(paths) => (
              <FloorPlan
                plan={plan}
                view={view ?? whole}
                heat={heat}
                found={found}
                paths={paths}
                people={(crew?.people ?? []).flatMap((p) =>
                  p.at ? [{ ...p.at, name: p.name.split(' ')[0]!, wrong: silence(p) }] : [],
                )}
                marking={from && { aisle: from.aisle, from: from.y - 0.25, to: from.y + 0.25 }}
                label={t('plan.label', { bins: plan.bins.length, blocked: plan.blocked.length })}
              />
            )}
          </WaveWalks>
        </PanZoom>
      </View>
    </View>
  );
}

/** Tools of one kind in a row, under their name. */
function Tools({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Row gap={12}>
      <Text kind="label" colour="quiet" style={{ width: 64 }}>
        {name}
      </Text>
      {children}
    </Row>
  );
}

/** Changes of the layout, each with an undo for a while. */
function useMarks(layout: FloorLayout | undefined) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [change, { error }] = api.useChangeLayoutMutation();
  const [zoneBins, zoning] = api.useZoneBinsMutation();
  return {
    error: error ?? zoning.error,
    async change(next: FloorLayout) {
      if (!layout) return;
      const done = await change(next);
      if (!done.data) return;
      const { before, waves } = done.data;
      send(
        notify({
          kind: waves > 0 ? 'caution' : 'done',
          text: waves > 0 ? t('plan.changedWaves', { count: waves }) : t('plan.changed'),
          ...(waves > 0 ? { link: '/waves' } : {}),
          undo: { name: 'changeLayout', body: { ...before, was: next } },
        }),
      );
    },
    /** The bins of one side at a place, all levels. */
    async zone(plan: Plan, at: { aisle: string; y: number }, x: number, zone: string) {
      const side = x < plan.aisles.find((a) => a.id === at.aisle)!.x ? 'left' : 'right';
      const near = plan.bins.filter((b) => b.aisle === at.aisle && b.side === side);
      const y = near.reduce((best, b) => (Math.abs(b.y - at.y) < Math.abs(best - at.y) ? b.y : best), Infinity);
      const bins = near.filter((b) => b.y === y);
      const old = bins[0]?.zone;
      if (bins.length === 0 || old === zone) return;
      const codes = bins.map((b) => b.bin);
      const done = await zoneBins({ bins: codes, zone });
      if (done.data)
        send(
          notify({
            kind: 'done',
            text: t('plan.zoned', { count: done.data.changed, zone }),
            ...(old ? { undo: { name: 'zoneBins', body: { bins: codes, zone: old } } } : {}),
          }),
        );
    },
  };
}

/** The walks of all runs of a wave. */
function WaveWalks({ id, children }: { id: string; children: (paths: [number, number][][]) => React.ReactNode }) {
  const { data } = api.useWavePathsQuery(id, { skip: id === '' });
  return children(id === '' ? [] : (data?.paths ?? []));
}
