import { Link, useGlobalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { OrderDetail } from '@hand-relay/contract';
import { api, troubleOf, useMay, useMayConfirmPicked, useMe, useNow, words, useHouse } from '../state/index.ts';
import { clock, dayName, headed, lotWords, number, relative, whereOf } from '../text/index.ts';
import {
  Baton,
  Column,
  Facts,
  Failed,
  Button,
  Loading,
  Picture,
  Row,
  Rule,
  Signal,
  Text,
  useNarrow,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { HoldBanner, HoldSheet } from '../holds/index.ts';
import { Page } from '../shell/index.ts';
import { batonOf } from './batonWords.ts';
import { CancelSheet } from './CancelSheet.tsx';
import { ChangeSheet } from './ChangeSheet.tsx';
import { LineKeys, LineMore } from './LineKeys.tsx';
import { Made } from './Made.tsx';
import { OrderTags } from './OrderTags.tsx';
import { SplitSheet } from './SplitSheet.tsx';
import { useUnrelease } from './useUnrelease.ts';
import { LineWhy } from './LineWhy.tsx';
import { listingOf, paramsOf } from './listing.ts';
import { ReleaseSheet } from './ReleaseSheet.tsx';
import { Surplus } from './Surplus.tsx';
import { Trail } from './Trail.tsx';

/** One order: where it stands, its lines, what was made of it, and its trail. */
export function OrderView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const { width } = useWindowDimensions();
  const listing = listingOf(useGlobalSearchParams());
  const { data: order, error, refetch } = api.useOrderQuery(id);
  const { data: tasks } = api.useDeskTasksQuery();
  const back = () => router.navigate({ pathname: '/desk', params: paramsOf(listing) });
  useShortcuts({ Escape: back });
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!order) return <Loading />;
  return (
    <Page
      title={order.number}
      onBack={width < WIDE ? back : undefined}
      aside={width >= WIDE ? <Button title={t('notice.close')} icon="close" iconOnly onPress={back} /> : undefined}
    >
      <HoldBanner order={order.id} />
      {tasks?.tasks
        .filter((task) => task.order === order.id)
        .map((task) => (
          <Surplus key={task.id} task={task} />
        ))}
      <Head order={order} />
      <Lines order={order} />
      <Charges order={order} />
      <Made order={order} />
      <TrailOf id={id} />
    </Page>
  );
}

