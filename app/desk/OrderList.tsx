import { useGlobalSearchParams, useRouter } from 'expo-router';
import Papa from 'papaparse';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import type { OrderRow } from '@hand-relay/contract';
import { readOrders, setMarked, toggle, useFrom, useMay, useMe, useNow, useSend, words } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import {
  Choice,
  DataTable,
  Empty,
  Failed,
  Field,
  Key,
  Loading,
  Row,
  saveFile,
  Txt,
  useShortcuts,
  WIDE,
  type TableEntry,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';
import { arrange, groups, listingOf, paramsOf, shows, type Listing, type Sort } from './listing.ts';
import { orderColumns } from './orderColumns.tsx';
import { ReleaseSheet } from './ReleaseSheet.tsx';

/** The list of orders: filter, sort and groups live in the address; rows are marked for release. */
export function OrderList({ open }: { open?: string | undefined }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useSend();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const listing = listingOf(useGlobalSearchParams());
  const { rows, status, read, reading, total, trouble } = useFrom((s) => s.orderList);
  const marked = useFrom((s) => s.marked);
  const mayRelease = useMay('orders.release');
  const finder = useRef<TextInput>(null);
  const [current, setCurrent] = useState<string | undefined>(open);
  const [releasing, setReleasing] = useState(false);
  const [filters, setFilters] = useState(listing.group !== 'day' || listing.channel !== '');

  const wanted = listing.show === 'closed' ? 'closed' : 'open';
  useEffect(() => {
    if (!read || status !== wanted) void send(readOrders(wanted));
    // Read once for each status; live events keep it fresh from there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [wanted]);

  const set = (change: Partial<Listing>) => router.setParams(paramsOf({ ...listing, ...change }));
  const key = JSON.stringify(listing);
  const arranged = useMemo(() => arrange(Object.values(rows), JSON.parse(key) as Listing), [rows, key]);
  const flat = useMemo(() => arranged.flatMap((g) => g.rows), [arranged]);
  const entries = useMemo(
    () =>
      arranged.flatMap((group): TableEntry<OrderRow>[] => [
        ...(group.key === ''
          ? []
          : [
              {
                kind: 'group' as const,
                key: `group ${group.key}`,
                title: [dayName(group.key.slice(0, 10), me.site.timeZone, now), group.key.slice(11)]
                  .filter(Boolean)
                  .join(', '),
                detail: t('orders.groupDetail', {
                  orders: t('unit.orders', { count: group.rows.length }),
                  units: t('unit.units', { count: group.units }),
                }),
              },
            ]),
        ...group.rows.map((row) => ({ kind: 'row' as const, key: row.id, row })),
      ]),
    [arranged, me.site.timeZone, now, t],
  );
  const chosen = useMemo(() => new Set(marked), [marked]);
  const columns = useMemo(
    () =>
      orderColumns({
        width: !wide ? 'phone' : open ? 'beside' : 'full',
        days: listing.group === 'none',
        now,
        timeZone: me.site.timeZone,
      }),
    [wide, open, listing.group, now, me.site.timeZone],
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
    send(setMarked(all ? [] : flat.map((r) => r.id)));
  };
  useShortcuts(
    {
      '/': () => finder.current?.focus(),
      j: () => step(1),
      k: () => step(-1),
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      ' ': () => current && mayRelease && send(toggle(current)),
      Enter: () => current && openOrder(current),
      r: () => mayRelease && marked.length > 0 && setReleasing(true),
    },
    !releasing,
  );
  const save = () => {
    const data = flat.map((r) => ({
      order: r.number,
      customer: r.customer,
      class: r.customerClass,
      channel: r.channel,
      due: r.due,
      departure: r.departure ?? '',
      lines: r.lines,
      covered_lines: r.coveredLines,
      asked: r.asked,
      released: r.released,
      picked: r.picked,
      packed: r.packed,
      shipped: r.shipped,
    }));
    saveFile('orders.csv', Papa.unparse(data, { newline: '\r\n', escapeFormulae: true }), 'text/csv');
  };

  const filtered = listing.find !== '' || listing.channel !== '' || listing.show === 'movable';
  return (
    <Page
      title={t('orders.title')}
      filled
      aside={<DeskTabs at="orders" />}
      foot={
        marked.length > 0 ? (
          <Marked
            rows={marked.flatMap((id) => rows[id] ?? [])}
            onRelease={mayRelease ? () => setReleasing(true) : undefined}
          />
        ) : undefined
      }
    >
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8, gap: 8 }}>
        <Row gap={12}>
          <View style={{ flexGrow: 1, flexBasis: 200, maxWidth: 360 }}>
            <Field
              label={t('orders.find')}
              placeholder={t('orders.find')}
              bare
              value={listing.find}
              onChange={(find) => set({ find })}
              inputRef={finder}
            />
          </View>
          <Choice
            label={t('orders.show')}
            value={listing.show}
            onChange={(show) => set({ show })}
            options={shows.map((value) => ({ value, title: t(`orders.${value}`) }))}
          />
        </Row>
        <Row gap={12}>
          {(wide || filters) && (
            <>
              <Choice
                label={t('orders.group')}
                value={listing.group}
                onChange={(group) => set({ group })}
                options={groups.map((value) => ({
                  value,
                  title: t(
                    value === 'day' ? 'orders.byDay' : value === 'departure' ? 'orders.byDeparture' : 'orders.byNone',
                  ),
                }))}
              />
              <Choice
                label={t('orders.channel')}
                value={listing.channel}
                onChange={(channel) => set({ channel })}
                options={[
                  { value: '', title: t('orders.anyChannel') },
                  ...(['web', 'account', 'field'] as const).map((value) => ({ value, title: t(`channel.${value}`) })),
                ]}
              />
            </>
          )}
          <Txt kind="small" colour="quiet" live="polite" style={{ flexGrow: 1 }}>
            {reading && read
              ? t('orders.loadingMore', { loaded: number(Object.keys(rows).length), all: number(total) })
              : t('orders.count', { shown: number(flat.length), all: number(total) })}
          </Txt>
          {!wide && (
            <Key
              title={t('orders.filter')}
              icon="filter-variant"
              size="small"
              pressed={filters}
              onPress={() => setFilters(!filters)}
            />
          )}
          <Key
            title={t('orders.export')}
            icon="download"
            iconOnly
            size="small"
            onPress={save}
            disabled={flat.length === 0}
          />
        </Row>
      </View>
      {trouble && <Failed text={words(trouble)} onRetry={() => void send(readOrders(wanted))} />}
      {!read && !trouble && <Loading rows={10} />}
      {read && flat.length === 0 && !reading && (
        <Empty
          title={t(total > 0 ? 'orders.noneTitle' : 'orders.emptyTitle')}
          text={t(total > 0 ? 'orders.noneText' : 'orders.emptyText')}
          {...(filtered && total > 0
            ? { action: { title: t('orders.clear'), onPress: () => set({ find: '', channel: '', show: 'open' }) } }
            : {})}
        />
      )}
      {read && flat.length > 0 && (
        <DataTable
          columns={columns}
          entries={entries}
          rowHeight={wide ? 44 : 76}
          sort={{ key: listing.sort, down: listing.down }}
          onSort={(sort) => set({ sort: sort as Sort, down: listing.sort === sort ? !listing.down : false })}
          current={open ?? current}
          {...(mayRelease ? { chosen, onChoose: (id: string) => send(toggle(id)), onChooseAll: markShown } : {})}
          allChosen={flat.every((r) => chosen.has(r.id))}
          onOpen={(row) => openOrder(row.id)}
          nameOf={(row) => `${row.number}, ${row.customer}`}
          chooseLabel={(row) => t('orders.choose', { number: row.number })}
          chooseAllLabel={t('orders.chooseAll')}
        />
      )}
      {releasing && <ReleaseSheet orders={marked} onClose={() => setReleasing(false)} />}
    </Page>
  );
}

function Marked({ rows, onRelease }: { rows: OrderRow[]; onRelease: (() => void) | undefined }) {
  const { t } = useTranslation();
  const send = useSend();
  return (
    <Row gap={8} style={{ justifyContent: 'space-between' }}>
      <Txt kind="strong" live="polite">
        {t('orders.chosen', {
          orders: t('unit.orders', { count: rows.length }),
          units: t('unit.units', { count: rows.reduce((n, r) => n + r.asked - r.released, 0) }),
        })}
      </Txt>
      <Row gap={8}>
        <Key title={t('orders.unmark')} onPress={() => send(setMarked([]))} />
        {onRelease && <Key kind="act" title={t('orders.preview')} onPress={onRelease} />}
      </Row>
    </Row>
  );
}
