/** So many orders are changed in one request: a scan that waits behind it hardly notices. */
const AT_ONCE = 40;

/** A list cut into parts, in its order. */
export function partsOf<T>(list: readonly T[], most = AT_ONCE): T[][] {
  return Array.from({ length: Math.ceil(list.length / most) }, (_, i) => list.slice(i * most, (i + 1) * most));
}

/** Sums of each number that answers have; other values are left out. */
export function summed<A extends object>(
  answers: readonly A[],
): { [K in keyof A as A[K] extends number ? K : never]: number } {
  const sums: Record<string, number> = {};
  for (const answer of answers)
    for (const [name, value] of Object.entries(answer))
      if (typeof value === 'number') sums[name] = (sums[name] ?? 0) + value;
  return sums as never;
}
