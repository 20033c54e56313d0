import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import { withInHand } from '@hand-relay/core/handling/packing';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { number, relative, timeOf } from '../text/index.ts';
import {
  CartDrawing,
  Column,
  Failed,
  Button,
  Loading,
  SaidBand,
  ScanField,
  Signal,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { HoldBanner } from '../holds/index.ts';
import { Page } from '../shell/index.ts';
import { CartonInHand } from './CartonInHand.tsx';
import { ClosedCartons } from './ClosedCartons.tsx';
import { PackGoods } from './PackGoods.tsx';
import { ToLane } from './ToLane.tsx';
import { planOf, stepsOf, usePackCommands } from './usePackCommands.ts';
import { usePackInputs } from './usePackInputs.ts';
import { useWeigh } from './useWeigh.ts';

/** Width of the cart and of the carton beside the goods, in pixels. */
const CART = 240;
const CARTON = 360;

/** An order at the bench: its place on the cart, what goes in next, the carton in hand; one field for every scan. */
export function BenchOrderView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const { data, error, refetch } = api.useBenchOrderQuery(id);
  const back = () => router.navigate('/bench');
  useShortcuts({ Escape: back });
  const inputs = usePackInputs(id);
  const order = data && { ...data, bench: withInHand(data.bench, inputs.inHand) };
  const { data: plan } = api.usePackPlanQuery(planOf(id, order));
  const weigh = useWeigh(inputs);
  const scanned = usePackCommands(id, inputs);
  const { said, input } = inputs;
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!order) return <Loading rows={4} height={80} />;
  const wide = width >= WIDE;
  const waiting = order.bench.loose.reduce((n, l) => n + l.units, 0);
  const { carton } = order.bench;
  const { toLane } = order.bench;
  const done = waiting === 0 && toLane ? t('bench.askLane', { lane: toLane.lane }) : t('bench.askBox');
  const ask = carton ? t('bench.askItem') : done;
  const steps = plan ? stepsOf(order, plan) : null;
  const goods = (
    <View key="goods" style={wide ? { flex: 1, minWidth: 0 } : {}}>
      <PackGoods order={order} plan={steps} onInput={input} />
    </View>
  );
  const inHand = (
    <View key="carton" style={[{ gap: 16 }, wide ? { width: CARTON } : {}]}>
      <CartonInHand
        order={order}
        plan={plan}
        steps={steps}
        onInput={input}
        onTake={inputs.takeInHand}
        onWeigh={weigh}
        waiting={waiting}
      />
      <ToLane order={order} onInput={input} />
      <ClosedCartons order={order} />
      {waiting === 0 && !carton && !toLane && order.cartons.length > 0 && (
        <Button kind="act" size="floor" title={t('bench.next')} onPress={() => scanned('DO-NEXT')} />
      )}
    </View>
  );
  return (
    <Page
      title={order.number}
      onBack={back}
      aside={
        <Text colour="quiet">
          {order.customer}
          {order.leavesAt
            ? ` · ${timeOf(order.leavesAt, me.site.timeZone, now)}, ${relative(order.leavesAt, now)}`
            : ''}
        </Text>
      }
    >
      <ScanField label={ask} onCode={scanned} />
      <SaidBand said={said} />
      <HoldBanner order={order.id} />
      {order.surplus.map(({ item, name, units }) => (
        <Signal
          key={item}
          kind="refused"
          text={t('refusal.surplus-undecided', { item: name, units: number(units) })}
          size="body"
        />
      ))}
      {order.note !== '' && <Signal kind="caution" text={`${t('bench.noteTitle')}: ${order.note}`} size="body" />}
      {order.forBench !== '' && (
        <Signal kind="caution" text={`${t('bench.pickerNote')}: ${order.forBench}`} size="body" />
      )}
      {order.wishes !== '' && (
        <Signal
          kind="caution"
          text={`${t('bench.wishesTitle', { customer: order.customer })}: ${order.wishes}`}
          size="body"
        />
      )}
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16, alignItems: wide ? 'flex-start' : 'stretch' }}>
        <View style={wide ? { width: CART } : {}}>
          <Where order={order} waiting={waiting} />
        </View>
        {/* On a phone the carton to take comes first; once it is open, what goes into it. */}
        {wide || carton ? [goods, inHand] : [inHand, goods]}
      </View>
    </Page>
  );
}

function Where({ order, waiting }: { order: BenchOrder; waiting: number }) {
  const { t } = useTranslation();
  const wide = useWindowDimensions().width >= WIDE;
  const here = order.where.filter((w) => w.state === 'left');
  const still = order.where.filter((w) => w.state !== 'left');
  return (
    <Column gap={12}>
      {here.map((w) => (
        <Column key={w.run} gap={6}>
          <Text kind="heading">
            {w.callSign} · {w.position === 0 ? w.cart : t('bench.where', { cart: w.cart, position: w.position })}
          </Text>
          {w.position > 0 && waiting > 0 && (
            <CartDrawing
              front={w.front}
              cells={[]}
              target={w.position}
              label={t('bench.where', { cart: w.cart, position: w.position })}
              height={wide ? 130 : 84}
            />
          )}
        </Column>
      ))}
      {still.length > 0 && (
        <Signal
          kind="caution"
          text={t('bench.elsewhere', { runs: still.map((w) => `${w.callSign} (${w.run})`).join(', ') })}
          size="body"
        />
      )}
      {waiting === 0 && order.cartons.length > 0 && !order.bench.carton && (
        <Signal kind="done" text={t('bench.allPacked')} size="body" />
      )}
      {waiting === 0 && order.cartons.length === 0 && (
        <Signal kind="quiet" text={t('bench.nothingPicked')} size="body" />
      )}
    </Column>
  );
}
