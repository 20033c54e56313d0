import fc from 'fast-check';
import { allocateBeside, allocateByPriority, lotServes, type Demand, type Supply } from './index.ts';

const supply: fc.Arbitrary<Supply[]> = fc.uniqueArray(
  fc.record({
    item: fc.constantFrom('i1', 'i2', 'i3'),
    lot: fc.constantFrom('L1', 'L2', 'L3'),
    bestBefore: fc.constantFrom('2026-04-01', '2026-06-01', '2026-09-01', null),
    units: fc.nat(30),
  }),
  { selector: (s) => `${s.item}${s.lot}`, maxLength: 9 },
);
const demand: fc.Arbitrary<Demand[]> = fc
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

describe('allocation by priority', () => {
  it('promises no unit twice, no lot too old, and all or nothing where an order ships complete', () => {
    fc.assert(
      fc.property(supply, demand, (stock, orders) => {
        const promises = allocateByPriority(stock, orders);
        expect(promises).toHaveLength(orders.reduce((n, o) => n + o.lines.length, 0));
        const lineOf = new Map(orders.flatMap((o) => o.lines.map((l) => [l.id, { order: o, line: l }])));
        for (const row of stock) {
          const given = promises
            .filter((p) => lineOf.get(p.line)!.line.item === row.item)
            .flatMap((p) => p.lots)
            .filter((l) => l.lot === row.lot);
          expect(given.reduce((n, l) => n + l.units, 0)).toBeLessThanOrEqual(row.units);
        }
        for (const p of promises) {
          const { order, line } = lineOf.get(p.line)!;
          expect(p.units).toBe(p.lots.reduce((n, l) => n + l.units, 0));
          for (const part of p.lots) {
            const from = stock.find((s) => s.item === line.item && s.lot === part.lot)!;
            expect(lotServes(from.bestBefore, order.shipDate, line.minShelfDays)).toBe(true);
          }
          if (order.shipComplete)
            expect(
              p.units === 0 ||
                promises.filter((q) => q.order === order.id).every((q) => q.units === lineOf.get(q.line)!.line.units),
            ).toBe(true);
        }
      }),
    );
  });

  it('leaves nothing unpromised that a line served last could still have', () => {
    fc.assert(
      fc.property(supply, demand, (stock, orders) => {
        const partial = orders.map((o) => ({ ...o, shipComplete: false }));
        const promises = allocateByPriority(stock, partial);
        const left = new Map(stock.map((s) => [`${s.item}${s.lot}`, s.units]));
        for (const p of promises) {
          const item = partial.flatMap((o) => o.lines).find((l) => l.id === p.line)!.item;
          for (const l of p.lots) left.set(`${item}${l.lot}`, left.get(`${item}${l.lot}`)! - l.units);
        }
        for (const o of partial)
          for (const line of o.lines) {
            const got = promises.find((p) => p.line === line.id)!.units;
            const usable = stock
              .filter((s) => s.item === line.item && lotServes(s.bestBefore, o.shipDate, line.minShelfDays))
              .reduce((n, s) => n + left.get(`${s.item}${s.lot}`)!, 0);
            expect(got === line.units || usable === 0).toBe(true);
          }
      }),
    );
  });

  it('serves the urgent order first and takes the lot that expires first', () => {
    const stock = [
      { item: 'i1', lot: 'late', bestBefore: '2026-09-01', units: 5 },
      { item: 'i1', lot: 'early', bestBefore: '2026-05-01', units: 4 },
    ];
    const line = (id: string) => [{ id, item: 'i1', units: 6, minShelfDays: 0 }];
    const [first, second] = allocateByPriority(stock, [
      { id: 'b', priority: 2, shipDate: '2026-03-01', shipComplete: false, lines: line('b1') },
      { id: 'a', priority: 1, shipDate: '2026-03-09', shipComplete: false, lines: line('a1') },
    ]);
    expect(first).toEqual({
      order: 'a',
      line: 'a1',
      units: 6,
      lots: [
        { lot: 'early', units: 4 },
        { lot: 'late', units: 2 },
      ],
    });
    expect(second).toMatchObject({ order: 'b', units: 3 });
  });

  it('serves a late comer from what is left beside what others keep, and completes who keeps a part', () => {
    const ask = (id: string, priority: number, units: number, shipComplete = false): Demand => ({
      id,
      priority,
      shipDate: '2026-03-02',
      shipComplete,
      lines: [{ id: `${id}-1`, item: 'i1', units, minShelfDays: 0 }],
    });
    const kept = new Map([['slow-1', [{ lot: 'L1', units: 6 }]]]);
    const free: Supply[] = [{ item: 'i1', lot: 'L2', bestBefore: null, units: 5 }];
    const got = (orders: Demand[]) => allocateBeside(kept, free, orders).map((p) => [p.line, p.lots]);
    expect(got([ask('slow', 9, 8), ask('urgent', 1, 4)])).toEqual([
      [
        'slow-1',
        [
          { lot: 'L1', units: 6 },
          { lot: 'L2', units: 1 },
        ],
      ],
      ['urgent-1', [{ lot: 'L2', units: 4 }]],
    ]);
    // Complete or not at all: what is kept does not leave alone.
    expect(got([ask('slow', 9, 12, true)])).toEqual([['slow-1', []]]);
  });

  it('leaves to each line what it was promised before, and takes only the rest from the supply', () => {
    fc.assert(
      fc.property(supply, demand, fc.nat(8), (have, want, part) => {
        // What a first round promised, cut to a part, is kept; a second round serves all again.
        const first = allocateByPriority(have, want);
        const kept = new Map(first.map((p) => [p.line, p.lots.map((l) => ({ ...l, units: Math.min(l.units, part) }))]));
        const left = have.map((row) => ({ ...row }));
        for (const p of first)
          for (const { lot, units } of kept.get(p.line)!) {
            let back = units;
            const item = want.find((o) => o.id === p.order)!.lines.find((l) => l.id === p.line)!.item;
            for (const row of left.filter((r) => r.item === item && r.lot === lot)) {
              const taken = Math.min(back, row.units);
              row.units -= taken;
              back -= taken;
            }
          }
        const second = new Map(allocateBeside(kept, left, want).map((p) => [p.line, p]));
        for (const order of want) {
          const got = order.lines.map((l) => second.get(l.id)!);
          const whole = got.every((p, i) => p.units === order.lines[i]!.units);
          if (order.shipComplete && !whole) expect(got.every((p) => p.units === 0)).toBe(true);
          else
            got.forEach((p, i) => {
              for (const { lot, units } of kept.get(p.line)!)
                expect(p.lots.find((l) => l.lot === lot)?.units ?? 0).toBeGreaterThanOrEqual(units);
              expect(p.units).toBeLessThanOrEqual(order.lines[i]!.units);
            });
        }
        for (const row of have) {
          const given = [...second.values()].flatMap((p) => {
            const item = want.find((o) => o.id === p.order)!.lines.find((l) => l.id === p.line)!.item;
            return item === row.item ? p.lots.filter((l) => l.lot === row.lot) : [];
          });
          const there = have.filter((r) => r.item === row.item && r.lot === row.lot).reduce((n, r) => n + r.units, 0);
          expect(given.reduce((n, l) => n + l.units, 0)).toBeLessThanOrEqual(there);
        }
      }),
    );
  });
});
