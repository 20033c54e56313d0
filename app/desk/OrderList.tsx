import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import { readinesses } from '@hand-relay/core/deciding/availability';
import {
  add,
  fill,
  remember,
  remembered,
  toggle,
  useAppSelector,
  useMay,
  useMe,
  useNow,
  useAppDispatch,
  words,
  useHouse,
} from '../state/index.ts';
import { dayName, number, headed } from '../text/index.ts';
import {
  DataTable,
  Empty,
  Failed,
  Button,
  Loading,
  Row,
  Text,
  useShortcuts,
  WIDE,
  type TableEntry,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ChangeSheet } from './ChangeSheet.tsx';
import { DeskTabs } from './DeskTabs.tsx';
import { ListHead } from './ListHead.tsx';
import {
  arrange,
  filtersSet,
  listingOf,
  listingWith,
  paramsOf,
  sortedBy,
  type Listed,
  type Listing,
  type Sort,
} from './listing.ts';
import { orderColumns } from './orderColumns.tsx';
import { useOrders } from './useOrders.ts';

/** Heights of a row: on a phone it has three lines. */
const HEIGHTS = { compact: 32, comfortable: 44, phone: 76 };
const ROWS = 'order-rows';

/** The list of orders: filter, sort and groups live in the address; rows are marked for release. */
export function OrderList({ open }: { open?: string | undefined }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const listing = listingOf(useGlobalSearchParams());
  const { listed, read, reading, total, trouble, compute, again } = useOrders(listing);
  const marked = useAppSelector((s) => s.tray.orders);
  const mayRelease = useMay('orders.release');
  const mayMark = [mayRelease, useMay('orders.change'), useMay('orders.cancel')].includes(true);
  const finder = useRef<TextInput>(null);
  const [current, setCurrent] = useState<string | undefined>(open);
  // Open on a wide screen, folded on a phone, until somebody wants it otherwise.
  const [filters, setFilters] = useState(false);
  const [changing, setChanging] = useState(false);
  const mayEnter = useMay('orders.change');
  const [compact, setCompact] = useState(() => remembered(ROWS) !== 'comfortable');

  const set = (change: Partial<Listing>) => router.setParams(paramsOf(listingWith(listing, change)));
  const unfolded = wide && !open;
  const key = JSON.stringify(listing);
  const arranged = useMemo(() => arrange(listed, JSON.parse(key) as Listing), [listed, key]);
  const flat = useMemo(() => arranged.flatMap((g) => g.rows), [arranged]);
  const groupTitle = (key: string) => {
    if (listing.group === 'customer') return key;
    if (listing.group === 'readiness')
      return readinesses[Number(key)] ? t(`ready.${readinesses[Number(key)]!}`) : t('orders.nothingOpen');
    return [dayName(key.slice(0, 10), me.site.timeZone, now), key.slice(11)].filter(Boolean).join(', ');
  };
  const entries = useMemo(
    () =>
      arranged.flatMap((group): TableEntry<Listed>[] => [
        ...(group.key === ''
          ? []
          : [
              {
                kind: 'group' as const,
                key: `group ${group.key}`,
                title: headed(groupTitle(group.key)),
                detail: t('orders.groupDetail', {
                  orders: t('unit.orders', { count: group.rows.length }),
                  units: t('unit.units', { count: group.units }),
                }),
              },
            ]),
        ...group.rows.map((row) => ({ kind: 'row' as const, key: row.id, row })),
      ]),
    // The title follows from what is listed already.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [arranged, listing.group, me.site.timeZone, now, t],
  );
  const chosen = useMemo(() => new Set(marked), [marked]);
  const { channelName } = useHouse();
  const most = useMemo(() => listed.reduce((n, r) => Math.max(n, r.asked), 0), [listed]);
  const columns = useMemo(
    () =>
      orderColumns({
        width: !wide ? 'phone' : open ? 'beside' : 'full',
        columns: listing.columns,
        days: !['day', 'departure'].includes(listing.group),
        now,
        timeZone: me.site.timeZone,
        channelName,
        most,
      }),
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [wide, open, key, now, me.site.timeZone, channelName, most],
  );

  const openOrder = (id: string) => {
    setCurrent(id);
    router.navigate({ pathname: `/desk/orders/${id}` as never, params: paramsOf(listing) });
  };
  const step = (by: number) => {
    const at = flat.findIndex((r) => r.id === current);
    const next = flat[Math.min(flat.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
    if (next) setCurrent(next.id);
  };
  const markShown = () => {
    const all = flat.length > 0 && flat.every((r) => chosen.has(r.id));
    send(all ? fill({ orders: [] }) : add(flat.map((r) => r.id)));
  };
  useShortcuts({
    f: () => finder.current?.focus(),
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    ' ': () => current && mayMark && send(toggle(current)),
    Enter: () => current && openOrder(current),
    c: () => mayMark && marked.length > 0 && setChanging(true),
    n: () => mayEnter && router.navigate('/desk/enter'),
    r: () => mayRelease && marked.length > 0 && router.navigate('/desk/tray'),
    F: () => setFilters(!filters),
    u: compute,
  });
  const saved = () =>
    flat.map((r) => ({
      order: r.number,
      customer: r.customer,
      class: r.customerClass,
      channel: r.channel,
      due: r.due,
      departure: r.departure ?? '',
      lines: r.lines,
      can_go: r.outlook?.readiness ?? '',
      sure_lines: r.outlook?.sureLines ?? '',
      sure_units: r.outlook?.sureUnits ?? '',
      full_by: r.outlook?.fullBy ?? '',
      asked: r.asked,
      released: r.released,
      picked: r.picked,
      packed: r.packed,
      shipped: r.shipped,
    }));

  const filtered = listing.find !== '' || filtersSet(listing) > 0 || listing.show === 'movable';
  return (
    <Page
      title={t('orders.title')}
      filled
      aside={<DeskTabs at="orders" />}
      foot={
        marked.length > 0 ? (
          <Marked
            rows={listed.filter((r) => chosen.has(r.id))}
            onChange={() => setChanging(true)}
            onRelease={mayRelease ? () => router.navigate('/desk/tray') : undefined}
          />
        ) : undefined
      }
    >
      <View style={{ flex: 1, minHeight: 0 }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <ListHead
            listing={listing}
            onChange={set}
            rows={listed}
            count={
              reading && read
                ? t('orders.loadingMore', { loaded: number(listed.length), all: number(total) })
                : t('orders.count', { shown: number(flat.length), all: number(total) })
            }
            saved={saved}
            finder={finder}
            wide={wide}
            beside={Boolean(open)}
            filters={filters !== unfolded}
            onFilters={() => setFilters(!filters)}
            compact={compact}
            onCompact={(next) => {
              remember(ROWS, next ? 'compact' : 'comfortable');
              setCompact(next);
            }}
            onCompute={compute}
          />
          {trouble && <Failed text={words(trouble)} onRetry={again} />}
          {!read && !trouble && <Loading rows={10} />}
          {read && flat.length === 0 && !reading && (
            <Empty
              title={t(total > 0 ? 'orders.noneTitle' : 'orders.emptyTitle')}
              text={t(total > 0 ? 'orders.noneText' : 'orders.emptyText')}
              {...(filtered && total > 0
                ? { action: { title: t('orders.clear'), onPress: () => set({ ...listingOf({}), show: 'open' }) } }
                : {})}
            />
          )}
          {read && flat.length > 0 && (
            <DataTable
              columns={columns}
              entries={entries}
              rowHeight={!wide ? HEIGHTS.phone : compact ? HEIGHTS.compact : HEIGHTS.comfortable}
              sort={{ key: listing.sort, down: listing.down }}
              then={listing.then.map(({ sort, down }) => ({ key: sort, down }))}
              onSort={(sort, also) => set(sortedBy(listing, sort as Sort, also))}
              current={open ?? current}
              {...(mayMark ? { chosen, onChoose: (id: string) => send(toggle(id)), onChooseAll: markShown } : {})}
              allChosen={flat.every((r) => chosen.has(r.id))}
              onOpen={(row) => openOrder(row.id)}
              hrefOf={(row) => `/desk/orders/${row.id}`}
              nameOf={(row) => `${row.number}, ${row.customer}`}
              chooseLabel={(row) => t('orders.choose', { number: row.number })}
              chooseAllLabel={t('orders.chooseAll')}
            />
          )}
        </View>
      </View>
      {changing && marked.length > 0 && (
        <ChangeSheet
          orders={marked}
          title={t('change.keyCount', { count: marked.length })}
          onClose={() => setChanging(false)}
        />
      )}
    </Page>
  );
}

function Marked({
  rows,
  onChange,
  onRelease,
}: {
  rows: Listed[];
  onChange: () => void;
  onRelease: (() => void) | undefined;
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  return (
    <Row gap={8} style={{ justifyContent: 'space-between' }}>
      <Text kind="strong" live="polite">
        {t('tray.holds', {
          orders: t('unit.orders', { count: rows.length }),
          units: t('unit.units', { count: rows.reduce((n, r) => n + r.asked - r.released, 0) }),
        })}
      </Text>
      <Row gap={8}>
        <Button title={t('tray.empty')} onPress={() => send(fill({ orders: [] }))} />
        <Button title={t('change.key')} onPress={onChange} />
        {onRelease && <Button kind="act" title={t('tray.open')} onPress={onRelease} />}
      </Row>
    </Row>
  );
}
