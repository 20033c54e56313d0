import type { OrderRow } from '@hand-relay/contract';
import { arrange, canMove, listingOf, paramsOf, sorts } from './listing.ts';

const order = (number: string, more: Partial<OrderRow> = {}): OrderRow => ({
  id: number,
  number,
  channel: 'web',
  customer: 'Heron Apiaries',
  customerClass: 'A',
  due: '2026-03-02',
  departure: 'Day',
  leavesAt: '2026-03-02T17:00:00.000Z',
  priority: 3,
  lines: 2,
  coveredLines: 2,
  asked: 10,
  released: 0,
  picked: 0,
  packed: 0,
  shipped: 0,
  status: 'open',
  ...more,
});
const rows = [
  order('B', { due: '2026-03-03', leavesAt: '2026-03-03T17:00:00.000Z' }),
  order('A', { customer: 'Linnet Orchards', channel: 'field', asked: 4 }),
  order('C', { released: 10 }),
  order('D', { coveredLines: 0 }),
];
const numbers = (params: Record<string, string>) =>
  arrange(rows, listingOf(params)).flatMap((g) => g.rows.map((r) => r.number));

describe('the list of orders', () => {
  it('shows by default only what can move', () => {
    expect(numbers({})).toEqual(['A', 'B']);
    expect(rows.filter(canMove).map((r) => r.number)).toEqual(['B', 'A']);
    expect(numbers({ show: 'open' })).toEqual(['A', 'C', 'D', 'B']);
    expect(numbers({ show: 'started' })).toEqual(['C']);
  });
  it('finds, filters and sorts both ways', () => {
    expect(numbers({ show: 'open', find: 'linn' })).toEqual(['A']);
    expect(numbers({ show: 'open', channel: 'field' })).toEqual(['A']);
    expect(numbers({ show: 'open', group: 'none', sort: 'number', down: '1' })).toEqual(['D', 'C', 'B', 'A']);
    for (const sort of sorts)
      expect(numbers({ show: 'open', group: 'none', sort }).sort()).toEqual(['A', 'B', 'C', 'D']);
  });
  it('groups by day and departure, with sums', () =>
    expect(arrange(rows, listingOf({ show: 'open' })).map((g) => [g.key, g.rows.length, g.units])).toEqual([
      ['2026-03-02', 3, 24],
      ['2026-03-03', 1, 10],
    ]));
  it('is kept by its address, and an address nobody understands is the default', () => {
    const params = { find: 'x', show: 'closed', group: 'departure', channel: 'web', sort: 'units', down: '1' };
    expect(paramsOf(listingOf(params))).toEqual(params);
    expect(listingOf({ show: 'nonsense', sort: '<b>', channel: 'fax' })).toEqual(listingOf({}));
  });
});
