import fc from 'fast-check';
import { planWave, takeBack, workStates, type WaveProblem } from './index.ts';

const floor = { aisles: [0, 4, 8].map((x, i) => ({ id: 'ABC'[i]!, x })), crossAisles: [0, 12, 24] };
const bins = ['A', 'B', 'C'].flatMap((aisle) =>
  [1, 2, 3].flatMap((bay) => [1, 2].map((level) => ({ bin: `${aisle}-0${bay}-${level}`, aisle, y: bay * 6 }))),
);
const problem: fc.Arbitrary<WaveProblem> = fc
  .record({
    stock: fc.uniqueArray(
      fc.record({
        bin: fc.constantFrom(...bins.map((b) => b.bin)),
        item: fc.constantFrom('i1', 'i2', 'i3'),
        lot: fc.constant(null),
        units: fc.integer({ min: 1, max: 12 }),
      }),
      { selector: (s) => `${s.bin}${s.item}`, maxLength: 20 },
    ),
    needs: fc.array(
      fc.record({
        order: fc.constantFrom('o1', 'o2', 'o3', 'o4', 'o5'),
        item: fc.constantFrom('i1', 'i2', 'i3'),
        units: fc.integer({ min: 1, max: 9 }),
      }),
      { maxLength: 12 },
    ),
    positions: fc.integer({ min: 1, max: 4 }),
  })
  .map(({ stock, needs, positions }) => ({
    floor,
    start: { aisle: 'A', y: 0 },
    finish: { aisle: 'A', y: 0 },
    cart: { positions },
    bins,
    stock,
    orders: ['o1', 'o2', 'o3', 'o4', 'o5'].map((id, i) => ({ id, priority: 1 + (i % 3) })),
    needs: needs.map((n, i) => ({ ...n, id: `n${i}`, lot: null, weightG: 100, volumeCm3: 100 })),
  }));

describe('a wave plan', () => {
  it('picks every need once or names it missing, from bins that hold it, into its own position', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const { runs, missing } = planWave(p);
        const picks = runs.flatMap((r) => r.picks);
        for (const need of p.needs) {
          const given = picks.filter((k) => k.need === need.id).reduce((n, k) => n + k.units, 0);
          expect(given + (missing.find((m) => m.need === need.id)?.units ?? 0)).toBe(need.units);
        }
        for (const row of p.stock) {
          const taken = picks.filter(
            (k) => k.bin === row.bin && p.needs.find((n) => n.id === k.need)!.item === row.item,
          );
          expect(taken.reduce((n, k) => n + k.units, 0)).toBeLessThanOrEqual(row.units);
        }
        for (const run of runs) {
          expect(run.orders.length).toBeLessThanOrEqual(p.cart.positions);
          expect(run.picks.map((k) => k.sequence)).toEqual(run.picks.map((_, i) => i + 1));
          for (const k of run.picks)
            expect(run.orders[k.position - 1]).toBe(p.needs.find((n) => n.id === k.need)!.order);
        }
      }),
    );
  });

  it('keeps what is taken from one bin together', () => {
    fc.assert(
      fc.property(problem, (p) => {
        for (const run of planWave(p).runs) {
          const seen: string[] = [];
          for (const k of run.picks) if (seen.at(-1) !== k.bin) seen.push(k.bin);
          expect(new Set(seen).size).toBe(seen.length);
        }
      }),
    );
  });
});

describe('taking back what is not picked', () => {
  const source = fc.record({
    line: fc.constantFrom('a', 'b'),
    state: fc.constantFrom(...workStates),
    wave: fc.integer({ min: 1, max: 3 }),
    sequence: fc.nat(5),
    units: fc.nat(9),
  });
  const wanted = fc.record({ a: fc.nat(20), b: fc.nat(20) }).map((w) => new Map(Object.entries(w)));
  it('takes as much as is wanted and there is, the least work first, and leaves begun runs alone unless told', () => {
    fc.assert(
      fc.property(wanted, fc.array(source, { maxLength: 12 }), fc.boolean(), (want, sources, begun) => {
        const taken = takeBack(want, sources, { begun });
        for (const line of ['a', 'b']) {
          const open = sources.filter((s) => s.line === line && (begun || s.state !== 'picking'));
          const sum = taken.filter((t) => t.from.line === line).reduce((n, t) => n + t.units, 0);
          expect(sum).toBe(
            Math.min(
              want.get(line)!,
              open.reduce((n, s) => n + s.units, 0),
            ),
          );
          // Whatever is farther along is touched only once everything before it is taken whole.
          const far = Math.max(
            -1,
            ...taken.filter((t) => t.from.line === line).map((t) => workStates.indexOf(t.from.state)),
          );
          for (const s of open.filter((o) => workStates.indexOf(o.state) < far))
            expect(s.units === 0 || taken.some((t) => t.from === s && t.units === s.units)).toBe(true);
        }
      }),
    );
  });
});
