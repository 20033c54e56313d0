import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { fireEvent, render, screen } from '@testing-library/react-native';
import type { FloorPlan as Plan, WaveSummary } from '@hand-relay/contract';
import { binRules, type BinRule } from '@hand-relay/core/walking/bins';
import { pickings } from '@hand-relay/core/walking/waves';
import { BinRules } from '../setup/BinRules.tsx';
import { MeContext } from '../state/index.ts';
import { i18n, showUnits } from '../text/index.ts';
import { FloorPlan, SurfaceContext, wholePlan } from '../ui/index.ts';
import { CompareSheet } from '../waves/CompareSheet.tsx';
import { Lane } from '../waves/Lane.tsx';
import { sayWave } from '../waves/sayWave.ts';
import { axisOf } from '../waves/track.ts';
import { aPerson } from './aPerson.ts';

const me = aPerson();
const framed = (element: React.ReactElement) => (
  <ThemeProvider theme={createTheme({})}>
    <MeContext.Provider value={me}>
      <SurfaceContext.Provider value="paper">{element}</SurfaceContext.Provider>
    </MeContext.Provider>
  </ThemeProvider>
);
const shown = (element: React.ReactElement) => render(framed(element));
const now = Date.parse('2026-03-02T09:00:00Z');
const at = (time: string) => `2026-03-02T${time}:00.000Z`;

const wave = (more: Partial<WaveSummary> = {}): WaveSummary => ({
  id: 'w1',
  number: 7,
  state: 'planned',
  createdAt: at('08:00'),
  createdBy: 'Maren Holt',
  orders: 12,
  lines: 40,
  units: 90,
  picked: 0,
  packed: 0,
  shipped: 0,
  runs: 2,
  metres: 800,
  earliestDeparture: at('15:00'),
  doneBy: at('14:20'),
  chance: 'made',
  entry: null,
  picking: 'sort',
  cart: null,
  team: '',
  people: null,
  planProgress: null,
  foreseen: { seconds: 5400, metres: 800, people: 2, ends: at('10:00'), early: at('09:50'), late: at('10:15') },
  forecast: { left: 5400, ends: at('10:00'), early: at('09:50'), late: at('10:15') },
  ...more,
});

describe('how a wave stands', () => {
  const forecast = wave().forecast!;
  it.each([
    [wave(), 'Picked by 10:00, likely between 09:50 and 10:15. In time: it must be picked by 14:20.'],
    [wave({ chance: 'tight' }), 'Picked by 10:00, likely between 09:50 and 10:15. Tight: it must be picked by 14:20.'],
    [
      wave({ chance: 'missed' }),
      'Picked by 10:00, likely between 09:50 and 10:15. Too late: it must be picked by 14:20.',
    ],
    [
      wave({ earliestDeparture: at('08:30'), chance: 'missed' }),
      'Picked by 10:00, likely between 09:50 and 10:15. Its first departure left at 08:30.',
    ],
    [
      wave({ doneBy: '2026-03-03T14:20:00.000Z', earliestDeparture: '2026-03-03T15:00:00.000Z' }),
      'Picked by 10:00, likely between 09:50 and 10:15. In time: it must be picked by tomorrow 14:20.',
    ],
    [wave({ earliestDeparture: null, doneBy: null, chance: null }), 'Picked by 10:00, likely between 09:50 and 10:15.'],
    [wave({ state: 'gathering', forecast: null }), 'Gathering orders. Plan it to see when it will be done.'],
    [wave({ state: 'gathering', planProgress: 0.42 }), 'Planning its runs: 42 %'],
    [wave({ state: 'started', forecast: { ...forecast, left: 0 } }), 'All picked.'],
    [
      wave({ forecast: { left: 5400, ends: null, early: null, late: null } }),
      '1 h 30 min of work, no picker signed in.',
    ],
    [wave({ state: 'done', forecast: null }), 'Done'],
  ])('is said in a sentence: %#', (w, text) => expect(sayWave(w, 'UTC', now)).toBe(text));

  it('is read from its lane too', () => {
    shown(
      <Lane
        axis={axisOf(now, [Date.parse(at('15:00'))])}
        now={now}
        marks={{ ends: null, early: null, late: null, leaves: null, chance: null }}
        label={sayWave(wave(), 'UTC', now)}
      />,
    );
    expect(screen.getByLabelText(/^Picked by 10:00/)).toBeTruthy();
  });

  it('is compared with others, what is not known yet as a dash', () => {
    showUnits('metric');
    const other = wave({
      id: 'w2',
      number: 8,
      state: 'gathering',
      runs: 0,
      metres: 0,
      foreseen: null,
      forecast: null,
      chance: null,
      doneBy: null,
    });
    shown(<CompareSheet waves={[wave(), other]} onClose={() => undefined} />);
    const row = (name: string) =>
      screen.root
        .findAll((node) => node.props['role'] === 'row')
        .map((r) => JSON.stringify(texts(r)))
        .find((text) => text.startsWith(`["${name}"`));
    expect(row('Orders')).toBe('["Orders","12","12"]');
    expect(row('Walk per line')).toBe('["Walk per line","20 m","–"]');
    expect(row('Work')).toBe('["Work","1 h 30 min","–"]');
    expect(row('Likely between')).toBe('["Likely between","09:50–10:15","–"]');
    expect(row('Departure')).toBe('["Departure","in time","–"]');
  });

  it('has words for every way to pick, and for what the timetable does', () => {
    for (const settings of pickings)
      for (const key of [`waves.way.${settings}`, `waves.wayAbout.${settings}`]) expect(i18n.exists(key)).toBe(true);
    for (const key of [
      'gather.hand',
      'gather.time',
      'gather.level',
      'plan.hand',
      'plan.gathered',
      'plan.time',
      'start.hand',
      'start.planned',
      'start.time',
    ])
      expect(i18n.exists(`timetable.${key}`)).toBe(true);
  });
});

