import { batch, faultsOf, type BatchMethod, type BatchOrder } from '@hand-relay/core/walking/batching';
import type { Floor } from '@hand-relay/core/walking/floor';
import { seeded, type Random } from '@hand-relay/core/random';
import { openSolver, type Solver } from '@hand-relay/core/solver';
import { exactBatch } from './exactBatch.ts';
import type { Note } from './note.ts';

/** The set-up of Henn and others, 2010: ten aisles of 45 m, 5 m apart, the depot before the first. */
const floor: Floor = {
  aisles: Array.from({ length: 10 }, (_, i) => ({ id: `A${i}`, x: i * 5 })),
  crossAisles: [0, 46],
};
const depot = { aisle: 'A0', y: 0 };
const at = { floor, start: depot, finish: depot };

/** A tenth of the aisles gets 52 % of the demand, three tenths 36 %, the others 12 %; or all the same. */
const aisleOf = (random: Random, classes: boolean) =>
  classes ? [0, random.int(1, 3), random.int(4, 9)][random.weighted([52, 36, 12])]! : random.int(0, 9);

export function ordersOf(
  count: number,
  lines: [number, number],
  classes: boolean,
  seed: number,
  high = 46,
): BatchOrder[] {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, o) => {
    const units = random.int(...lines);
    const stops = Array.from({ length: units }, (_, s) => ({
      id: `o${o}-${s}`,
      aisle: `A${aisleOf(random, classes)}`,
      y: random.int(1, high - 1),
    }));
    return { id: `o${o}`, priority: 5, units, weightG: 0, volumeCm3: 0, stops };
  });
}

interface Measured {
  metres: number;
  seconds: number;
}

function measured(
  orders: BatchOrder[],
  maxUnits: number,
  method: BatchMethod,
  seconds: number,
  places = 99,
  where: Pick<typeof at, 'floor'> = at,
): Measured {
  const cart = { positions: places, maxUnits };
  const begun = performance.now();
  const spent = () => (performance.now() - begun) / (seconds * 1000);
  const { runs, lengths } = batch(orders, cart, { ...at, ...where }, { method, spent });
  const faults = faultsOf(orders, cart, runs);
  if (faults.length > 0) throw new Error(faults[0]);
  return { metres: lengths.reduce((a, b) => a + b, 0), seconds: (performance.now() - begun) / 1000 };
}

const SEEDS = [1, 2, 3];

/** How much shorter than savings batches can be at all, by listing every run; only where a cart holds few orders. */
function beside(
  note: Note,
  what: string,
  count: number,
  classes: boolean,
  rows: readonly (readonly Measured[])[],
  solver: Solver,
): void {
  let [exact, savings, best] = [0, 0, 0];
  for (const [i, seed] of SEEDS.entries()) {
    const found = exactBatch(ordersOf(count, [5, 25], classes, 1000 * seed + count), 30, at, solver, 60);
    if (!found?.proven) continue;
    exact += found.metres;
    savings += rows[i]![1]!.metres;
    best += rows[i]![2]!.metres;
  }
  if (exact === 0) return;
  note(`${what}: shortest there is, shorter than savings by`, 100 * (1 - exact / savings), '%');
  note(`${what}: best, longer than the shortest there is by`, 100 * (best / exact - 1), '%');
}

/** Batches on the published set-up, beside first-come and savings with the same exact routes. */
export async function benchBatching(note: Note): Promise<void> {
  const solver = await openSolver();
  const gains: number[] = [];
  for (const classes of [true, false])
    for (const count of [20, 40, 60, 80, 100])
      for (const capacity of [30, 45, 60, 75]) {
        const rows = SEEDS.map((seed) => {
          const orders = ordersOf(count, [5, 25], classes, 1000 * seed + count);
          return (['first-come', 'savings', 'best'] as const).map((method) => measured(orders, capacity, method, 2));
        });
        const mean = (i: number, of: keyof Measured) => rows.reduce((n, r) => n + r[i]![of], 0) / rows.length;
        const what = `${count} orders, ${capacity} articles a cart, ${classes ? 'by class' : 'even'}`;
        note(`${what}: first come`, mean(0, 'metres'), 'm');
        note(`${what}: savings`, mean(1, 'metres'), 'm');
        note(`${what}: best`, mean(2, 'metres'), 'm');
        note(`${what}: seconds`, mean(2, 'seconds'), 's', 'within 2');
        const gain = 100 * (1 - mean(2, 'metres') / mean(1, 'metres'));
        note(`${what}: shorter than savings by`, gain, '%');
        if (capacity === 30) beside(note, what, count, classes, rows, solver);
        if (count >= 60) gains.push(gain);
      }
  note(
    '60 to 100 orders: shorter than savings by, on average',
    gains.reduce((a, b) => a + b, 0) / gains.length,
    '%',
    'at least 5',
  );
}

/** Many small orders, six lines each, as a shop has them: beside first come and savings, on floors of up to ten blocks. */
export function benchManyOrders(note: Note): void {
  for (const { orders, blocks, places, seconds, aim } of [
    { orders: 100, blocks: 1, places: 12, seconds: 2, aim: 0 },
    { orders: 1000, blocks: 1, places: 12, seconds: 10, aim: 30 },
    { orders: 1000, blocks: 3, places: 12, seconds: 20, aim: 20 },
    { orders: 5000, blocks: 1, places: 12, seconds: 60, aim: 20 },
    { orders: 50, blocks: 4, places: 6, seconds: 3, aim: 15 },
    { orders: 40, blocks: 5, places: 6, seconds: 3, aim: 15 },
    { orders: 60, blocks: 6, places: 6, seconds: 3, aim: 15 },
    { orders: 60, blocks: 10, places: 6, seconds: 3, aim: 0 },
  ]) {
    const block = blocks === 1 ? 46 : 15;
    const crossAisles = Array.from({ length: blocks + 1 }, (_, i) => i * block);
    const many = ordersOf(orders, [2, 10], false, 9, crossAisles.at(-1));
    const lines = many.reduce((n, o) => n + o.stops.length, 0);
    const [first, savings, best] = (['first-come', 'savings', 'best'] as const).map((m) =>
      measured(many, 75, m, seconds, places, { floor: { ...floor, crossAisles } }),
    );
    const what = `${orders} orders, ${lines} lines, ${places} places, ${blocks} block${blocks > 1 ? 's' : ''}`;
    note(`${what}: first come`, first!.metres, 'm');
    note(`${what}: savings`, savings!.metres, 'm');
    note(`${what}: savings, seconds`, savings!.seconds, 's');
    note(`${what}: best`, best!.metres, 'm');
    note(`${what}: best, seconds`, best!.seconds, 's', `within ${seconds}`);
    note(`${what}: shorter than savings by`, 100 * (1 - best!.metres / savings!.metres), '%', 'more than 0');
    const gain = 100 * (1 - best!.metres / first!.metres);
    note(`${what}: shorter than first come by`, gain, '%', aim > 0 ? `at least ${aim}` : '');
    note(`${what}: memory after`, process.memoryUsage().rss / 2 ** 20, 'MB', orders === 5000 ? 'under 400' : '');
  }
}
