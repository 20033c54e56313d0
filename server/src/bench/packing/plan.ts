import { sql } from 'drizzle-orm';
import type { PackPlan } from '@hand-relay/contract';
import { withInHand } from '@hand-relay/core/handling/packing';
import { volumeOf } from '@hand-relay/core/stacking/boxes';
import { volumetricG, type CartonRule, type CartonType, type Goods } from '@hand-relay/core/stacking/cartonising';
import { anyOf, notFound, rows, type Db, type Platform, type Tx } from '../../platform/index.ts';
import { outOfStock } from '../packaging/index.ts';
import { benchState } from './read.ts';
import { packRules } from '../packRules/index.ts';

/** Seconds that a packer may wait for the best packing; simple orders take a few hundredths. */
const SECONDS = 1.5;
/** Least share of a unit's base that rests on something in a carton. */
const SUPPORT = 0.75;

type NamedType = CartonType & { id: string; code: string; name: string };

/** Carton types of the house, the cheapest first. */
const cartonTypes = (on: Db | Tx): Promise<NamedType[]> =>
  rows<NamedType>(
    on,
    sql`select id, code, name, inner_mm as inner, tare_g as "tareG", max_weight_g as "maxWeightG", cost_minor::float8 as cost
        from carton_type where not retired order by cost_minor, code`,
  );

/** Sizes and rules of items, by id, as goods without a count. */
async function goodsOf(
  on: Db | Tx,
  items: readonly string[],
): Promise<Map<string, Omit<Goods, 'units'> & { name: string }>> {
  const found = await rows<Omit<Goods, 'units' | 'stop'> & { id: string; name: string }>(
    on,
    sql`select id, name, array[length_mm, width_mm, height_mm] as size, weight_g as "weightG", keep_upright as "keepUpright",
               max_load_g as "maxLoadOnTopG", apart as "group" from item where id = ${anyOf([...new Set(items)])}`,
  );
  return new Map(found.map(({ id, ...goods }) => [id, { ...goods, stop: Infinity }]));
}

/**
 * Which cartons what is at the bench for an order takes, and where each unit lies; the open carton first, with what is in
 * it. The same goods give the same answer, so that a drawing stays as it is while they are put in.
 *
 * @param inHand the open carton that is planned on; null for the one that was opened last
 */
export async function packPlan(
  { db, compute }: Platform,
  siteId: string,
  orderId: string,
  inHand: string | null,
): Promise<PackPlan> {
  const [order] = await rows<{ id: string }>(
    db,
    sql`select id from customer_order where id = ${orderId} and site_id = ${siteId}`,
  );
  if (!order) throw notFound('order', orderId);
  const { loose, carton } = withInHand(await benchState(db, siteId, orderId), inHand);
  const none = await outOfStock(db, siteId);
  // One in hand is there; of the others those of which none is left are not proposed.
  const every = await cartonTypes(db);
  const left = every.filter((t) => !none.has(t.id) || t.code === carton?.typeCode);
  const types = left.length > 0 ? left : every;
  const inside = new Map<string, number>();
  for (const { item, units } of carton?.contents ?? []) inside.set(item, (inside.get(item) ?? 0) + units);
  const all = new Map(inside);
  for (const { item, units } of loose) all.set(item.id, (all.get(item.id) ?? 0) + units);
  const known = await goodsOf(db, [...all.keys()]);
  // In one order, whichever goods were put in first: the same goods are the same question.
  const ids = [...all.keys()].sort();
  const goods = ids.map((id) => ({ ...known.get(id)!, units: all.get(id)! }));
  const type = types.findIndex((t) => t.code === carton?.typeCode);
  const ruleOf = await packRules(db, siteId, sql`o.id = ${orderId}`, ids);
  const rules = ids.map((item): CartonRule | null => {
    const rule = ruleOf(orderId, item);
    if (!rule) return null;
    const its = types.findIndex((t) => t.code === rule.carton);
    return { perCarton: rule.perCarton, type: its < 0 ? null : its };
  });
  const plan = await compute.cartons({
    problem: { types, goods, support: SUPPORT, objective: 'cost' },
    rules,
    begun: carton && type >= 0 ? { type, inside: ids.map((id) => inside.get(id) ?? 0) } : null,
    seconds: SECONDS,
  });
  return {
    cartons: plan.cartons.map(({ type: t, units, rule }) => {
      const { code, name, inner, tareG } = types[t]!;
      const kinds = rule ? Array.from({ length: rule.units }, () => rule.kind) : units.map((u) => u.kind);
      const filled = units.reduce((sum, u) => sum + volumeOf(u.size), 0);
      return {
        code,
        name,
        inner: [...inner],
        weightG: tareG + kinds.reduce((sum, k) => sum + goods[k]!.weightG, 0),
        volumetricG: volumetricG(inner),
        fill: filled / volumeOf(inner),
        rule: rule && { item: ids[rule.kind]!, units: rule.units, perCarton: rule.perCarton },
        places: [...units]
          // From below upwards, from the far corner to the near one.
          .sort((a, b) => a.at[2] - b.at[2] || a.at[1] - b.at[1] || a.at[0] - b.at[0])
          .map(({ kind, at, size }) => ({ item: ids[kind]!, at: [...at], size: [...size] })),
      };
    }),
    costMinor: plan.cost,
    boundMinor: Math.floor(plan.lowerBound),
    otherwise: plan.otherwise,
    choices: plan.choices.map(({ type: t, cost, ...choice }) => ({ code: types[t]!.code, costMinor: cost, ...choice })),
    unfit: plan.unfit.map((k) => ({ item: ids[k]!, name: goods[k]!.name })),
  };
}
