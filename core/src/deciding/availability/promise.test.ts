import fc from 'fast-check';
import { allocate, type Demand } from '../allocation/index.ts';
import { demands, supplies } from '../allocation/arbitraries.ts';
import { compare, outlook, overdrawn, Reasons, shift, type OpenOrder, type Portion } from './index.ts';

const open = (orders: Demand[], reserved: Record<string, number> = {}): OpenOrder[] =>
  orders.map((o) => ({ ...o, lines: o.lines.map((l) => ({ ...l, reserved: reserved[l.id] ?? 0, value: 100 })) }));
const order = (id: string, units: number[], more: Partial<Demand> = {}): Demand => ({
  id,
  priority: 5,
  shipDate: '2026-03-02',
  shipComplete: false,
  lines: units.map((n, i) => ({ id: `${id}-${i + 1}`, item: `i${i + 1}`, units: n, minShelfDays: 0 })),
  ...more,
});
const stock = (...units: number[]) =>
  units.map((n, i) => ({ item: `i${i + 1}`, lot: null, bestBefore: null, units: n }));

describe('outlook', () => {
  it('tells what leaves whatever is decided, what could at the cost of others, and when the rest can', () => {
    const expected = [
      { item: 'i1', date: '2026-03-09', units: 4 },
      { item: 'i1', date: '2026-03-05', units: 2 },
    ];
    // 10 of i1 for 6 and 8: 2 and 4 are sure, all could; 5 of i2 for 5.
    const { orders, short } = outlook(stock(10, 5), expected, open([order('a', [6, 5]), order('b', [8])]));
    expect(orders).toEqual([
      {
        order: 'a',
        readiness: 'choose',
        sure: { lines: 1, units: 7, value: 700 },
        could: { lines: 2, units: 11, value: 1100 },
        fullBy: null,
        lines: [
          { line: 'a-1', sure: 2, could: 6, fullBy: null },
          { line: 'a-2', sure: 5, could: 5, fullBy: null },
        ],
      },
      {
        order: 'b',
        readiness: 'choose',
        sure: { lines: 0, units: 4, value: 400 },
        could: { lines: 1, units: 8, value: 800 },
        fullBy: null,
        lines: [{ line: 'b-1', sure: 4, could: 8, fullBy: null }],
      },
    ]);
    expect(short).toEqual([
      {
        item: 'i1',
        asked: 14,
        free: 10,
        served: 10,
        orders: 2,
        lines: 2,
        expected: [
          { date: '2026-03-09', units: 4 },
          { date: '2026-03-05', units: 2 },
        ],
      },
    ]);
  });

  it.each([
    ['goes', [3], {}, 'goes', null],
    ['part, more on Monday', [13], {}, 'part', '2026-03-09'],
    ['part, and no end in sight', [99], {}, 'part', null],
    ['waits, as it leaves whole or not at all', [13], { shipComplete: true }, 'waits', '2026-03-09'],
    ['short', [99], { shipComplete: true }, 'short', null],
  ])('calls an order alone: %s', (_, units, more, readiness, fullBy) => {
    const { orders } = outlook(
      stock(10),
      [{ item: 'i1', date: '2026-03-09', units: 5 }],
      open([order('a', units, more)]),
    );
    expect(orders[0]).toMatchObject({ readiness, fullBy });
  });

  it('counts what is kept for a line as its own, beside what is free', () => {
    const { orders } = outlook(stock(2), [], open([order('a', [6]), order('b', [2])], { 'a-1': 4 }));
    expect(orders.map((o) => [o.sure.units, o.could.units])).toEqual([
      [4, 6],
      [0, 2],
    ]);
  });

  it('is borne out by serving: last of all a line gets what it is sure of, first of all what it could', () => {
    fc.assert(
      fc.property(supplies, demands, (have, want) => {
        const partial = want.map((o) => ({ ...o, shipComplete: false }));
        const { orders } = outlook(have, [], open(partial));
        partial.forEach((one, n) => {
          const got = (priority: number) =>
            allocate(
              have,
              partial.map((o) => (o === one ? { ...o, priority } : { ...o, priority: 5 })),
              { policy: 'priority' },
            )
              .promises.filter((p) => p.order === one.id)
              .reduce((sum, p) => sum + p.units, 0);
          expect([got(9), got(1)]).toEqual([orders[n]!.sure.units, orders[n]!.could.units]);
        });
      }),
      { numRuns: 60 },
    );
  });
});

