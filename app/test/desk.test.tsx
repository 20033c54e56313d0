import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { useState } from 'react';
import type { OutlookRow, ReleasePreview } from '@hand-relay/contract';
import { holdFields } from '@hand-relay/core/deciding/holds';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { ReadyMark } from '../desk/ReadyMark.tsx';
import { ReleaseLook } from '../desk/ReleaseLook.tsx';
import { Stops } from '../holds/Stops.tsx';
import { MeContext } from '../state/index.ts';
import '../text/index.ts';
import { en } from '../text/en.ts';
import { SurfaceContext } from '../ui/index.ts';

const site = { id: 's', code: 'S1', name: 'S', timeZone: 'UTC', currency: 'GBP' };
const me = { person: { id: 'p', name: 'P', roles: [], rights: [] }, site, sites: [], settings: usualSettings };
const shown = (element: React.ReactElement) =>
  render(
    <ThemeProvider theme={createTheme({})}>
      <MeContext.Provider value={me as never}>
        <SurfaceContext.Provider value="paper">{element}</SurfaceContext.Provider>
      </MeContext.Provider>
    </ThemeProvider>,
  );
const now = Date.parse('2026-03-02T09:00:00Z');

describe('how far an order can go', () => {
  const row = (readiness: OutlookRow['readiness'], fullBy: string | null = null): OutlookRow => ({
    id: 'a',
    readiness,
    sureLines: 0,
    sureUnits: 0,
    sureValue: 0,
    couldLines: 0,
    couldUnits: 0,
    fullBy,
  });
  it.each([
    [row('goes', '2026-03-04'), 'Ready'],
    [row('choose', '2026-03-04'), 'Contested'],
    [row('part', '2026-03-04'), 'Partial, Wed 4 Mar'],
    [row('waits', '2026-03-03'), 'Awaiting stock, tomorrow'],
    [row('short'), 'No supply'],
    [row('held'), 'On hold'],
  ])('is said in a word, with a day where only supply helps: %#', (outlook, text) => {
    shown(<ReadyMark row={outlook} timeZone="UTC" now={now} />);
    expect(screen.getByText(text)).toBeTruthy();
  });
});

describe('what a release would do', () => {
  const look: ReleasePreview = {
    orders: 2,
    ordersComplete: 1,
    lines: 3,
    units: 12,
    weightG: 4200,
    volumeCm3: 9000,
    shorts: [{ order: 'A-1', line: 2, sku: 'X', name: 'Jar', asked: 9, gets: 4 }],
    nothing: ['A-9'],
    held: [{ order: 'A-7', why: 'Ask accounts.' }],
    runs: 3,
    split: [
      { order: 'A-2', runs: 2, over: false },
      { order: 'A-3', runs: 1, over: true },
    ],
    metres: 120,
    cartons: 2,
    seconds: 5400,
    people: 1,
    departures: [
      {
        name: 'Day',
        leavesAt: '2026-03-02T17:00:00.000Z',
        orders: 1,
        units: 8,
        seconds: 1800,
        ends: '2026-03-02T10:00:00.000Z',
        chance: 'made',
      },
      {
        name: 'Noon',
        leavesAt: '2026-03-02T12:00:00.000Z',
        orders: 1,
        units: 4,
        seconds: 3600,
        ends: '2026-03-03T01:00:00.000Z',
        chance: 'missed',
      },
    ],
  };
  it('names departures with their chance, what falls short, and what stays and why', () => {
    shown(<ReleaseLook look={look} now={now} />);
    for (const text of [
      '1 h 30 min',
      'Departures, with 1 picker signed in',
      'today 17:00 Day',
      'Can be made, ready 10:00',
      'Too late, ready tomorrow 01:00',
      'A-1 line 2: Jar gets 4 of 9',
      'A-2 is larger than one cart: split over 2 runs',
      'A-3 has a unit that exceeds the cart limits: it gets a run of its own',
      'A-7 is on hold and stays: Ask accounts.',
      '1 order gets nothing and stays open: A-9',
    ])
      expect(screen.getByText(text)).toBeTruthy();
    expect(screen.queryByText('Every line is fully allocated.')).toBeNull();
  });
});

describe('what a hold stops', () => {
  function Held() {
    const [stops, setStops] = useState<Parameters<typeof Stops>[0]['value']>(['release']);
    return <Stops value={stops} onChange={setStops} />;
  }
  it('is chosen stage by stage, one at least', () => {
    shown(<Held />);
    fireEvent.press(screen.getByLabelText('release'));
    expect(screen.getByText('Choose at least one.')).toBeTruthy();
    fireEvent.press(screen.getByLabelText('picking'));
    expect(screen.queryByText('Choose at least one.')).toBeNull();
  });
  it('has a name for every field that a rule can ask about, and for every choice', () => {
    const { field } = en.hold;
    expect(holdFields.map((f) => f.name).filter((name) => !(name in field))).toEqual([]);
    const choices = holdFields.flatMap((f) => ('of' in f ? [...f.of] : []));
    expect(choices.filter((choice) => !(choice in en.conditions.choice))).toEqual([]);
  });
});
