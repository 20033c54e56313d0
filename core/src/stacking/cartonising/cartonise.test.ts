import fc from 'fast-check';
import { arrange, faultsOf, type Sides } from '../boxes/index.ts';
import { cartonise, type FitsNoCarton, type CartonProblem, type CartonType, type Goods } from './index.ts';

const type = (inner: Sides, cost: number, maxWeightG = 10_000): CartonType => ({ inner, tareG: 10, maxWeightG, cost });
const goods = (size: Sides, units: number, more: Partial<Goods> = {}): Goods => ({
  size,
  units,
  weightG: 100,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
  group: null,
  ...more,
});
const problem = (types: CartonType[], list: Goods[], more: Partial<CartonProblem> = {}): CartonProblem => ({
  types,
  goods: list,
  support: 0.75,
  objective: 'cost',
  ...more,
});

/** All that must hold of an answer, besides its being good. */
function sound(asked: CartonProblem, answer: ReturnType<typeof cartonise>): void {
  for (const { type: t, units } of answer.cartons) {
    const { inner, maxWeightG } = asked.types[t]!;
    expect(faultsOf({ inner, maxWeightG, support: asked.support }, asked.goods, units)).toEqual([]);
    expect(new Set(units.flatMap((u) => asked.goods[u.kind]!.group ?? [])).size).toBeLessThan(2);
  }
  const packed = asked.goods.map((_, k) => answer.cartons.flatMap((c) => c.units).filter((u) => u.kind === k).length);
  expect(packed).toEqual(asked.goods.map((g) => g.units));
  const cost = answer.cartons.reduce((sum, c) => sum + asked.types[c.type]!.cost, 0);
  expect(answer.cost).toBeCloseTo(cost, 9);
  expect(answer.lowerBound).toBeLessThanOrEqual((asked.objective === 'cost' ? cost : answer.cartons.length) + 1e-9);
}

/** By another method: every way of parting a few units, each part in the cheapest type in which it has room. */
function cheapestParting({ types, goods: list, objective }: CartonProblem): number {
  const units = list.flatMap((g, k) => Array.from({ length: g.units }, () => k));
  const priceOf = (part: number[]): number => {
    const groups = new Set(part.flatMap((k) => list[k]!.group ?? []));
    if (groups.size > 1) return Infinity;
    const weight = part.reduce((sum, k) => sum + list[k]!.weightG, 0);
    const prices = types.flatMap((t) =>
      weight <= t.maxWeightG && arrange(t.inner, list, part, 1_000_000).room ? [objective === 'cost' ? t.cost : 1] : [],
    );
    return Math.min(Infinity, ...prices);
  };
  const part = (at: number, parts: number[][]): number => {
    if (at === units.length) return parts.reduce((sum, p) => sum + priceOf(p), 0);
    const put = parts.map((_, i) =>
      part(
        at + 1,
        parts.map((p, j) => (i === j ? [...p, units[at]!] : p)),
      ),
    );
    return Math.min(part(at + 1, [...parts, [units[at]!]]), ...put);
  };
  return part(0, []);
}

const side = (most: number) => fc.integer({ min: 1, max: most });
const sides = (most: number) => fc.tuple(side(most), side(most), side(most)) as fc.Arbitrary<Sides>;

describe('cartons for an order', () => {
  it('are sound, and the same for the same seed', () => {
    const one = fc.record({
      size: sides(20),
      units: fc.integer({ min: 0, max: 12 }),
      weightG: fc.integer({ min: 0, max: 900 }),
      keepUpright: fc.boolean(),
      maxLoadOnTopG: fc.option(fc.integer({ min: 0, max: 2000 })),
      group: fc.constantFrom(null, null, 'food', 'soap'),
      stop: fc.constant(Infinity),
    });
    const types = [type([20, 20, 20], 50, 3000), type([30, 20, 25], 80, 4000), type([40, 30, 25], 110, 9000)];
    fc.assert(
      fc.property(
        fc.array(one, { minLength: 1, maxLength: 5 }),
        fc.constantFrom('cost', 'cartons'),
        (list, objective) => {
          const asked = problem(types, list, { objective });
          const answer = cartonise(asked, { effort: 'quick', seed: 3 });
          sound(asked, answer);
          expect(cartonise(asked, { effort: 'quick', seed: 3 })).toEqual(answer);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('cost what parting few units in every way costs at best, and the bound never more', () => {
    let apart = 0;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(sides(6), fc.constantFrom(null, 'a', 'b')), { minLength: 1, maxLength: 4 }),
        fc.constantFrom('cost', 'cartons'),
        (boxes, objective) => {
          const list = boxes.map(([size, group]) => goods(size, 1, { group, weightG: size[0] * 100 }));
          const types = [type([6, 6, 3], 40, 700), type([6, 6, 6], 60), type([9, 6, 6], 85)];
          const asked = problem(types, list, { objective, support: 0 });
          const answer = cartonise(asked);
          const best = cheapestParting(asked);
          if (answer.cartons.length > 1) apart += 1;
          expect(answer.lowerBound).toBeLessThanOrEqual(best + 1e-9);
          expect(objective === 'cost' ? answer.cost : answer.cartons.length).toBeCloseTo(best, 9);
        },
      ),
      { numRuns: 150 },
    );
    expect(apart).toBeGreaterThan(20);
  });

  it('are chosen by cost or by count, kept apart by groups, and refused what fits none', () => {
    const cubes = [type([10, 10, 10], 30), type([20, 10, 10], 100)];
    const two = problem(cubes, [goods([10, 10, 10], 2)]);
    expect(cartonise(two)).toMatchObject({ cost: 60, lowerBound: 60, cartons: [{ type: 0 }, { type: 0 }] });
    const one = cartonise({ ...two, objective: 'cartons' });
    expect(one).toMatchObject({ cost: 100, lowerBound: 1, cartons: [{ type: 1 }] });
    const mixed = [goods([5, 5, 5], 1, { group: 'food' }), goods([5, 5, 5], 1, { group: 'soap' }), goods([5, 5, 5], 2)];
    expect(cartonise(problem(cubes, mixed))).toMatchObject({ cost: 60, lowerBound: 60 });
    // 4 of 5 × 5 × 5 stand on the floor; a fifth would press one that bears nothing.
    const frail = cartonise(problem([type([10, 10, 10], 30)], [goods([5, 5, 5], 5, { maxLoadOnTopG: 0 })]));
    expect(frail.cartons).toHaveLength(2);
    expect(cartonise(problem(cubes, []))).toEqual({ cartons: [], cost: 0, lowerBound: 0 });
    const long = problem(cubes, [goods([1, 1, 1], 1), goods([21, 1, 1], 1)]);
    expect(() => cartonise(long)).toThrow(expect.objectContaining({ goods: 1 }) as FitsNoCarton);
  });
});
