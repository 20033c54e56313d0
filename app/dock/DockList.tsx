import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useDeferredValue, useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { DockRow } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { addressOf, api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { moment, relative } from '../text/index.ts';
import {
  Choice,
  DataTable,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  ScanField,
  useShortcuts,
  WIDE,
  type TableEntry,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { dockColumns, leftColumns } from './dockColumns.tsx';

/** Days of confirmed shipments that a download holds, today among them. */
const EXPORT_DAYS = 31;
const DAY_MS = 86_400_000;

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
  const here = api.useDockQuery();
  const gone = api.useDockQuery({ state: 'confirmed', find: sought }, { skip: !left });
  const { data, error, refetch } = left ? gone : here;
  const [find] = api.useLazyFindQuery();
  const [wrong, setWrong] = useState<string | null>(null);
  const [current, setCurrent] = useState<string>();
  const rows = useMemo(() => data?.shipments ?? [], [data]);
  const addressOfRow = (id: string) => `/dock/${id}${left ? '?left=1' : ''}` as const;
  const go = (id: string) => {
    setCurrent(id);
    router.navigate(addressOfRow(id));
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
    const { data: found, error: failed } = await find({ code });
    if (failed) return setWrong(words(troubleOf(failed)));
    if (found?.kind === 'void') return setWrong(t('scan.void', { name: found.name }));
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
  const from = localDate(now - (EXPORT_DAYS - 1) * DAY_MS, me.site.timeZone);
  const open_ = (name: 'shipmentsCsv' | 'shipmentsJson') =>
    void Linking.openURL(addressOf({ name, query: { from, to: localDate(now, me.site.timeZone) } }));
  return (
    <Page
      title={t('dock.title')}
      filled
      aside={
        <Row gap={4}>
          <Button size="small" title={t('pallets.title')} onPress={() => router.navigate('/pallets')} />
          <Button size="small" icon="download" title={t('dock.exportCsv')} onPress={() => open_('shipmentsCsv')} />
          <Button size="small" icon="download" title={t('dock.exportJson')} onPress={() => open_('shipmentsJson')} />
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
          columns={left ? leftColumns(wide, (at) => moment(at, me.site.timeZone, now)) : dockColumns(wide)}
          entries={entries}
          rowHeight={wide ? 44 : 68}
          current={open ?? current}
          onOpen={(row) => go(row.shipment)}
          hrefOf={(row) => addressOfRow(row.shipment)}
          nameOf={(row) => `${row.orderNumber}, ${row.customer}`}
        />
      )}
    </Page>
  );
}
