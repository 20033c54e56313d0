import fc from 'fast-check';
import { baton } from './index.ts';

const amounts = { asked: 10, released: 10, picked: 4, packed: 0, shipped: 0 };

describe('the baton', () => {
  it('is at the first leg that is not full', () => {
    expect(baton(amounts, 100, 50)).toEqual({
      filled: { desk: 1, floor: 0.4, bench: 0, dock: 0 },
      at: 'floor',
      late: false,
    });
    expect(baton({ ...amounts, released: 3 }, null, 50).at).toBe('desk');
  });
  it('is late only while something is left to do', () => {
    expect(baton(amounts, 40, 50).late).toBe(true);
    expect(baton({ asked: 10, released: 10, picked: 10, packed: 10, shipped: 10 }, 40, 50)).toMatchObject({
      at: null,
      late: false,
    });
  });
  it('of nothing is nowhere', () =>
    expect(baton({ asked: 0, released: 0, picked: 0, packed: 0, shipped: 0 }, 1, 2)).toMatchObject({
      at: null,
      late: false,
    }));

  it('never runs ahead of the work: no leg is fuller than the one before it', () => {
    const work = fc.array(fc.nat(50), { minLength: 5, maxLength: 5 }).map((n) => {
      const [shipped, packed, picked, released, asked] = [...n].sort((a, b) => a - b) as [
        number,
        number,
        number,
        number,
        number,
      ];
      return { asked, released, picked, packed, shipped };
    });
    fc.assert(
      fc.property(work, fc.option(fc.nat(10)), fc.nat(10), (of, due, now) => {
        const { filled, at, late } = baton(of, due, now);
        const shares = [filled.desk, filled.floor, filled.bench, filled.dock];
        shares.forEach((share, i) => {
          expect(share >= 0 && share <= 1).toBe(true);
          if (i > 0) expect(share).toBeLessThanOrEqual(shares[i - 1]!);
        });
        if (at) expect(filled[at]).toBeLessThan(1);
        else expect(of.asked === 0 || of.shipped === of.asked).toBe(true);
        expect(late).toBe(at !== null && due !== null && now > due);
      }),
    );
  });
});
