/**
 * So many units as the fewest packs: the largest first, what is left over in units.
 *
 * @param packs sizes in units, in any order; those of one unit are left out
 * @returns how many of each size, the largest first; `[{ units: 1, count }]` where no pack fits
 */
export function splitPacks(units: number, packs: readonly number[]): { units: number; count: number }[] {
  const sizes = [...new Set(packs.filter((p) => p > 1)), 1].sort((a, b) => b - a);
  let left = units;
  return sizes.flatMap((size) => {
    const count = Math.floor(left / size);
    left -= count * size;
    return count > 0 ? [{ units: size, count }] : [];
  });
}
