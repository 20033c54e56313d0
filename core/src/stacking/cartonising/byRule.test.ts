import fc from 'fast-check';
import { faultsOf, type Sides } from '../boxes/index.ts';
import { planByRules, planCartons, type CartonProblem, type CartonRule, type Goods } from './index.ts';

const type = (inner: Sides, cost: number) => ({ inner, tareG: 100, maxWeightG: 9000, cost });
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
const types = [type([100, 100, 100], 50), type([200, 100, 100], 80), type([400, 200, 200], 200)];
const asked = (list: Goods[]): CartonProblem => ({ types, goods: list, support: 0.75, objective: 'cost' });
const jars = (units: number) => goods([50, 50, 50], units);
const lids = (units: number) => goods([50, 50, 10], units);
const rule = (perCarton: number, of: number | null = null): CartonRule => ({ perCarton, type: of });
/** Type and counted units of each carton. */
const told = (plan: ReturnType<typeof planByRules>) =>
  plan.cartons.map((c) => [c.type, c.rule?.units ?? c.units.length, c.rule !== null]);

describe('cartons by a site\u2019s rules', () => {
  it('hold so many, each kind by itself, the last with what is left', () => {
    const plan = planByRules(asked([jars(41), lids(3)]), [rule(16), null], null);
    expect(told(plan)).toEqual([
      [1, 16, true],
      [1, 16, true],
      [1, 9, true],
      [0, 3, false],
    ]);
    expect(plan.choices).toEqual([]);
    // In the type that the rule names, though a cheaper one would do.
    expect(told(planByRules(asked([jars(8)]), [rule(4, 2)], null))).toEqual([
      [2, 4, true],
      [2, 4, true],
    ]);
  });

  it('win where the sizes say otherwise: no arrangement is shown then', () => {
    const plan = planByRules(asked([jars(12)]), [rule(12, 0)], null);
    expect(plan.cartons).toEqual([{ type: 0, units: [], rule: { kind: 0, units: 12, perCarton: 12 } }]);
    const large = goods([500, 500, 500], 3);
    expect(told(planByRules(asked([large]), [rule(2)], null))).toEqual([
      [2, 2, true],
      [2, 1, true],
    ]);
  });

  it('go on with the open carton, unless it was packed otherwise', () => {
    const by = [rule(8), null];
    const begun = (type_: number, inside: number[]) =>
      planByRules(asked([jars(20), lids(2)]), by, { type: type_, inside });
    expect(told(begun(0, [3, 0])).slice(0, 3)).toEqual([
      [0, 8, true],
      [0, 8, true],
      [expect.any(Number), 4, true],
    ]);
    // Jars beside lids: that carton is filled by sizes, the rest of the jars by the rule.
    const mixed = begun(0, [3, 1]);
    expect(mixed.cartons[0]!.rule).toBeNull();
    expect(mixed.cartons.filter((c) => c.rule).map((c) => c.rule!.units)).toEqual([8, 8, 1]);
    // An empty carton of the type of a rule is for its goods.
    expect(told(planByRules(asked([jars(4), lids(2)]), [rule(4, 1), null], { type: 1, inside: [0, 0] }))[0]).toEqual([
      1,
      4,
      true,
    ]);
  });

  it('are as without where there is none, and leave nothing out', () => {
    const none = asked([jars(9), lids(5)]);
    const { cartons, ...rest } = planByRules(none, [null, null], null);
    const plain = planCartons(none, null);
    expect({ ...rest, cartons: cartons.map(({ type: t, units }) => ({ type: t, units })) }).toEqual(plain);
    const counts = fc.integer({ min: 0, max: 30 });
    const ruleOf = fc.option(
      fc.record({ perCarton: fc.integer({ min: 1, max: 12 }), type: fc.constantFrom(null, 0, 1, 2) }),
    );
    fc.assert(
      fc.property(counts, counts, ruleOf, ruleOf, (a, b, ruleA, ruleB) => {
        const problem = asked([jars(a), lids(b)]);
        const plan = planByRules(problem, [ruleA, ruleB], null);
        const units = [0, 1].map((k) =>
          plan.cartons.reduce(
            (n, c) =>
              n + (c.rule ? (c.rule.kind === k ? c.rule.units : 0) : c.units.filter((u) => u.kind === k).length),
            0,
          ),
        );
        expect(units).toEqual([a, b]);
        for (const c of plan.cartons) {
          const { inner, maxWeightG } = types[c.type]!;
          expect(faultsOf({ inner, maxWeightG, support: 0.75 }, problem.goods, c.units)).toEqual([]);
          if (!c.rule) continue;
          expect(c.rule.units).toBeLessThanOrEqual([ruleA, ruleB][c.rule.kind]!.perCarton);
          expect(new Set([c.rule.kind, ...c.units.map((u) => u.kind)]).size).toBe(1);
          expect([0, c.rule.units]).toContain(c.units.length);
        }
        expect(plan.cost).toBeCloseTo(
          plan.cartons.reduce((n, c) => n + types[c.type]!.cost, 0),
          9,
        );
        expect(plan.lowerBound).toBeLessThanOrEqual(plan.cost + 1e-9);
      }),
      { numRuns: 60 },
    );
  });
});
