import { faultsOf, type Sides } from '../boxes/index.ts';
import { cartoniseFrom, planCartons, type CartonProblem, type Goods, type Memory } from './index.ts';

const type = (inner: Sides, cost: number) => ({ inner, tareG: 100, maxWeightG: 9000, cost });
const goods = (size: Sides, units: number, more: Partial<Goods> = {}): Goods => ({
  size,
  units,
  weightG: 500,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
  group: null,
  ...more,
});
const small = type([100, 100, 100], 50);
const large = type([200, 100, 100], 120);
const asked: CartonProblem = {
  types: [small, large],
  goods: [goods([50, 50, 50], 10), goods([100, 50, 25], 2, { group: 'acid' })],
  support: 0.75,
  objective: 'cost',
};
const inside = (plan: { cartons: { units: { kind: number }[] }[] }, carton: number) =>
  asked.goods.map((_, k) => plan.cartons[carton]!.units.filter((u) => u.kind === k).length);

describe('the cartons of an order at the bench', () => {
  it('come with what each type as the next one would come to', () => {
    const plan = planCartons(asked, null);
    expect(plan).toMatchObject({ cost: 100, lowerBound: 100, otherwise: false, unfit: [] });
    expect(plan.choices).toEqual([
      // By volume: a litre of 1,000 cm³ is 200 g.
      { type: 0, cartons: 2, cost: 100, weightG: 2 * 100 + 12 * 500, volumetricG: 400 },
      { type: 1, cartons: 1, cost: 120, weightG: 100 + 12 * 500, volumetricG: 400 },
    ]);
  });

  it('stay as they were foreseen while the goods are put in, in whatever order', () => {
    const memory: Memory = new Map();
    const first = planCartons(asked, null, {}, memory);
    const foreseen = inside(first, 0);
    for (const put of [[0, 0], [Math.min(1, foreseen[0]!), 0], foreseen]) {
      const next = planCartons(asked, { type: first.cartons[0]!.type, inside: put }, {}, memory);
      expect(next.cartons).toEqual(first.cartons);
      expect(next.choices).toEqual([]);
    }
    expect(memory.size).toBe(1);
  });

  it('go on from a carton that somebody chose or packed otherwise', () => {
    const chosen = cartoniseFrom(asked, { type: 1, inside: [1, 0] })!;
    expect(chosen.cartons[0]!.type).toBe(1);
    expect(chosen.cost).toBe(120);
    // Seven of the cubes and nothing else in the small one, though eight or other things would go in.
    const from = cartoniseFrom(asked, { type: 0, inside: [7, 0] })!;
    expect(inside(from, 0)[0]).toBeGreaterThanOrEqual(7);
    for (const { type: t, units } of from.cartons)
      expect(faultsOf({ ...asked.types[t]!, support: asked.support }, asked.goods, units)).toEqual([]);
    // More in it than we could put there: the rest is planned by itself.
    const full = { ...asked, goods: [goods([50, 50, 50], 10)] };
    expect(cartoniseFrom(full, { type: 0, inside: [9] })).toBeNull();
    const rest = planCartons(full, { type: 0, inside: [9] });
    expect(rest).toMatchObject({ otherwise: true, cost: 50 });
    expect(rest.cartons.map((c) => c.units.length)).toEqual([1]);
  });

  it('leave out what fits none, and say so', () => {
    const long = { ...asked, goods: [...asked.goods, goods([900, 10, 10], 1)] };
    const plan = planCartons(long, null);
    expect(plan.unfit).toEqual([2]);
    expect(plan.cartons.flatMap((c) => c.units)).toHaveLength(12);
  });
});
