import type { OutlookRow } from '@hand-relay/contract';
import { arrange, canMove, filtersSet, listingOf, listingWith, paramsOf, sortedBy, sorts, viewOf } from './listing.ts';
import { orderRow as order } from '../test/anOrder.ts';
import { orderFields, orderValues } from './conditionFields.ts';
import { meets } from '@hand-relay/core/deciding/conditions';

const look = (readiness: OutlookRow['readiness'], couldUnits = 5): OutlookRow => ({
  id: '',
  readiness,
  sureLines: 1,
  sureUnits: 3,
  sureValue: 90_000,
  couldLines: 1,
  couldUnits,
  fullBy: null,
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
    expect(numbers({ show: 'open', channel: 'field|web' })).toEqual(['A', 'C', 'D', 'B']);
    expect(numbers({ show: 'open', channel: 'web', from: '2026-03-03', until: '2026-03-03' })).toEqual(['B']);
    expect(numbers({ show: 'open', group: 'none', sort: 'number', down: '1' })).toEqual(['D', 'C', 'B', 'A']);
    for (const sort of sorts)
      expect(numbers({ show: 'open', group: 'none', sort }).sort()).toEqual(['A', 'B', 'C', 'D']);
  });
  it('filters by what is reserved, who is at it, worth and reference', () => {
    const list = [
      order('A', { waves: '12, 13', pickers: 'Pico, Suri', reserved: 10, value: 10_000, reference: 'PO 77' }),
      order('B', { waves: '13', pickers: 'Suri', reserved: 3, value: 20_000, lane: 'LANE-2' }),
      order('C', { reserved: 0, value: 30_050, service: 'Night' }),
    ];
    const of = (params: Record<string, string>) =>
      arrange(list, listingOf({ show: 'open', group: 'none', sort: 'number', ...params }))
        .flatMap((g) => g.rows.map((r) => r.number))
        .join('');
    expect([of({ wave: '12' }), of({ wave: '12|13' }), of({ picker: 'Suri' })]).toEqual(['A', 'AB', 'AB']);
    expect([of({ reserved: 'all' }), of({ reserved: 'part|none' })]).toEqual(['A', 'BC']);
    expect([of({ least: '200' }), of({ most: '300' }), of({ least: '200', most: '300' })]).toEqual(['BC', 'AB', 'B']);
    expect([of({ reference: 'po 7' }), of({ lane: 'LANE-2' }), of({ service: 'Night' })]).toEqual(['A', 'B', 'C']);
    // What only the list knows is not asked of the server.
    expect(viewOf(listingOf({ wave: '12', picker: 'Pico', reserved: 'all', lane: 'LANE-2', reference: 'x' }))).toEqual({
      lane: 'LANE-2',
      reference: 'x',
    });
  });
  it('sorts by several columns, each its own way', () => {
    const list = [
      order('A', { customerClass: 'Z', classRank: 1, asked: 5 }),
      order('B', { customerClass: 'A', classRank: 2, asked: 5 }),
      order('C', { customerClass: 'Z', classRank: 1, asked: 9 }),
    ];
    const by = (params: Record<string, string>) =>
      arrange(list, listingOf({ show: 'open', group: 'none', ...params })).flatMap((g) => g.rows.map((r) => r.number));
    expect(by({ sort: 'class', then: '-units' })).toEqual(['C', 'A', 'B']);
    expect(by({ sort: 'units', then: '-class' })).toEqual(['B', 'A', 'C']);
    let at = listingOf({ sort: 'class' });
    const press = (sort: (typeof sorts)[number], also: boolean) => {
      at = { ...at, ...sortedBy(at, sort, also) };
      return [at.sort, at.down, at.then.map((t) => `${t.down ? '-' : ''}${t.sort}`).join()];
    };
    expect(press('units', true)).toEqual(['class', false, 'units']);
    expect(press('units', true)).toEqual(['class', false, '-units']);
    expect(press('class', true)).toEqual(['class', true, '-units']);
    expect(press('number', false)).toEqual(['number', false, '']);
    expect(press('number', false)).toEqual(['number', true, '']);
  });
  it('groups by day and departure, with sums', () =>
    expect(arrange(rows, listingOf({ show: 'open' })).map((g) => [g.key, g.rows.length, g.units])).toEqual([
      ['2026-03-02', 3, 24],
      ['2026-03-03', 1, 10],
    ]));
  it('is kept by its address, and an address nobody understands is the default', () => {
    const params = {
      find: 'x',
      show: 'closed',
      group: 'departure',
      ready: 'choose|goes',
      from: '2026-03-01',
      until: '2026-03-02',
      item: 'JR-004',
      class: 'A|C',
      channel: 'web',
      departure: 'Day|Night',
      carrier: 'Skylark Parcels',
      zone: 'small',
      kind: 'transfer',
      priority: '1|2',
      service: 'Day',
      lane: 'LANE-1',
      reserved: 'all|none',
      wave: '12',
      picker: 'Pico',
      reference: 'PO 77',
      least: '100',
      most: '500',
      then: '-customer.units',
      sort: 'units',
      down: '1',
      columns: 'ready.due',
    };
    expect(paramsOf(listingOf(params))).toEqual(params);
    expect(
      listingOf({ show: 'nonsense', sort: '<b>', kind: 'fax|', priority: '10', until: 'soon', columns: 'x' }),
    ).toEqual(listingOf({}));
  });

  it('goes by the outlook once there is one: filter, groups, what can move, and what is asked of the server', () => {
    const looked = [
      order('A', { outlook: look('goes') }),
      order('B', { outlook: look('choose') }),
      order('C', { outlook: look('short', 0) }),
    ];
    const of = (params: Record<string, string>) =>
      arrange(looked, listingOf(params)).map((g) => [g.key, ...g.rows.map((r) => r.number)]);
    expect(of({ group: 'none' })).toEqual([['', 'A', 'B']]);
    expect(of({ group: 'none', ready: 'short' })).toEqual([['', 'C']]);
    expect(of({ group: 'readiness', show: 'open', sort: 'ready' })).toEqual([
      ['0', 'A'],
      ['1', 'B'],
      ['4', 'C'],
    ]);
    expect(of({ group: 'customer', show: 'open', class: 'B' })).toEqual([]);
    expect(viewOf(listingOf({ until: '2026-03-02', zone: 'small|tall', ready: 'goes' }))).toEqual({
      until: '2026-03-02',
      zone: 'small|tall',
    });
    expect(filtersSet(listingOf({ until: '2026-03-02', zone: 'small', ready: 'goes' }))).toBe(3);
  });
  it('can be found by conditions on anything seen', () => {
    const found = (field: string, test: 'is' | 'at-least' | 'at-most', value: string) =>
      meets(
        { match: 'all', list: [{ field, test, value }] },
        orderFields,
        orderValues(order('A', { outlook: look('goes') })),
      );
    expect(found('value', 'at-least', '900')).toBe(true);
    expect(found('value', 'at-least', '901')).toBe(false);
    expect(found('ready', 'is', 'goes')).toBe(true);
    expect(found('due', 'at-most', '2026-03-01')).toBe(false);
  });
});

describe('the columns of a list', () => {
  it('follow what is shown until somebody chooses others', () => {
    const movable = listingOf({});
    const started = listingWith(movable, { show: 'started' });
    expect(started.columns).toEqual(expect.arrayContaining(['waves', 'runs', 'pickers']));
    // Neither is kept in the address, where it says nothing new.
    expect([paramsOf(movable).columns, paramsOf(started).columns]).toEqual([undefined, undefined]);
    expect(listingOf(paramsOf(started) as Record<string, string>).columns).toEqual(started.columns);
    const own = listingWith(movable, { columns: ['due', 'stage'] });
    expect(listingWith(own, { show: 'started' }).columns).toEqual(['due', 'stage']);
  });
});