describe('why a line gets what it gets', () => {
  const why = (have: Parameters<typeof outlook>[0], want: OpenOrder[], line: string, manual = false) => {
    const { promises } = allocate(have, want, { policy: 'priority' });
    const reasons = new Reasons(have, want, new Map(promises.map((p) => [p.line, p])));
    const owner = want.find((o) => o.lines.some((l) => l.id === line))!;
    return reasons.of(
      owner,
      owner.lines.find((l) => l.id === line)!,
      manual,
    );
  };
  it('names who gets the rest, the most first', () =>
    expect(
      why(
        stock(12),
        open([order('a', [2], { priority: 1 }), order('b', [8], { priority: 2 }), order('c', [20])]),
        'c-1',
      ),
    ).toEqual({
      reason: 'taken',
      takers: [
        { order: 'b', units: 8 },
        { order: 'a', units: 2 },
      ],
      tooOld: 0,
    }));
  it('tells goods that do not keep long enough, an order that waits for another line, a hand, and nothing at all', () => {
    const old = [{ item: 'i1', lot: 'L', bestBefore: '2026-03-10', units: 7 }];
    const strict = order('a', [5]);
    strict.lines[0]!.minShelfDays = 60;
    expect(why(old, open([strict]), 'a-1')).toEqual({ reason: 'shelf', takers: [], tooOld: 7 });
    expect(why(stock(9, 0), open([order('a', [5, 5], { shipComplete: true })]), 'a-1').reason).toBe('whole-order');
    expect(why(stock(0), open([order('a', [5])]), 'a-1', true).reason).toBe('manual');
    expect(why(stock(0), open([order('a', [5])]), 'a-1').reason).toBe('none');
    expect(why(stock(5), open([order('a', [5])]), 'a-1').reason).toBe('full');
  });
});

describe('policies side by side', () => {
  it('sums each, and tells the lines and orders that change', () => {
    const want = open([
      order('big', [10], { priority: 1 }),
      order('a', [5]),
      order('b', [5], { shipDate: '2026-03-09' }),
    ]);
    const results = (['priority', 'fair-share'] as const).map((policy) => ({
      policy,
      allocated: allocate(stock(12), want, { policy }),
    }));
    const found = compare(want, results, '2026-03-02', (o) => (o === 'big' ? 'A' : 'B'));
    expect(found.tallies).toEqual([
      {
        policy: 'priority',
        orders: 1,
        lines: 1,
        units: 12,
        value: 1200,
        late: 1,
        byClass: { A: { orders: 1, complete: 1 }, B: { orders: 2, complete: 0 } },
      },
      {
        policy: 'fair-share',
        orders: 0,
        lines: 0,
        units: 12,
        value: 1200,
        late: 2,
        byClass: { A: { orders: 1, complete: 0 }, B: { orders: 2, complete: 0 } },
      },
    ]);
    expect(found.lines).toContainEqual({ order: 'a', line: 'a-1', asked: 5, units: [2, 3] });
    expect(found.sides).toEqual([{ order: 'big', complete: [true, false] }]);
  });
});

describe('sharing by hand', () => {
  const portion = (line: string, units: number, more: Partial<Portion> = {}): Portion => ({
    line,
    until: '2026-03-02',
    asked: 10,
    reserved: 0,
    units,
    ...more,
  });
  it('takes no more than lies there and keeps long enough', () => {
    const lots = [
      { bestBefore: '2026-03-20', free: 6 },
      { bestBefore: null, free: 4 },
    ];
    expect(overdrawn(lots, [portion('a', 6), portion('b', 4, { until: '2026-06-01' })])).toBe(0);
    expect(overdrawn(lots, [portion('a', 4), portion('b', 6, { until: '2026-06-01' })])).toBe(2);
    expect(overdrawn(lots, [portion('a', 10, { reserved: 3 }), portion('b', 4)])).toBe(1);
  });
  it('moves what one can give and the other still asks', () => {
    const both = [portion('a', 8, { reserved: 3 }), portion('b', 7)];
    const units = (list: Portion[]) => list.map((p) => p.units);
    expect(units(shift(both, 0, 1, 2))).toEqual([6, 9]);
    expect(units(shift(both, 0, 1, 9))).toEqual([5, 10]);
    expect(units(shift(both, 0, null, 9))).toEqual([3, 7]);
    expect(units(shift(both, null, 1, 1))).toEqual([8, 8]);
  });
});
