import fc from 'fast-check';
import { openSolver, type Solver } from '../../solver/index.ts';
import { demands, supplies } from './arbitraries.ts';
import {
  allocate,
  allocateBeside,
  completeOrders,
  faultsOf,
  levelsOf,
  lotServes,
  mostServed,
  type Demand,
  type LineAllocation,
  type Method,
  type Supply,
} from './index.ts';

let solver: Solver;
beforeAll(async () => {
  solver = await openSolver();
});
const effort = { seconds: 20, nodes: 5000, seed: 1 };
const methods = (): Method[] => [
  { policy: 'priority' },
  { policy: 'fair-share' },
  { policy: 'most-orders', solver, effort },
];
const unitsOf = (promises: LineAllocation[]) => promises.reduce((n, p) => n + p.units, 0);
const order = (id: string, units: number[], more: Partial<Demand> = {}): Demand => ({
  id,
  priority: 5,
  shipDate: '2026-03-02',
  shipComplete: false,
  lines: units.map((n, i) => ({ id: `${id}-${i + 1}`, item: `i${i + 1}`, units: n, minShelfDays: 0 })),
  ...more,
});
const stock = (...units: number[]): Supply[] =>
  units.map((n, i) => ({ item: `i${i + 1}`, lot: null, bestBefore: null, units: n }));

/** Every allocation at once, as flows from lots to lines: orders complete first, then units. By HiGHS, without our parts. */
function byFlows(have: Supply[], want: Demand[]): { orders: number; units: number } {
  const gain: number[] = want.map(() => 0);
  const rows: Parameters<Solver>[0]['rows'] = [];
  const byLot = have.map(() => [] as { variable: number; factor: number }[]);
  want.forEach((o, x) =>
    o.lines.forEach((l) => {
      const flows = have.flatMap((s, i) => {
        if (s.item !== l.item || !lotServes(s.bestBefore, o.shipDate, l.minShelfDays)) return [];
        const variable = gain.push(1) - 1;
        byLot[i]!.push({ variable, factor: 1 });
        return [{ variable, factor: 1 }];
      });
      // A chosen order is full; one that ships complete and is not chosen gets nothing.
      rows.push({ limit: 0, terms: [{ variable: x, factor: l.units }, ...flows.map((f) => ({ ...f, factor: -1 }))] });
      if (o.shipComplete) rows.push({ limit: 0, terms: [...flows, { variable: x, factor: -l.units }] });
      else rows.push({ limit: l.units, terms: flows });
    }),
  );
  have.forEach((s, i) => rows.push({ limit: s.units, terms: byLot[i]! }));
  const program = {
    gain,
    rows,
    top: gain.map((_, i) => (i < want.length ? 1 : 1e4)),
    whole: gain.map((_, i) => i < want.length),
  };
  const first = solver({ ...program, gain: gain.map((_, i) => (i < want.length ? 1 : 0)) }, effort);
  const orders = Math.round(first.bound) + 0;
  rows.push({ limit: -orders, terms: want.map((_, variable) => ({ variable, factor: -1 })) });
  return { orders, units: Math.round(solver(program, effort).bound) + 0 };
}

/** As many orders as any set of them that fits by Hall's condition, by trying all sets. */
function byTrying(have: Supply[], want: Demand[]): number {
  let best = 0;
  for (let set = 0; set < 2 ** want.length; set += 1) {
    const chosen = want.filter((_, i) => set & (1 << i));
    const asked = (item: string, day: string) =>
      chosen
        .flatMap((o) => o.lines.map((l) => ({ o, l })))
        .filter(({ o, l }) => l.item === item && !(lotServes(day, o.shipDate, l.minShelfDays) && day !== ''))
        .reduce((n, { l }) => n + l.units, 0);
    const fits = ['i1', 'i2', 'i3'].every((item) =>
      // Lines that no lot before a day serves must find their units among the later ones.
      ['', '2026-04-01', '2026-06-01', '2026-09-01'].every((day) => {
        const later = have.filter((s) => s.item === item && (s.bestBefore === null || s.bestBefore > day));
        const strict =
          day === ''
            ? chosen
                .flatMap((o) => o.lines)
                .filter((l) => l.item === item)
                .reduce((n, l) => n + l.units, 0)
            : asked(item, day);
        return strict <= later.reduce((n, s) => n + s.units, 0);
      }),
    );
    if (fits) best = Math.max(best, chosen.length);
  }
  return best;
}

