import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { RunSummary } from '@hand-relay/contract';
import { api, tell, troubleOf, useMay, useMe, useNow, useSend, words } from '../state/index.ts';
import { clock, i18n, number, relative, distance } from '../text/index.ts';
import {
  DataTable,
  Facts,
  Failed,
  FloorPlan,
  Key,
  Loading,
  Row,
  Signal,
  Txt,
  useShortcuts,
  useSurface,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { WaveBaton } from './WavesView.tsx';

/** One wave: plan it, start it, watch its runs. */
export function WaveView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const send = useSend();
  const surface = useSurface();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const mayRun = useMay('waves.run');
  const { data, error, refetch } = api.useWaveQuery(id);
  const [plan, planning] = api.usePlanWaveMutation();
  const [start, starting] = api.useStartWaveMutation();
  const [cancel, cancelling] = api.useCancelWaveMutation();
  const [current, setCurrent] = useState<string>();
  useShortcuts({ Escape: () => router.navigate('/waves') });
  if (error)
    return (
      <Page title="" onBack={() => router.navigate('/waves')}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!data) return <Loading />;
  const { wave, runs } = data;
  const refused = [planning, starting, cancelling].find((m) => m.error)?.error;
  const begin = async () => {
    const done = await start(id);
    if (done.data) send(tell({ kind: 'done', text: t('waves.started', { number: wave.number, count: wave.runs }) }));
  };
  const takeBack = async () => {
    const done = await cancel(id);
    if (done.data) send(tell({ kind: 'done', text: t('waves.cancelled', { number: wave.number }) }));
  };
  return (
    <Page
      title={t('waves.number', { number: wave.number })}
      filled
      onBack={() => router.navigate('/waves')}
      aside={
        <Txt kind="heading" colour="quiet">
          {t(`waves.state.${wave.state}`)}
        </Txt>
      }
    >
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 12, gap: 12 }}>
        <Row gap={24}>
          <WaveBaton wave={wave} scale={1.8} />
          <Txt colour="quiet">
            {t('waves.made', { name: wave.createdBy, time: clock(wave.createdAt, me.site.timeZone) })}
          </Txt>
        </Row>
        <Facts
          min={70}
          facts={[
            { name: t('waves.orders'), value: number(wave.orders) },
            { name: t('waves.lines'), value: number(wave.lines) },
            { name: t('waves.units'), value: number(wave.units) },
            { name: t('waves.runs'), value: number(wave.runs) },
            { name: t('waves.walk'), value: distance(wave.metres) },
            {
              name: t('waves.leaves'),
              value: wave.earliestDeparture
                ? `${clock(wave.earliestDeparture, me.site.timeZone)}, ${relative(wave.earliestDeparture, now)}`
                : '–',
            },
          ]}
        />
        {mayRun && (wave.state === 'gathering' || wave.state === 'planned' || wave.state === 'started') && (
          <Row gap={12}>
            {wave.state === 'gathering' && (
              <Key kind="act" title={t('waves.plan')} busy={planning.isLoading} onPress={() => void plan(id)} />
            )}
            {wave.state === 'planned' && (
              <Key kind="act" title={t('waves.start')} busy={starting.isLoading} onPress={() => void begin()} />
            )}
            <Key title={t('waves.cancel')} busy={cancelling.isLoading} onPress={() => void takeBack()} />
            {wave.state !== 'started' && (
              <Txt colour="quiet">{t(wave.state === 'gathering' ? 'waves.nextPlan' : 'waves.nextStart')}</Txt>
            )}
          </Row>
        )}
        {refused && <Failed text={words(troubleOf(refused))} />}
      </View>
      <View style={{ flex: 1, minHeight: 0, flexDirection: 'row' }}>
        <View style={{ flex: 3, minWidth: 0 }}>
          {runs.length === 0 ? (
            <View style={{ padding: 20 }}>
              <Signal kind="quiet" text={t('waves.noRuns')} size="body" />
            </View>
          ) : (
            <DataTable
              columns={runColumns(wide)}
              entries={runs.map((row) => ({ kind: 'row', key: row.id, row }))}
              rowHeight={wide ? 44 : 60}
              current={current}
              onOpen={(row) => (wide ? setCurrent(row.id) : router.navigate(`/floor/runs/${row.id}`))}
              nameOf={(row) => `${row.number} ${row.callSign}`}
            />
          )}
        </View>
        {wide && runs.length > 0 && (
          <View style={{ flex: 2, minWidth: 340, borderLeftWidth: 1, borderColor: surface.line, padding: 16 }}>
            <RunPlan id={current ?? runs[0]!.id} />
          </View>
        )}
      </View>
    </Page>
  );
}

