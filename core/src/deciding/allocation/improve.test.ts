import fc from 'fast-check';
import { seeded } from '../../random/index.ts';
import { openSolver } from '../../solver/index.ts';
import { decomposed } from './decompose.ts';
import { improve, leastUse } from './improve.ts';
import { priced } from './lagrange.ts';
import { fitsIn, type Packing } from './packing.ts';
import { polish } from './polish.ts';

const packings: fc.Arbitrary<Packing> = fc
  .record({
    count: fc.integer({ min: 1, max: 10 }),
    limits: fc.array(
      fc.record({
        units: fc.nat(20),
        needs: fc.array(fc.tuple(fc.nat(9), fc.integer({ min: 1, max: 9 })), { maxLength: 10 }),
      }),
      { maxLength: 5 },
    ),
  })
  .map(({ count, limits }) => ({
    count,
    limits: limits.map(({ units, needs }) => ({
      units,
      // Each thing needs once at most of each limit.
      needs: [...new Map(needs.map(([thing, some]) => [thing % count, some]))].map(([thing, some]) => ({
        thing,
        units: some,
      })),
    })),
  }));
/** Goods of one kind that keep longer and less long: who needs the first may also take of them alone. */
const nested: fc.Arbitrary<Packing> = packings.map(({ count, limits }) => ({
  count,
  limits: limits.flatMap(({ units, needs }) => {
    const strict = needs.filter((_, n) => n % 2 === 0);
    return [
      { units: Math.floor(units / 2), needs: strict },
      { units, needs },
    ];
  }),
  chains: limits.map((_, l) => [2 * l, 2 * l + 1]),
}));
const within = ({ limits }: Packing, chosen: number[]) =>
  limits.every((l) => l.needs.reduce((n, { thing, units }) => (chosen.includes(thing) ? n + units : n), 0) <= l.units);
const most = (packing: Packing) => {
  let best = 0;
  for (let set = 0; set < 2 ** packing.count; set += 1) {
    const chosen = Array.from({ length: packing.count }, (_, i) => i).filter((i) => set & (1 << i));
    if (chosen.length > best && within(packing, chosen)) best = chosen.length;
  }
  return best;
};

describe('the search for most orders', () => {
  it('stays within all limits, never loses what it began with, and takes nothing twice', () => {
    fc.assert(
      fc.property(packings, fc.integer({ min: 1, max: 99 }), (packing, seed) => {
        const start = leastUse(packing);
        expect(within(packing, start)).toBe(true);
        const found = improve(packing, start, 200, seeded(seed));
        expect(within(packing, found)).toBe(true);
        expect(new Set(found).size).toBe(found.length);
        expect(found.length).toBeGreaterThanOrEqual(start.length);
        expect(found.length).toBeLessThanOrEqual(most(packing));
      }),
    );
  });

  it('is never beyond what the prices of the limits bound', () => {
    let tight = 0;
    fc.assert(
      fc.property(packings, (packing) => {
        const { bound } = priced(packing, leastUse(packing).length);
        expect(bound).toBeGreaterThanOrEqual(most(packing) - 1e-6);
        expect(bound).toBeLessThanOrEqual(packing.count);
        if (Math.floor(bound + 1e-6) === most(packing)) tight += 1;
      }),
    );
    // A bound that is always the number of things would be one too.
    expect(tight).toBeGreaterThan(50);
  });

  it('is never beyond what choosing for each kind of goods alone bounds, which is no weaker than prices', async () => {
    const solver = await openSolver();
    let stronger = 0;
    fc.assert(
      fc.property(nested, (packing) => {
        const found = leastUse(packing);
        const { bound, prices, worth } = priced(packing, found.length);
        const lower = decomposed(packing, prices, found.length);
        expect(lower).toBeGreaterThanOrEqual(most(packing) - 1e-6);
        expect(lower).toBeLessThanOrEqual(bound + 1e-6);
        if (Math.floor(lower + 1e-6) < Math.floor(bound + 1e-6)) stronger += 1;
        // So few things are all in doubt: choosing anew among them finds the most there is.
        const polished = polish(packing, found, worth, solver, { seconds: 5, nodes: 5000, seed: 1 });
        expect(fitsIn(packing, polished)).toBe(true);
        expect(polished.length).toBe(most(packing));
      }),
    );
    expect(stronger).toBeGreaterThan(5);
  });

  it('ends at once where no time is left, with what it began with and a bound that holds', () => {
    const [packing] = fc.sample(nested, { seed: 3, numRuns: 1 });
    const start = leastUse(packing!);
    const over = () => true;
    expect(priced(packing!, start.length, over).bound).toBe(packing!.count);
    expect(decomposed(packing!, new Float64Array(packing!.limits.length), 0, over)).toBe(packing!.count);
    expect(improve(packing!, start, 1e9, seeded(1), over).length).toBeGreaterThanOrEqual(start.length);
  });

  it('finds the most on small cases nearly always', () => {
    let hits = 0;
    const cases = fc.sample(packings, { seed: 7, numRuns: 200 });
    for (const packing of cases) if (improve(packing, [], 400, seeded(1)).length === most(packing)) hits += 1;
    expect(hits).toBeGreaterThanOrEqual(195);
  });

  it('is the same for the same seed, and leaves a start that cannot be bettered as it is', () => {
    const packing: Packing = {
      count: 4,
      limits: [{ units: 10, needs: [0, 1, 2, 3].map((thing) => ({ thing, units: [9, 5, 5, 1][thing]! })) }],
    };
    const run = (seed: number) => improve(packing, [0, 3], 50, seeded(seed));
    expect(run(3)).toEqual(run(3));
    expect(run(3)).toHaveLength(2);
    expect(improve({ count: 2, limits: [] }, [], 5, seeded(1))).toEqual([0, 1]);
  });
});
