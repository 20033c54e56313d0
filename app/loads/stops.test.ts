import fc from 'fast-check';
import type { LoadShare } from '@hand-relay/contract';
import { areasIn, byPostcode, movedStop, putBack, stopsIn } from './stops.ts';

const share = (stop: number, postcode: string, city: string, more: Partial<LoadShare> = {}): LoadShare => ({
  id: `${stop}${postcode}`,
  number: 'SO-1',
  customer: 'Juniper Orchards',
  street: '5 Weir Street',
  postcode,
  city,
  country: 'GB',
  due: '2031-07-15',
  departure: null,
  leavesAt: null,
  units: 1,
  released: 0,
  picked: 0,
  packed: 0,
  weightG: 500,
  volumeCm3: 1,
  pallets: 0.1,
  fits: true,
  stop,
  early: 0,
  ...more,
});

describe('stops and areas of a load', () => {
  const shares = [
    share(2, 'ZB9', 'Ashby'),
    share(1, 'ZC1', 'Carrow'),
    share(2, 'ZB9', 'Ashby'),
    share(3, 'ZA2', 'Dun'),
  ];

  it('shows orders by stop, and sorts stops by postcode', () => {
    expect(stopsIn(shares).map((s) => [s.stop, s.at, s.shares.length])).toEqual([
      [1, 'ZC1, Carrow, 5 Weir Street', 1],
      [2, 'ZB9, Ashby, 5 Weir Street', 2],
      [3, 'ZA2, Dun, 5 Weir Street', 1],
    ]);
    expect(byPostcode(shares)).toEqual([3, 2, 1]);
    expect(movedStop(3, 2, -1)).toEqual([2, 1, 3]);
    expect(movedStop(3, 2, 1)).toEqual([1, 3, 2]);
  });

  it('undoes any order of stops', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([1, 2, 3, 4, 5, 6], { minLength: 6 }), (stops) => {
        // Stop s stands at stops.indexOf(s) + 1 afterwards; putting back asks for it there.
        const after = new Map(stops.map((s, i) => [s, i + 1]));
        expect(putBack(stops).map((at) => [...after].find(([, now]) => now === at)![0])).toEqual([1, 2, 3, 4, 5, 6]);
      }),
    );
  });

  it('counts what goes to each district, by its city where there is no postcode', () => {
    const more = [...shares, share(4, '', 'Fen', { fits: false }), share(4, '48143', 'Mull', { country: 'DE' })];
    expect(areasIn(more).map((a) => [a.key, a.orders, a.fits, a.weightG, a.cities.join()])).toEqual([
      ['DE 48', 1, 1, 500, 'Mull'],
      ['GB Fen', 1, 0, 500, 'Fen'],
      ['GB ZA', 1, 1, 500, 'Dun'],
      ['GB ZB', 2, 2, 1000, 'Ashby'],
      ['GB ZC', 1, 1, 500, 'Carrow'],
    ]);
  });
});
