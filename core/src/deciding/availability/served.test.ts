import fc from 'fast-check';
import type { servings } from '../allocation/index.ts';
import { served, type OpenOrder, type ServedBy } from './index.ts';

const order = (id: string, priority: number, shipDate: string): OpenOrder => ({
  id,
  priority,
  shipDate,
  shipComplete: false,
  lines: [],
});
const facts: Record<string, ServedBy> = {
  a: { classRank: 2, takenAt: '2026-11-01T08:00:00Z' },
  b: { classRank: 1, takenAt: '2026-11-02T08:00:00Z' },
  c: { classRank: 1, takenAt: '2026-11-01T08:00:00Z' },
};
const orders = [order('a', 1, '2026-12-01'), order('b', 5, '2026-12-02'), order('c', 2, '2026-12-03')];
const places = (serving: (typeof servings)[number]) =>
  Object.fromEntries(served(orders, serving, (id) => facts[id]!).map((o) => [o.id, o.priority]));

describe('the order in which orders are served', () => {
  it('is by class and then priority, by ship date, or by age, equal ones alike', () => {
    expect(places('customer-class')).toEqual({ c: 1, b: 2, a: 3 });
    expect(places('ship-date')).toEqual({ a: 1, b: 2, c: 3 });
    expect(places('order-age')).toEqual({ a: 1, c: 1, b: 2 });
  });

  it('keeps every order as it is given, and never puts one of a lower class first', () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ rank: fc.integer({ min: 1, max: 4 }), priority: fc.integer({ min: 1, max: 9 }) })),
        (list) => {
          const all = list.map(({ priority }, i) => order(String(i), priority, '2026-12-01'));
          const result = served(all, 'customer-class', (id) => ({ classRank: list[Number(id)]!.rank, takenAt: '' }));
          expect(result.map((o) => o.id)).toEqual(all.map((o) => o.id));
          for (const [i, a] of result.entries())
            for (const [j, b] of result.entries())
              if (list[i]!.rank < list[j]!.rank) expect(a.priority).toBeLessThan(b.priority);
        },
      ),
    ));
});
