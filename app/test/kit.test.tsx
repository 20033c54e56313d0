import { usualSettings } from '@hand-relay/core/deciding/settings';
import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { render, screen } from '@testing-library/react-native';
import { freshProgress } from '@hand-relay/core/handling/picking';
import { baton } from '@hand-relay/core/handling/progress';
import { batonOf } from '../desk/batonWords.ts';
import { cardWords } from '../floor/card.ts';
import '../text/index.ts';
import { Baton, Signal, StepCard, SurfaceContext } from '../ui/index.ts';
import { surfaces } from '../ui/theme.ts';

const shown = (element: React.ReactElement) =>
  render(
    <ThemeProvider theme={createTheme({})}>
      <SurfaceContext.Provider value="floor">{element}</SurfaceContext.Provider>
    </ThemeProvider>,
  );

/** Contrast of two colours after WCAG 2.2: relative luminances, the lighter over the darker. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) => {
    const [r, g, bl] = [1, 3, 5]
      .map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
      .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4)) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe('the kit', () => {
  it.each(['paper', 'floor'] as const)('is legible on %s: text at least 4.5 to 1 on every ground', (name) => {
    const s = surfaces[name];
    for (const ground of [s.ground, s.raised])
      for (const colour of [s.ink, s.quiet, s.caution, s.refused, s.done, s.cold])
        expect([colour, ground, contrast(colour, ground) >= 4.5]).toEqual([colour, ground, true]);
    expect(contrast(s.act, s.onAct)).toBeGreaterThan(4.5);
  });

  it('names the baton for who does not see it', () => {
    const { state, label } = batonOf(
      { asked: 30, released: 30, picked: 12, packed: 0, shipped: 0 },
      '2026-03-02T17:00:00Z',
      Date.parse('2026-03-02T12:00:00Z'),
    );
    shown(<Baton state={state} label={label} />);
    expect(screen.getByLabelText('Floor, 12 of 30 picked, on time')).toBeTruthy();
    expect(
      batonOf(
        { asked: 1, released: 0, picked: 0, packed: 0, shipped: 0 },
        '2026-03-02T17:00:00Z',
        Date.parse('2026-03-02T18:00:00Z'),
      ).label,
    ).toBe('Desk, 0 of 1 released, late');
    expect(baton({ asked: 0, released: 0, picked: 0, packed: 0, shipped: 0 }, null, 0).at).toBeNull();
  });

  it('says on the step card what to do, where, and what was just refused', () => {
    shown(
      <StepCard
        verb="Go to"
        code="B-07-2"
        item={{ name: 'Round jar', sku: 'JR-001', picture: 'jar/340/1' }}
        count="24 × jar"
        facts={['Next B-09-1']}
        notes={['Order: Fragile']}
        verdict={{ kind: 'refused', text: 'This is bin A-01-1. Go to B-07-2.' }}
      />,
    );
    for (const text of [
      'Go to',
      'B-07-2',
      'Round jar',
      '24 × jar',
      'Order: Fragile',
      'This is bin A-01-1. Go to B-07-2.',
    ])
      expect(screen.getByText(text)).toBeTruthy();
    shown(<Signal kind="cold" text="Chilled" />);
    expect(screen.getByText('Chilled')).toBeTruthy();
  });

  it('words each stage of a pick', () => {
    const pick = {
      step: {
        id: 'p',
        bin: 'M-20-1',
        item: {
          id: 'i',
          sku: 'PP-002',
          name: 'Pollen paste',
          packs: [
            { gtin: '09521234001010', level: 'unit' as const, units: 1 },
            { gtin: '19521234001017', level: 'inner' as const, units: 12 },
          ],
          tracksLot: true,
          tracksSerial: false,
        },
        lot: 'A48',
        serialsInBin: [],
        units: 24,
        position: { cart: 'CART-03', number: 5 },
        carton: null,
        how: usualSettings.picking.many,
        otherLots: [],
        elsewhere: [],
        bestBefore: null,
        stopped: null,
      },
      progress: freshProgress,
      state: 'open' as const,
      picked: 0,
      order: { id: 'o', number: 'LA-1', note: '', hold: null },
      lineNote: '',
      askedIn: 'unit' as const,
      unit: 'tub',
      picture: '',
      zone: 'Chilled',
      cold: true,
      bestBefore: '2027-01-01',
      why: 'only',
      saves: 0,
      remains: 3,
      together: false,
      confirmedAt: null,
      lookAlike: null,
      at: { aisle: 'M', y: 3 },
    };
    const at = (progress: object) => cardWords({ ...pick, progress: { ...pick.progress, ...progress } }, undefined);
    expect(at({})).toMatchObject({ verb: 'Go to', code: 'M-20-1', ask: 'Scan bin M-20-1', touch: 'At the bin' });
    expect(at({ bin: true, counted: 12 })).toMatchObject({
      verb: 'Pick',
      code: '12',
      unit: '× tub',
      count: '12 of 24 × tub',
      touch: 'All 24',
    });
    expect(at({ bin: true, counted: 24 })).toMatchObject({ verb: 'Check lot', code: 'A48', touch: 'Lot matches' });
    expect(at({ bin: true, counted: 24, lot: true })).toMatchObject({
      verb: 'Put into',
      code: 'Place 5',
      ask: 'Scan place CART-03-5',
    });
    // Straight into the carton: one is begun by its number, then told by the end of it.
    const full = { bin: true, counted: 24, lot: true };
    const into = (sscc: string | null, progress: object) =>
      cardWords(
        {
          ...pick,
          step: { ...pick.step, carton: { sscc, box: 'BOX-M', boxes: ['BOX-M'], others: [], prefix: '3' } },
          progress: { ...pick.progress, ...progress },
        },
        undefined,
      );
    expect(into(null, full)).toMatchObject({ verb: 'Take a carton', code: 'Place 5', unit: 'BOX\u2011M', touch: null });
    expect(into(null, full).further).toBeNull();
    const open = '395212340000012345';
    expect(into(open, full)).toMatchObject({
      code: 'Place 5',
      unit: 'carton 12345',
      ask: 'Scan carton 12345',
      further: 'Another carton',
    });
    expect(into(open, { bin: true, counted: 12 }).further).toBe('The carton is full');
    expect(into(open, { ...full, further: true })).toMatchObject({ verb: 'Take a carton', touch: null });
    // Asked in packs it is shown in packs, with the base unit beside, as long as whole packs are left.
    const inner = [...pick.step.item.packs, { gtin: '', level: 'inner' as const, units: 12 }];
    const packed = {
      ...pick,
      askedIn: 'inner' as const,
      step: { ...pick.step, item: { ...pick.step.item, packs: inner } },
    };
    const inPacks = (progress: object) =>
      cardWords({ ...packed, progress: { ...pick.progress, ...progress } }, undefined);
    expect(inPacks({}).count).toBe('2 inner = 24 × tub');
    expect(inPacks({ bin: true, counted: 12 })).toMatchObject({ code: '1', unit: '× inner of 12 tub' });
    expect(inPacks({ bin: true, counted: 13 })).toMatchObject({ code: '11', unit: '× tub' });
    // What it must not be taken for is said until the goods are in hand.
    const alike = { sku: 'X', name: 'Patty, winter', bin: 'M-20-2', this: 'spring', other: 'winter' };
    const words = (lookAlike: typeof alike, progress = {}) =>
      cardWords({ ...pick, lookAlike, progress: { ...pick.progress, ...progress } }, undefined).alike;
    expect(words(alike)).toBe('spring, not winter (M\u201120\u20112)');
    expect(words({ ...alike, this: '', other: '', bin: '' })).toBe('Not Patty, winter');
    expect(words(alike, { bin: true, counted: 24, lot: true })).toBeUndefined();
  });
});
