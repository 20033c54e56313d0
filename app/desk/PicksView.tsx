import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { pickFlaws, type PickedRow, type PickFlaw } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { dayName, duration, headed, number } from '../text/index.ts';
import {
  Choice,
  DataTable,
  DayField,
  Drop,
  Empty,
  Facts,
  Failed,
  Field,
  Loading,
  Signal,
  useSettled,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ListExport } from './ListExport.tsx';
import { pickSorts, sortedPicks, sumsOfPicks, type PickSort } from './picks.ts';
import { usePickColumns } from './pickColumns.tsx';

type Params = Partial<Record<'from' | 'until' | 'find' | 'only' | 'sort' | 'down', string>>;

/** Picks of a day or several across orders: who picked what where, how long it took and what went wrong. */
export function PicksView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const params = useLocalSearchParams<Params>();
  const set = (change: Params) => router.setParams(change);
  const today = localDate(now, me.site.timeZone);
  const from = params.from ?? today;
  const until = params.until && params.until >= from ? params.until : from;
  const find = useSettled(params.find ?? '');
  const only = pickFlaws.find((f) => f === params.only);
  const sort: PickSort = pickSorts.find((s) => s === params.sort) ?? 'at';
  const down = params.down ? params.down === '1' : sort === 'at';
  const {
    currentData: found,
    data: last,
    error,
    refetch,
  } = api.usePicksQuery({ from, until, ...(find ? { find } : {}), ...(only ? { only } : {}) });
  const shown = found ?? last;
  const rows = useMemo(() => sortedPicks(shown?.picks ?? [], { sort, down }), [shown, sort, down]);
  const columns = usePickColumns(from !== until);
  const edge = wide ? 20 : 12;
  useShortcuts({ Escape: () => router.navigate('/waves') });
  const days =
    from === until
      ? dayName(from, me.site.timeZone, now)
      : `${dayName(from, me.site.timeZone, now)} – ${dayName(until, me.site.timeZone, now)}`;
  return (
    <Page title={t('picks.title')} onBack={() => router.navigate('/waves')} filled>
      <View style={{ paddingHorizontal: edge, gap: 12 }}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'center' }}>
          <View style={{ width: wide ? 260 : '100%' }}>
            <Field
              bare
              label={t('picks.find')}
              placeholder={t('picks.find')}
              value={params.find ?? ''}
              onChange={(text) => set({ find: text })}
            />
          </View>
          <Drop label={t('picks.days')} title={headed(days)} set={from !== today || until !== today}>
            <View style={{ gap: 12 }}>
              <DayField label={t('picks.from')} value={from} onChange={(day) => set({ from: day || today })} />
              <DayField label={t('picks.until')} value={until} onChange={(day) => set({ until: day || from })} />
            </View>
          </Drop>
          <Choice
            bare
            label={t('picks.only')}
            value={only ?? 'all'}
            options={(['all', ...pickFlaws] as const).map((value) => ({ value, title: t(`picks.which.${value}`) }))}
            onChange={(value: PickFlaw | 'all') => set({ only: value === 'all' ? '' : value })}
          />
          <View style={{ flex: 1 }} />
          {rows.length > 0 && <ListExport name={`picks-${from}`} rows={() => rows.map(fileRow)} />}
        </View>
        {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
        {!shown && !error && <Loading rows={6} />}
        {shown && rows.length > 0 && <Sums picks={rows} />}
        {shown && shown.total > rows.length && (
          <Signal kind="caution" text={t('picks.more', { shown: number(rows.length), total: number(shown.total) })} />
        )}
        {shown && rows.length === 0 && <Empty title={t('picks.noneTitle')} text={t('picks.noneText')} />}
      </View>
      {rows.length > 0 && (
        <DataTable
          columns={columns}
          entries={rows.map((row) => ({ kind: 'row', key: row.id, row }))}
          rowHeight={wide ? 40 : 64}
          sort={{ key: sort, down }}
          onSort={(key) => set({ sort: key, down: key === sort ? (down ? '0' : '1') : key === 'at' ? '1' : '0' })}
          nameOf={(r) => `${r.bin} ${r.item.name}`}
          onOpen={(r) => router.navigate(`/desk/orders/${r.order.id}`)}
          hrefOf={(r) => `/desk/orders/${r.order.id}`}
        />
      )}
    </Page>
  );
}

function Sums({ picks }: { picks: readonly PickedRow[] }) {
  const { t } = useTranslation();
  const wide = useWindowDimensions().width >= WIDE;
  const { units, short, refused, seconds, expected, people } = sumsOfPicks(picks);
  return (
    <Facts
      min={wide ? 88 : 64}
      facts={[
        { name: t('picks.title'), value: number(picks.length) },
        { name: t('picks.units'), value: number(units) },
        ...(wide ? [{ name: t('picks.people'), value: number(people) }] : []),
        { name: t('picks.which.short'), value: number(short) },
        { name: t('picks.refused'), value: number(refused) },
        ...(seconds > 0 && wide
          ? [
              { name: t('picks.actual'), value: duration(seconds) },
              { name: t('picks.expected'), value: duration(expected) },
              { name: t('picks.perHour'), value: number(Math.round((3600 * picks.length) / seconds)) },
            ]
          : []),
      ]}
    />
  );
}

/** A pick as a file has it: instants as the standard writes them, seconds as whole numbers. */
const fileRow = (r: PickedRow): Record<string, string | number> => ({
  at: r.at,
  person: r.person,
  run: r.run.number,
  order: r.order.number,
  bin: r.bin,
  item: r.item.sku,
  name: r.item.name,
  lot: r.lot,
  units: r.picked,
  asked: r.asked,
  touched: r.touched.join(' '),
  seconds: r.seconds === null ? '' : Math.round(r.seconds),
  expected_seconds: Math.round(r.expected),
  refused_scans: r.refused,
});
