import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { SERVICE_TAG, type DayOpen } from '@hand-relay/contract';
import { addDays } from '@hand-relay/core/calendar';
import { troubleOf, useMay, useMe, words } from '../state/index.ts';
import { clock, number } from '../text/index.ts';
import {
  Button,
  Choice,
  Column,
  DataTable,
  Empty,
  Failed,
  Row,
  Shape,
  Sheet,
  Text,
  useSurface,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { useChangeOrders } from '../desk/index.ts';
import { departuresOfOpen, keyOf, ordersFor, whyOpen } from './dayWords.ts';
import { useShipShort } from './useShipShort.ts';

/** Orders that should have left, with why each has not, and what is decided for all of them or those that are marked. */
export function StillOpen({
  open,
  today,
  departure,
  onDeparture,
}: {
  open: readonly DayOpen[];
  today: string;
  /** Only of this one; all where it is empty. */
  departure: string;
  onDeparture: (key: string) => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const wide = useWindowDimensions().width >= WIDE;
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const departures = departuresOfOpen(open);
  const at = departures.some((d) => d.key === departure) ? departure : '';
  const shown = open.filter((o) => at === '' || keyOf(o) === at);
  const chosen = shown.filter((o) => marked.has(o.id));
  const columns = useColumns();
  const toggle = (id: string) =>
    setMarked((before) => new Set(before.has(id) ? [...before].filter((m) => m !== id) : [...before, id]));
  const all = shown.length > 0 && shown.every((o) => marked.has(o.id));
  if (open.length === 0)
    return (
      <View style={{ paddingHorizontal: wide ? 20 : 12 }}>
        <Empty title={t('day.noneTitle')} text={t('day.noneText')} />
      </View>
    );
  return (
    <>
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8 }}>
        <Choice
          bare
          label={t('day.departures')}
          value={at}
          onChange={(key) => {
            setMarked(new Set());
            onDeparture(key);
          }}
          options={[
            { value: '', title: t('day.all', { n: number(open.length) }) },
            ...departures.map((d) => ({
              value: d.key,
              title: [
                d.leavesAt && clock(d.leavesAt, me.site.timeZone),
                d.name || t('orders.noDeparture'),
                number(d.orders),
              ]
                .filter(Boolean)
                .join(' '),
            })),
          ]}
        />
      </View>
      <DataTable
        columns={columns}
        entries={shown.map((row) => ({ kind: 'row', key: row.id, row }))}
        rowHeight={wide ? 44 : 76}
        chosen={marked}
        onChoose={toggle}
        onChooseAll={() => setMarked(all ? new Set() : new Set(shown.map((o) => o.id)))}
        allChosen={all}
        onOpen={(o) => router.navigate(`/desk/orders/${o.id}`)}
        hrefOf={(o) => `/desk/orders/${o.id}`}
        nameOf={(o) => `${o.number} ${o.customer}`}
        chooseLabel={(o) => t('day.mark', { order: o.number })}
        chooseAllLabel={t('day.markAll')}
      />
      <Decide of={chosen} today={today} onDone={() => setMarked(new Set())} />
    </>
  );
}

function useColumns(): TableColumn<DayOpen>[] {
  const { t } = useTranslation();
  const me = useMe();
  const wide = useWindowDimensions().width >= WIDE;
  const timeOf = (o: DayOpen) => o.leavesAt !== null && clock(o.leavesAt, me.site.timeZone);
  const why = (o: DayOpen, lines: number) => (
    <Row gap={6} style={{ flexWrap: 'nowrap', flexShrink: 1 }}>
      {(o.hold !== null || o.short > 0) && <Shape kind="caution" size={13} />}
      <Text kind={wide ? 'body' : 'small'} lines={lines} style={{ flexShrink: 1 }}>
        {whyOpen(o)}
      </Text>
    </Row>
  );
  if (!wide)
    return [
      {
        key: 'order',
        title: t('day.order'),
        width: 1,
        cell: (o) => (
          <Column gap={0}>
            <Text kind="strong" lines={1}>
              {o.number} · {o.customer}
            </Text>
            {why(o, 2)}
          </Column>
        ),
      },
    ];
  return [
    {
      key: 'order',
      title: t('day.order'),
      width: 104,
      fixed: true,
      cell: (o) => (
        <Link href={`/desk/orders/${o.id}`}>
          <Text kind="strong">{o.number}</Text>
        </Link>
      ),
    },
    { key: 'customer', title: t('day.customer'), width: 2, cell: (o) => <Text lines={1}>{o.customer}</Text> },
    {
      key: 'departure',
      title: t('day.departure'),
      width: 190,
      fixed: true,
      cell: (o) => <Text lines={1}>{[timeOf(o), o.departure].filter(Boolean).join(' ')}</Text>,
    },
    { key: 'why', title: t('day.whyTitle'), width: 4, cell: (o) => why(o, 1) },
  ];
}