describe('every policy', () => {
  it('promises no unit twice, no lot too old, all or nothing where an order ships complete, the first to expire first', () => {
    fc.assert(
      fc.property(supplies, demands, (have, want) => {
        for (const method of methods()) {
          const { promises } = allocate(have, want, method);
          expect(faultsOf(have, want, promises)).toEqual([]);
          expect(promises.map((p) => p.line)).toEqual(want.flatMap((o) => o.lines.map((l) => l.id)));
          for (const p of promises) {
            const dates = p.lots.map((l) => {
              const line = want.find((o) => o.id === p.order)!.lines.find((x) => x.id === p.line)!;
              return have.find((s) => s.item === line.item && s.lot === l.lot)!.bestBefore ?? '9999';
            });
            expect(dates).toEqual([...dates].sort());
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('leaves nothing over that a line which may ship in part could still have', () => {
    fc.assert(
      fc.property(supplies, demands, (have, all) => {
        const want = all.map((o) => ({ ...o, shipComplete: false }));
        const levels = levelsOf(have, want);
        let most = 0;
        for (const { item, levels: days, supply } of levels.values()) {
          const asked = days.map((day) =>
            want
              .flatMap((o) => o.lines.map((l) => ({ o, l })))
              .filter(({ o, l }) => l.item === item && lotServes(day, o.shipDate, l.minShelfDays))
              .reduce((n, { l }) => n + l.units, 0),
          );
          most += mostServed(
            asked.map((n, i) => n - (asked[i - 1] ?? 0)),
            supply,
          );
        }
        for (const method of methods()) expect(unitsOf(allocate(have, want, method).promises)).toBe(most);
      }),
      { numRuns: 60 },
    );
  });
});

describe('priority', () => {
  it('serves the urgent order first and takes the lot that expires first', () => {
    const have = [
      { item: 'i1', lot: 'late', bestBefore: '2026-09-01', units: 5 },
      { item: 'i1', lot: 'early', bestBefore: '2026-05-01', units: 4 },
    ];
    const { promises } = allocate(have, [order('b', [6], { priority: 2 }), order('a', [6], { priority: 1 })], {
      policy: 'priority',
    });
    expect(promises).toEqual([
      { order: 'b', line: 'b-1', units: 3, lots: [{ lot: 'late', units: 3 }] },
      {
        order: 'a',
        line: 'a-1',
        units: 6,
        lots: [
          { lot: 'early', units: 4 },
          { lot: 'late', units: 2 },
        ],
      },
    ]);
  });
});

describe('fair share', () => {
  const share = (have: Supply[], want: Demand[]) =>
    allocate(have, want, { policy: 'fair-share' }).promises.map((p) => p.units);

  it('rounds by largest remainder, the odd unit to the earlier day, then the lower id', () => {
    // 10 for 7, 7 and 6: quotas 3.5, 3.5 and 3; one odd unit between the first two.
    expect(share(stock(10), [order('b', [7]), order('a', [7]), order('c', [6])])).toEqual([3, 4, 3]);
    expect(share(stock(10), [order('b', [7], { shipDate: '2026-03-01' }), order('a', [7]), order('c', [6])])).toEqual([
      4, 3, 3,
    ]);
  });

  it('takes shares back from complete-only orders one at a time, the one served last first', () => {
    const whole = { shipComplete: true };
    // 12 for 6, 6 and 6: nobody is full; the least urgent gives back, and the other two are.
    expect(
      share(stock(12), [
        order('a', [6], { ...whole, priority: 1 }),
        order('b', [6], { ...whole, priority: 9 }),
        order('c', [6]),
      ]),
    ).toEqual([6, 0, 6]);
  });

  it('shares the pool that suits the fewest lines first', () => {
    const have = [
      { item: 'i1', lot: 'fresh', bestBefore: '2026-09-01', units: 6 },
      { item: 'i1', lot: 'old', bestBefore: '2026-03-10', units: 6 },
    ];
    const strict = order('s', [6]);
    strict.lines[0]!.minShelfDays = 60;
    expect(share(have, [order('a', [9]), strict])).toEqual([8, 4]);
  });

  it('keeps each share within one unit of its quota', () => {
    fc.assert(
      fc.property(
        fc.nat(500),
        fc.array(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 12 }),
        (units, asks) => {
          const all = asks.reduce((n, a) => n + a, 0);
          const got = share(
            stock(units),
            asks.map((a, i) => order(`o${i}`, [a])),
          );
          got.forEach((n, i) => expect(Math.abs(n - (Math.min(units, all) * asks[i]!) / all)).toBeLessThan(1));
        },
      ),
    );
  });
});

describe('most orders', () => {
  it('completes as many as trying every set does, and then as many units as the flows of all lots can', () => {
    fc.assert(
      fc.property(supplies, demands, (have, want) => {
        const { promises, bound } = allocate(have, want, { policy: 'most-orders', solver, effort });
        const complete = completeOrders(want, promises).size;
        expect({ complete, bound }).toEqual({ complete: byTrying(have, want), bound: complete });
        expect({ orders: complete, units: unitsOf(promises) }).toEqual(byFlows(have, want));
      }),
      { numRuns: 80 },
    );
  });

  it('agrees on middle-sized cases with one program over all lots and lines', () => {
    const list = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(fc.array(fc.tuple(list, fc.boolean()), { minLength: 20, maxLength: 40 }), (asks) => {
        const want = asks.map(([units, shipComplete], i) => order(`o${i}`, units, { shipComplete }));
        const have = stock(40, 60, 50, 70, 45, 80, 55, 65);
        const { promises, bound } = allocate(have, want, { policy: 'most-orders', solver, effort });
        const complete = completeOrders(want, promises).size;
        expect({ orders: complete, units: unitsOf(promises) }).toEqual(byFlows(have, want));
        expect(bound).toBe(complete);
      }),
      { numRuns: 8 },
    );
  });

  it('never completes fewer orders than the other policies, and gives a start where no time is left to search', () => {
    fc.assert(
      fc.property(supplies, demands, (have, want) => {
        const hurried = allocate(have, want, {
          policy: 'most-orders',
          solver: () => ({ x: null, bound: Infinity, proven: false }),
          effort,
        });
        expect(faultsOf(have, want, hurried.promises)).toEqual([]);
        const [priority, fair, most] = methods().map(
          (m) => completeOrders(want, allocate(have, want, m).promises).size,
        );
        expect(Math.min(most! - priority!, most! - fair!)).toBeGreaterThanOrEqual(0);
        expect(hurried.bound).toBeGreaterThanOrEqual(most!);
      }),
      { numRuns: 60 },
    );
  });
});

describe('beside what is settled', () => {
  const none = { reserved: new Map<string, LineAllocation['lots']>(), manual: new Map<string, number>() };

  it('completes who keeps a part, and leaves what is kept where an order cannot be completed', () => {
    const reserved = new Map([['slow-1', [{ lot: 'L1', units: 6 }]]]);
    const free: Supply[] = [{ item: 'i1', lot: 'L2', bestBefore: null, units: 5 }];
    const got = (want: Demand[]) =>
      allocateBeside({ ...none, reserved: reserved }, free, want).promises.map((p) => [p.line, p.lots]);
    const both = [
      { lot: 'L1', units: 6 },
      { lot: 'L2', units: 1 },
    ];
    expect(got([order('slow', [8], { priority: 9 }), order('urgent', [4], { priority: 1 })])).toEqual([
      ['slow-1', both],
      ['urgent-1', [{ lot: 'L2', units: 4 }]],
    ]);
    expect(got([order('slow', [12], { shipComplete: true })])).toEqual([['slow-1', []]]);
  });

  it('serves what was allocated manually before all others, and no more than that', () => {
    const manual = new Map([
      ['late-1', 7],
      ['urgent-1', 2],
    ]);
    const want = [
      order('urgent', [9], { priority: 1, shipComplete: true }),
      order('late', [8], { priority: 9 }),
      order('rest', [5]),
    ];
    for (const method of methods())
      expect(allocateBeside({ ...none, manual }, stock(10), want, method).promises.map((p) => p.units)).toEqual([
        2, 7, 1,
      ]);
  });

  it('promises each line what it kept and no unit of the supply twice, under every policy', () => {
    fc.assert(
      fc.property(supplies, demands, fc.nat(8), (have, want, part) => {
        const first = allocate(have, want, { policy: 'priority' }).promises;
        const reserved = new Map(
          first.map((p) => [p.line, p.lots.map((l) => ({ ...l, units: Math.min(l.units, part) }))]),
        );
        const itemOf = new Map(want.flatMap((o) => o.lines.map((l) => [l.id, l.item])));
        const left = have.map((row) => ({
          ...row,
          units:
            row.units -
            [...reserved].reduce(
              (n, [line, lots]) =>
                itemOf.get(line) === row.item ? n + (lots.find((l) => l.lot === row.lot)?.units ?? 0) : n,
              0,
            ),
        }));
        for (const method of methods()) {
          const { promises } = allocateBeside({ ...none, reserved: reserved }, left, want, method);
          expect(faultsOf(have, want, promises)).toEqual([]);
          for (const p of promises)
            if (p.units > 0)
              for (const { lot, units } of reserved.get(p.line)!)
                expect(p.lots.find((l) => l.lot === lot)?.units ?? 0).toBeGreaterThanOrEqual(units);
        }
      }),
      { numRuns: 40 },
    );
  });
});
