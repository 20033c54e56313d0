import { View } from 'react-native';
import type { OrderRow } from '@hand-relay/contract';
import { i18n, clock, dayName, number } from '../text/index.ts';
import { Baton, Row, Text, useSurface, type TableColumn } from '../ui/index.ts';
import { batonOf } from './batonWords.ts';
import { shareOf, type ColumnName, type Listed, type Sort } from './listing.ts';
import { ReadyMark } from './ReadyMark.tsx';

function Stage({ row, now }: { row: OrderRow; now: number }) {
  const { state, label } = batonOf(row, row.leavesAt, now);
  return <Baton state={state} label={label} />;
}

function Ready({ row, now, timeZone }: { row: Listed; now: number; timeZone: string }) {
  const changed = row.changed ? <Text kind="small">{i18n.t('orders.changedMark')}</Text> : null;
  if (row.asked === row.released) return changed ?? <Text colour="quiet">–</Text>;
  return (
    <Row gap={6} style={{ flexWrap: 'nowrap' }}>
      {row.outlook ? (
        <ReadyMark row={row.outlook} now={now} timeZone={timeZone} />
      ) : (
        <Text kind="number" colour="quiet">
          {i18n.t('orders.covered', { covered: row.coveredLines, lines: row.lines })}
        </Text>
      )}
      {changed}
    </Row>
  );
}

/** How large an order is beside the largest of the list. */
function UnitBar({ share }: { share: number }) {
  const surface = useSurface();
  return (
    <View style={{ position: 'absolute', left: 0, right: 0, bottom: -4, alignItems: 'flex-end' }}>
      <View style={{ width: `${Math.max(2, Math.round(share * 100))}%`, height: 3, backgroundColor: surface.line }} />
    </View>
  );
}

