import { View } from 'react-native';
import type { DockRow } from '@hand-relay/contract';
import { i18n, massUnit, number, weight, whereOf } from '../text/index.ts';
import { Signal, Txt, type TableColumn } from '../ui/index.ts';

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
      <Txt kind="mono" lines={1} colour={r.tracking ? 'ink' : 'quiet'}>
        {r.tracking ?? '–'}
      </Txt>
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
              <Txt kind="strong">{r.orderNumber}</Txt>
              <State row={r} />
            </View>
            <Txt kind="small" colour="quiet" lines={1}>
              {[
                r.customer,
                r.loose ? t('unit.units', { count: r.packed }) : t('unit.cartons', { count: r.cartons }),
                r.tracking,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Txt>
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
      cell: (r) => <Txt kind="strong">{r.orderNumber}</Txt>,
    },
    { key: 'customer', title: t('dock.customer'), width: 2, cell: (r) => <Txt lines={1}>{r.customer}</Txt> },
    { key: 'lane', title: t('dock.lane'), width: 120, fixed: true, cell: (r) => <Txt lines={2}>{whereOf(r)}</Txt> },
    {
      key: 'cartons',
      title: t('dock.cartons'),
      width: 72,
      fixed: true,
      align: 'right',
      cell: (r) => <Txt kind="number">{r.loose ? '–' : number(r.cartons)}</Txt>,
    },
    {
      key: 'weight',
      title: massUnit(),
      width: 64,
      fixed: true,
      align: 'right',
      cell: (r) => <Txt kind="number">{weight(r.weightG)}</Txt>,
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
              <Txt kind="strong">{r.orderNumber}</Txt>
              <Txt>{at(r)}</Txt>
            </View>
            <Txt kind="small" colour="quiet" lines={1}>
              {[r.customer, r.tracking ?? r.number].join(' · ')}
            </Txt>
          </View>
        ),
      },
    ];
  const text = (key: string, title: string, width: number, of: (r: DockRow) => string): TableColumn<DockRow> => ({
    key,
    title,
    width,
    cell: (r) => <Txt lines={1}>{of(r)}</Txt>,
  });
  return [
    text('at', t('dock.at'), 2, at),
    { ...text('order', t('dock.order'), 92, (r) => r.orderNumber), fixed: true },
    text('customer', t('dock.customer'), 3, (r) => r.customer),
    text('carrier', t('order.carrier'), 2, (r) => r.carrier ?? '–'),
    tracking(200),
  ];
}
