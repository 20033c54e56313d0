import fc from 'fast-check';
import { binRules, chooseBins, type BinRule, type BinStock } from './index.ts';

const stock: fc.Arbitrary<BinStock[]> = fc.uniqueArray(
  fc.record({
    bin: fc.constantFrom('A-01-1', 'A-02-1', 'B-01-1', 'B-02-1'),
    item: fc.constantFrom('i1', 'i2'),
    lot: fc.constantFrom(null, 'L1'),
    units: fc.integer({ min: 1, max: 20 }),
  }),
  { selector: (s) => `${s.bin}${s.item}${s.lot}` },
);
const needs = fc
  .array(
    fc.record({
      item: fc.constantFrom('i1', 'i2'),
      lot: fc.constantFrom(null, 'L1'),
      units: fc.integer({ min: 1, max: 15 }),
    }),
    { maxLength: 6 },
  )
  .map((list) => list.map((n, i) => ({ ...n, id: `n${i}` })));

describe('choosing bins', () => {
  it('takes no more than lies there, serves all it can and says what is missing', () => {
    fc.assert(
      fc.property(stock, needs, fc.shuffledSubarray([...binRules]), (rows, list, rules) => {
        const { choices, missing } = chooseBins(rows, list, { rules, lengthens: (_, bin) => bin.charCodeAt(0) });
        for (const row of rows) {
          const taken = choices.filter(
            (c) => c.bin === row.bin && list.some((n) => n.id === c.need && n.item === row.item && n.lot === row.lot),
          );
          expect(taken.reduce((n, c) => n + c.units, 0)).toBeLessThanOrEqual(row.units);
        }
        for (const need of list) {
          const given = choices.filter((c) => c.need === need.id).reduce((n, c) => n + c.units, 0);
          expect(given + (missing.find((m) => m.need === need.id)?.units ?? 0)).toBe(need.units);
        }
        for (const m of missing) {
          const need = list.find((n) => n.id === m.need)!;
          const there = rows.filter((r) => r.item === need.item && r.lot === need.lot).reduce((n, r) => n + r.units, 0);
          const all = list.filter((n) => n.item === need.item && n.lot === need.lot).reduce((n, x) => n + x.units, 0);
          expect(all).toBeGreaterThan(there);
        }
      }),
    );
  });

  it('takes the whole from the smallest bin that holds it', () => {
    const rows = [
      ['A-01-1', 50],
      ['B-01-1', 6],
      ['B-02-1', 3],
    ].map(([bin, units]) => ({ bin: bin as string, item: 'i1', lot: null, units: units as number }));
    expect(chooseBins(rows, [{ id: 'n', item: 'i1', lot: null, units: 5 }]).choices).toEqual([
      { need: 'n', bin: 'B-01-1', units: 5, why: 'remainder' },
    ]);
  });

  it("goes by the site's own order of rules, and says which decided", () => {
    const row = (bin: string, more: Partial<BinStock>): BinStock => ({
      bin,
      item: 'i1',
      lot: null,
      units: 10,
      ...more,
    });
    const rows = [
      row('A-01-4', { level: 4, bestBefore: '2026-05-01', since: '2026-01-09', units: 4 }),
      row('B-01-1', { level: 1, bestBefore: '2026-05-01', since: '2026-01-03', home: true }),
      row('C-01-2', { level: 2, bestBefore: '2026-04-01', since: '2026-01-05' }),
    ];
    const taken = (...rules: BinRule[]) =>
      chooseBins(rows, [{ id: 'n', item: 'i1', lot: null, units: 6 }], {
        rules,
        lengthens: (_, bin) => (bin < 'B' ? 0 : 5),
      })
        .choices.map((c) => `${c.units} ${c.bin} ${c.why}`)
        .join(', ');
    expect(taken('expiry')).toBe('6 C-01-2 expiry');
    expect(taken('age')).toBe('6 B-01-1 age');
    expect(taken('home')).toBe('6 B-01-1 home');
    expect(taken('reach')).toBe('6 B-01-1 reach');
    expect(taken('remainder')).toBe('4 A-01-4 remainder, 2 B-01-1 code');
    expect(taken('whole', 'reach')).toBe('6 B-01-1 reach');
    expect(taken('walk')).toBe('4 A-01-4 walk, 2 B-01-1 code');
    expect(taken('whole', 'walk', 'expiry')).toBe('6 C-01-2 expiry');
    expect(taken()).toBe('4 A-01-4 code, 2 B-01-1 code');
  });
});
