import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions } from 'react-native';
import type { TraceAnswer } from '@hand-relay/contract';
import { placesOf, useMe, useNow } from '../state/index.ts';
import { dayName, headed, moment, number } from '../text/index.ts';
import { Column, Text, WIDE, type TableColumn } from '../ui/index.ts';

type Now = TraceAnswer['now'][number];
type Shipped = TraceAnswer['shipped'][number];
type Move = TraceAnswer['moves'][number];

function To({ href, text }: { href: string; text: string }) {
  return (
    <Link href={href}>
      <Text kind="mono">{text}</Text>
    </Link>
  );
}

const OrderLink = ({ order }: { order: { id: string; number: string } | null }) =>
  order && <To href={`/desk/orders/${order.id}`} text={order.number} />;

/** Two lines of a phone's one wide column. */
const Two = ({ first, second }: { first: string; second: string }) => (
  <Column gap={0}>
    <Text lines={1}>{first}</Text>
    <Text kind="small" colour="quiet" lines={1}>
      {second}
    </Text>
  </Column>
);

const lotOf = (r: { lot: string; serial: string }) => [r.lot, r.serial].filter(Boolean).join(' · ');

/**
 * Columns of the three lists of a trace.
 *
 * @param ofPlace of a place every row names its item; of an item none does
 */
export function useTraceColumns(ofPlace: boolean): {
  now: TableColumn<Now>[];
  shipped: TableColumn<Shipped>[];
  moves: TableColumn<Move>[];
} {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const dock = placesOf(me).includes('dock');
  const units = {
    key: 'units',
    title: t('trace.units'),
    width: 72,
    fixed: true,
    align: 'right' as const,
    cell: (r: { units: number }) => <Text kind="number">{number(r.units)}</Text>,
  };
  const lot = {
    key: 'lot',
    title: t('trace.lot'),
    width: 150,
    fixed: true,
    cell: (r: Now | Shipped | Move) => (
      <Text kind="mono" lines={1}>
        {lotOf(r)}
      </Text>
    ),
  };
  const item = {
    key: 'item',
    title: t('trace.item'),
    width: 2,
    cell: (r: Now | Move) => <Text lines={1}>{r.item}</Text>,
  };
  const order = {
    key: 'order',
    title: t('trace.order'),
    width: 110,
    fixed: true,
    cell: (r: Now | Shipped | Move) => <OrderLink order={r.order} />,
  };
  const when = (instant: string) => moment(instant, me.site.timeZone, now);
  const shipment = (s: Shipped) =>
    dock ? (
      <To href={`/dock/${s.shipment.id}`} text={s.shipment.number} />
    ) : (
      <Text kind="mono">{s.shipment.number}</Text>
    );
  const kindOf = (r: Now) =>
    headed([t(`trace.kind.${r.kind}`), r.blocked && t(`find.state.${r.blocked}`)].filter(Boolean).join(', '));
  const reasonOf = (m: Move) => headed(t(`trace.reason.${m.reason}`, { defaultValue: m.reason }));
  if (!wide)
    return {
      now: [
        {
          key: 'place',
          title: t('trace.place'),
          width: 1,
          cell: (r) => (
            <Two first={r.place} second={[ofPlace ? r.item : kindOf(r), lotOf(r)].filter(Boolean).join(' · ')} />
          ),
        },
        units,
      ],
      shipped: [
        {
          key: 'customer',
          title: t('trace.customer'),
          width: 1,
          cell: (s) => <Two first={s.customer} second={[when(s.at), lotOf(s)].filter(Boolean).join(' · ')} />,
        },
        { ...order, width: 100 },
        { ...units, width: 60 },
      ],
      moves: [
        {
          key: 'from',
          title: t('trace.movement'),
          width: 1,
          cell: (m) => (
            <Two
              first={`${m.from} → ${m.to}`}
              second={[when(m.at), reasonOf(m), ofPlace ? m.item : lotOf(m)].filter(Boolean).join(' · ')}
            />
          ),
        },
        units,
      ],
    };
  return {
    now: [
      {
        key: 'place',
        title: t('trace.place'),
        width: 190,
        fixed: true,
        cell: (r) => <Text kind="mono">{r.place}</Text>,
      },
      { key: 'kind', title: t('trace.what'), width: 1, cell: (r) => <Text lines={1}>{kindOf(r)}</Text> },
      ...(ofPlace ? [item] : []),
      lot,
      {
        key: 'best',
        title: t('trace.bestBefore'),
        width: 130,
        fixed: true,
        cell: (r) => <Text>{r.bestBefore ? dayName(r.bestBefore, me.site.timeZone, now) : ''}</Text>,
      },
      order,
      units,
    ],
    shipped: [
      { key: 'at', title: t('trace.left'), width: 140, fixed: true, cell: (s) => <Text>{when(s.at)}</Text> },
      {
        key: 'customer',
        title: t('trace.customer'),
        width: 2,
        cell: (s) => <Two first={s.customer} second={s.address} />,
      },
      { key: 'reference', title: t('trace.reference'), width: 1, cell: (s) => <Text lines={1}>{s.reference}</Text> },
      order,
      { key: 'shipment', title: t('trace.shipment'), width: 130, fixed: true, cell: shipment },
      lot,
      units,
    ],
    moves: [
      { key: 'at', title: t('trace.at'), width: 140, fixed: true, cell: (m) => <Text>{when(m.at)}</Text> },
      { key: 'reason', title: t('trace.what'), width: 1, cell: (m) => <Text lines={1}>{reasonOf(m)}</Text> },
      {
        key: 'from',
        title: t('trace.from'),
        width: 1,
        cell: (m) => (
          <Text kind="mono" lines={1}>
            {m.from}
          </Text>
        ),
      },
      {
        key: 'to',
        title: t('trace.to'),
        width: 1,
        cell: (m) => (
          <Text kind="mono" lines={1}>
            {m.to}
          </Text>
        ),
      },
      ...(ofPlace ? [item] : []),
      lot,
      { key: 'person', title: t('trace.person'), width: 1, cell: (m) => <Text lines={1}>{m.person ?? ''}</Text> },
      order,
      units,
    ],
  };
}
