import type { Network } from '../floor/index.ts';

/**
 * Metres of a walk of which only the number of stops is known, in closed form: stops spread evenly over the aisles,
 * start and finish at the front of the first. Aisles with stops as in Hall (1993); along them the shorter of walking
 * through and of going in from both ends up to the largest gap, of which the expected length is that of n random
 * points; where cross aisles lie between, each block by itself, if that is shorter.
 */
export function roughWalk({ columns, rows }: Network, stops: number): number {
  if (stops === 0 || columns.length === 0) return 0;
  const xs = columns.map((c) => c.x);
  const blocks = rows.length - 1;
  const long = rows.at(-1)! - rows[0]!;
  const whole = along(xs.length, stops, long);
  const inBlocks = along(xs.length * blocks, stops, long / blocks) + long * (1 - 1 / blocks);
  // The farthest aisle with a stop is aisle i with the likelihood that all stops lie in the first i, less that of i - 1.
  const across = xs.reduce(
    (n, x, i) => n + (x - xs[0]!) * (((i + 1) / xs.length) ** stops - (i / xs.length) ** stops),
    0,
  );
  return 2 * across + (blocks > 1 ? Math.min(whole, inBlocks) : whole);
}

function along(aisles: number, stops: number, long: number): number {
  const used = aisles * (1 - (1 - 1 / aisles) ** stops);
  const each = stops / used;
  // Odd numbers of aisles cost one way back: half of the time.
  const through = used * long + long / 2;
  // Of n points on a length the largest of n + 1 gaps is H(n + 1) / (n + 1) of it.
  const gaps = each + 1;
  const largest = (Math.log(gaps) + 0.5772 + 1 / (2 * gaps)) / gaps;
  const ends = Math.min(2, used);
  const split = ends * long + (used - ends) * 2 * long * Math.max(0, 1 - largest);
  return Math.min(through, Math.max(split, used > 1 ? 0 : 2 * long * (each / (each + 1))));
}
