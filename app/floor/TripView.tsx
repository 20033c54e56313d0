import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import type { Waiting } from '@hand-relay/contract';
import { api, notify, troubleOf, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { relative, timeOf } from '../text/index.ts';
import { Column, Empty, Failed, Button, Loading, Row, ScanField, Shape, Text, useSurface } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

type WaitingOrder = Waiting['orders'][number];

/** A trip of one's own: orders that wait, chosen by touch or by scanning their slips, as many as a cart has places. */
export function TripView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const { data, error, refetch } = api.useWaitingOrdersQuery();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [gather, gathering] = api.useGatherTripMutation();
  const [unknown, setUnknown] = useState<string | null>(null);
  const orders = data?.orders ?? [];
  const positions = data?.positions ?? 0;
  // Somebody else may have taken one in the meantime.
  const mine = chosen.filter((id) => orders.some((o) => o.id === id));
  const full = mine.length >= positions;
  const toggle = (id: string) => {
    setUnknown(null);
    if (mine.includes(id)) setChosen(mine.filter((other) => other !== id));
    else if (!full) setChosen([...mine, id]);
  };
  const scanned = (text: string) => {
    const order = orders.find((o) => o.number.toUpperCase() === text.toUpperCase());
    if (!order) return setUnknown(text);
    if (!mine.includes(order.id)) toggle(order.id);
  };
  const go = async () => {
    const made = await gather({ orders: [...mine] });
    if (!made.data) return;
    const { run, number } = made.data;
    send(
      notify({
        kind: 'done',
        text: t('floor.trip.made', { run: number, count: mine.length }),
        undo: { name: 'putTripBack', id: run },
      }),
    );
    router.navigate('/floor');
  };
  return (
    <Page
      title={t('floor.trip.title')}
      onBack={() => router.navigate('/floor')}
      foot={
        orders.length > 0 && (
          <Button
            kind="act"
            size="floor"
            title={mine.length === 0 ? t('floor.trip.choose') : t('floor.trip.go', { count: mine.length })}
            disabled={mine.length === 0}
            busy={gathering.isLoading}
            onPress={() => void go()}
          />
        )
      }
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={5} height={72} />}
      {data && orders.length === 0 && <Empty title={t('floor.emptyTitle')} text={t('floor.trip.empty')} />}
      {orders.length > 0 && (
        <Column gap={10}>
          <ScanField label={t('floor.trip.scan')} onCode={scanned} />
          {unknown !== null && <Failed text={t('floor.trip.unknown', { code: unknown })} />}
          {gathering.error && <Failed text={words(troubleOf(gathering.error))} />}
          <Text colour="quiet">{t('floor.trip.places', { taken: mine.length, all: positions })}</Text>
          {orders.map((order) => (
            <OrderRow
              key={order.id}
              order={order}
              chosen={mine.includes(order.id)}
              disabled={full && !mine.includes(order.id)}
              onPress={() => toggle(order.id)}
            />
          ))}
        </Column>
      )}
    </Page>
  );
}

function OrderRow({
  order,
  chosen,
  disabled,
  onPress,
}: {
  order: WaitingOrder;
  chosen: boolean;
  disabled: boolean;
  onPress: () => void;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  return (
    <Pressable
      role="checkbox"
      aria-checked={chosen}
      aria-disabled={disabled}
      disabled={disabled}
      aria-label={t('floor.trip.order', { order: order.number, customer: order.customer })}
      onPress={onPress}
      style={{
        minHeight: 72,
        padding: 12,
        gap: 2,
        justifyContent: 'center',
        borderWidth: chosen ? 3 : 1,
        margin: chosen ? 0 : 2,
        borderColor: chosen ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: chosen ? surface.chosen : surface.raised,
        opacity: disabled ? 0.5 : 1,
      }}
    >
      <Row gap={10} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
        <Row gap={8} style={{ flexShrink: 1, flexWrap: 'nowrap' }}>
          <Shape kind={chosen ? 'done' : 'quiet'} />
          <View style={{ flexShrink: 1 }}>
            <Text kind="heading" lines={1}>
              {order.number}
            </Text>
            <Text colour="quiet" lines={1}>
              {order.customer}
            </Text>
          </View>
        </Row>
        <View style={{ alignItems: 'flex-end' }}>
          <Text kind="strong">
            {order.leavesAt
              ? `${timeOf(order.leavesAt, me.site.timeZone, now)}, ${relative(order.leavesAt, now)}`
              : '–'}
          </Text>
          <Text colour="quiet">
            {`${t('unit.lines', { count: order.lines })} · ${t('unit.units', { count: order.units })}`}
          </Text>
        </View>
      </Row>
    </Pressable>
  );
}
