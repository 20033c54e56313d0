import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { WaveDetail, WaveSummary } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, useMay, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Button,
  DataTable,
  Failed,
  Field,
  Row,
  Suggest,
  Text,
  useSettled,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';

type Order = WaveDetail['orders'][number];

/** The orders of a wave, whatever its state: each opens, and leaves the wave as far as no picker has begun it. */
export function WaveOrders({ wave, orders }: { wave: WaveSummary; orders: Order[] }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const wide = useWindowDimensions().width >= WIDE;
  const mayRelease = useMay('orders.release');
  const [find, setFind] = useState('');
  const [withdraw, withdrawing] = api.useUnreleaseMutation();
  const gathers = wave.state === 'gathering';
  const over = wave.state === 'done' || wave.state === 'cancelled';
  const text = find.trim().toLowerCase();
  const shown = orders.filter((o) => `${o.number} ${o.customer}`.toLowerCase().includes(text));
  const out = async (order: Order) => {
    const done = await withdraw({ orders: [order.id], wave: wave.id });
    if (!done.data) return;
    const units = done.data.lines.reduce((n, l) => n + l.units, 0);
    send(
      notify({
        kind: 'done',
        text: t('waves.orderOut', { order: order.number, units: t('unit.units', { count: units }) }),
        // Only a wave that gathers takes it back.
        ...(gathers ? { undo: { name: 'release', body: { orders: [order.id], wave: wave.id } } } : {}),
      }),
    );
  };
  const columns: TableColumn<Order>[] = [
    {
      key: 'number',
      title: t('orders.number'),
      width: 1,
      cell: (o) => (
        <Link href={`/desk/orders/${o.id}`}>
          <Text kind="strong" lines={1}>
            {o.number}
          </Text>
        </Link>
      ),
    },
    ...(wide
      ? [
          {
            key: 'customer',
            title: t('orders.customer'),
            width: 2,
            cell: (o: Order) => <Text lines={1}>{o.customer}</Text>,
          },
        ]
      : []),
    {
      key: 'units',
      title: t('waves.pickedOf'),
      width: 110,
      fixed: true,
      align: 'right',
      cell: (o) => (
        <Text kind="number">
          {number(o.picked)} / {number(o.units)}
        </Text>
      ),
    },
    ...(mayRelease && !over
      ? [
          {
            key: 'out',
            title: '',
            width: 110,
            fixed: true,
            align: 'right' as const,
            cell: (o: Order) =>
              o.picked < o.units ? (
                <Button
                  size="small"
                  title={t('waves.withdraw')}
                  label={t('waves.withdrawOrder', { order: o.number })}
                  busy={withdrawing.isLoading && withdrawing.originalArgs?.orders?.[0] === o.id}
                  onPress={() => void out(o)}
                />
              ) : null,
          },
        ]
      : []),
  ];
  return (
    <View style={{ flex: 1, minHeight: 0, gap: 8 }}>
      <Row gap={12} style={{ paddingHorizontal: 12, alignItems: 'flex-start', zIndex: 1 }}>
        <View style={{ width: 240, maxWidth: '100%' }}>
          <Field bare label={t('waves.findOrder')} placeholder={t('waves.findOrder')} value={find} onChange={setFind} />
        </View>
        {gathers && mayRelease && <AddOrder wave={wave} there={orders} />}
        {gathers && (
          <Text colour="quiet" style={{ paddingTop: 10 }}>
            {t('waves.noRuns')}
          </Text>
        )}
      </Row>
      {withdrawing.error && <Failed text={words(troubleOf(withdrawing.error))} />}
      <DataTable
        columns={columns}
        rowHeight={wide ? 44 : 60}
        entries={shown.map((row) => ({ kind: 'row', key: row.id, row }))}
        nameOf={(o) => `${o.number}, ${o.customer}`}
        onOpen={(o) => router.navigate(`/desk/orders/${o.id}`)}
        hrefOf={(o) => `/desk/orders/${o.id}`}
      />
    </View>
  );
}

/** Puts an order into a wave that gathers, found by number, reference or customer. */
function AddOrder({ wave, there }: { wave: WaveSummary; there: Order[] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [text, setText] = useState('');
  const settled = useSettled(text.trim());
  const { currentData, isFetching } = api.useSearchQuery({ text: settled, kind: 'order' }, { skip: settled === '' });
  const [release, { error }] = api.useReleaseMutation();
  const known = new Set(there.map((o) => o.id));
  const hits = settled === '' ? [] : (currentData?.groups.flatMap((g) => g.hits) ?? []);
  const open = hits.filter((h) => h.state === 'open' && !known.has(h.id));
  const add = async (id: string) => {
    const done = await release({ orders: [id], wave: wave.id });
    if (!done.data) return;
    setText('');
    send(
      notify({
        kind: 'done',
        text: t('waves.orderAdded', { number: wave.number }),
        undo: { name: 'unrelease', body: { lines: done.data.given, wave: wave.id } },
      }),
    );
  };
  return (
    <View style={{ width: 300, maxWidth: '100%' }}>
      <Suggest
        bare
        label={t('waves.addOrder')}
        placeholder={t('waves.addOrder')}
        value={text}
        onChange={setText}
        options={open.map((h) => ({ key: h.id, title: h.title, detail: h.about.join(' · ') }))}
        onPick={(id) => void add(id)}
        nothing={settled !== '' && !isFetching && settled === text.trim() ? t('waves.addNone') : null}
        error={error ? words(troubleOf(error)) : undefined}
      />
    </View>
  );
}
