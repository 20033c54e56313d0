import { z } from 'zod';
import { mapFloor, type Floor, type FloorMap, type Place } from '../walking/floor/index.ts';
import { PlannerError } from './field.ts';

/** Fields that documents of several verbs share. */
export const name = z.string('must be a text').min(1, 'must not be empty');
export const count = z.int('must be a whole number').min(0, 'must be 0 or more');
export const number = z.number('must be a number');
export const measure = number.min(0, 'must be 0 or more');
export const list = 'must be a list';
export const effort = {
  seconds: number.positive('must be more than 0').default(1),
  seed: z
    .int('must be a whole number')
    .min(0, 'must be 0 or more')
    .max(2 ** 31 - 1, 'is too large')
    .default(1),
};

export const floorField = z.strictObject({
  aisles: z.array(
    z.strictObject({
      id: name,
      x: number,
      oneWay: z.enum(['up', 'down'], 'must be up or down').optional(),
    }),
    list,
  ),
  crossAisles: z.array(number, list).min(2, 'must be two at least'),
});
export const placeField = z.strictObject({ aisle: name, y: number });
const point = z.tuple([z.number(), z.number()]);
export const pathField = z.array(point);

/** @throws PlannerError where an id stands twice in a list */
export function mustDiffer(rows: readonly { id: string }[], path: string): void {
  const seen = new Set<string>();
  rows.forEach(({ id }, i) => {
    if (seen.has(id)) throw new PlannerError(`${path}[${i}].id: must not be there twice, and ${id} is`);
    seen.add(id);
  });
}

/** @throws PlannerError where aisles have one name, or cross aisles do not ascend */
export function mappedFloor(floor: Floor): FloorMap {
  mustDiffer(floor.aisles, 'floor.aisles');
  floor.crossAisles.forEach((y, i) => {
    if (i > 0 && y <= floor.crossAisles[i - 1]!)
      throw new PlannerError(`floor.crossAisles[${i}]: must be more than the one before`);
  });
  return mapFloor(floor);
}

/** @throws PlannerError where a place is not on the floor */
export function mustLieOn({ network }: FloorMap, { aisle, y }: Place, path: string): void {
  if (!network.columnOf.has(aisle))
    throw new PlannerError(`${path}.aisle: must be an aisle of the floor, and ${aisle} is none`);
  const [low, high] = [network.rows[0]!, network.rows.at(-1)!];
  if (y < low || y > high) throw new PlannerError(`${path}.y: must lie between ${low} and ${high}`);
}