function Head({ order }: { order: OrderDetail }) {
  const { t } = useTranslation();
  const { channelName } = useHouse();
  const me = useMe();
  const now = useNow();
  const mayRelease = useMay('orders.release');
  const mayCancel = useMay('orders.cancel');
  // By hand stock is kept where the site wants that; what was kept at intake can be freed by whoever may keep.
  const mayReserve = useMay('orders.reserve') && ['hand', 'intake'].includes(me.settings.reserve);
  const [reserve, reserving] = api.useReserveMutation();
  const [unreserve, freeing] = api.useUnreserveMutation();
  const [releasing, setReleasing] = useState(false);
  const [cancelling, setCancelling] = useState<'rest' | 'all' | null>(null);
  const [holding, setHolding] = useState(false);
  const [changing, setChanging] = useState(false);
  const [more, setMore] = useState(false);
  const mayChange = useMay('orders.change');
  const open = order.status === 'open';
  const mayConfirm = useMayConfirmPicked();
  const [splitting, setSplitting] = useState(false);
  const [join, joining] = api.useJoinOrderMutation();
  const [close, closing] = api.useCancelRestMutation();
  const back = useUnrelease();
  const router = useRouter();
  const sum = (of: (l: OrderDetail['lines'][number]) => number) => order.lines.reduce((n, l) => n + of(l), 0);
  const asked = sum((l) => l.asked - l.cancelled);
  const { state, label } = batonOf(
    {
      asked,
      released: sum((l) => l.released),
      picked: sum((l) => l.picked),
      packed: sum((l) => l.packed),
      shipped: sum((l) => l.shipped),
    },
    order.leavesAt,
    now,
  );
  const rest = asked - sum((l) => l.released);
  // Every unit is shipped or cancelled: an order that an earlier version left open.
  const done = order.lines.every((l) => l.shipped === l.asked - l.cancelled);
  const waiting = sum((l) => l.waits);
  const takeBack = () => back.go(order.lines.filter((l) => l.waits > 0).map((l) => ({ line: l.id })));
  const reservedAhead = sum((l) => l.reservedAhead);
  const free = order.lines.some((l) => l.asked - l.cancelled > l.released && l.free + l.reservedAhead > 0);
  const leaves = order.leavesAt
    ? `${dayName(order.due, me.site.timeZone, now)} ${clock(order.leavesAt, me.site.timeZone)}`
    : dayName(order.due, me.site.timeZone, now);
  return (
    <Column gap={12}>
      <Row gap={16}>
        <Baton state={state} label={label} scale={1.6} />
        <Text colour={state.late ? 'caution' : 'quiet'}>{state.at ? label : t(`order.status.${order.status}`)}</Text>
      </Row>
      <Facts
        facts={[
          {
            name: t('order.customer'),
            value: `${order.customer.name}, ${t('order.class', { class: order.customer.class })}`,
          },
          {
            name: t('order.departure'),
            value: `${leaves}${order.leavesAt && state.at ? `, ${relative(order.leavesAt, now)}` : ''}`,
          },
          { name: t('order.carrier'), value: order.carrier ?? '–' },
          { name: t('order.lane'), value: whereOf(order) },
          { name: t('orders.channel'), value: channelName(order.channel) },
          ...(order.kind === 'order'
            ? []
            : [{ name: t('order.kindTitle'), value: t(`order.kind.${order.kind}`, { site: order.toSite }) }]),
          { name: t('order.priority'), value: String(order.priority) },
          { name: t('order.reference'), value: order.reference || '–' },
          { name: t('order.document'), value: order.document || t('order.entered'), link: order.link || undefined },
          {
            name: t('order.shipTo'),
            value: `${order.shipTo.name}, ${order.shipTo.street}, ${order.shipTo.postcode} ${order.shipTo.city}`,
          },
        ]}
      />
      {order.shipComplete && <Signal kind="quiet" text={t('order.shipComplete')} />}
      {order.packing !== 'usual' && <Signal kind="quiet" text={t(`packing.${order.packing}`)} />}
      {order.note !== '' && <Signal kind="caution" text={`${t('order.noted')}: ${order.note}`} size="body" />}
      <OrderTags order={order} />
      <Row gap={8}>
        {mayRelease && rest > 0 && open && (
          <Button kind="act" title={t('order.release')} disabled={!free} onPress={() => setReleasing(true)} />
        )}
        {mayChange && open && (
          <Button title={t('change.key')} onPress={() => router.navigate(`/desk/enter?order=${order.id}`)} />
        )}
        {open && <Button title={t('order.move')} onPress={() => setChanging(true)} />}
        <Button title={t('order.more')} pressed={more} onPress={() => setMore(!more)} />
      </Row>
      {more && (
        <Row gap={8}>
          {mayChange && (
            <Button title={t('enter.copy')} onPress={() => router.navigate(`/desk/enter?copy=${order.id}`)} />
          )}
          {mayConfirm && rest > 0 && open && sum((l) => l.released - l.shipped) === 0 && (
            <Button title={t('quick.one')} onPress={() => router.navigate(`/desk/quick?order=${order.id}`)} />
          )}
          {mayReserve && rest > 0 && open && reservedAhead < rest && (
            <Button
              title={t('order.reserve')}
              busy={reserving.isLoading}
              disabled={!order.lines.some((l) => l.free > 0)}
              onPress={() => void reserve(order.id)}
            />
          )}
          {mayReserve && reservedAhead > 0 && open && (
            <Button
              title={t('order.unreserve', { units: reservedAhead })}
              busy={freeing.isLoading}
              onPress={() => void unreserve(order.id)}
            />
          )}
          {mayRelease && rest > 0 && open && <Button title={t('order.split')} onPress={() => setSplitting(true)} />}
          {mayRelease && waiting > 0 && <Button title={t('order.takeBack')} busy={back.isLoading} onPress={takeBack} />}
          {mayRelease && order.splitOf && rest > 0 && open && (
            <Button
              title={t('order.join', { number: order.splitOf.number })}
              busy={joining.isLoading}
              onPress={() =>
                void join(order.id).then((done) => done.data && router.navigate(`/desk/orders/${done.data.id}`))
              }
            />
          )}
          {mayCancel && open && <Button title={t('hold.put')} onPress={() => setHolding(true)} />}
          {mayCancel && done && open && (
            <Button
              title={t('order.close')}
              busy={closing.isLoading}
              onPress={() => void close({ id: order.id, reason: t('order.closeReason'), lines: [] })}
            />
          )}
          {mayCancel && rest > 0 && open && (
            <Button kind="danger" title={t('order.cancelRest')} onPress={() => setCancelling('rest')} />
          )}
          {mayCancel && rest < asked && !done && open && (
            <Button kind="danger" title={t('order.cancelAll')} onPress={() => setCancelling('all')} />
          )}
        </Row>
      )}
      {changing && (
        <ChangeSheet
          orders={[order.id]}
          title={t('change.of', { number: order.number })}
          onClose={() => setChanging(false)}
        />
      )}
      {releasing && <ReleaseSheet tray={{ orders: [order.id], lines: {} }} onClose={() => setReleasing(false)} />}
      {holding && <HoldSheet order={order.id} onClose={() => setHolding(false)} />}
      {splitting && <SplitSheet order={order} onClose={() => setSplitting(false)} />}
      {cancelling && (
        <CancelSheet order={order.id} what={cancelling} units={rest} lines={[]} onClose={() => setCancelling(null)} />
      )}
    </Column>
  );
}

