import { sql } from 'drizzle-orm';
import { packRules } from '../../bench/packRules/index.ts';
import { anyOf, notFound, Refusal, rows, type Db, type Platform } from '../../platform/index.ts';
import type { Planned } from './build.ts';
import { cartonUnits, departureKey, type Unit } from '../units/index.ts';

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
  const byRule = await onePalletByRule(db, siteId, waiting);
  const found = await compute.pallets({
    units: (byRule?.first ?? waiting).map((unit) => ({
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
  const pallets = Math.max(byRule?.pallets ?? 1, found.pallets.length);
  return { units: found.pallets[0]!, pallets, bound: Math.max(byRule?.pallets ?? 1, found.lowerBound) };
}

/**
 * Where all cartons hold one item for which the site has a rule of so many on a pallet: those of the first pallet, and how
 * many pallets the rule makes.
 */
async function onePalletByRule(
  db: Db,
  siteId: string,
  waiting: Unit[],
): Promise<{ first: Unit[]; pallets: number } | null> {
  const inside = await rows<{ carton: string; order: string; item: string; units: number }>(
    db,
    sql`select c.id as carton, c.order_id as "order", l.item_id as item, sum(k.units)::int as units
        from carton c join carton_line k on k.carton_id = c.id and k.units > 0 join order_line l on l.id = k.line_id
        where c.id = ${anyOf(waiting.map((u) => u.id))} group by c.id, l.item_id`,
  );
  const items = [...new Set(inside.map((c) => c.item))];
  if (items.length !== 1) return null;
  const orders = anyOf([...new Set(inside.map((c) => c.order))]);
  const ruleOf = await packRules(db, siteId, sql`o.id = ${orders}`, items);
  const most = [...new Set(inside.map((c) => ruleOf(c.order, c.item)?.perPallet ?? null))];
  const [perPallet] = most;
  if (most.length !== 1 || !perPallet) return null;
  const unitsOf = new Map(inside.map((c) => [c.carton, c.units]));
  let left = perPallet;
  const first = waiting.filter((unit) => {
    const units = unitsOf.get(unit.id) ?? 0;
    if (units > left) return false;
    left -= units;
    return true;
  });
  // One carton alone may hold more than the rule has for a pallet.
  if (first.length === 0) return null;
  const all = inside.reduce((n, c) => n + c.units, 0);
  return { first, pallets: Math.ceil(all / perPallet) };
}
