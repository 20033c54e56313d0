import { View } from 'react-native';
import type { IntakeResult } from '@hand-relay/contract';
import { i18n, number } from '../text/index.ts';
import { DataTable, Signal, Text, type TableColumn } from '../ui/index.ts';

/** Orders of a file, each with what importing it would do. */
export function FoundOrders({ orders }: { orders: IntakeResult['orders'] }) {
  if (orders.length === 0) return null;
  return (
    <View style={{ height: Math.min(460, 44 + orders.length * 44) }}>
      <DataTable
        columns={orderColumns()}
        entries={orders.map((row) => ({ kind: 'row', key: row.number, row }))}
        nameOf={(o) => o.number}
      />
    </View>
  );
}

function orderColumns(): TableColumn<IntakeResult['orders'][number]>[] {
  const t = i18n.t.bind(i18n);
  return [
    {
      key: 'number',
      title: t('intake.order'),
      width: 1,
      cell: (o) => (
        <Text kind="strong" lines={1}>
          {o.number}
        </Text>
      ),
    },
    { key: 'customer', title: t('orders.customer'), width: 1, cell: (o) => <Text lines={1}>{o.customer}</Text> },
    {
      key: 'lines',
      title: t('intake.lines'),
      width: 60,
      fixed: true,
      align: 'right',
      cell: (o) => <Text kind="number">{number(o.lines)}</Text>,
    },
    {
      key: 'outcome',
      title: t('intake.outcomeTitle'),
      width: 3,
      cell: (o) => {
        const text = t(`intake.outcome.${o.outcome}`);
        const changes = o.differences.map((d) => `${d.field}: ${d.before || '–'} → ${d.after || '–'}`).join('; ');
        return o.outcome === 'under-way' ? (
          <Signal kind="caution" text={`${text}. ${changes}`} />
        ) : (
          <Text lines={1}>{changes ? `${text}: ${changes}` : text}</Text>
        );
      },
    },
  ];
}
