/** A source of repeatable numbers: the same seed gives the same row on any machine. */
export interface Random {
  /** A real number from 0 up to, not including, 1. */
  next(): number;
  /** A whole number from `low` to `high`, both included. */
  int(low: number, high: number): number;
  /** One of the given values. */
  pick<T>(values: readonly T[]): T;
  /** The index of a weight, each with a likelihood in proportion to its weight. */
  weighted(weights: readonly number[]): number;
}

/** The generator mulberry32 (public domain): 32 bits of state, good enough for scenarios and search, not for secrets. */
export function seeded(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    int: (low, high) => low + Math.floor(next() * (high - low + 1)),
    pick: (values) => values[Math.floor(next() * values.length)]!,
    weighted: (weights) => {
      let mark = next() * weights.reduce((a, b) => a + b, 0);
      const found = weights.findIndex((w) => (mark -= w) < 0);
      return found < 0 ? weights.length - 1 : found;
    },
  };
}
