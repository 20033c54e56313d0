import fc from 'fast-check';
import { openSolver, type Program, type Solver } from './index.ts';

const effort = { seconds: 10, nodes: 5000, seed: 1 };
let solve: Solver;
beforeAll(async () => {
  solve = await openSolver();
});
const knapsack = (gains: number[], weights: number[], limit: number): Program => ({
  gain: gains,
  top: gains.map(() => 1),
  whole: gains.map(() => true),
  rows: [{ limit, terms: weights.map((factor, variable) => ({ variable, factor })) }],
});
/** The best of all choices, by trying each. */
const best = (gains: number[], weights: number[], limit: number) => {
  let most = 0;
  for (let set = 0; set < 2 ** gains.length; set += 1) {
    const of = (list: number[]) => list.reduce((n, x, i) => (set & (1 << i) ? n + x : n), 0);
    if (of(weights) <= limit) most = Math.max(most, of(gains));
  }
  return most;
};

describe('the solver', () => {
  it('finds what trying every choice finds, and proves it', () => {
    const list = fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 20 })), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(list, fc.integer({ min: 0, max: 60 }), (things, limit) => {
        const [gains, weights] = [things.map((t) => t[0]), things.map((t) => t[1])];
        const { x, bound, proven } = solve(knapsack(gains, weights, limit), effort);
        expect(proven).toBe(true);
        expect(Math.round(bound) + 0).toBe(best(gains, weights, limit));
        expect(Math.round(x!.reduce((n, v, i) => n + v * gains[i]!, 0)) + 0).toBe(best(gains, weights, limit));
      }),
      { numRuns: 60 },
    );
  });

  it('takes parts where a variable need not be whole', () => {
    const program = { ...knapsack([3, 2], [2, 1], 2), whole: [false, false] };
    const { x, bound } = solve(program, effort);
    expect(x!.map((v) => Math.round(v * 100) / 100)).toEqual([0.5, 1]);
    expect(bound).toBeCloseTo(3.5);
  });

  it('answers at once where there is nothing to choose', () =>
    expect(solve({ gain: [], top: [], whole: [], rows: [] }, effort)).toEqual({ x: [], bound: 0, proven: true }));

  it('begins from a solution that is known, and never ends with a worse one', () => {
    const program = { ...knapsack([5, 4, 3], [4, 3, 2], 5), start: [0, 1, 1] };
    const { x } = solve(program, { ...effort, nodes: 1 });
    expect(x!.reduce((n, v, i) => n + v * program.gain[i]!, 0)).toBeGreaterThanOrEqual(7);
  });
});
