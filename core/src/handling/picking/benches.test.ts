import { benchFor, type BenchNow } from './index.ts';

const bench = (code: string, more: Partial<BenchNow> = {}): BenchNow => ({
  code,
  carrier: null,
  zone: null,
  fromLitres: null,
  carts: 0,
  fits: null,
  ...more,
});
const load = (more = {}) => ({ carriers: ['Skylark'], zones: ['small'], largestLitres: 2, ...more });

describe('a bench for a cart', () => {
  const parcels = bench('B1', { carrier: 'Skylark' });
  const large = bench('B2', { fromLitres: 50 });
  const cage = bench('B3', { carrier: 'Skylark', zone: 'cage' });
  const any = bench('B4');
  const choose = (more = {}, benches = [any, parcels, large, cage]) => benchFor(benches, load(more));

  it.each([
    ['that is for its carrier', {}, 'B1'],
    ['with the most exact rule that it meets', { zones: ['cage'] }, 'B3'],
    ['for large goods', { carriers: ['Fellhaul'], largestLitres: 50 }, 'B2'],
    ['is none where a part of the cart goes elsewhere', { carriers: ['Skylark', 'Fellhaul'] }, null],
    ['is none where nothing is known of its orders', { carriers: [], zones: [] }, null],
  ])('%s', (_, more, code) => expect(choose(more)).toBe(code));

  it('is one with room, then the one with the fewest carts, and without a rule it is none', () => {
    const two = (a: Partial<BenchNow>, b: Partial<BenchNow>) =>
      choose({}, [bench('X', { carrier: 'Skylark', ...a }), bench('Y', { carrier: 'Skylark', ...b })]);
    expect(two({ carts: 2, fits: 2 }, { carts: 5 })).toBe('Y');
    expect(two({ carts: 2 }, { carts: 1 })).toBe('Y');
    expect(two({ carts: 3, fits: 2 }, { carts: 2, fits: 2 })).toBe('Y');
    expect(two({}, {})).toBe('X');
    expect(choose({}, [any])).toBeNull();
  });
});
