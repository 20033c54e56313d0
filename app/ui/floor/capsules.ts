/** A stop on the screen, in pixels. */
export interface Dot {
  number: number;
  x: number;
  y: number;
}

/** Stops that are too close to be told apart, as one: `28–31`. */
export interface Capsule {
  numbers: number[];
  label: string;
  x: number;
  y: number;
  /** In pixels. */
  width: number;
}

/** Pixels between two stops below which they are one capsule. */
const CLOSE = 18;
/** Height of a capsule in pixels. */
export const CAPSULE = 22;
const LETTER = 7.5;
const LONGEST = 11;

/**
 * Merges stops that are closer than 18 pixels, and then capsules that would cover one another, until none does.
 *
 * @param dots the stops, each with its number in the walk
 * @returns capsules, each at the middle of its stops; together they hold every stop once
 */
export function capsulesOf(dots: readonly Dot[]): Capsule[] {
  let groups = dots.map((d) => [d]);
  for (;;) {
    const capsules = groups.map(capsuleOf);
    const merged = mergeOnce(groups, capsules);
    if (!merged) return capsules;
    groups = merged;
  }
}

function mergeOnce(groups: Dot[][], capsules: Capsule[]): Dot[][] | null {
  for (let i = 0; i < groups.length; i++)
    for (let j = i + 1; j < groups.length; j++) {
      const near = groups[i]!.some((a) => groups[j]!.some((b) => Math.hypot(a.x - b.x, a.y - b.y) < CLOSE));
      const [a, b] = [capsules[i]!, capsules[j]!];
      const covers = Math.abs(a.x - b.x) < (a.width + b.width) / 2 && Math.abs(a.y - b.y) < CAPSULE;
      if (near || covers) return [...groups.filter((_, n) => n !== i && n !== j), [...groups[i]!, ...groups[j]!]];
    }
  return null;
}

function capsuleOf(dots: readonly Dot[]): Capsule {
  const numbers = dots.map((d) => d.number).sort((a, b) => a - b);
  const mean = (of: (d: Dot) => number) => dots.reduce((sum, d) => sum + of(d), 0) / dots.length;
  const label = rangesOf(numbers);
  return {
    numbers,
    label,
    x: mean((d) => d.x),
    y: mean((d) => d.y),
    width: Math.max(CAPSULE, label.length * LETTER + 10),
  };
}

/** Numbers in ascending order as ranges, `3, 28–31`; where that is long, only from the first to the last. */
export function rangesOf(numbers: readonly number[]): string {
  const ranges: [number, number][] = [];
  for (const n of numbers) {
    const last = ranges.at(-1);
    if (last && n === last[1] + 1) last[1] = n;
    else ranges.push([n, n]);
  }
  const all = ranges.map(([a, b]) => (a === b ? String(a) : `${a}–${b}`)).join(', ');
  return all.length <= LONGEST ? all : `${numbers[0]}–${numbers.at(-1)}`;
}