/** The decisions that are possible for some orders, each with how many it is possible for. */
function Decide({ of, today, onDone }: { of: readonly DayOpen[]; today: string; onDone: () => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const does = useChangeOrders();
  const ships = useShipShort();
  const [asking, setAsking] = useState(false);
  const [mayChange, mayCancel, mayShip] = [
    useMay('orders.change'),
    useMay('orders.cancel'),
    useMay('shipments.confirm'),
  ];
  const ids = (list: readonly DayOpen[]) => list.map((o) => o.id);
  const [moves, shorts, cancels] = [ordersFor(of, 'move'), ordersFor(of, 'ship-short'), ordersFor(of, 'cancel')];
  const busy = does.busy || ships.done !== null;
  const then = (done: Promise<boolean>) => void done.then((all) => all && onDone());
  const open = shorts.reduce((n, o) => n + o.waits.release, 0);
  const leave = shorts.reduce((n, o) => n + o.waits.ship, 0);
  return (
    <View style={{ borderTopWidth: 1, borderColor: surface.line, padding: 12, gap: 8 }}>
      {of.length === 0 && !busy && <Text colour="quiet">{t('day.markFirst')}</Text>}
      {does.error && <Failed text={words(troubleOf(does.error))} />}
      <Row gap={8} style={{ justifyContent: 'flex-end' }}>
        {mayShip && shorts.length > 0 && (
          <Button
            title={t('day.shipShort', { count: shorts.length })}
            disabled={busy}
            onPress={() => setAsking(true)}
          />
        )}
        {mayCancel && cancels.length > 0 && (
          <Button
            title={t('day.cancel', { count: cancels.length })}
            disabled={busy}
            onPress={() => then(does.cancel(ids(cancels), t('day.reason')))}
          />
        )}
        {mayChange && of.length > 0 && (
          <Button
            title={t('day.service', { count: of.length })}
            disabled={busy}
            onPress={() => then(does.tag(ids(of), SERVICE_TAG, true))}
          />
        )}
        {mayChange && moves.length > 0 && (
          <Button
            kind="act"
            title={t('day.move', { count: moves.length })}
            busy={does.busy}
            disabled={busy}
            onPress={() => then(does.change(ids(moves), { due: addDays(today, 1) }))}
          />
        )}
        {busy && (
          <Text colour="quiet" live="polite">
            {t('day.progress', { done: number(does.done ?? ships.done ?? 0) })}
          </Text>
        )}
      </Row>
      {asking && (
        <Sheet
          title={t('day.shipShort', { count: shorts.length })}
          onClose={() => setAsking(false)}
          keys={
            <>
              <Button title={t('release.cancel')} onPress={() => setAsking(false)} />
              <Button
                kind="act"
                title={t('day.shipShort', { count: shorts.length })}
                onPress={() => {
                  setAsking(false);
                  void ships.ship(shorts).then(onDone);
                }}
              />
            </>
          }
        >
          <Text>
            {t('day.shipText', { leave: t('unit.units', { count: leave }), open: t('unit.units', { count: open }) })}
          </Text>
          {shorts.map((o) => (
            <Text key={o.id} colour="quiet">
              {o.number} · {o.customer}: {whyOpen(o)}
            </Text>
          ))}
        </Sheet>
      )}
    </View>
  );
}
