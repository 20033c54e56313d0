import { useMemo, useState } from 'react';
import { judgeSetUp, nextToSetUp, positionCode, type CartSetUp } from '@hand-relay/core/handling/picking';
import { outbox, type Entry } from '../offline/index.ts';
import { randomKey, thisYear } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import type { Sound } from '../ui/index.ts';
import { countRefused } from './countRefused.ts';
import { cartOnDevice } from './onDevice.ts';
import type { Verdict } from './verdict.ts';

/** The cart of a run while it is set up: judged on the device like every scan, kept and sent in order. */
export function useSetUp({
  id,
  setUp: onServer,
  entries,
  number,
  say,
  playSound,
}: {
  id: string;
  /** As the server said last; null where nothing is to be set up. */
  setUp: CartSetUp | null;
  entries: readonly Entry[];
  number: string;
  say: (verdict: Verdict | null) => void;
  playSound: (sound: Sound) => void;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const cart = useMemo(() => (onServer ? cartOnDevice(onServer, entries) : null), [onServer, entries]);
  if (!cart) return null;
  const next = nextToSetUp(cart, chosen);
  const send = (ask: Pick<Entry['ask'], 'name' | 'body'>, after: Entry['after']) =>
    outbox.add({
      key: randomKey(),
      ask: { ...ask, id },
      verdict: null,
      after,
      about: { run: number, bin: cart.cart, item: '', units: 0 },
    });
  const scan = (text: string) => {
    // Of two scans in one breath the second must see what the first did.
    const now = cartOnDevice(
      onServer!,
      outbox.snapshot().entries.filter((e) => e.ask.id === id),
    );
    const judged = judgeSetUp(now, chosen, text, thisYear());
    if (judged.verdict === 'refused') {
      const { code, got, expected } = judged;
      const facts = { got, expected, cart: now.cart };
      countRefused({ run: id, number, of: null }, { code, facts });
      playSound('refused');
      return say({ kind: 'refused', text: i18n.t(`refusal.${code}`, facts) });
    }
    if (judged.verdict === 'chosen') {
      playSound('accepted');
      setChosen(judged.order);
      return say(null);
    }
    const { order, place, swapped } = judged;
    send({ name: 'setUpCart', body: { text, chosen } }, { kind: 'set', order, place, swapped });
    setChosen(null);
    const last = now.places.every((p) => p.ready || p.order === order);
    playSound(last ? 'finished' : 'accepted');
    const set = now.places.find((p) => p.order === order)!;
    say({ kind: 'done', text: i18n.t('setUp.done', { order: set.number, place }) });
  };
  return {
    cart,
    next,
    scan,
    choose: (order: string) => setChosen(order),
    /** What is next stands where it should, by touch. */
    confirm: () => next && scan(positionCode({ cart: cart.cart, number: next.place })),
    /** All that fit stand as planned. */
    confirmAll: () => {
      send({ name: 'setUpCart', body: { text: null, chosen: null } }, { kind: 'all-set' });
      playSound('finished');
      say(null);
    },
    /** What has no place waits in a run of its own. */
    leaveRest: () => {
      const orders = cart.places.filter((p) => !p.ready).map((p) => p.order);
      send({ name: 'leaveBehind', body: {} }, { kind: 'behind', orders });
      say({ kind: 'caution', text: i18n.t('setUp.behind', { count: orders.length }) });
    },
  };
}
