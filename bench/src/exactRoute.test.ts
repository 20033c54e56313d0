import { mapFloor, type Floor } from '@hand-relay/core/walking/floor';
import { seeded } from '@hand-relay/core/random';
import { route } from '@hand-relay/core/walking/routing';
import { openSolver } from '@hand-relay/core/solver';
import { exactRound } from './exactRoute.ts';

/** More stops than subsets can be searched for: the sweep against a mixed-integer program of the same floor. */
it.each([
  [1, 24],
  [2, 16],
  [3, 14],
])('another exact method finds the same round in %i blocks with %i stops', async (blocks, stops) => {
  const solver = await openSolver();
  const random = seeded(blocks);
  const floor: Floor = {
    aisles: Array.from({ length: 5 }, (_, i) => ({ id: `A${i}`, x: i * 4 })),
    crossAisles: Array.from({ length: blocks + 1 }, (_, i) => i * 12),
  };
  const depot = { aisle: 'A1', y: 0 };
  const list = Array.from({ length: stops }, (_, i) => ({
    id: `s${i}`,
    aisle: `A${random.int(0, 4)}`,
    y: random.int(1, 12 * blocks - 1),
  }));
  const { metres, proven } = exactRound(floor, depot, list, solver, 60);
  expect(proven).toBe(true);
  const found = route({ floor, start: depot, finish: depot, stops: list }, { seed: 1 }, mapFloor(floor));
  expect(found.proven).toBe(true);
  expect(found.distance).toBeCloseTo(metres);
});
