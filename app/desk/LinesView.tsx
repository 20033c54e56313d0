import { Link, useGlobalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import type { DeskLine } from '@hand-relay/contract';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { clock, dayName, headed, number } from '../text/index.ts';
import {
  Column,
  DataTable,
  Empty,
  Failed,
  Field,
  Loading,
  Row,
  Shape,
  Signal,
  Text,
  useSettled,
  useShortcuts,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { LineActs } from './LineActs.tsx';
import { lineEntries, lineFromRow, lineSorts, shownLines, type LineSort } from './lines.ts';
import { ListExport } from './ListExport.tsx';
import { listingOf, paramsOf, viewOf, type Listing } from './listing.ts';
import { OrderFilters } from './OrderFilters.tsx';

/** Open lines of the orders in view, a row each: found, sorted, reserved and released line by line. */
export function LinesView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const params = useGlobalSearchParams<Record<string, string>>();
  const listing = listingOf(params);
  const sort: LineSort = lineSorts.find((s) => s === params['by']) ?? 'departure';
  const down = params['backwards'] === '1';
  const find = useSettled(listing.find);
  const { currentData, data: last, error, refetch } = api.useDeskLinesQuery(viewOf(listing));
  const data = currentData ?? last;
  const all = useMemo(() => (data?.rows ?? []).map(lineFromRow), [data]);
  const lines = useMemo(() => shownLines(all, { find, sort, down }), [all, find, sort, down]);
  const entries = useMemo(
    () =>
      lineEntries(lines, sort, ({ open, free, orders }) =>
        t('lines.group', { open: number(open), free: number(free), orders: t('unit.orders', { count: orders }) }),
      ),
    [lines, sort, t],
  );
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(0);
  const finder = useRef<TextInput>(null);
  const columns = useLineColumns();
  const chosen = lines.filter((l) => marked.has(l.id));
  const current = lines[Math.min(at, lines.length - 1)];
  const change = (next: Partial<Listing>) => router.setParams(paramsOf({ ...listing, ...next }));
  const back = () => router.navigate({ pathname: '/desk', params: paramsOf(listing) });
  const toggle = (id: string) =>
    setMarked((before) => new Set(before.has(id) ? [...before].filter((m) => m !== id) : [...before, id]));
  const whole = lines.length > 0 && lines.every((l) => marked.has(l.id));
  const step = (by: number) => setAt((i) => Math.max(0, Math.min(lines.length - 1, i + by)));
  useShortcuts({
    Escape: () => (marked.size > 0 ? setMarked(new Set()) : back()),
    f: () => finder.current?.focus(),
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    ' ': () => current && toggle(current.id),
    Enter: () => current && router.navigate(`/desk/orders/${current.order}`),
  });
  const edge = wide ? 20 : 12;
  return (
    <Page
      title={t('lines.title')}
      onBack={back}
      filled
      aside={
        <Row gap={8}>
          {data && (
            <Text kind="small" colour="quiet" live="polite">
              {t('unit.lines', { count: lines.length })}
            </Text>
          )}
          {lines.length > 0 && <ListExport name="lines" rows={() => lines.map(fileRow)} />}
        </Row>
      }
      foot={chosen.length > 0 && <LineActs chosen={chosen} all={all} onDone={() => setMarked(new Set())} />}
    >
      <View style={{ paddingHorizontal: edge, gap: 8, paddingBottom: 8 }}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'center' }}>
          <View style={{ width: wide ? 260 : '100%' }}>
            <Field
              bare
              inputRef={finder}
              label={t('lines.find')}
              placeholder={t('lines.find')}
              value={listing.find}
              onChange={(text) => router.setParams({ find: text })}
            />
          </View>
          {wide && <OrderFilters listing={listing} onChange={change} />}
        </View>
        {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
        {!data && !error && <Loading rows={8} />}
        {data?.more && <Signal kind="caution" text={t('lines.more')} />}
        {data && lines.length === 0 && <Empty title={t('lines.noneTitle')} text={t('lines.noneText')} />}
      </View>
      {lines.length > 0 && (
        <DataTable
          columns={columns}
          entries={entries}
          rowHeight={wide ? 36 : 64}
          sort={{ key: sort, down }}
          onSort={(key) => router.setParams({ by: key, backwards: key === sort && !down ? '1' : '0' })}
          current={current?.id}
          chosen={marked}
          onChoose={toggle}
          onChooseAll={() => setMarked(whole ? new Set() : new Set(lines.map((l) => l.id)))}
          allChosen={whole}
          onOpen={(l) => router.navigate(`/desk/orders/${l.order}`)}
          hrefOf={(l) => `/desk/orders/${l.order}`}
          nameOf={(l) => `${l.number} ${l.name}`}
          chooseLabel={(l) => t('lines.mark', { order: l.number, line: l.line })}
          chooseAllLabel={t('lines.markAll')}
        />
      )}
    </Page>
  );
}

