import { sql } from 'drizzle-orm';
import { anyOf, notFound, Refusal, rows, type Platform } from '../../platform/index.ts';
import type { Planned } from './build.ts';
import { cartonUnits, departureKey } from '../units/index.ts';

/** Seconds that somebody may wait for the best stack; the usual ones take a tenth. */
const SECONDS = 2;
/** Least share of a carton's base that rests on something. */
const SUPPORT = 0.8;

/**
 * How the closed cartons of orders stack: the first pallet of the plan, and how many there are. What is delivered first
 * lies on what is delivered later, where the load of the orders has stops.
 *
 * @throws Refusal 404 for no such type, 409 `nothing-to-stack`, `other-departure` where they do not leave together,
 *   `unit-too-large`
 */
export async function planPallet(
  { db, compute }: Platform,
  siteId: string,
  { type, orders, interlocked }: { type: string; orders: string[]; interlocked: boolean },
): Promise<Planned> {
  if (orders.length === 0) return { units: [], pallets: 1, bound: 1 };
  const [pallet] = await rows<{
    lengthMm: number;
    widthMm: number;
    heightMm: number;
    tareG: number;
    maxHeightMm: number;
    maxLoadG: number;
  }>(
    db,
    sql`select length_mm as "lengthMm", width_mm as "widthMm", height_mm as "heightMm", tare_g as "tareG", max_height_mm as "maxHeightMm",
               max_load_g as "maxLoadG" from pallet_type where id = ${type} and not retired`,
  );
  if (!pallet) throw notFound('pallet type', type);
  const waiting = (
    await cartonUnits(db, siteId, sql`c.order_id = ${anyOf(orders)} and c.state = 'closed' and c.pallet_id is null`)
  ).filter((unit) => unit.state === 'closed');
  if (waiting.length === 0) throw new Refusal('nothing-to-stack');
  if (new Set(waiting.map(departureKey)).size > 1) throw new Refusal('other-departure');
  const found = await compute.pallets({
    units: waiting.map((unit) => ({
      id: unit.id,
      size: unit.size,
      weightG: unit.weightG,
      // A packed carton is never tipped over.
      keepUpright: true,
      maxLoadOnTopG: null,
      stop: unit.stop ?? Infinity,
    })),
    problem: { pallet, support: SUPPORT, interlocked },
    seconds: SECONDS,
  });
  if ('tooLarge' in found)
    throw new Refusal('unit-too-large', { name: waiting.find((u) => u.id === found.tooLarge)!.name });
  return { units: found.pallets[0]!, pallets: found.pallets.length, bound: found.lowerBound };
}
