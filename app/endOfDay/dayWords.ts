import type { DayAct } from '@hand-relay/core/deciding/dayEnd';
import type { DayOpen } from '@hand-relay/contract';
import { i18n, number } from '../text/index.ts';

/** Why an order is still here, in words: what waits where, with whom. */
export function whyOpen({ waits, hold, short, waves, runs, shipment }: DayOpen): string {
  const units = (n: number) => i18n.t('unit.units', { count: n });
  const picking = runs.filter((r) => r.state === 'picking');
  const carts = runs.filter((r) => r.state === 'left');
  const parts = [
    hold !== null && i18n.t('day.why.hold', { hold }),
    waits.release > 0 &&
      (short > 0
        ? i18n.t('day.why.short', { units: units(waits.release) })
        : i18n.t('day.why.release', { units: units(waits.release) })),
    waits.pick > 0 &&
      (picking.length > 0
        ? i18n.t('day.why.picking', {
            runs: picking.map((r) => `${r.number} (${r.picker ?? '–'})`).join(', '),
            units: units(waits.pick),
          })
        : i18n.t('day.why.pick', {
            waves: waves.map((w) => number(w.number)).join(', '),
            units: units(waits.pick),
          })),
    waits.pack > 0 &&
      i18n.t('day.why.pack', { units: units(waits.pack), carts: carts.map((r) => r.cart ?? '').join(', ') || '–' }),
    waits.ship > 0 && i18n.t('day.why.ship', { units: units(waits.ship), shipment: shipment?.number ?? '–' }),
  ].filter((part) => part !== false);
  return parts.join('; ');
}

/** Orders of those shown that a decision can be taken for. */
export const ordersFor = (open: readonly DayOpen[], act: DayAct): DayOpen[] => open.filter((o) => o.can.includes(act));

/** Departures of what is open, in the order in which they leave, with how many orders each has. */
export function departuresOfOpen(
  open: readonly DayOpen[],
): { key: string; leavesAt: string | null; name: string; orders: number }[] {
  const found = new Map<string, { key: string; leavesAt: string | null; name: string; orders: number }>();
  for (const o of open) {
    const key = keyOf(o);
    const one = found.get(key) ?? { key, leavesAt: o.leavesAt, name: o.departure ?? '', orders: 0 };
    one.orders += 1;
    found.set(key, one);
  }
  return [...found.values()];
}

export const keyOf = ({ leavesAt, departure }: DayOpen): string => `${leavesAt ?? ''} ${departure ?? ''}`;