/** Columns of the order list: a table when wide, fewer beside an open order, a few lines a row on a phone. */
export function orderColumns({
  width,
  columns,
  days,
  now,
  timeZone,
  channelName,
  most = 0,
}: {
  width: 'phone' | 'beside' | 'full';
  columns: readonly ColumnName[];
  days: boolean;
  now: number;
  timeZone: string;
  channelName: (code: string) => string;
  /** Units of the largest order that is listed: its bar is full. */
  most?: number;
}): TableColumn<Listed>[] {
  const t = i18n.t.bind(i18n);
  const leaves = (row: Listed) => (row.leavesAt ? clock(row.leavesAt, timeZone) : '');
  if (width === 'phone')
    return [
      {
        key: 'number',
        title: t('orders.number'),
        width: 1,
        sortable: true,
        cell: (row) => (
          <View style={{ alignSelf: 'stretch', gap: 4 }}>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
              <Text kind="strong" lines={1}>
                {row.number}
              </Text>
              <Text kind="number" colour="quiet" lines={1}>
                {[row.departure, leaves(row)].filter(Boolean).join(' ')}
              </Text>
            </View>
            <Text lines={1}>{row.customer}</Text>
            <Row gap={12} style={{ flexWrap: 'nowrap' }}>
              <Stage row={row} now={now} />
              {row.outlook ? (
                <ReadyMark row={row.outlook} now={now} timeZone={timeZone} />
              ) : (
                <Text kind="small" colour="quiet" lines={1}>
                  {t('unit.lines', { count: row.lines })} · {t('unit.units', { count: row.asked })}
                </Text>
              )}
            </Row>
          </View>
        ),
      },
    ];
  const figure = (
    key: ColumnName,
    wide: number,
    title: string,
    of: (row: Listed) => number | null,
  ): TableColumn<Listed> => ({
    key,
    title,
    width: wide,
    fixed: true,
    align: 'right',
    sortable: true,
    cell: (row) => {
      const value = of(row);
      return <Text kind="number">{value === null ? '–' : number(value)}</Text>;
    },
  });
  const words = (key: ColumnName & Sort, wide: number, of: (row: Listed) => string | null): TableColumn<Listed> => ({
    key,
    title: t(`orders.column.${key}`),
    width: wide,
    sortable: true,
    cell: (row) => <Text lines={1}>{of(row) ?? ''}</Text>,
  });
  const all: Record<ColumnName, TableColumn<Listed>> = {
    class: {
      key: 'class',
      title: t('orders.class'),
      width: 62,
      fixed: true,
      sortable: true,
      cell: (row) => <Text>{row.customerClass}</Text>,
    },
    channel: {
      key: 'channel',
      title: t('orders.channel'),
      width: 104,
      fixed: true,
      sortable: true,
      cell: (row) => (
        <Text colour="quiet" lines={1}>
          {channelName(row.channel)}
        </Text>
      ),
    },
    kind: {
      key: 'kind',
      title: t('enter.kind'),
      width: 112,
      fixed: true,
      cell: (row) => <Text lines={1}>{t(`enter.kinds.${row.kind}`)}</Text>,
    },
    reference: words('reference', 1, (row) => row.reference),
    city: words('city', 1, (row) => row.city),
    carrier: words('carrier', 1, (row) => row.carrier),
    service: words('service', 1, (row) => row.service),
    lane: words('lane', 1, (row) => row.lane),
    waves: words('waves', 1, (row) => row.waves),
    pickers: words('pickers', 2, (row) => row.pickers),
    runs: {
      key: 'runs',
      title: t('orders.column.runs'),
      width: 1,
      cell: (row) => <Text lines={1}>{row.runs}</Text>,
    },
    priority: figure('priority', 62, t('order.priority'), (row) => row.priority),
    reserved: figure('reserved', 76, t('order.reserved'), (row) => row.reserved),
    worth: figure('worth', 92, t('orders.column.worth'), (row) => Math.round(row.value / 100)),
    share: figure('share', 76, t('orders.column.share'), shareOf),
    due: {
      key: 'due',
      title: t('orders.departure'),
      width: 2,
      sortable: true,
      cell: (row) => (
        <Text kind="number" lines={1}>
          {[days ? dayName(row.due, timeZone, now) : '', leaves(row), row.departure ?? t('orders.noDeparture')]
            .filter(Boolean)
            .join(' ')}
        </Text>
      ),
    },
    lines: figure('lines', 50, t('orders.lines'), (row) => row.lines),
    units: {
      ...figure('units', 62, t('orders.units'), (row) => row.asked),
      cell: (row) => (
        <View style={{ alignSelf: 'stretch' }}>
          <Text kind="number" style={{ textAlign: 'right' }}>
            {number(row.asked)}
          </Text>
          <UnitBar share={row.asked / Math.max(1, most)} />
        </View>
      ),
    },
    value: figure('value', 92, t('orders.value'), (row) =>
      row.outlook ? Math.round(row.outlook.sureValue / 100) : null,
    ),
    ready: {
      key: 'ready',
      title: t('orders.ready'),
      width: 122,
      fixed: true,
      sortable: true,
      cell: (row) => <Ready row={row} now={now} timeZone={timeZone} />,
    },
    tags: {
      key: 'tags',
      title: t('order.tags'),
      width: 1,
      cell: (row) => (
        <Text kind="small" lines={1}>
          {row.tags}
        </Text>
      ),
    },
    stage: {
      key: 'stage',
      title: t('orders.stage'),
      width: 132,
      fixed: true,
      sortable: true,
      cell: (row) => <Stage row={row} now={now} />,
    },
  };
  // Beside an open order there is room for the weightiest alone.
  const shown = width === 'full' ? columns : columns.filter((c) => ['due', 'ready', 'stage'].includes(c));
  return [
    {
      key: 'number',
      title: t('orders.number'),
      width: 86,
      fixed: true,
      sortable: true,
      cell: (row) => (
        <Text kind="strong" lines={1}>
          {row.number}
        </Text>
      ),
    },
    {
      key: 'customer',
      title: t('orders.customer'),
      width: 2,
      sortable: true,
      cell: (row) => <Text lines={1}>{row.customer}</Text>,
    },
    ...shown.map((name) => all[name]),
  ];
}
