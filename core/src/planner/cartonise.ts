import { z } from 'zod';
import { cartonise, FitsNoCarton, type Goods } from '../stacking/cartonising/index.ts';
import { volumeOf } from '../stacking/boxes/index.ts';
import { parse, PlannerError } from './field.ts';
import { count, effort, list, measure, mustDiffer, name, number } from './shared.ts';
import { loadField, placeOf, sizeField } from './stacking.ts';
import type { PlannerTools } from './tools.ts';

export const cartoniseRequest = z.strictObject({
  cartons: z.array(
    z.strictObject({ id: name, inner: sizeField, tare: measure, maxWeight: measure, cost: measure }),
    list,
  ),
  items: z.array(
    z.strictObject({
      id: name,
      size: sizeField,
      weight: measure.default(0),
      units: count,
      keepUpright: z.boolean('must be true or false').default(false),
      maxLoadOnTop: loadField,
      group: name.nullable().default(null),
    }),
    list,
  ),
  support: number.min(0, 'must lie between 0 and 1').max(1, 'must lie between 0 and 1').default(0.75),
  objective: z.enum(['cost', 'cartons'], 'must be cost or cartons').default('cost'),
  ...effort,
});

export const cartoniseResult = z.object({
  cartons: z.array(
    z.object({
      carton: name,
      weight: z.number(),
      fill: z.number(),
      placements: z.array(z.object({ item: name, at: placeOf, size: placeOf })),
    }),
  ),
  cost: z.number(),
  lowerBound: z.number(),
});

/** Which cartons, and where each unit lies, as the planner's document asks it. */
export function cartoniseDocument(document: unknown, { now }: PlannerTools): z.input<typeof cartoniseResult> {
  const { cartons, items, support, objective, seconds, seed } = parse(cartoniseRequest, document);
  mustDiffer(cartons, 'cartons');
  mustDiffer(items, 'items');
  const begun = now();
  const over = () => now() - begun >= seconds * 1000;
  const types = cartons.map((c) => ({ inner: c.inner, tareG: c.tare, maxWeightG: c.maxWeight, cost: c.cost }));
  const goods = items.map((item): Goods => ({
    size: item.size,
    weightG: item.weight,
    keepUpright: item.keepUpright,
    maxLoadOnTopG: item.maxLoadOnTop,
    stop: Infinity,
    group: item.group,
    units: item.units,
  }));
  try {
    const packed = cartonise({ types, goods, support, objective }, { seed, effort: 'thorough', over });
    return {
      cartons: packed.cartons.map(({ type, units }) => ({
        carton: cartons[type]!.id,
        weight: types[type]!.tareG + units.reduce((sum, u) => sum + goods[u.kind]!.weightG, 0),
        fill: units.reduce((sum, u) => sum + volumeOf(u.size), 0) / volumeOf(types[type]!.inner),
        placements: units.map((u) => ({ item: items[u.kind]!.id, at: [...u.at], size: [...u.size] })),
      })),
      cost: packed.cost,
      lowerBound: packed.lowerBound,
    };
  } catch (error) {
    if (!(error instanceof FitsNoCarton)) throw error;
    throw new PlannerError(`items[${error.goods}]: must fit a carton, and ${items[error.goods]!.id} fits none`);
  }
}