/** A run drawn on the floor: its walk, its stops in order, the baton at the last one done. */
function RunPlan({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const { data: run } = api.useRunQuery(id);
  const { data: plan } = api.useFloorPlanQuery();
  if (!run || !plan) return <Loading rows={4} />;
  const stops: { aisle: string; y: number; label: string; done: boolean }[] = [];
  for (const p of run.picks) {
    const last = stops.at(-1);
    const done = p.state !== 'open';
    if (last && last.aisle === p.at.aisle && last.y === p.at.y) last.done &&= done;
    else stops.push({ ...p.at, label: String(stops.length + 1), done });
  }
  return (
    <View style={{ gap: 8 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Txt kind="heading" level={2}>
          {t('floor.run', { number: run.run.number })} · {run.run.callSign}
        </Txt>
        <Key size="small" title={t('waves.openRun')} onPress={() => router.navigate(`/floor/runs/${id}`)} />
      </Row>
      <FloorPlan
        plan={plan}
        path={run.path}
        stops={stops}
        at={[...stops].reverse().find((s) => s.done)}
        label={t('floor.card', {
          stops: run.run.stops,
          orders: t('unit.orders', { count: run.run.orders }),
          units: t('unit.units', { count: run.run.units }),
          walk: distance(run.run.metres),
        })}
      />
    </View>
  );
}

function runColumns(wide: boolean): TableColumn<RunSummary>[] {
  return [
    {
      key: 'number',
      title: i18n.t('waves.run'),
      width: 64,
      fixed: true,
      cell: (r) => <Txt kind="strong">{r.number}</Txt>,
    },
    { key: 'callSign', title: i18n.t('waves.callSign'), width: 1, cell: (r) => <Txt lines={1}>{r.callSign}</Txt> },
    {
      key: 'state',
      title: i18n.t('waves.picker'),
      width: 1,
      cell: (r) => (
        <Txt lines={1} colour={r.picker ? 'ink' : 'quiet'}>
          {r.picker ?? i18n.t(`waves.runState.${r.state}`)}
        </Txt>
      ),
    },
    ...(wide
      ? ([
          {
            key: 'orders',
            title: i18n.t('waves.orders'),
            width: 64,
            fixed: true,
            align: 'right',
            cell: (r) => <Txt kind="number">{number(r.orders)}</Txt>,
          },
          {
            key: 'stops',
            title: i18n.t('waves.stops'),
            width: 64,
            fixed: true,
            align: 'right',
            cell: (r) => <Txt kind="number">{number(r.stops)}</Txt>,
          },
          {
            key: 'metres',
            title: i18n.t('waves.walk'),
            width: 72,
            fixed: true,
            align: 'right',
            cell: (r) => <Txt kind="number">{distance(r.metres)}</Txt>,
          },
        ] satisfies TableColumn<RunSummary>[])
      : []),
    {
      key: 'picked',
      title: i18n.t('waves.picked'),
      width: 92,
      fixed: true,
      align: 'right',
      cell: (r) => <Txt kind="number">{`${number(r.picksDone)} / ${number(r.picks)}`}</Txt>,
    },
  ];
}
