import fc from 'fast-check';
import { binRules } from '../bins/index.ts';
import { mapFloor } from '../floor/index.ts';
import { firstStandards } from '../labour/index.ts';
import { pickings, planWave, unrelease, workStates, type WavePlan, type WaveProblem } from './index.ts';

const floor = { aisles: [0, 4, 8].map((x, i) => ({ id: 'ABC'[i]!, x })), crossAisles: [0, 12, 24] };
const bins = ['A', 'B', 'C'].flatMap((aisle) =>
  [1, 2, 3].flatMap((bay) =>
    [1, 2].map((level) => ({
      bin: `${aisle}-0${bay}-${level}`,
      aisle,
      y: bay * 6,
      level,
      area: aisle === 'C' ? 'cold' : 'dry',
      sequence: 'ABC'.indexOf(aisle) * 10 + bay,
    })),
  ),
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
    cart: fc.record({
      positions: fc.integer({ min: 1, max: 4 }),
      maxWeightG: fc.option(fc.integer({ min: 50, max: 2000 }), { nil: undefined }),
    }),
    rules: fc.shuffledSubarray([...binRules]),
    picking: fc.constantFrom(...pickings),
    carry: fc.record({ heavyFirst: fc.boolean(), chilledLast: fc.boolean(), highTogether: fc.boolean() }),
    people: fc.option(fc.integer({ min: 1, max: 3 })),
    walking: fc.record({
      by: fc.constantFrom('shortest' as const, 'sequence' as const),
      between: fc.constantFrom('home' as const, 'chain' as const),
      direction: fc.constantFrom('alternate' as const, 'one' as const),
      acrossDepartures: fc.boolean(),
    }),
  })
  .map(({ stock, needs, people, ...way }) => ({
    ...way,
    ...(people ? { crew: { people, standards: firstStandards } } : {}),
    floor,
    start: { aisle: 'A', y: 0 },
    finish: { aisle: 'A', y: 0 },
    bins,
    stock,
    orders: ['o1', 'o2', 'o3', 'o4', 'o5'].map((id, i) => ({ id, priority: 1 + (i % 3) })),
    needs: needs.map((n, i) => ({
      ...n,
      id: `n${i}`,
      lot: null,
      weightG: 100,
      volumeCm3: 100,
      handling: { i1: 'heavy', i2: 'easy', i3: 'fragile' }[n.item],
      chilled: n.item === 'i2',
    })),
  }));

/** The same plan every time, after few steps. */
function plan(p: WaveProblem): WavePlan {
  let asked = 0;
  return planWave(p, { spent: () => asked++ / 8 });
}

