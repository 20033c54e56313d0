import fc from 'fast-check';
import type { Demand, Supply } from './problem.ts';

/** Stock of a few items in a few lots, for property tests. */
export const supplies: fc.Arbitrary<Supply[]> = fc.uniqueArray(
  fc.record({
    item: fc.constantFrom('i1', 'i2', 'i3'),
    lot: fc.constantFrom('L1', 'L2', 'L3', null),
    bestBefore: fc.constantFrom('2026-04-01', '2026-06-01', '2026-09-01', null),
    units: fc.nat(30),
  }),
  { selector: (s) => `${s.item}${s.lot}`, maxLength: 9 },
);

/** Orders that ask for these items. */
export const demands: fc.Arbitrary<Demand[]> = fc
  .array(
    fc.record({
      priority: fc.integer({ min: 1, max: 3 }),
      shipDate: fc.constantFrom('2026-03-01', '2026-03-20'),
      shipComplete: fc.boolean(),
      lines: fc.array(
        fc.record({
          item: fc.constantFrom('i1', 'i2', 'i3'),
          units: fc.integer({ min: 1, max: 15 }),
          minShelfDays: fc.constantFrom(0, 30, 90),
        }),
        { minLength: 1, maxLength: 4 },
      ),
    }),
    { maxLength: 8 },
  )
  .map((list) =>
    list.map((o, i) => ({ ...o, id: `o${i}`, lines: o.lines.map((l, n) => ({ ...l, id: `${i}.${n}` })) })),
  );
