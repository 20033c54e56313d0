import { faultOf, meets, type Condition, type ConditionField } from './index.ts';

const fields: ConditionField[] = [
  { name: 'customer', kind: 'text' },
  { name: 'units', kind: 'number' },
  { name: 'due', kind: 'date' },
  { name: 'class', kind: 'choice', of: ['A', 'B'] },
  { name: 'whole', kind: 'yes-no' },
];
const values = { customer: ' Heron Apiaries', units: 12, due: '2026-03-05', class: 'A', whole: false };
const c = (field: string, test: Condition['test'], value = ''): Condition => ({ field, test, value });

describe('conditions', () => {
  it.each([
    [c('customer', 'is', 'heron apiaries'), true],
    [c('customer', 'is-not', 'heron apiaries'), false],
    [c('customer', 'contains', 'API'), true],
    [c('customer', 'begins', 'api'), false],
    [c('customer', 'is-empty'), false],
    [c('units', 'is', '12'), true],
    [c('units', 'at-least', '12'), true],
    [c('units', 'at-most', '11.5'), false],
    [c('due', 'at-most', '2026-03-05'), true],
    [c('due', 'at-least', '2026-03-06'), false],
    [c('class', 'is', 'A'), true],
    [c('class', 'is-not', 'A'), false],
    [c('whole', 'is', 'no'), true],
    [c('whole', 'is', 'yes'), false],
    [c('colour', 'is', 'red'), false],
  ])('%j holds: %s', (condition, expected) =>
    expect(meets({ match: 'all', list: [condition] }, fields, values)).toBe(expected),
  );

  it('joins them by all or by any, holds for nothing where there are none, and never for a value that is missing', () => {
    const list = [c('units', 'at-least', '10'), c('class', 'is', 'B')];
    expect(meets({ match: 'all', list }, fields, values)).toBe(false);
    expect(meets({ match: 'any', list }, fields, values)).toBe(true);
    expect(meets({ match: 'all', list: [] }, fields, values)).toBe(false);
    for (const test of ['is', 'at-least', 'at-most'] as const)
      expect(meets({ match: 'all', list: [c('units', test, '0'), c('due', test, '2026-01-01')] }, fields, {})).toBe(
        false,
      );
  });

  it('holds for a field of several values when one of them does', () => {
    const items = { customer: ['HN-001', 'LD-004'] };
    expect(meets({ match: 'all', list: [c('customer', 'begins', 'ld')] }, fields, items)).toBe(true);
    expect(meets({ match: 'all', list: [c('customer', 'begins', 'x')] }, fields, items)).toBe(false);
  });

  it.each([
    [c('colour', 'is', 'red'), 'a-field'],
    [c('units', 'contains', '1'), 'a-test'],
    [c('customer', 'is', ' '), 'a-value'],
    [c('units', 'is', 'ten'), 'a-number'],
    [c('due', 'is', '5.3.2026'), 'a-date'],
    [c('class', 'is', 'C'), 'one-of'],
    [c('whole', 'is', 'perhaps'), 'one-of'],
    [c('customer', 'is-empty'), null],
    [c('units', 'at-most', '5'), null],
  ])('%j lacks %s', (condition, fault) => expect(faultOf(condition, fields)).toBe(fault));
});

describe('conditions and what they mean together', () => {
  const one = [c('class', 'is', 'A'), c('units', 'at-least', '10'), c('whole', 'is', 'no')];
  it('hold by all exactly when each does, and by any exactly when one does', () => {
    for (const units of [5, 12])
      for (const kind of ['A', 'B'])
        for (const whole of [true, false]) {
          const these = { ...values, units, class: kind, whole };
          const each = one.map((condition) => meets({ match: 'all', list: [condition] }, fields, these));
          expect(meets({ match: 'all', list: one }, fields, these)).toBe(each.every(Boolean));
          expect(meets({ match: 'any', list: one }, fields, these)).toBe(each.some(Boolean));
        }
  });
  it('turn into their opposite where a test has one', () => {
    for (const kind of ['A', 'B'])
      expect(meets({ match: 'all', list: [c('class', 'is', kind)] }, fields, values)).toBe(
        !meets({ match: 'all', list: [c('class', 'is-not', kind)] }, fields, values),
      );
  });
});
