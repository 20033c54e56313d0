import { z } from 'zod';
import { measure, number } from './shared.ts';

const side = number.positive('must be more than 0');
/** Three sides in millimetres, the third vertical. */
export const sizeField = z.tuple([side, side, side], 'must be three numbers');
/** Weight that may rest on a unit, grams; null where any may. */
export const loadField = measure.nullable().default(null);
/** A place or sides of an answer. */
export const placeOf = z.tuple([z.number(), z.number(), z.number()]);
