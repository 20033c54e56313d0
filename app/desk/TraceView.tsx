import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { TraceAnswer } from '@hand-relay/contract';
import { addressOf, api, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Button,
  Choice,
  DataTable,
  Facts,
  Failed,
  Loading,
  Row,
  Signal,
  Text,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ListExport } from './ListExport.tsx';
import { useTraceColumns } from './traceColumns.tsx';

const parts = ['shipped', 'now', 'moves'] as const;
type Part = (typeof parts)[number];

/** Where goods are, who got them and how they moved: of an item, a lot, a serial number or a place. */
export function TraceView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { item, lot, serial, place } = useGlobalSearchParams<Record<'item' | 'lot' | 'serial' | 'place', string>>();
  const of = {
    ...(item ? { item } : {}),
    ...(lot ? { lot } : {}),
    ...(serial ? { serial } : {}),
    ...(place ? { place } : {}),
  };
  const { currentData: found, error, refetch } = api.useTraceQuery(of);
  const title = [
    found?.item?.name ?? found?.place?.code ?? t('trace.title'),
    lot && t('trace.ofLot', { lot }),
    serial && t('trace.ofSerial', { serial }),
  ];
  const back = () => (item ? router.navigate(`/desk/items/${item}`) : router.navigate('/desk'));
  return (
    <Page
      title={title.filter(Boolean).join(' · ')}
      onBack={back}
      filled
      aside={
        found && (
          <Button
            size="small"
            icon="printer-outline"
            title={t('trace.print')}
            onPress={() => window.open(addressOf({ name: 'tracePaper', query: of }), '_blank')}
          />
        )
      }
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!found && !error && <Loading rows={6} />}
      {found && (
        <Found
          found={found}
          name={['trace', found.item?.sku ?? found.place?.code, lot, serial].filter(Boolean).join('-')}
        />
      )}
    </Page>
  );
}

function Found({ found, name }: { found: TraceAnswer; name: string }) {
  const { t } = useTranslation();
  // Of a place nothing leaves by itself: what lies there is asked first.
  const shown = found.item ? parts : parts.filter((p) => p !== 'shipped');
  const [part, setPart] = useState<Part>(found.shipped.length > 0 ? 'shipped' : 'now');
  const { width } = useWindowDimensions();
  const edge = width >= WIDE ? 20 : 12;
  return (
    <View style={{ flex: 1, minHeight: 0, gap: 12 }}>
      <View style={{ paddingHorizontal: edge, gap: 12 }}>
        <Facts
          figures
          min={96}
          facts={[
            { name: t('trace.onHand'), value: number(found.onHand) },
            ...(found.item
              ? [
                  { name: t('trace.shippedUnits'), value: number(found.shippedUnits) },
                  {
                    name: t('trace.customers'),
                    value: number(new Set(found.shipped.map((s) => s.customerNumber)).size),
                  },
                ]
              : []),
          ]}
        />
        {found.more && <Signal kind="caution" text={t('trace.more')} />}
        <Row gap={8} style={{ justifyContent: 'space-between' }}>
          <Choice
            bare
            label={t('trace.title')}
            value={part}
            onChange={setPart}
            options={shown.map((value) => ({ value, title: t(`trace.${value}`, { n: number(found[value].length) }) }))}
          />
          {found[part].length > 0 && <ListExport name={`${name}-${part}`} rows={() => fileOf(found, part)} />}
        </Row>
      </View>
      <Lists found={found} part={part} />
    </View>
  );
}

function Lists({ found, part }: { found: TraceAnswer; part: Part }) {
  const { t } = useTranslation();
  const columns = useTraceColumns(found.item === null);
  if (found[part].length === 0)
    return (
      <Text colour="quiet" style={{ paddingHorizontal: 20 }}>
        {t(`trace.none.${part}`)}
      </Text>
    );
  if (part === 'now') return <List columns={columns.now} rows={found.now} nameOf={(r) => `${r.place} ${r.item}`} />;
  if (part === 'shipped')
    return <List columns={columns.shipped} rows={found.shipped} nameOf={(r) => r.shipment.number} />;
  return <List columns={columns.moves} rows={found.moves} nameOf={(r) => `${r.from} ${r.to}`} />;
}

function List<T>({ columns, rows, nameOf }: { columns: TableColumn<T>[]; rows: T[]; nameOf: (row: T) => string }) {
  const { width } = useWindowDimensions();
  return (
    <DataTable
      columns={columns}
      entries={rows.map((row, i) => ({ kind: 'row', key: String(i), row }))}
      rowHeight={width >= WIDE ? 44 : 64}
      nameOf={nameOf}
    />
  );
}

/** The list as a file has it: whole, with instants as the standard writes them. */
function fileOf(found: TraceAnswer, part: Part): Record<string, string | number>[] {
  if (part === 'shipped')
    return found.shipped.map((s) => ({
      customer_number: s.customerNumber,
      customer: s.customer,
      address: s.address,
      order: s.order.number,
      reference: s.reference,
      shipment: s.shipment.number,
      tracking: s.tracking ?? '',
      left: s.at,
      item: s.sku,
      name: s.item,
      lot: s.lot,
      serial: s.serial,
      units: s.units,
    }));
  if (part === 'now')
    return found.now.map((b) => ({
      place: b.place,
      kind: b.kind,
      item: b.sku,
      name: b.item,
      lot: b.lot,
      serial: b.serial,
      units: b.units,
      best_before: b.bestBefore ?? '',
      blocked: b.blocked ?? '',
      order: b.order?.number ?? '',
    }));
  return found.moves.map((m) => ({
    at: m.at,
    reason: m.reason,
    from: m.from,
    to: m.to,
    item: m.sku,
    name: m.item,
    lot: m.lot,
    serial: m.serial,
    units: m.units,
    person: m.person ?? '',
    order: m.order?.number ?? '',
  }));
}
