import type { RunDetail } from '@hand-relay/contract';
import { laneAdvice } from '@hand-relay/core/handling/picking';
import { ssccOf } from '@hand-relay/core/reading/gs1';
import { aPick } from '../test/aPick.ts';
import '../text/index.ts';
import { laneWords } from './laneWords.ts';
import { lookHere } from './lookHere.ts';
import { namedRefusal, refusalWords, type Refused } from './refusalWords.ts';

const refused = (of: Partial<Refused>): Refused =>
  ({ verdict: 'refused', code: 'not-awaited', expected: 'item', got: 'X', progress: {}, ...of }) as Refused;

describe('what is said of a refused scan', () => {
  it('names what was read by what its form tells, and what was expected as people call it', () => {
    expect(refusalWords(refused({ code: 'wrong-bin', expected: 'A-01-1', got: 'B-02-2' }))).toBe(
      'This is bin B-02-2. Go to A-01-1.',
    );
    expect(refusalWords(refused({ got: 'CART-07' }))).toMatch(/^CART-07 is a cart\./);
    expect(refusalWords(refused({ got: 'BADGE-2001' }))).toMatch(/^BADGE-2001 is a badge\./);
    const carton = ssccOf({ extension: 3, companyPrefix: '9521234' }, 12);
    // The numbers of cartons begin alike: people tell them by their end.
    expect(refusalWords(refused({ code: 'used-carton', got: carton }))).toContain(`Number ${carton.slice(-5)} `);
  });

  it('names what only the server knows, once it has answered', () => {
    const named = (kind: 'bin' | 'order', name: string, expected = 'item') =>
      namedRefusal(refused({ expected }), { kind, name }, 'A-01-1');
    expect(named('bin', 'C-03-1', 'A-01-1')).toBe('This is bin C-03-1. Go to A-01-1.');
    expect(named('bin', 'C-03-1')).toMatch(/^C-03-1 is a bin\./);
    expect(named('order', 'LA-7')).toMatch(/^LA-7 is an order\./);
  });
});

describe('a lane that was not planned', () => {
  const lane = (code: string, carts: number, x: number): RunDetail['lanes'][number] => ({
    code,
    name: code,
    at: { x, y: 0 },
    fits: 6,
    bench: false,
    carts,
  });
  const lanes = [lane('LANE-1', 6, 0), lane('LANE-2', 1, 30), lane('LANE-3', 6, 60)];
  const said = (code: string, planned: string | null) => {
    const advice = laneAdvice(lanes, code, planned);
    return (
      advice &&
      laneWords(
        lanes.find((l) => l.code === code)!,
        advice,
        planned ?? '',
      )
    );
  };

  it('is said with how far it is or how full, where to go, and that a second scan leaves the cart', () => {
    expect(said('LANE-2', 'LANE-2')).toBeNull();
    expect(said('LANE-2', 'LANE-1')).toMatch(/LANE-2 is 30 m from LANE-1, the planned lane\./);
    expect(said('LANE-3', 'LANE-2')).toMatch(/LANE-3 is full: 6 of 6 carts\./);
    expect(said('LANE-3', 'LANE-2')).toMatch(/LANE-2, or scan LANE-3 again to leave it here/);
    expect(said('LANE-1', null)).toMatch(/full/);
  });
});

describe('a look at a code while offline', () => {
  const picks = [
    aPick(),
    aPick(
      { order: { id: 'o2', number: 'LA-0002', note: '', hold: null } },
      { id: 'p2', bin: 'B-02-2', item: { ...aPick().step.item, id: 'i2', sku: 'JR-002', packs: [] } },
    ),
  ];
  const found = (code: string) => lookHere(picks, code).map((p) => p.step.id);

  it('finds what the run in hand knows: by bin, item, barcode of any pack, or order', () => {
    expect(found('b-02-2')).toEqual(['p2']);
    expect(found('JR-001')).toEqual(['p1']);
    expect(found('9521234001010')).toEqual(['p1']);
    expect(found('19521234001017')).toEqual(['p1']);
    expect(found('ORDER-LA-0002')).toEqual(['p2']);
    expect(found('la-0001')).toEqual(['p1']);
    expect(found('C-09-9')).toEqual([]);
  });
});
