import { batch } from '@hand-relay/core/walking/batching';
import { openSolver } from '@hand-relay/core/solver';
import { ordersOf } from './batching.ts';
import { exactBatch } from './exactBatch.ts';

const floor = {
  aisles: Array.from({ length: 10 }, (_, i) => ({ id: `A${i}`, x: i * 5 })),
  crossAisles: [0, 46],
};
const at = { floor, start: { aisle: 'A0', y: 0 }, finish: { aisle: 'A0', y: 0 } };

/** The search against every run there is, on instances small enough for that. */
it.each([1, 2, 3, 4])(
  'the search comes within half a percent of the shortest batches that there are (%i)',
  async (seed) => {
    const solver = await openSolver();
    const orders = ordersOf(12, [5, 25], seed % 2 === 0, seed);
    // As long as it takes: on a busy machine too it must end with a proof.
    const exact = exactBatch(orders, 45, at, solver, 100)!;
    expect(exact.proven).toBe(true);
    const { lengths } = batch(orders, { positions: 99, maxUnits: 45 }, at, { seed: 1 });
    const found = lengths.reduce((a, b) => a + b, 0);
    expect(found).toBeGreaterThanOrEqual(exact.metres - 1e-6);
    expect(found).toBeLessThanOrEqual(1.005 * exact.metres);
  },
);
