import type { Effort, Solver } from '../../solver/index.ts';
import { fairShare } from './fairShare.ts';
import { mostOrders } from './mostOrders.ts';
import { byPriority } from './priority.ts';
import { firstServed, goodUntil, type Demand, type Grants, type LineAllocation, type Supply } from './problem.ts';
import { Shelf, sum } from './shelf.ts';

/** What settles who gets the stock. `most-orders` needs a solver. */
export type Method =
  { policy: 'priority' } | { policy: 'fair-share' } | { policy: 'most-orders'; solver: Solver; effort: Effort };

export interface Allocated {
  /** A row for every line, orders and lines as they were given. */
  promises: LineAllocation[];
  /** `most-orders` alone: no allocation completes more orders. */
  bound?: number;
}

/** Lots for lines whose units are settled: served in turn, the lot that expires first at first. */
function handOut(supply: Supply[], demand: Demand[], grants: Grants): Map<string, LineAllocation> {
  const shelf = new Shelf(supply);
  const promises = new Map<string, LineAllocation>();
  for (const order of [...demand].sort(firstServed))
    for (const line of order.lines) {
      const units = grants.get(line) ?? 0;
      const taken = shelf.take(line.item, goodUntil(order, line), units);
      const lots = taken.map(({ from, units }) => ({ lot: from.lot, units }));
      promises.set(`${order.id}\n${line.id}`, { order: order.id, line: line.id, units, lots });
    }
  return promises;
}

/**
 * Promises stock to demand by one of the policies. No unit is promised twice, no lot that expires too early, within a
 * line the lot that expires first is taken first, and an order that ships complete gets every line in full or nothing.
 */
export function allocate(supply: Supply[], demand: Demand[], method: Method): Allocated {
  const { grants, bound } = granted(supply, demand, method);
  const promises = handOut(supply, demand, grants);
  return {
    promises: demand.flatMap((o) => o.lines.map((l) => promises.get(`${o.id}\n${l.id}`)!)),
    ...(bound === undefined ? {} : { bound }),
  };
}

function granted(supply: Supply[], demand: Demand[], method: Method): { grants: Grants; bound?: number } {
  if (method.policy === 'most-orders') return mostOrders(supply, demand, method.solver, method.effort);
  return { grants: method.policy === 'priority' ? byPriority(supply, demand) : fairShare(supply, demand) };
}

/** What was settled before a policy chooses. */
export interface Settled {
  /** Lots promised before, by line: they are the line's own, and no part of the supply. */
  reserved: ReadonlyMap<string, LineAllocation['lots']>;
  /** Units that a person allocated manually, by line: the line gets so many, before all others, and no more. */
  manual: ReadonlyMap<string, number>;
}

/**
 * Promises as `allocate` does, beside what is settled already. A line that keeps stock takes only what it lacks; a
 * line allocated manually is served before the policy chooses, and counts as full when it has what was allocated. An order that ships
 * complete and cannot be completed gets nothing, unless a line of it is allocated manually.
 */
export function allocateBeside(
  settled: Settled,
  supply: Supply[],
  demand: Demand[],
  method: Method = { policy: 'priority' },
): Allocated {
  const reserved = (line: string) => settled.reserved.get(line) ?? [];
  const left = supply.map((row) => ({ ...row }));
  const wants = demand.map((order) => ({
    ...order,
    lines: order.lines.map((line) => {
      const units = settled.manual.get(line.id) ?? line.units;
      return { ...line, units: Math.max(0, units - sum(reserved(line.id))) };
    }),
  }));
  const isManual = (line: { id: string }) => settled.manual.has(line.id);
  const byHand = wants.map((order) => ({ ...order, shipComplete: false, lines: order.lines.filter(isManual) }));
  const first = allocate(left, byHand, { policy: 'priority' });
  takeAway(left, byHand, first.promises);
  const manual = new Map(first.promises.map((p) => [p.line, p]));
  const hindered = (order: Demand) => order.lines.some((l) => isManual(l) && manual.get(l.id)!.units < l.units);
  const chosen = wants.map((order) => ({
    ...order,
    lines: order.shipComplete && hindered(order) ? [] : order.lines.filter((l) => !isManual(l)),
  }));
  const second = allocate(left, chosen, method);
  const more = new Map(second.promises.map((p) => [p.line, p]));
  const promises = wants.flatMap((order, n) => {
    const got = (line: string) => manual.get(line) ?? more.get(line);
    const whole = order.lines.every((line) => (got(line.id)?.units ?? 0) === line.units);
    const nothing = order.shipComplete && !whole && !order.lines.some(isManual);
    return order.lines.map((line): LineAllocation => {
      if (nothing) return { order: order.id, line: line.id, units: 0, lots: [] };
      const lots = new Map<string | null, number>();
      let room = settled.manual.get(line.id) ?? demand[n]!.lines.find((l) => l.id === line.id)!.units;
      for (const { lot, units } of [...reserved(line.id), ...(got(line.id)?.lots ?? [])]) {
        const taken = Math.min(room, units);
        room -= taken;
        if (taken > 0) lots.set(lot, (lots.get(lot) ?? 0) + taken);
      }
      const list = [...lots].map(([lot, units]) => ({ lot, units }));
      return { order: order.id, line: line.id, units: sum(list), lots: list };
    });
  });
  return { promises, ...(second.bound === undefined ? {} : { bound: second.bound }) };
}

function takeAway(supply: Supply[], demand: Demand[], promises: LineAllocation[]): void {
  const itemOf = new Map(demand.flatMap((o) => o.lines.map((l) => [l.id, l.item] as const)));
  for (const { line, lots } of promises)
    for (const { lot, units } of lots) {
      let rest = units;
      for (const row of supply) {
        if (rest === 0) break;
        if (row.item !== itemOf.get(line) || row.lot !== lot) continue;
        const taken = Math.min(rest, row.units);
        row.units -= taken;
        rest -= taken;
      }
    }
}
