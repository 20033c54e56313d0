import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useDeferredValue, useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { DockRow } from '@hand-relay/contract';
import { addressOf, api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { i18n, moment, number, relative, weight, massUnit, whereOf } from '../text/index.ts';
import {
  Choice,
  DataTable,
  Empty,
  Failed,
  Field,
  Key,
  Loading,
  Row,
  ScanField,
  Signal,
  Txt,
  useShortcuts,
  WIDE,
  type TableColumn,
  type TableEntry,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Whether a shipment could be confirmed but for its tracking number. */
function ready(row: DockRow): boolean {
  return (
    row.openCartons === 0 && (row.loose || row.cartons > 0) && row.packed === row.picked && row.released === row.picked
  );
}

/** Shipments at the dock by the departure they must make, or those that left, the newest first. */
export function DockList({ open }: { open?: string | undefined }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const left = useGlobalSearchParams<{ left?: string }>().left === '1';
  const [text, setText] = useState('');
  const sought = useDeferredValue(text.trim());
  const here = api.useDockQuery(undefined);
  const gone = api.useDockQuery({ find: sought }, { skip: !left });
  const { data, error, refetch } = left ? gone : here;
  const [find] = api.useLazyFindQuery();
  const [wrong, setWrong] = useState<string | null>(null);
  const [current, setCurrent] = useState<string>();
  const rows = useMemo(() => data?.shipments ?? [], [data]);
  const go = (id: string) => {
    setCurrent(id);
    router.navigate(`/dock/${id}${left ? '?left=1' : ''}`);
  };
  const step = (by: number) => {
    const at = rows.findIndex((r) => r.shipment === current);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
    if (next) setCurrent(next.shipment);
  };
  useShortcuts({
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    Enter: () => current && go(current),
  });
  const scanned = async (code: string) => {
    const { data: found, error: failed } = await find(code);
    if (failed) return setWrong(words(troubleOf(failed)));
    // Scanned before the list was there: it is waited for.
    const known = here.data ?? (await here.refetch()).data;
    const row = known?.shipments.find((r) => r.shipment === found?.id || (found && found.orders.includes(r.order)));
    // A carton or tracking number of what left opens it all the same.
    const id = row?.shipment ?? (found?.kind === 'shipment' || found?.kind === 'carton' ? found.id : null);
    if (!id) return setWrong(t('scan.nothing', { code }));
    setWrong(null);
    return go(id);
  };
  const entries = useMemo(() => {
    if (left) return rows.map((row): TableEntry<DockRow> => ({ kind: 'row', key: row.shipment, row }));
    const groups = new Map<string, DockRow[]>();
    for (const row of rows) {
      const key = `${row.leavesAt ?? ''} ${row.departure ?? ''}`;
      groups.set(key, [...(groups.get(key) ?? []), row]);
    }
    return [...groups].flatMap(([key, own]): TableEntry<DockRow>[] => {
      const { leavesAt, departure } = own[0]!;
      const title = departure
        ? `${departure}${leavesAt ? `, ${moment(leavesAt, me.site.timeZone, now)}` : ''}`
        : t('dock.noDeparture');
      return [
        { kind: 'group', key: `group ${key}`, title, detail: leavesAt ? relative(leavesAt, now) : '' },
        ...own.map((row) => ({ kind: 'row' as const, key: row.shipment, row })),
      ];
    });
  }, [rows, left, me.site.timeZone, now, t]);
  const open_ = (name: 'shipmentsCsv' | 'shipmentsJson') => void Linking.openURL(addressOf({ name }));
  return (
    <Page
      title={t('dock.title')}
      filled
      aside={
        <Row gap={4}>
          <Key size="small" icon="download" title={t('dock.exportCsv')} onPress={() => open_('shipmentsCsv')} />
          <Key size="small" icon="download" title={t('dock.exportJson')} onPress={() => open_('shipmentsJson')} />
        </Row>
      }
    >
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8, gap: 8 }}>
        <Choice
          bare
          label={t('dock.title')}
          value={left ? 'left' : 'here'}
          onChange={(value) => router.setParams({ left: value === 'left' ? '1' : undefined })}
          options={[
            { value: 'here', title: t('dock.here') },
            { value: 'left', title: t('dock.left') },
          ]}
        />
        {left ? (
          <Field bare label={t('dock.find')} placeholder={t('dock.find')} value={text} onChange={setText} focus />
        ) : (
          <ScanField size="desk" label={t('dock.ask')} onCode={(code) => void scanned(code)} />
        )}
        {wrong && <Failed text={wrong} />}
      </View>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && rows.length === 0 && !left && <Empty title={t('dock.emptyTitle')} text={t('dock.emptyText')} />}
      {data && rows.length === 0 && left && (
        <Empty
          title={t(sought ? 'dock.leftNotFound' : 'dock.leftNone')}
          text={t(sought ? 'dock.leftNotFoundText' : 'dock.leftNoneText')}
        />
      )}
      {rows.length > 0 && (
        <DataTable
          columns={left ? leftColumns(wide, (at) => moment(at, me.site.timeZone, now)) : columns(wide)}
          entries={entries}
          rowHeight={wide ? 44 : 68}
          current={open ?? current}
          onOpen={(row) => go(row.shipment)}
          nameOf={(row) => `${row.orderNumber}, ${row.customer}`}
        />
      )}
    </Page>
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

function columns(wide: boolean): TableColumn<DockRow>[] {
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
    {
      key: 'tracking',
      title: t('dock.tracking'),
      width: 128,
      fixed: true,
      cell: (r) => (
        <Txt kind="mono" lines={1} colour={r.tracking ? 'ink' : 'quiet'}>
          {r.tracking ?? '–'}
        </Txt>
      ),
    },
    { key: 'state', title: t('orders.stage'), width: 140, fixed: true, cell: (r) => <State row={r} /> },
  ];
}

/** Columns of what left: when, and under which number. */
function leftColumns(wide: boolean, when: (at: string) => string): TableColumn<DockRow>[] {
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
    {
      key: 'tracking',
      title: t('dock.tracking'),
      width: 200,
      fixed: true,
      cell: (r) => <Txt kind="mono">{r.tracking ?? '–'}</Txt>,
    },
  ];
}
