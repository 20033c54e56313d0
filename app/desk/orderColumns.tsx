import { View } from 'react-native';
import type { OrderRow } from '@hand-relay/contract';
import { i18n, clock, dayName, number } from '../text/index.ts';
import { Baton, Row, Signal, Txt, type TableColumn } from '../ui/index.ts';
import { batonOf } from './batonWords.ts';

function Stage({ row, now }: { row: OrderRow; now: number }) {
  const { state, label } = batonOf(row, row.leavesAt, now);
  return <Baton state={state} label={label} />;
}

function Coverage({ row }: { row: OrderRow }) {
  if (row.asked === row.released) return <Txt colour="quiet">–</Txt>;
  const text = i18n.t('orders.covered', { covered: row.coveredLines, lines: row.lines });
  return row.coveredLines === row.lines ? (
    <Txt kind="number">{text}</Txt>
  ) : (
    <Signal kind="caution" text={text} size="body" />
  );
}

/** Columns of the order list: a table when wide, fewer beside an open order, a few lines a row on a phone. */
export function orderColumns({
  width,
  days,
  now,
  timeZone,
}: {
  width: 'phone' | 'beside' | 'full';
  days: boolean;
  now: number;
  timeZone: string;
}): TableColumn<OrderRow>[] {
  const t = i18n.t.bind(i18n);
  const leaves = (row: OrderRow) => (row.leavesAt ? clock(row.leavesAt, timeZone) : '');
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
              <Txt kind="strong" lines={1}>
                {row.number}
              </Txt>
              <Txt kind="number" colour="quiet" lines={1}>
                {[row.departure, leaves(row)].filter(Boolean).join(' ')}
              </Txt>
            </View>
            <Txt lines={1}>{row.customer}</Txt>
            <Row gap={12} style={{ flexWrap: 'nowrap' }}>
              <Stage row={row} now={now} />
              <Txt kind="small" colour="quiet" lines={1}>
                {t('unit.lines', { count: row.lines })} · {t('unit.units', { count: row.asked })}
              </Txt>
            </Row>
          </View>
        ),
      },
    ];
  return [
    {
      key: 'number',
      title: t('orders.number'),
      width: 92,
      fixed: true,
      sortable: true,
      cell: (row) => (
        <Txt kind="strong" lines={1}>
          {row.number}
        </Txt>
      ),
    },
    {
      key: 'customer',
      title: t('orders.customer'),
      width: 2,
      sortable: true,
      cell: (row) => <Txt lines={1}>{row.customer}</Txt>,
    },
    ...(width === 'full'
      ? ([
          {
            key: 'class',
            title: t('orders.class'),
            width: 60,
            fixed: true,
            cell: (row) => <Txt>{row.customerClass}</Txt>,
          },
          {
            key: 'channel',
            title: t('orders.channel'),
            width: 104,
            fixed: true,
            cell: (row) => (
              <Txt colour="quiet" lines={1}>
                {t(`channel.${row.channel}`)}
              </Txt>
            ),
          },
        ] satisfies TableColumn<OrderRow>[])
      : []),
    {
      key: 'due',
      title: t('orders.departure'),
      width: 2,
      sortable: true,
      cell: (row) => (
        <Txt kind="number" lines={1}>
          {[days ? dayName(row.due, timeZone, now) : '', leaves(row), row.departure ?? t('orders.noDeparture')]
            .filter(Boolean)
            .join(' ')}
        </Txt>
      ),
    },
    {
      key: 'lines',
      title: t('orders.lines'),
      width: 52,
      fixed: true,
      align: 'right',
      sortable: true,
      cell: (row) => <Txt kind="number">{number(row.lines)}</Txt>,
    },
    {
      key: 'units',
      title: t('orders.units'),
      width: 62,
      fixed: true,
      align: 'right',
      sortable: true,
      cell: (row) => <Txt kind="number">{number(row.asked)}</Txt>,
    },
    {
      key: 'coverage',
      title: t('orders.coverage'),
      width: 92,
      fixed: true,
      align: 'right',
      sortable: true,
      cell: (row) => <Coverage row={row} />,
    },
    {
      key: 'stage',
      title: t('orders.stage'),
      width: 132,
      fixed: true,
      sortable: true,
      cell: (row) => <Stage row={row} now={now} />,
    },
  ];
}
