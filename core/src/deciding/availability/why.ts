import { firstServed, goodUntil, type LineAllocation, type Supply } from '../allocation/index.ts';
import type { OpenLine, OpenOrder } from './open.ts';

/**
 * Why a line gets what it gets. `full`: it gets all; `manual`: a person decided; `whole-order`: its order ships complete
 * and another line of it is short; `taken`: others get the stock; `shelf`: what is left does not keep long enough;
 * `none`: there is no more.
 */
export type Reason = 'full' | 'manual' | 'whole-order' | 'taken' | 'shelf' | 'none';

export interface Why {
  reason: Reason;
  /** Who else gets of the item, the most first: at most three. */
  takers: { order: string; units: number }[];
  /** Units of the item that nobody gets as they do not keep long enough for this line. */
  tooOld: number;
}

/** Promises and stock by item, so that asking for many lines stays quick. */
export class Reasons {
  private readonly promises: ReadonlyMap<string, LineAllocation>;
  private readonly askers = new Map<string, { order: OpenOrder; line: OpenLine }[]>();
  private readonly stock = new Map<string, Supply[]>();

  constructor(supply: Supply[], orders: OpenOrder[], promises: ReadonlyMap<string, LineAllocation>) {
    this.promises = promises;
    for (const order of orders)
      for (const line of order.lines)
        this.askers.set(line.item, [...(this.askers.get(line.item) ?? []), { order, line }]);
    for (const row of supply) this.stock.set(row.item, [...(this.stock.get(row.item) ?? []), row]);
  }

  /** @param manual whether a person decided what the line gets */
  of(order: OpenOrder, line: OpenLine, manual: boolean): Why {
    const got = this.promises.get(line.id)?.units ?? 0;
    const none: Why = { reason: 'full', takers: [], tooOld: 0 };
    if (got >= line.units) return none;
    if (manual) return { ...none, reason: 'manual' };
    const others = (this.askers.get(line.item) ?? [])
      .filter((a) => a.line !== line)
      .map((a) => ({ ...a, units: Math.max(0, (this.promises.get(a.line.id)?.units ?? 0) - a.line.reserved) }))
      .filter((a) => a.units > 0)
      .sort((a, b) => b.units - a.units || firstServed(a.order, b.order));
    const takers = others.slice(0, 3).map((a) => ({ order: a.order.id, units: a.units }));
    const stock = this.stock.get(line.item) ?? [];
    const until = goodUntil(order, line);
    const total = (list: { units: number }[]) => list.reduce((n, row) => n + row.units, 0);
    const suits = total(stock.filter((row) => row.bestBefore === null || row.bestBefore >= until));
    const left = Math.max(0, total(stock) - total(others));
    const tooOld = Math.min(left, total(stock) - suits);
    const short = order.lines.filter((l) => (this.promises.get(l.id)?.units ?? 0) < l.units);
    // What could be had and is not taken waits for another line of the order.
    if (order.shipComplete && got === 0 && short.length > 0 && suits - total(others) >= line.units - line.reserved)
      return { reason: 'whole-order', takers: [], tooOld: 0 };
    if (takers.length > 0) return { reason: 'taken', takers, tooOld };
    return { reason: tooOld > 0 ? 'shelf' : 'none', takers, tooOld };
  }
}
