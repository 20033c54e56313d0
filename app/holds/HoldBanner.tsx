import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { OrderHold } from '@hand-relay/contract';
import { api, useMay, useMe } from '../state/index.ts';
import { clock } from '../text/index.ts';
import { Button, Row, Stripes, Text, useSurface } from '../ui/index.ts';
import { ReasonSheet } from '../shell/index.ts';

/** What holds an order, what that stops, and the key that lifts it for whoever may. */
export function HoldBanner({ order }: { order: string }) {
  const { data } = api.useHoldsQuery(order);
  const stuck = data?.holds.some((h) => h.stops.includes('packing') || h.stops.includes('shipping')) ?? false;
  return (
    <>
      {data?.holds.map((hold) => (
        <OneHold key={hold.id} hold={hold} />
      ))}
      {data && stuck && data.goods > 0 && <ReturnGoods order={order} units={data.goods} />}
    </>
  );
}

function OneHold({ hold }: { hold: OrderHold }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const [lifting, setLifting] = useState(false);
  return (
    <View role="alert" style={{ borderWidth: 1, borderColor: surface.caution }}>
      <Stripes />
      <View style={{ padding: 12, gap: 6 }}>
        <Text kind="strong">{t('hold.onHold', { text: hold.text })}</Text>
        <Text kind="small" colour="quiet">
          {[
            t('hold.stops', { stages: hold.stops.map((s) => t(`hold.stage.${s}`)).join(', ') }),
            hold.rule ? t('hold.byRule', { rule: hold.rule }) : t('hold.byHand', { name: hold.heldBy }),
            clock(hold.heldAt, me.site.timeZone),
          ].join(' · ')}
        </Text>
        {hold.mayLift ? (
          <Row>
            <Button title={t('hold.lift')} onPress={() => setLifting(true)} />
          </Row>
        ) : (
          <Text kind="small">{t('hold.ask', { roles: hold.lifters.join(', ') })}</Text>
        )}
      </View>
      {lifting && <LiftSheet hold={hold} onClose={() => setLifting(false)} />}
    </View>
  );
}

function LiftSheet({ hold, onClose }: { hold: OrderHold; onClose: () => void }) {
  const { t } = useTranslation();
  const [lift, { isLoading, error }] = api.useLiftHoldMutation();
  return (
    <ReasonSheet
      kind="act"
      title={t('hold.lift')}
      text={hold.text}
      busy={isLoading}
      error={error}
      onClose={onClose}
      onDo={(reason) => void lift({ id: hold.id, reason }).then((done) => done.data && onClose())}
    />
  );
}

/** The way out for whoever may not lift a hold: the goods go back, and cart, bench and lane are free. */
function ReturnGoods({ order, units }: { order: string; units: number }) {
  const { t } = useTranslation();
  const may = [useMay('orders.release'), useMay('orders.pack'), useMay('shipments.confirm')].includes(true);
  const [asking, setAsking] = useState(false);
  const [returnGoods, { isLoading, error }] = api.useReturnGoodsMutation();
  if (!may) return null;
  return (
    <Row>
      <Button title={t('hold.return', { count: units })} onPress={() => setAsking(true)} />
      {asking && (
        <ReasonSheet
          title={t('hold.return', { count: units })}
          text={t('hold.returnText')}
          busy={isLoading}
          error={error}
          onClose={() => setAsking(false)}
          onDo={(reason) => void returnGoods({ id: order, reason }).then((done) => done.data && setAsking(false))}
        />
      )}
    </Row>
  );
}
