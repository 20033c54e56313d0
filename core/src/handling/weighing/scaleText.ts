const unitsOf: Record<string, number> = { kg: 1000, g: 1, lb: 453.59237, oz: 28.349523125 };

/**
 * What a scale on a serial line says: the last number that is followed by a unit of mass. Scales differ in what they
 * write before and after it; a line with a question mark or a word for unsteady is not a weight yet.
 *
 * @returns grams, whole; null where the line says no steady weight
 *
 * @example
 * readScaleText('  +   1.250 kg') // 1250
 * readScaleText('US,GS, 1.250kg') // null: unsteady
 */
export function readScaleText(line: string): number | null {
  if (/\?|\bUS\b|unstable|motion/i.test(line)) return null;
  const found = [...line.matchAll(/([+-]?)\s*(\d+(?:[.,]\d+)?)\s*(kg|g|lb|oz)\b/gi)].at(-1);
  if (!found) return null;
  const grams = Number(found[2]!.replace(',', '.')) * unitsOf[found[3]!.toLowerCase()]! * (found[1] === '-' ? -1 : 1);
  return Math.round(grams);
}
