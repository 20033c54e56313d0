import { judgeShipment, type ShipState } from './index.ts';

const line = (more: object = {}) => ({
  line: '1',
  sku: 'JR-001',
  open: 5,
  picked: 5,
  packed: 5,
  inOpenCarton: 0,
  ...more,
});
const state = (more: Partial<ShipState> = {}): ShipState => ({
  confirmed: false,
  cartons: 1,
  loose: false,
  openCartons: 0,
  openPicks: 0,
  carrierMissing: false,
  tracking: 'RR473124829GB',
  trackingForm: { kind: 's10' },
  shipComplete: false,
  lines: [line()],
  ...more,
});

describe('confirming a shipment', () => {
  it('ships what was picked and packed', () =>
    expect(judgeShipment(state(), null)).toEqual({
      verdict: 'confirm',
      ship: [{ line: '1', units: 5 }],
      rest: [],
      complete: true,
    }));

  it.each<[string, Partial<ShipState>, string]>([
    ['twice', { confirmed: true }, 'already-confirmed'],
    ['with nothing packed', { cartons: 0 }, 'nothing-packed'],
    ['loose, with nothing ready', { cartons: 0, loose: true, lines: [] }, 'nothing-packed'],
    ['with a carton open', { openCartons: 1 }, 'carton-still-open'],
    ['while picks are open', { openPicks: 2 }, 'picks-open'],
    ['with less packed than picked', { lines: [line({ packed: 4 })] }, 'not-all-packed'],
    ['with no carrier, which nobody decided', { carrierMissing: true, tracking: null }, 'carrier-missing'],
    ['without its tracking number', { tracking: null }, 'tracking-missing'],
    ['short and undecided', { lines: [line({ picked: 3, packed: 3 })] }, 'decide-rest'],
  ])('is refused %s', (_, more, code) =>
    expect(judgeShipment(state(more), null)).toMatchObject({ verdict: 'refused', code }),
  );

  it('leaves the rest as decided, but never part of an order that ships complete', () => {
    const short = state({ lines: [line({ picked: 3, packed: 3 })] });
    expect(judgeShipment(short, 'keep-open')).toMatchObject({
      verdict: 'confirm',
      rest: [{ line: '1', units: 2 }],
      complete: false,
    });
    expect(judgeShipment(short, 'cancel')).toMatchObject({ verdict: 'confirm', complete: true });
    expect(judgeShipment({ ...short, shipComplete: true }, 'keep-open')).toMatchObject({
      verdict: 'refused',
      code: 'ships-complete',
    });
  });

  it('needs no tracking number where the carrier gives none', () =>
    expect(judgeShipment(state({ tracking: null, trackingForm: { kind: 'none' } }), null).verdict).toBe('confirm'));
});