describe('a wave plan', () => {
  it('picks every need once or names it missing, from bins that hold it, into its own position, however it is picked', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const { runs, missing, split } = plan(p);
        if (p.picking !== 'zones')
          for (const { id } of p.orders) {
            const parts = runs.filter((r) => r.orders.includes(id)).length;
            expect(split.find((s) => s.order === id)?.runs ?? Math.min(1, parts)).toBe(parts);
          }
        const picks = runs.flatMap((r) => r.picks);
        const needOf = new Map(p.needs.map((n) => [n.id, n]));
        for (const need of p.needs) {
          const given = picks.filter((k) => k.need === need.id).reduce((n, k) => n + k.units, 0);
          expect(given + (missing.find((m) => m.need === need.id)?.units ?? 0)).toBe(need.units);
        }
        for (const row of p.stock) {
          const taken = picks.filter((k) => k.bin === row.bin && needOf.get(k.need)!.item === row.item);
          expect(taken.reduce((n, k) => n + k.units, 0)).toBeLessThanOrEqual(row.units);
        }
        for (const run of runs) {
          const units = run.picks.reduce((n, k) => n + k.units, 0);
          // 100 g a unit: beyond the cart is only what is one unit, and that is said.
          if (units * 100 > (p.cart.maxWeightG ?? Infinity)) {
            expect(units).toBe(1);
            expect(split.find((s) => s.order === run.orders[0])?.over).toBe(true);
          }
          expect(new Set(run.orders).size).toBe(run.orders.length);
          if (p.picking !== 'consolidate')
            expect(run.orders.length).toBeLessThanOrEqual(p.picking === 'single' ? 1 : p.cart.positions);
          expect(run.lowerBound).toBeLessThanOrEqual(run.distance + 1e-9);
          expect(run.picks.map((k) => k.sequence)).toEqual(run.picks.map((_, i) => i + 1));
          for (const k of run.picks) {
            expect(run.orders[k.position - 1]).toBe(needOf.get(k.need)!.order);
            if (p.picking === 'zones') expect(p.bins.find((b) => b.bin === k.bin)!.area).toBe(run.area);
          }
        }
      }),
      { numRuns: 150 },
    );
  });

  it('keeps what is taken from one bin together, heavy goods before fragile ones and chilled goods last where the site minds', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const needOf = new Map(p.needs.map((n) => [n.id, n]));
        for (const run of plan(p).runs) {
          const kinds = run.picks.map((k) => needOf.get(k.need)!);
          const last = (test: (n: (typeof kinds)[number]) => boolean) => kinds.findLastIndex(test);
          const dry = (n: (typeof kinds)[number]) => !p.carry!.chilledLast || !n.chilled;
          if (p.carry!.chilledLast && kinds.some((n) => n.chilled))
            expect(last((n) => !n.chilled)).toBeLessThan(kinds.findIndex((n) => n.chilled));
          const fragile = kinds.findIndex((n) => dry(n) && n.handling === 'fragile');
          if (p.carry!.heavyFirst && fragile >= 0)
            expect(last((n) => dry(n) && n.handling === 'heavy')).toBeLessThan(fragile);
          if (p.carry!.heavyFirst || p.carry!.chilledLast || p.carry!.highTogether) continue;
          const seen: string[] = [];
          for (const k of run.picks) if (seen.at(-1) !== k.bin) seen.push(k.bin);
          expect(new Set(seen).size).toBe(seen.length);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('chooses bins together with the walk where the rules leave a choice, and says what that saves', () => {
    const stock = [
      { bin: 'A-01-1', item: 'i1', lot: null, units: 9 },
      { bin: 'C-03-1', item: 'i1', lot: null, units: 4 },
      { bin: 'C-02-1', item: 'i2', lot: null, units: 9 },
    ];
    const need = (id: string, item: string) => ({
      id,
      order: 'o1',
      item,
      lot: null,
      units: 2,
      weightG: 1,
      volumeCm3: 1,
    });
    const p: WaveProblem = {
      floor,
      start: { aisle: 'C', y: 0 },
      finish: { aisle: 'C', y: 0 },
      cart: { positions: 2 },
      bins,
      stock,
      orders: [{ id: 'o1', priority: 5 }],
      needs: [need('n1', 'i1'), need('n2', 'i2')],
    };
    const taken = (rules: WaveProblem['rules']) => planWave({ ...p, rules }).runs[0]!;
    expect(taken(['remainder']).picks.map((k) => `${k.bin} ${k.why}`)).toEqual(['C-02-1 only', 'C-03-1 remainder']);
    const far = planWave({ ...p, rules: ['home'], stock: [{ ...stock[0]!, home: true }, ...stock.slice(1)] }).runs[0]!;
    const near = taken(['whole', 'walk']);
    expect(near.picks.map((k) => `${k.bin} ${k.why}`)).toEqual(['C-02-1 only', 'C-03-1 walk']);
    expect(far.distance - near.distance).toBeCloseTo(near.picks[1]!.saves);
    expect(near.picks[1]!.saves).toBeGreaterThan(0);
  });

  it('keeps to its area when a run chooses bins again: nothing is picked twice', () => {
    const one = (id: string, order: string) => ({
      id,
      order,
      item: 'i1',
      lot: null,
      units: 1,
      weightG: 1,
      volumeCm3: 1,
    });
    const { runs } = planWave({
      floor,
      start: { aisle: 'A', y: 0 },
      finish: { aisle: 'A', y: 0 },
      cart: { positions: 1 },
      bins: [
        { bin: 'near', aisle: 'A', y: 3, area: 'dry' },
        { bin: 'far', aisle: 'C', y: 20, area: 'cold' },
      ],
      // Once both are chosen the two remainders are alike, and the near one is the shorter walk for the far run too.
      stock: [
        { bin: 'near', item: 'i1', lot: null, units: 2 },
        { bin: 'far', item: 'i1', lot: null, units: 1 },
      ],
      orders: ['o1', 'o2'].map((id) => ({ id, priority: 5 })),
      needs: [one('n1', 'o1'), one('n2', 'o2')],
      rules: ['remainder', 'walk'],
      picking: 'zones',
    });
    const picked = runs.flatMap((r) => r.picks.map((k) => `${r.area} ${k.need} ${k.bin}`));
    expect(picked.sort()).toEqual(['cold n1 far', 'dry n2 near']);
  });

  it('takes nothing from bins that nobody can walk to, and names what is missing by it', () => {
    const stock = [
      { bin: 'A-02-1', item: 'i1', lot: null, units: 9 },
      { bin: 'C-02-1', item: 'i1', lot: null, units: 4 },
    ];
    const p: WaveProblem = {
      floor: { ...floor, blocked: [{ aisle: 'A', from: 10, to: 14 }] },
      start: { aisle: 'B', y: 0 },
      finish: { aisle: 'B', y: 0 },
      cart: { positions: 2 },
      bins: [
        { bin: 'A-02-1', aisle: 'A', y: 11 },
        { bin: 'C-02-1', aisle: 'C', y: 11 },
      ],
      stock,
      orders: [{ id: 'o1', priority: 5 }],
      needs: [{ id: 'n1', order: 'o1', item: 'i1', lot: null, units: 6, weightG: 1, volumeCm3: 1 }],
    };
    const { runs, missing } = planWave(p);
    expect(runs[0]!.picks).toMatchObject([{ bin: 'C-02-1', units: 4, why: 'only' }]);
    expect(missing).toEqual([{ need: 'n1', units: 2 }]);
    expect(planWave({ ...p, floor }).missing).toEqual([]);
  });

  it('leaves out what one-way aisles keep apart: of two bins that no walk joins one is missing', () => {
    const p: WaveProblem = {
      // From A everything leads to C: up B or down B, and never back to the other end of it.
      floor: {
        aisles: [
          { id: 'A', x: 0, from: 0, to: 1 },
          { id: 'B', x: 4, oneWay: 'up' },
          { id: 'C', x: 8, oneWay: 'up' },
        ],
        crossAisles: [0, 12],
      },
      start: { aisle: 'B', y: 0 },
      finish: { aisle: 'C', y: 12 },
      cart: { positions: 2 },
      bins: [
        { bin: 'b', aisle: 'B', y: 6 },
        { bin: 'c', aisle: 'C', y: 6 },
      ],
      stock: ['b', 'c'].map((bin) => ({ bin, item: bin, lot: null, units: 5 })),
      orders: [{ id: 'o1', priority: 5 }],
      needs: ['b', 'c'].map((item) => ({ id: item, order: 'o1', item, lot: null, units: 2, weightG: 1, volumeCm3: 1 })),
    };
    const { runs, missing } = planWave(p);
    expect(runs.flatMap((r) => r.picks.map((k) => k.bin)).length).toBe(1);
    expect(missing).toHaveLength(1);
    expect(planWave({ ...p, finish: { aisle: 'B', y: 0 } }).runs).toEqual([]);
  });

  it('makes runs that a truck still takes, where one long run would miss it', () => {
    const bin = (i: number) => bins.filter((b) => b.level === 1)[i]!.bin;
    const p: WaveProblem = {
      floor,
      start: { aisle: 'A', y: 0 },
      finish: { aisle: 'A', y: 0 },
      cart: { positions: 9 },
      bins,
      stock: [0, 4, 8].map((i) => ({ bin: bin(i), item: `i${i}`, lot: null, units: 99 })),
      orders: [0, 4, 8].map((i) => ({ id: `o${i}`, priority: 5, due: i === 0 ? 90 : null })),
      needs: [0, 4, 8].map((i) => ({
        id: `n${i}`,
        order: `o${i}`,
        item: `i${i}`,
        lot: null,
        units: 5,
        weightG: 1,
        volumeCm3: 1,
      })),
      picking: 'sort',
    };
    expect(planWave(p).runs.map((r) => r.orders)).toEqual([['o0', 'o4', 'o8']]);
    const apart = planWave({ ...p, crew: { people: 1, standards: firstStandards } }).runs.map((r) =>
      r.orders.join(' '),
    );
    expect(apart).toContain('o0');
  });
});

