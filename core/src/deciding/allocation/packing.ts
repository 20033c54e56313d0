/** Which of `count` things to take so that at every limit the needs of those taken are within it. */
export interface Packing {
  count: number;
  limits: { units: number; needs: { thing: number; units: number }[] }[];
  /**
   * Limits of one kind of goods, the strictest first: what needs something at one needs as much or more at all after
   * it, which hold more. Left out, every limit is of a kind of its own.
   */
  chains?: number[][];
}

/** The kinds of a packing's limits, each with its limits, the strictest first. */
export const chainsOf = ({ limits, chains }: Packing): number[][] => chains ?? limits.map((_, l) => [l]);

/** Whether things taken together are within every limit. */
export function fitsIn({ limits }: Packing, things: Iterable<number>): boolean {
  const taken = new Set(things);
  return limits.every(
    ({ units, needs }) => needs.reduce((n, need) => (taken.has(need.thing) ? n + need.units : n), 0) <= units,
  );
}
