import { faultOf, meets, type Condition } from '@hand-relay/core/deciding/conditions';
import { orderFields, orderValues } from './conditionFields.ts';
import type { Listed } from './listing.ts';

const order = (of: Partial<Listed> = {}): Listed =>
  ({
    id: 'o1',
    number: 'LA-7',
    customer: 'Juniper Orchards',
    customerClass: 'B',
    channel: 'web',
    due: '2026-03-03',
    departure: 'Van north',
    priority: 3,
    lines: 4,
    asked: 20,
    released: 5,
    tags: 'gift, urgent',
    waves: '',
    pickers: '',
    outlook: { readiness: 'goes', sureLines: 3, sureUnits: 12, sureValue: 12_345, fullBy: null },
    ...of,
  }) as Listed;

describe('conditions on the list of orders', () => {
  it('can be put on every value that an order has, and on nothing else', () => {
    expect(Object.keys(orderValues(order())).sort()).toEqual(orderFields.map((f) => f.name).sort());
  });

  it('ask what is still open of an order, and its value in whole units of money', () => {
    expect(orderValues(order())).toMatchObject({ units: 15, value: 123.45, class: 'B', tags: 'gift, urgent' });
    // Not computed yet: no condition on it holds.
    expect(orderValues(order({ outlook: undefined }))).toMatchObject({ ready: undefined, value: undefined });
  });

  it('choose orders by any of them together, and by none that is not known yet', () => {
    const list: Condition[] = [
      { field: 'units', test: 'at-least', value: '10' },
      { field: 'tags', test: 'contains', value: 'GIFT' },
      { field: 'ready', test: 'is', value: 'goes' },
    ];
    expect(list.map((c) => faultOf(c, orderFields))).toEqual([null, null, null]);
    const chosen = (of: Partial<Listed>) => meets({ match: 'all', list }, orderFields, orderValues(order(of)));
    expect(chosen({})).toBe(true);
    expect(chosen({ released: 11 })).toBe(false);
    expect(chosen({ tags: '' })).toBe(false);
    expect(chosen({ outlook: undefined })).toBe(false);
  });
});
