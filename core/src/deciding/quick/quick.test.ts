import { countOf, judgeQuick, picksOf, placeKey, whyNot, type QuickLine, type QuickOrder } from './index.ts';

const line = (more: Partial<QuickLine> = {}): QuickLine => ({
  line: 'a',
  asked: 5,
  gets: 5,
  tracksSerial: false,
  from: [
    { bin: 'A-1', lot: '', units: 2, there: 4, serials: [] },
    { bin: 'B-1', lot: '', units: 3, there: 3, serials: [] },
  ],
  others: [{ bin: 'C-1', lot: 'L2', there: 6, serials: [] }],
  ...more,
});
const device = line({
  line: 'd',
  asked: 2,
  gets: 2,
  tracksSerial: true,
  from: [
    { bin: 'A-1', lot: 'L1', units: 1, there: 2, serials: ['S1', 'S2'] },
    { bin: 'B-1', lot: 'L1', units: 1, there: 1, serials: ['S3'] },
  ],
  others: [{ bin: 'C-1', lot: 'L1', there: 1, serials: ['S4'] }],
});
const order = (lines: QuickLine[], more: Partial<QuickOrder> = {}): QuickOrder => ({
  shipComplete: false,
  held: null,
  lines,
  ...more,
});

describe('what is confirmed on the quick path', () => {
  it.each([
    [line(), undefined, 5, null],
    [line({ gets: 3 }), undefined, 3, null],
    [line(), ' 4 ', 4, null],
    [line(), '', 0, null],
    [line(), 'four', 0, 'number'],
    [line(), '6', 6, 'more-than-asked'],
    [line({ gets: 3 }), '4', 4, 'more-than-there'],
    [device, undefined, 0, null],
    [device, 'S1, S3', 2, null],
    [device, 'S1 S1', 1, null],
    [device, 'S1 S9', 2, 'serials'],
    [device, 'S1 S2 S3', 3, 'more-than-asked'],
    [device, 'S1 S4', 2, null],
  ])('reads what was typed for a line', (of, typed, units, wrong) => {
    expect(countOf(of, typed === undefined ? {} : { [of.line]: typed })).toMatchObject({ units, wrong });
  });

  it('says why an order cannot go', () => {
    const two = [line(), device];
    expect(whyNot(order(two, { held: 'office' }), {})).toBe('held');
    expect(whyNot(order(two), { a: '9' })).toBe('wrong');
    expect(whyNot(order(two), { a: '0' })).toBe('nothing');
    expect(whyNot(order(two), {})).toBeNull();
    expect(whyNot(order(two, { shipComplete: true }), {})).toBe('ships-complete');
    expect(whyNot(order(two, { shipComplete: true }), { d: 'S1,S2' })).toBeNull();
  });

  it('takes units out of the bins in order, and serial numbers where they lie', () => {
    expect(picksOf(order([line(), device]), { a: '4', d: 'S3,S2' })).toEqual([
      { line: 'a', bin: 'A-1', lot: '', units: 2, serials: [] },
      { line: 'a', bin: 'B-1', lot: '', units: 2, serials: [] },
      { line: 'd', bin: 'A-1', lot: 'L1', units: 1, serials: ['S2'] },
      { line: 'd', bin: 'B-1', lot: 'L1', units: 1, serials: ['S3'] },
    ]);
  });

  it('takes units out of the bins that somebody names, the others as planned', () => {
    const at = (bin: string, lot = '') => placeKey('a', { bin, lot });
    const other = { [at('B-1')]: '0', [at('C-1', 'L2')]: '3' };
    expect(countOf(line(), other)).toEqual({ units: 5, serials: [], wrong: null });
    expect(picksOf(order([line()]), other)).toEqual([
      { line: 'a', bin: 'A-1', lot: '', units: 2, serials: [] },
      { line: 'a', bin: 'C-1', lot: 'L2', units: 3, serials: [] },
    ]);
    // The bins alone say how many then, whatever the line's own field says.
    expect(countOf(line(), { a: '1', ...other }).units).toBe(5);
    expect(countOf(line(), { [at('A-1')]: '3' })).toMatchObject({ units: 6, wrong: 'more-than-asked' });
    expect(countOf(line(), { [at('B-1')]: '4' }).wrong).toBe('more-than-there');
    expect(countOf(line(), { [at('B-1')]: 'x' }).wrong).toBe('number');
  });

  it('is refused where it is more than asked, of another order, or not named unit by unit', () => {
    const lines = new Map([
      ['a', { order: 'o', line: 1, sku: 'HT-003', open: 5, tracksSerial: false }],
      ['d', { order: 'o', line: 2, sku: 'RF-001', open: 2, tracksSerial: true }],
    ]);
    const judge = (...picks: [line: string, units: number, ...serials: string[]][]) =>
      judgeQuick(
        [{ order: 'o', picks: picks.map(([line, units, ...serials]) => ({ line, units, serials })) }],
        lines,
        new Set(),
      );
    expect(judge(['a', 2], ['a', 3], ['d', 1, 'S1'], ['d', 1, 'S2'])).toBeNull();
    expect(judge(['a', 2], ['a', 4])).toEqual({ code: 'quick-too-much', line: 1, sku: 'HT-003', units: 6, open: 5 });
    expect(judge(['d', 1, 'S1'], ['d', 1, 'S1'])).toEqual({ code: 'quick-serials', sku: 'RF-001', units: 2 });
    expect(judge(['d', 2])).toMatchObject({ code: 'quick-serials' });
    expect(judge(['x', 1])).toEqual({ code: 'no-such-line', line: 'x' });
    expect(
      judgeQuick([{ order: 'other', picks: [{ line: 'a', units: 1, serials: [] }] }], lines, new Set())?.code,
    ).toBe('no-such-line');
  });

  it('is refused where an order that ships complete would go in part', () => {
    const lines = new Map(
      ['a', 'b'].map((id, i) => [id, { order: 'o', line: i, sku: 'HT-003', open: 2, tracksSerial: false }]),
    );
    const judge = (...units: number[]) =>
      judgeQuick(
        [{ order: 'o', picks: units.map((n, i) => ({ line: 'ab'[i]!, units: n, serials: [] })) }],
        lines,
        new Set(['o']),
      );
    for (const part of [[2], [2, 1], []]) expect(judge(...part)).toEqual({ code: 'quick-part', order: 'o' });
    expect(judge(2, 2)).toBeNull();
  });
});
