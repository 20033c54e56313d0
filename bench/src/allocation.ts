import { allocate, completeOrders, faultsOf, type Demand, type Supply } from '@hand-relay/core/deciding/allocation';
import { seeded } from '@hand-relay/core/random';
import { openSolver } from '@hand-relay/core/solver';
import type { Note } from './note.ts';

/**
 * Orders over items of which the popular ones are asked far more: item n is asked in proportion to 1/√n. Of the `short`
 * share of items, stock covers about `cover` of what is asked; of the others more than all. It lies in three lots of
 * different dates.
 */
export function instance(
  size: { orders: number; lines: number; items: number; cover: number; short?: number },
  seed = 1,
) {
  const random = seeded(seed);
  const pick = () => Math.floor(size.items * random.next() ** 2);
  const demand: Demand[] = Array.from({ length: size.orders }, (_, o) => ({
    id: `o${o}`,
    priority: 1 + Math.floor(random.next() * 5),
    shipDate: `2026-03-${String(1 + Math.floor(random.next() * 9)).padStart(2, '0')}`,
    shipComplete: random.next() < 0.3,
    lines: [...new Set(Array.from({ length: size.lines }, pick))].map((item, l) => ({
      id: `o${o}-${l}`,
      item: `i${item}`,
      units: 1 + Math.floor(random.next() * 12),
      minShelfDays: random.next() < 0.3 ? 30 : 0,
    })),
  }));
  const asked = new Map<string, number>();
  for (const { lines } of demand) for (const l of lines) asked.set(l.item, (asked.get(l.item) ?? 0) + l.units);
  const supply: Supply[] = [...asked].flatMap(([item, units]) => {
    const cover = random.next() < (size.short ?? 1) ? size.cover : 2;
    return ['2026-03-20', '2026-05-01', '2026-09-01'].map((bestBefore, n) => ({
      item,
      lot: `L${n}`,
      bestBefore,
      units: Math.ceil((units * cover * (0.6 + 0.8 * random.next())) / 3),
    }));
  });
  return { supply, demand, lines: demand.reduce((n, o) => n + o.lines.length, 0) };
}

/** Times the policies: speed of the quick ones on many lines, and how near to its bound the search for most orders ends. */
export async function benchAllocation(note: Note): Promise<void> {
  const many = instance({ orders: 20_000, lines: 5, items: 2000, cover: 0.9 });
  note('allocation: lines', many.lines, '');
  for (const policy of ['priority', 'fair-share'] as const) {
    const begun = performance.now();
    const { promises } = allocate(many.supply, many.demand, { policy });
    note(
      `allocation by ${policy}`,
      performance.now() - begun,
      'ms',
      policy === 'priority' ? 'under 1000' : 'under 5000',
    );
    note('lines that it answers', promises.length, '');
  }
  const solver = await openSolver();
  for (const [name, size, seed] of [
    ['150 of 600 items short', { orders: 2000, lines: 5, items: 600, cover: 0.7, short: 0.25 }, 1],
    ['all of 250 items short', { orders: 2000, lines: 5, items: 250, cover: 0.8 }, 1],
    ['all of 1,000 items short', { orders: 2000, lines: 5, items: 1000, cover: 0.8 }, 2],
    ['all of 800 items short', { orders: 4000, lines: 5, items: 800, cover: 0.8 }, 1],
    ['a quarter of 800 items short', { orders: 4000, lines: 5, items: 800, cover: 0.7, short: 0.25 }, 3],
    ['all of 2,000 items short', { orders: 20_000, lines: 5, items: 2000, cover: 0.9 }, 1],
  ] as const) {
    const { supply, demand } = instance(size, seed);
    const large = size.orders > 10_000;
    const effort = { seconds: large ? 10 : 5, nodes: 5000, seed: 1 };
    const plain = completeOrders(demand, allocate(supply, demand, { policy: 'priority' }).promises).size;
    const begun = performance.now();
    const spent = () => (performance.now() - begun) / (effort.seconds * 1000);
    const most = allocate(supply, demand, { policy: 'most-orders', solver, effort: { ...effort, spent } });
    const seconds = (performance.now() - begun) / 1000;
    const complete = completeOrders(demand, most.promises).size;
    note(`${size.orders} orders, ${name}: complete by priority`, plain, '');
    note(`${size.orders} orders, ${name}: complete by most-orders`, complete, '');
    note('ratio', complete / plain, '×');
    note('bound', most.bound!, '');
    note('gap to the bound', (100 * (most.bound! - complete)) / most.bound!, '%', large ? 'at most 3' : 'at most 1');
    note('faults found in it', faultsOf(supply, demand, most.promises).length, '', '0');
    note('seconds', seconds, 's', `under ${effort.seconds}`);
  }
}
