import { judgeStack, type PalletState, type Stackable } from './index.ts';

const unit = (more: Partial<Stackable> = {}): Stackable => ({
  id: 'c1',
  state: 'closed',
  weightG: 8_000,
  departure: 'day 17:00',
  outer: null,
  held: false,
  ...more,
});
const pallet = (more: Partial<PalletState> = {}): PalletState => ({
  id: 'p1',
  state: 'open',
  departure: undefined,
  loadG: 0,
  maxLoadG: 20_000,
  units: [],
  planned: ['c1', 'c2'],
  outers: ['p9'],
  ...more,
});

describe('what goes onto a pallet', () => {
  it('is a closed unit of its departure, as planned or besides', () => {
    expect(judgeStack(pallet(), unit(), 'x')).toEqual({ verdict: 'put', asPlanned: true, from: null });
    expect(judgeStack(pallet({ departure: 'day 17:00', loadG: 12_000 }), unit({ id: 'c7' }), 'x')).toEqual({
      verdict: 'put',
      asPlanned: false,
      from: null,
    });
    // From another one that is open it is moved.
    const outer = { id: 'p2', number: 'P2', state: 'open' } as const;
    expect(judgeStack(pallet(), unit({ outer }), 'x')).toMatchObject({ verdict: 'put', from: 'p2' });
  });

  it.each<[string, Partial<PalletState>, Partial<Stackable> | null, string, string]>([
    ['a pallet that is closed', { state: 'closed' }, {}, 'pallet-closed', ''],
    ['a code that names none', {}, null, 'unit-unknown', ''],
    ['a carton that is open', {}, { state: 'open' }, 'unit-open', ''],
    ['a carton that left', {}, { state: 'shipped' }, 'unit-shipped', ''],
    ['what is on hold', {}, { held: true }, 'unit-held', ''],
    ['what is on it already', { units: ['c1'] }, {}, 'on-this', ''],
    ['itself', {}, { id: 'p1' }, 'inside-itself', ''],
    ['what it stands on', {}, { id: 'p9' }, 'inside-itself', ''],
    ['what is on a closed one', {}, { outer: { id: 'p2', number: 'P2', state: 'closed' } }, 'on-closed-pallet', 'P2'],
    ['what leaves otherwise', { departure: 'day 12:00' }, {}, 'other-departure', 'day 12:00'],
    [
      'what has no departure beside what has',
      { departure: 'day 12:00' },
      { departure: null },
      'other-departure',
      'day 12:00',
    ],
    ['more than it bears', { departure: 'day 17:00', loadG: 12_001 }, {}, 'over-load', '20000'],
  ])('is not %s', (_, state, given, code, expected) => {
    const verdict = judgeStack(pallet(state), given && unit(given), 'scanned');
    expect(verdict).toMatchObject({ verdict: 'refused', code, got: 'scanned', expected });
  });
});