const figures = ['asked', 'reserved', 'picked', 'packed', 'shipped'] as const;

function Lines({ order }: { order: OrderDetail }) {
  const { t } = useTranslation();
  const open = order.status === 'open' && order.lines.some((l) => l.asked - l.cancelled > l.released);
  const { data } = api.useOrderAvailabilityQuery({ id: order.id }, { skip: !open });
  const promises = new Map(data?.promise?.lines.map((l) => [l.line, l]));
  const [more, setMore] = useState<string | null>(null);
  const narrow = useNarrow();
  return (
    <View>
      <Text kind="heading" level={2}>
        {t('order.lines')}
      </Text>
      <View role="list" aria-label={t('order.lines')}>
        {order.lines.map((l) => (
          <View key={l.id} role="listitem" style={{ gap: 6, paddingVertical: 10 }}>
            <Row gap={12} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
              <Picture name={l.picture} size={44} />
              <View style={{ flex: 1, minWidth: 0 }}>
                <Link href={`/desk/items/${l.item}`}>
                  <Text kind="strong">{l.name}</Text>
                </Link>
                <Text kind="small" colour="quiet">
                  {l.line} · {l.sku} · {t(`order.pack.${l.pack}`, { quantity: number(l.quantity) })}
                  {l.pack === 'unit' ? ` × ${l.unit}` : ` = ${number(l.asked)} × ${l.unit}`}
                  {l.asked - l.cancelled > l.released ? ` · ${number(l.free)} ${t('order.free').toLowerCase()}` : ''}
                </Text>
                {l.lots.length > 0 && (
                  <Text kind="small" colour="quiet">
                    {headed(lotWords(l.lots))}
                  </Text>
                )}
                {l.note !== '' && <Signal kind="caution" text={l.note} />}
                {l.cancelled > 0 && <Signal kind="quiet" text={t('order.cancelled', { units: number(l.cancelled) })} />}
              </View>
            </Row>
            <Row gap={0} style={{ flexWrap: 'nowrap', paddingLeft: narrow ? 0 : 56 }}>
              {figures.map((f) => (
                <View key={f} style={{ flex: 1 }}>
                  <Text kind="small" colour="quiet">
                    {t(`order.${f}`)}
                  </Text>
                  <Text kind="number" colour={f !== 'asked' && l[f] === 0 ? 'quiet' : 'ink'}>
                    {number(l[f])}
                  </Text>
                </View>
              ))}
              {order.status === 'open' && (
                <LineMore shown={more === l.id} line={l.line} onPress={() => setMore(more === l.id ? null : l.id)} />
              )}
            </Row>
            {order.status === 'open' && more === l.id && <LineKeys order={order} line={l} />}
            {promises.get(l.id) && (
              <View style={{ paddingLeft: 56 }}>
                <LineWhy order={order.id} lineNumber={l.line} promise={promises.get(l.id)!} />
              </View>
            )}
            <Rule />
          </View>
        ))}
      </View>
    </View>
  );
}

/** Services and charges: they are on the order, and nothing of them is picked. */
function Charges({ order }: { order: OrderDetail }) {
  const { t } = useTranslation();
  if (order.charges.length === 0) return null;
  return (
    <Column gap={4}>
      <Text kind="heading" level={2}>
        {t('order.charges')}
      </Text>
      {order.charges.map((c) => (
        <Text key={c.line}>
          {[`${c.line} · ${c.sku} · ${c.name}`, `${number(c.quantity)} × ${c.unit}`, c.note]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      ))}
    </Column>
  );
}

function TrailOf({ id }: { id: string }) {
  const { t } = useTranslation();
  const may = useMay('trail.see');
  const { data, error, refetch } = api.useTrailQuery(id, { skip: !may });
  if (!may) return null;
  return (
    <Column gap={8}>
      <Text kind="heading" level={2}>
        {t('order.trail')}
      </Text>
      {error ? (
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      ) : data ? (
        <Trail entries={data.entries} />
      ) : (
        <Loading rows={3} height={20} />
      )}
    </Column>
  );
}
