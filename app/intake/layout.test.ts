import { changedLayout, sameHeading, toTake } from './layout.ts';
import type { IntakeResult } from '@hand-relay/contract';

const found = {
  matching: { order: 'Beleg', customer: 'Kunde', due: null, order_note: 'Bemerkung' },
  values: { channel: 'web' },
  dates: 'unknown' as const,
  decimals: 'unknown' as const,
};
const result = (heading: string[] | null, ...outcomes: IntakeResult['orders'][number]['outcome'][]): IntakeResult => ({
  taken: false,
  import: null,
  orders: outcomes.map((outcome, n) => ({ number: `T-${n}`, customer: 'C1', lines: 1, outcome, differences: [] })),
  errors: [],
  file: heading && { ...found, heading, guesses: [], samples: {}, sender: '' },
});

describe('how an order file is read', () => {
  it('keeps what was found when something is changed, and asks again for what was only guessed', () => {
    expect(changedLayout(found, ['order', 'order_note'], { matching: { order: 'Beleg' } }).matching).toEqual({
      customer: 'Kunde',
      due: null,
      order: 'Beleg',
    });
    expect(changedLayout(found, [], { values: { due: '+1' }, dates: 'day-first' })).toEqual({
      ...found,
      values: { due: '+1' },
      dates: 'day-first',
    });
  });

  it('counts for every file with the same headings, and for no document without any', () => {
    expect(sameHeading(result(['a', 'b']), result(['a', 'b']))).toBe(true);
    expect(sameHeading(result(['a', 'b']), result(['b', 'a']))).toBe(false);
    expect(sameHeading(result(null), result(null))).toBe(false);
    expect(toTake(result(null, 'new', 'same', 'under-way', 'adapts', 'changed'))).toBe(3);
  });
});
