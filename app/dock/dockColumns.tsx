import { View } from 'react-native';
import type { DockRow } from '@hand-relay/contract';
import { i18n, massUnit, number, weight, whereOf } from '../text/index.ts';
import { Signal, Text, type TableColumn } from '../ui/index.ts';

/** Whether a shipment could be confirmed but for its tracking number. */
function ready(row: DockRow): boolean {
  return (
    row.openCartons === 0 && (row.loose || row.cartons > 0) && row.packed === row.picked && row.released === row.picked
  );
}

function State({ row }: { row: DockRow }) {
  if (row.carrierMissing && ready(row)) return <Signal kind="caution" text={i18n.t('dock.carrierMissing')} />;
  if (row.openCartons > 0) return <Signal kind="quiet" text={i18n.t('dock.openAtBench')} />;
  return ready(row) ? (
    <Signal kind="done" text={i18n.t('dock.ready')} />
  ) : (
    <Signal kind="caution" text={i18n.t('dock.waits')} />
  );
}

function tracking(width: number): TableColumn<DockRow> {
  return {
    key: 'tracking',
    title: i18n.t('dock.tracking'),
    width,
    fixed: true,
    cell: (r) => (
      <Text kind="mono" lines={1} colour={r.tracking ? 'ink' : 'quiet'}>
        {r.tracking ?? '–'}
      </Text>
    ),
  };
}

/** Columns of what stands at the dock. */
export function dockColumns(wide: boolean): TableColumn<DockRow>[] {
  const t = i18n.t.bind(i18n);
  if (!wide)
    return [
      {
        key: 'order',
        title: t('dock.order'),
        width: 1,
        cell: (r) => (
          <View style={{ alignSelf: 'stretch', gap: 2 }}>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
              <Text kind="strong">{r.orderNumber}</Text>
              <State row={r} />
            </View>
            <Text kind="small" colour="quiet" lines={1}>
              {[
                r.customer,
                r.loose ? t('unit.units', { count: r.packed }) : t('unit.cartons', { count: r.cartons }),
                r.tracking,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Text>
          </View>
        ),
      },
    ];
  return [
    {
      key: 'order',
      title: t('dock.order'),
      width: 92,
      fixed: true,
      cell: (r) => <Text kind="strong">{r.orderNumber}</Text>,
    },
    { key: 'customer', title: t('dock.customer'), width: 2, cell: (r) => <Text lines={1}>{r.customer}</Text> },
    { key: 'lane', title: t('dock.lane'), width: 120, fixed: true, cell: (r) => <Text lines={2}>{whereOf(r)}</Text> },
    {
      key: 'cartons',
      title: t('dock.cartons'),
      width: 72,
      fixed: true,
      align: 'right',
      cell: (r) => <Text kind="number">{r.loose ? '–' : number(r.cartons)}</Text>,
    },
    {
      key: 'weight',
      title: massUnit(),
      width: 64,
      fixed: true,
      align: 'right',
      cell: (r) => <Text kind="number">{weight(r.weightG)}</Text>,
    },
    tracking(128),
    { key: 'state', title: t('orders.stage'), width: 140, fixed: true, cell: (r) => <State row={r} /> },
  ];
}

/** Columns of what left: when, and under which number. */
export function leftColumns(wide: boolean, when: (at: string) => string): TableColumn<DockRow>[] {
  const t = i18n.t.bind(i18n);
  const at = (r: DockRow) => (r.confirmedAt ? when(r.confirmedAt) : '–');
  if (!wide)
    return [
      {
        key: 'order',
        title: t('dock.order'),
        width: 1,
        cell: (r) => (
          <View style={{ alignSelf: 'stretch', gap: 2 }}>
            <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
              <Text kind="strong">{r.orderNumber}</Text>
              <Text>{at(r)}</Text>
            </View>
            <Text kind="small" colour="quiet" lines={1}>
              {[r.customer, r.tracking ?? r.number].join(' · ')}
            </Text>
          </View>
        ),
      },
    ];
  const text = (key: string, title: string, width: number, of: (r: DockRow) => string): TableColumn<DockRow> => ({
    key,
    title,
    width,
    cell: (r) => <Text lines={1}>{of(r)}</Text>,
  });
  return [
    text('at', t('dock.at'), 2, at),
    { ...text('order', t('dock.order'), 92, (r) => r.orderNumber), fixed: true },
    text('customer', t('dock.customer'), 3, (r) => r.customer),
    text('carrier', t('order.carrier'), 2, (r) => r.carrier ?? '–'),
    tracking(200),
  ];
}
