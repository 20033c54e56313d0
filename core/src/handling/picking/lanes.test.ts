import { laneAdvice, type LaneNow } from './index.ts';

const lane = (code: string, x: number | null, carts = 0, fits: number | null = 2): LaneNow => ({
  code,
  at: x === null ? null : { x, y: 0 },
  carts,
  fits,
});

describe('a lane for a cart', () => {
  const lanes = [lane('L1', 0, 2), lane('L2', 5), lane('L3', 40), lane('L4', null, 9, null), lane('L5', 1, 3, 3)];

  it.each([
    ['as planned, with room', 'L2', 'L2', null],
    ['any, with room', 'L3', null, null],
    ['that nobody knows', 'L9', 'L2', null],
    ['without a limit', 'L4', null, null],
    ['as planned, but full', 'L1', 'L1', { full: true, other: false, metres: null, instead: 'L2' }],
    ['far from the planned one', 'L3', 'L1', { full: false, other: true, metres: 40, instead: null }],
    ['not placed, another than planned', 'L4', 'L2', { full: false, other: true, metres: null, instead: null }],
    ['full, and another than planned', 'L5', 'L3', { full: true, other: true, metres: 39, instead: 'L3' }],
  ])('%s', (_, code, planned, advice) => expect(laneAdvice(lanes, code, planned)).toEqual(advice));

  it('names none instead where all are full', () =>
    expect(laneAdvice([lane('L1', 0, 2), lane('L2', 5, 2)], 'L1', null)).toMatchObject({ full: true, instead: null }));
});