describe('the walk of a run', () => {
  const map = mapFloor(floor);
  const placeOf = new Map(bins.map((b) => [b.bin, b]));
  const walked = (picks: { bin: string }[], ends: { aisle: string; y: number }[]) => {
    const at = [...ends.slice(0, 1), ...picks.map((k) => placeOf.get(k.bin)!), ...ends.slice(1)];
    return at.reduce((n, p, i) => (i === 0 ? 0 : n + map.distance(at[i - 1]!, p)), 0);
  };

  it('is as long as it says, from the start and back, or from its first stop to its last where runs chain', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const chains = p.walking!.between === 'chain';
        let at = p.start;
        for (const run of plan(p).runs) {
          expect(run.distance).toBeCloseTo(walked(run.picks, chains ? [] : [p.start, p.finish]));
          const first = placeOf.get(run.picks[0]!.bin)!;
          expect(run.approach).toBeCloseTo(chains ? map.distance(at, first) : 0);
          at = placeOf.get(run.picks.at(-1)!.bin)!;
          expect(run.path[0]).toEqual(chains ? [map.x(first.aisle), first.y] : [0, 0]);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('goes by the numbers of the bins where the site wants it so, and never backward in one direction', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const { by, between, direction } = p.walking!;
        const carry = { heavyFirst: false, chilledLast: false, highTogether: false };
        for (const run of plan({ ...p, carry }).runs) {
          const numbers = run.picks.map((k) => placeOf.get(k.bin)!.sequence);
          const up = [...numbers].sort((a, b) => a - b);
          if (by === 'shortest') {
            if (between === 'chain' && direction === 'one') expect(numbers[0]).toBeLessThanOrEqual(numbers.at(-1)!);
          } else if (between === 'home' || direction === 'one') expect(numbers).toEqual(up);
          else expect([up, [...up].reverse()]).toContainEqual(numbers);
        }
      }),
      { numRuns: 150 },
    );
  });

  // The example "direction in turn": common practice, no source; figures invented.
  it('goes through the aisles in alternate directions, or always in one', () => {
    const line = { aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 60] };
    const trips = [[12, 33, 58], [58], [33, 58]];
    const places = [12, 33, 58].map((y) => ({ bin: String(y), aisle: 'A', y, sequence: y }));
    const p: WaveProblem = {
      floor: line,
      start: { aisle: 'A', y: 12 },
      finish: { aisle: 'A', y: 12 },
      cart: { positions: 1 },
      bins: places,
      stock: places.map((b) => ({ bin: b.bin, item: b.bin, lot: null, units: 9 })),
      orders: trips.map((_, i) => ({ id: `o${i}`, priority: 5 })),
      needs: trips.flatMap((list, i) =>
        list.map((y) => ({
          id: `${i}-${y}`,
          order: `o${i}`,
          item: String(y),
          lot: null,
          units: 1,
          weightG: 1,
          volumeCm3: 1,
        })),
      ),
      picking: 'single',
    };
    const walksOf = (direction: 'alternate' | 'one') =>
      planWave({ ...p, walking: { by: 'sequence', between: 'chain', direction, acrossDepartures: false } }).runs.map(
        (r) => r.picks.map((k) => k.bin).join(' '),
      );
    expect(walksOf('alternate')).toEqual(['12 33 58', '58', '58 33']);
    expect(walksOf('one').filter((t) => t.startsWith('33'))).toEqual(['33 58']);
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
        const taken = unrelease(want, sources, { begun });
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
