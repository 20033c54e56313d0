import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { ShortItem } from '@hand-relay/contract';
import { useAppSelector, useMe, useNow, useAppDispatch, readOutlook } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import {
  DataTable,
  Empty,
  Field,
  Button,
  Loading,
  Row,
  Text,
  useShortcuts,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';
import { Freshness } from './Freshness.tsx';
import { ListExport } from './ListExport.tsx';
import { listingOf, paramsOf, viewOf } from './listing.ts';
import { SupplyBar } from './SupplyBar.tsx';
import { useOrders } from './useOrders.ts';

/** Pixels of the bar of an item. */
const BAR = 240;

type Sort = 'sku' | 'asked' | 'free' | 'missing' | 'orders';
const by: Record<Sort, (a: ShortItem, b: ShortItem) => number> = {
  sku: (a, b) => (a.sku < b.sku ? -1 : 1),
  asked: (a, b) => a.asked - b.asked,
  free: (a, b) => a.free - b.free,
  missing: (a, b) => a.asked - a.served - (b.asked - b.served),
  orders: (a, b) => a.orders - b.orders,
};

/** Items of which open orders ask more than there is: where somebody must choose. */
export function ItemsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const listing = listingOf(useGlobalSearchParams());
  const { outlook } = useOrders({ ...listing, show: 'open' });
  const changed = useAppSelector((s) => s.outlook.at);
  const [find, setFind] = useState('');
  const [sort, setSort] = useState<{ key: Sort; down: boolean }>({ key: 'missing', down: true });
  const [current, setCurrent] = useState<string>();
  const rows = useMemo(() => {
    const wanted = find.trim().toLowerCase();
    const found = outlook.short.filter((i) => !wanted || `${i.sku} ${i.name}`.toLowerCase().includes(wanted));
    return found.sort((a, b) => (sort.down ? -1 : 1) * by[sort.key](a, b));
  }, [outlook.short, find, sort]);
  const open = (id: string) =>
    router.navigate({ pathname: `/desk/items/${encodeURIComponent(id)}` as never, params: paramsOf(listing) });
  const step = (n: number) => {
    const at = rows.findIndex((r) => r.id === current);
    setCurrent(rows[Math.min(rows.length - 1, Math.max(0, at < 0 ? 0 : at + n))]?.id);
  };
  useShortcuts({
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    Enter: () => current && open(current),
    Escape: () => router.navigate('/desk'),
  });
  const next = (i: ShortItem) =>
    i.expected[0] ? `${dayName(i.expected[0].date, me.site.timeZone, now)}: ${number(i.expected[0].units)}` : '–';
  const figure = (key: Sort, width: number, of: (i: ShortItem) => string): TableColumn<ShortItem> => ({
    key,
    title: t(`items.${key}`),
    width,
    fixed: true,
    align: 'right',
    sortable: true,
    cell: (i) => <Text kind="number">{of(i)}</Text>,
  });
  const bar: TableColumn<ShortItem> = {
    key: 'bar',
    title: t('items.supplyBar'),
    width: 252,
    fixed: true,
    cell: (i) => (
      <SupplyBar
        asked={i.asked}
        served={i.served}
        width={BAR}
        label={t('items.supplyBarLabel', { served: number(i.served), asked: number(i.asked), next: next(i) })}
        next={i.expected[0] ? { units: i.expected[0].units, day: next(i) } : null}
      />
    ),
  };
  const missing = figure('missing', 84, (i) => number(i.asked - i.served));
  const columns: TableColumn<ShortItem>[] = [
    {
      key: 'sku',
      title: t('items.sku'),
      width: 2,
      sortable: true,
      cell: (i) => (
        <View style={{ minWidth: 0, maxWidth: '100%' }}>
          <Text kind="strong" lines={1}>
            {i.name}
          </Text>
          <Text kind="small" colour="quiet" lines={1}>
            {wide ? i.sku : `${i.sku} · ${t('items.ofAsked', { free: number(i.free), asked: number(i.asked) })}`}
          </Text>
        </View>
      ),
    },
    ...(wide
      ? [
          figure('orders', 76, (i) => number(i.orders)),
          figure('asked', 84, (i) => number(i.asked)),
          figure('free', 84, (i) => number(i.free)),
          missing,
          bar,
        ]
      : [missing]),
  ];
  return (
    <Page title={t('items.title')} filled aside={<DeskTabs at="items" />}>
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8, gap: 8 }}>
        <Row gap={12}>
          <View style={{ flexGrow: 1, flexBasis: 200, maxWidth: 360 }}>
            <Field bare label={t('items.find')} placeholder={t('items.find')} value={find} onChange={setFind} />
          </View>
          <Button
            title={t('items.compare')}
            onPress={() => router.navigate({ pathname: '/desk/choose', params: paramsOf(listing) })}
          />
        </Row>
        <Row gap={12} style={{ justifyContent: 'space-between' }}>
          <Freshness onCompute={() => void send(readOutlook(viewOf(listing)))} />
          {wide && (
            <ListExport
              name="short-items"
              rows={() =>
                rows.map((i) => ({
                  item: i.sku,
                  name: i.name,
                  orders: i.orders,
                  lines: i.lines,
                  asked: i.asked,
                  free: i.free,
                  missing: i.asked - i.served,
                  next_supply: i.expected[0]?.date ?? '',
                  next_units: i.expected[0]?.units ?? '',
                }))
              }
            />
          )}
        </Row>
      </View>
      {!changed && <Loading rows={6} />}
      {changed && rows.length === 0 && <Empty title={t('items.noneTitle')} text={t('items.noneText')} />}
      {rows.length > 0 && (
        <DataTable
          columns={columns}
          entries={rows.map((row) => ({ kind: 'row' as const, key: row.id, row }))}
          rowHeight={56}
          sort={sort}
          onSort={(key) => setSort({ key: key as Sort, down: sort.key === key ? !sort.down : key !== 'sku' })}
          current={current}
          onOpen={(row) => open(row.id)}
          hrefOf={(row) => `/desk/items/${encodeURIComponent(row.id)}`}
          nameOf={(row) => `${row.sku}, ${row.name}`}
        />
      )}
    </Page>
  );
}
