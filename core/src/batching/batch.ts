import type { Floor, Place } from '../floor/index.ts';
import { mapFloor } from '../floor/index.ts';
import type { Stop } from '../routing/index.ts';

export interface BatchOrder {
  id: string;
  /** 1 first. Orders of a run are filled up from the most urgent seed. */
  priority: number;
  stops: Stop[];
  /** Totals of the order, for the cart's limits. */
  units: number;
  weightG: number;
  volumeCm3: number;
}

/** What a cart takes; a limit that is absent does not bind. */
export interface CartLimits {
  positions: number;
  maxUnits?: number;
  maxWeightG?: number;
  maxVolumeCm3?: number;
}

/**
 * Groups whole orders onto carts, one position each. A run begins with the most urgent order left, the one with the
 * longest walk first, and takes in turn the order that lengthens its serpentine walk least and still fits (seed
 * rules after De Koster, Van der Poort and Wolters 1999).
 *
 * An order that exceeds the cart's limits by itself gets a run of its own, so that nobody's order is lost.
 *
 * @returns order ids by run, in the order they took their positions
 */
export function batch(orders: BatchOrder[], cart: CartLimits, floor: Floor, start: Place): string[][] {
  if (!Number.isInteger(cart.positions) || cart.positions < 1)
    throw new RangeError(`A cart has at least one position, received ${cart.positions}.`);
  const measureWalk = serpentineLength(floor, start);
  const alone = new Map(orders.map((o) => [o.id, measureWalk(o.stops)]));
  const left = [...orders].sort(
    (a, b) => a.priority - b.priority || alone.get(b.id)! - alone.get(a.id)! || (a.id < b.id ? -1 : 1),
  );
  const runs: string[][] = [];
  while (left.length > 0) {
    const run = [left.shift()!];
    let stops = run[0]!.stops;
    let length = alone.get(run[0]!.id)!;
    while (run.length < cart.positions) {
      let best = -1;
      let least = Infinity;
      left.forEach((order, i) => {
        if (!fits([...run, order], cart)) return;
        const added = measureWalk([...stops, ...order.stops]) - length;
        if (added < least) [best, least] = [i, added];
      });
      if (best < 0) break;
      const [order] = left.splice(best, 1);
      run.push(order!);
      stops = [...stops, ...order!.stops];
      length += least;
    }
    runs.push(run.map((o) => o.id));
  }
  return runs;
}

function fits(orders: BatchOrder[], cart: CartLimits): boolean {
  const sum = (of: (o: BatchOrder) => number) => orders.reduce((n, o) => n + of(o), 0);
  return (
    sum((o) => o.units) <= (cart.maxUnits ?? Infinity) &&
    sum((o) => o.weightG) <= (cart.maxWeightG ?? Infinity) &&
    sum((o) => o.volumeCm3) <= (cart.maxVolumeCm3 ?? Infinity)
  );
}

/** Length of the serpentine walk over stops, from the start and back: cheap enough to ask for every pair of orders. */
function serpentineLength(floor: Floor, start: Place): (stops: Stop[]) => number {
  const map = mapFloor(floor);
  return (stops) => {
    const columns = new Map<string, { low: number; high: number }>();
    for (const { aisle, y } of stops) {
      const column = columns.get(aisle);
      if (!column) columns.set(aisle, { low: y, high: y });
      else {
        if (y < column.low) column.low = y;
        if (y > column.high) column.high = y;
      }
    }
    let at = start;
    let sum = 0;
    const aisles = [...columns.keys()].sort((a, b) => map.x(a) - map.x(b));
    for (const aisle of aisles) {
      const { low, high } = columns.get(aisle)!;
      const [near, far] = Math.abs(at.y - low) <= Math.abs(at.y - high) ? [low, high] : [high, low];
      sum += map.distance(at, { aisle, y: near }) + Math.abs(far - near);
      at = { aisle, y: far };
    }
    return sum + map.distance(at, start);
  };
}