/** Texts within an element, in their order. */
function texts(node: { children: unknown[] }): string[] {
  return node.children.flatMap((child) =>
    typeof child === 'string'
      ? [child]
      : typeof child === 'object' && child !== null && 'children' in child
        ? texts(child as { children: unknown[] })
        : [],
  );
}

describe('the floor drawn', () => {
  const plan: Plan = {
    aisles: [
      { id: 'A', x: 0 },
      { id: 'B', x: 4, oneWay: 'up' },
    ],
    crossAisles: [0, 10, 20],
    blocked: [],
    places: [
      { code: 'LANE-1', kind: 'lane', x: 2, y: -4 },
      { code: 'DOOR-1', kind: 'door', x: 2, y: -8 },
    ],
    start: { aisle: 'A', y: 0 },
    finish: null,
    zones: [{ code: 'z', name: 'Z', cold: false }],
    bins: [1, 2].flatMap((level) =>
      ['A', 'B'].map((aisle) => ({ bin: `${aisle}-${level}`, aisle, y: 5, side: 'left', zone: 'z', open: level })),
    ),
  };
  const drawn = (type: string) => screen.root.findAll((node) => String(node.type) === type);
  const hazards = () => drawn('RNSVGRect').filter((r) => JSON.stringify(r.props['fill'] ?? '').includes('hazard'));

  it('is as large as its aisles, with room for their signs', () => {
    expect(wholePlan({ ...plan, places: [] })).toEqual({ left: -3, bottom: -2.6, width: 10, height: 25 });
    expect(wholePlan(plan)).toMatchObject({ bottom: -10.6, height: 33 });
    expect(wholePlan({ ...plan, aisles: [{ id: 'A', x: -5 }] }).left).toBe(-8);
  });

  it('shows what is blocked in stripes, one-way aisles with an arrow a block, and one rack for all levels of a place', () => {
    const view = shown(<FloorPlan plan={plan} label="Floor" />);
    expect(hazards()).toHaveLength(0);
    const racks = drawn('RNSVGRect').filter((r) => Number(r.props['width']) === 0.9);
    expect(racks).toHaveLength(2);
    expect(drawn('RNSVGPath')).toHaveLength(2);
    const blocked: Plan = {
      ...plan,
      blocked: [
        { aisle: 'A', from: 2, to: 4 },
        { crossAisle: 10, from: 1, to: 3 },
      ],
    };
    view.rerender(framed(<FloorPlan plan={blocked} marking={{ aisle: 'B', from: 1, to: 1.5 }} label="Floor" />));
    expect(hazards()).toHaveLength(3);
  });

  it('shows who is where by name', () => {
    shown(<FloorPlan plan={plan} people={[{ name: 'Pico', aisle: 'B', y: 5 }]} label="Floor" />);
    expect(drawn('RNSVGTSpan').map((s) => s.props['content'] as unknown)).toContain('Pico');
  });
});

describe('rules for bins', () => {
  it('are moved, dropped and added at the end, each once', () => {
    let rules: BinRule[] = ['expiry', 'walk'];
    const view = shown(<BinRules rules={rules} onChange={(next) => (rules = next)} />);
    const press = (label: string) => {
      fireEvent.press(screen.getByLabelText(label));
      view.rerender(framed(<BinRules rules={rules} onChange={(next) => (rules = next)} />));
    };
    press('Sooner: The shortest walk of the run');
    expect(rules).toEqual(['walk', 'expiry']);
    press('Add: The lowest level');
    expect(rules).toEqual(['walk', 'expiry', 'reach']);
    press('Drop: What expires first');
    press('Drop: The lowest level');
    press('Drop: The shortest walk of the run');
    expect(rules).toEqual([]);
    expect(screen.getByText('No rule: the lower bin code is taken.')).toBeTruthy();
    for (const rule of binRules)
      expect(screen.getByLabelText(`Add: ${i18n.t(`settings.bins.rule.${rule}`)}`)).toBeTruthy();
  });
});
