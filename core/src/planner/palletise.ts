import { z } from 'zod';
import { volumeOf, type Sides } from '../stacking/boxes/index.ts';
import { heightOf, palletiseUnits, UnitFitsNoPallet } from '../stacking/palletising/index.ts';
import { parse, PlannerError } from './field.ts';
import { count, effort, list, measure, mustDiffer, name, number } from './shared.ts';
import { loadField, placeOf, sizeField } from './stacking.ts';
import type { PlannerTools } from './tools.ts';

const side = number.positive('must be more than 0');

export const palletiseRequest = z.strictObject({
  pallet: z.strictObject({
    length: side,
    width: side,
    height: measure,
    tare: measure,
    maxHeight: side,
    maxLoad: measure,
  }),
  units: z.array(
    z.strictObject({
      id: name,
      size: sizeField,
      weight: measure.default(0),
      keepUpright: z.boolean('must be true or false').default(false),
      maxLoadOnTop: loadField,
      stop: z.int('must be a whole number').optional(),
    }),
    list,
  ),
  support: number.min(0, 'must lie between 0 and 1').max(1, 'must lie between 0 and 1').default(0.8),
  ...effort,
});

export const palletiseResult = z.object({
  pallets: z.array(
    z.object({
      height: z.number(),
      weight: z.number(),
      fill: z.number(),
      placements: z.array(z.object({ unit: name, at: placeOf, size: placeOf })),
    }),
  ),
  lowerBound: count,
});

/** How units stack on pallets, as the planner's document asks it. */
export function palletiseDocument(document: unknown, { now }: PlannerTools): z.input<typeof palletiseResult> {
  const { pallet, units, support, seconds, seed } = parse(palletiseRequest, document);
  mustDiffer(units, 'units');
  if (pallet.maxHeight <= pallet.height)
    throw new PlannerError(`pallet.maxHeight: must be more than the pallet's own height, which is ${pallet.height}`);
  const begun = now();
  const over = () => now() - begun >= seconds * 1000;
  try {
    const { pallets, lowerBound } = palletiseUnits(
      units.map((unit) => ({
        id: unit.id,
        size: unit.size,
        weightG: unit.weight,
        keepUpright: unit.keepUpright,
        maxLoadOnTopG: unit.maxLoadOnTop,
        stop: unit.stop ?? Infinity,
      })),
      {
        pallet: {
          lengthMm: pallet.length,
          widthMm: pallet.width,
          heightMm: pallet.height,
          tareG: pallet.tare,
          maxHeightMm: pallet.maxHeight,
          maxLoadG: pallet.maxLoad,
        },
        support,
      },
      { seed, over },
    );
    const weightOf = new Map(units.map((unit) => [unit.id, unit.weight]));
    const space: Sides = [pallet.length, pallet.width, pallet.maxHeight - pallet.height];
    return {
      pallets: pallets.map((placed) => ({
        height: pallet.height + heightOf(placed),
        weight: pallet.tare + placed.reduce((sum, u) => sum + weightOf.get(u.id)!, 0),
        fill: placed.reduce((sum, u) => sum + volumeOf(u.size), 0) / volumeOf(space),
        placements: placed.map(({ id, at, size }) => ({
          unit: id,
          at: [at[0], at[1], at[2] + pallet.height] as [number, number, number],
          size: [...size] as [number, number, number],
        })),
      })),
      lowerBound,
    };
  } catch (error) {
    if (!(error instanceof UnitFitsNoPallet)) throw error;
    const at = units.findIndex((unit) => unit.id === error.id);
    throw new PlannerError(`units[${at}]: must fit the pallet, and ${error.id} does not`);
  }
}
