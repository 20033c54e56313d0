import type { Row } from './column.ts';

/** Grams a litre: below the first nothing is shipped (foam has 10), above the second nothing is made (tungsten has 19,300). */
const LEAST = 5;
const MOST = 22_000;

export interface OddDensity {
  grams: number;
  litres: number;
}

/**
 * Whether the sizes and the weight of a unit cannot both be right: most often a unit of measure was mistaken, as
 * centimetres for millimetres, which makes a thousand times the volume.
 *
 * @returns what the unit would weigh and fill; null where they go together, or one of them is not known
 *
 * @example
 * oddDensity({ length_mm: 3000, width_mm: 900, height_mm: 900, weight_g: 340 }) // a jar of 2,430 litres
 */
export function oddDensity(row: Row): OddDensity | null {
  const [length, width, height, grams] = ['length_mm', 'width_mm', 'height_mm', 'weight_g'].map((name) => row[name]);
  if (![length, width, height, grams].every((value) => typeof value === 'number' && value > 0)) return null;
  const litres = (Number(length) * Number(width) * Number(height)) / 1e6;
  const density = Number(grams) / litres;
  return density < LEAST || density > MOST ? { grams: Number(grams), litres } : null;
}