function useLineColumns(): TableColumn<DeskLine>[] {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const when = (l: DeskLine) =>
    [headed(dayName(l.due, me.site.timeZone, now)), l.leavesAt && clock(l.leavesAt, me.site.timeZone)]
      .filter(Boolean)
      .join(' ');
  const figure = { fixed: true, align: 'right' as const, sortable: true };
  const open: TableColumn<DeskLine> = {
    key: 'open',
    title: t('lines.open'),
    width: 72,
    ...figure,
    cell: (l) => <Text kind="number">{number(l.open)}</Text>,
  };
  if (!wide)
    return [
      {
        key: 'item',
        title: t('lines.line'),
        width: 1,
        sortable: true,
        cell: (l) => (
          <Column gap={0}>
            <Text lines={1}>{l.name}</Text>
            <Text kind="small" colour="quiet" lines={1}>
              {[l.number, l.customer, when(l)].join(' · ')}
            </Text>
          </Column>
        ),
      },
      open,
    ];
  return [
    {
      key: 'order',
      title: t('lines.order'),
      width: 104,
      fixed: true,
      sortable: true,
      cell: (l) => (
        <Link href={`/desk/orders/${l.order}`}>
          <Text kind="strong">{l.number}</Text>
        </Link>
      ),
    },
    {
      key: 'customer',
      title: t('lines.customer'),
      width: 2,
      sortable: true,
      cell: (l) => <Text lines={1}>{l.customer}</Text>,
    },
    {
      key: 'class',
      title: t('lines.class'),
      width: 56,
      fixed: true,
      sortable: true,
      cell: (l) => <Text>{l.class}</Text>,
    },
    {
      key: 'departure',
      title: t('lines.departure'),
      width: 250,
      fixed: true,
      sortable: true,
      cell: (l) => <Text lines={1}>{[when(l), l.departure].filter(Boolean).join(' ')}</Text>,
    },
    {
      key: 'item',
      title: t('lines.item'),
      width: 3,
      sortable: true,
      cell: (l) => (
        <Link href={`/desk/items/${l.item}`}>
          <Text lines={1}>
            {l.held !== '' && <Shape kind="caution" size={12} />} {l.name}
          </Text>
        </Link>
      ),
    },
    open,
    {
      key: 'reserved',
      title: t('lines.reserved'),
      width: 84,
      ...figure,
      cell: (l) => (
        <Text kind="number" colour={l.reserved === 0 ? 'quiet' : 'ink'}>
          {number(l.reserved)}
        </Text>
      ),
    },
    {
      key: 'free',
      title: t('lines.free'),
      width: 72,
      ...figure,
      cell: (l) => (
        <Text kind="number" colour={l.free + l.reserved < l.open ? 'caution' : 'quiet'}>
          {number(l.free)}
        </Text>
      ),
    },
  ];
}

const fileRow = (l: DeskLine): Record<string, string | number> => ({
  order: l.number,
  line: l.line,
  customer: l.customer,
  class: l.class,
  due: l.due,
  departure: l.departure ?? '',
  leaves_at: l.leavesAt ?? '',
  priority: l.priority,
  item: l.sku,
  name: l.name,
  open: l.open,
  reserved: l.reserved,
  free: l.free,
  held: l.held,
});
