import type { FloorLayout, LoadSummary, TrackDeparture, WaveSummary } from '@hand-relay/contract';
import { layoutOf } from './LayoutFile.tsx';
import { loadMarks } from './loadMarks.ts';
import { onRun, orderHeld, orderOf, runUnder } from './dropPlaces.ts';
import { zoomed } from '../ui/PanZoom.tsx';
import { aisleAt, binsLike, blockedAt, freedAt, turned } from './marks.ts';
import { relayOfDeparture } from './departureRelay.ts';
import { along, axisOf } from './track.ts';

const MINUTE = 60_000;
const noon = Date.UTC(2026, 2, 3, 12);

describe('the track', () => {
  it('shows what is to come, two hours at least and sixteen at most, with few times', () => {
    const hours = (axis: { from: number; to: number }) => (axis.to - axis.from) / (60 * MINUTE);
    const short = axisOf(noon, [noon + 5 * MINUTE]);
    expect(short.from).toBeLessThan(noon);
    expect(hours(short)).toBeGreaterThanOrEqual(2);
    expect(hours(axisOf(noon, [noon + 90 * 60 * MINUTE]))).toBeLessThan(4);
    for (const far of [1, 3, 6, 12, 16]) {
      const axis = axisOf(noon, [noon + far * 60 * MINUTE]);
      expect(axis.to).toBeGreaterThanOrEqual(noon + far * 60 * MINUTE);
      expect(axis.ticks.length).toBeLessThanOrEqual(11);
      expect(axis.ticks.every((t) => t % (15 * MINUTE) === 0 && t >= axis.from && t <= axis.to)).toBe(true);
    }
  });

  it('puts what lies outside at its edges', () => {
    const axis = { from: 0, to: 100, ticks: [] };
    expect([-5, 0, 25, 100, 300].map((at) => along(axis, at, 400))).toEqual([0, 0, 100, 400, 400]);
  });
});

describe('marks on the floor plan', () => {
  const layout: FloorLayout = {
    aisles: [
      { id: 'A', x: 0 },
      { id: 'B', x: 4 },
    ],
    crossAisles: [0, 20],
    blocked: [],
    start: { aisle: 'A', y: 0 },
    finish: null,
  };

  it('are taken for the aisle under the finger, at half metres, within its ends', () => {
    expect(aisleAt(layout, 3.1, 7.3)).toEqual({ aisle: 'B', y: 7.5 });
    expect(aisleAt(layout, 0.4, 21)).toEqual({ aisle: 'A', y: 20 });
    expect(aisleAt(layout, 2, 5)).toBeNull();
    expect(aisleAt(layout, 0, 24)).toBeNull();
  });

  it('block a stretch whichever end came first, and free it again', () => {
    const blocked = blockedAt(layout, 'A', 9, 4);
    expect(blocked.blocked).toEqual([{ aisle: 'A', from: 4, to: 9 }]);
    expect(blockedAt(layout, 'A', 4, 4).blocked).toEqual([{ aisle: 'A', from: 4, to: 5 }]);
    expect(freedAt(blocked, 'B', 5)).toBeNull();
    expect(freedAt(blocked, 'A', 12)).toBeNull();
    expect(freedAt(blocked, 'A', 5)).toEqual(layout);
  });

  it('turn an aisle up, down and back to both ways', () => {
    const ways = [1, 2, 3].reduce<FloorLayout[]>((all) => [...all, turned(all.at(-1)!, 'B')], [layout]);
    expect(ways.map((l) => l.aisles[1]!.oneWay)).toEqual([undefined, 'up', 'down', undefined]);
    expect(ways[3]).toEqual(layout);
  });

  it('find bins by the beginning of their code, else by any part of it', () => {
    const bins = ['A-01-1', 'A-01-2', 'B-01-1'].map((bin) => ({ bin, aisle: bin[0]!, y: 1, side: 'left', zone: '' }));
    expect(binsLike({ bins }, ' a-01')).toEqual(['A-01-1', 'A-01-2']);
    expect(binsLike({ bins }, '01-1')).toEqual(['A-01-1', 'B-01-1']);
    expect(binsLike({ bins }, 'a')).toEqual([]);
  });
});

it('a zoom keeps the point under the finger where it is, within bounds', () => {
  const whole = { left: 0, bottom: 0, width: 40, height: 20 };
  const near = zoomed(whole, whole, 2, 10, 5);
  expect(near).toEqual({ left: 5, bottom: 2.5, width: 20, height: 10 });
  expect(zoomed(near, whole, 100, 10, 5).width).toBe(6);
  expect(zoomed(near, whole, 0.01, 10, 5).width).toBe(80);
});

describe('places on the board', () => {
  it('and what is held are told apart by their keys', () => {
    expect([runUnder(onRun('one')), runUnder('maren'), orderOf(orderHeld('o1')), orderOf('run')]).toEqual([
      'one',
      null,
      'o1',
      null,
    ]);
  });
});

describe('a load on the track', () => {
  const now = Date.parse('2030-01-15T10:00:00Z');
  const at = (minutes: number) => new Date(now + minutes * 60_000).toISOString();
  const wave = (id: string, ends: number) =>
    ({
      id,
      earliestDeparture: at(180),
      doneBy: at(150),
      forecast: { left: 60, ends: at(ends), early: at(ends - 5), late: at(ends + 10) },
    }) as unknown as WaveSummary;
  const load = (more: object) =>
    ({ leavesAt: at(180), units: 9, released: 9, waves: ['a', 'b'], ...more }) as unknown as LoadSummary;

  it('ends with the last of its waves, in time where packing and loading still fit before it leaves', () => {
    const marks = (last: number) => loadMarks(load({}), [wave('a', 30), wave('b', last), wave('c', 170)], now);
    expect(marks(60)).toMatchObject({ ends: Date.parse(at(60)), late: Date.parse(at(70)), chance: 'made' });
    expect(marks(145).chance).toBe('tight');
    expect(marks(160).chance).toBe('missed');
    expect(loadMarks(load({ leavesAt: null }), [wave('a', 30)], now)).toMatchObject({ leaves: null, chance: null });
  });

  it('is not foreseen while a part of it is not released', () => {
    expect(loadMarks(load({ released: 8 }), [wave('a', 30)], now)).toMatchObject({ ends: null, chance: null });
  });
});

describe('a layout out of a file', () => {
  it('is read from CSV and from JSON alike', () => {
    const layout: FloorLayout = {
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 3.4, oneWay: 'up' },
      ],
      crossAisles: [0, 12],
      blocked: [{ aisle: 'A', from: 4, to: 6 }],
      start: { aisle: 'A', y: 0 },
      finish: null,
    };
    const table = `\uFEFFpart,aisle,x_m,y_m,from_m,to_m,one_way
aisle,A,0
aisle,B,"3.4",,,,up
cross aisle,,,0
cross aisle,,,12
blocked,A,,,4,6
start,A,,0
`;
    expect(layoutOf('floor.csv', table)).toEqual(layout);
    expect(layoutOf('floor.json', JSON.stringify(layout))).toEqual(layout);
    expect(layoutOf('floor.csv', table.replace('up', 'left'))).toMatchObject([{ row: 3, column: 'one_way' }]);
  });
});

describe('the relay of a departure', () => {
  const departure = (waves: string[]): TrackDeparture => ({
    id: 'd',
    name: 'Van',
    carrier: null,
    leavesAt: new Date(noon + 90 * MINUTE).toISOString(),
    orders: 3,
    asked: 30,
    released: 30,
    picked: 10,
    packed: 0,
    shipped: 0,
    waiting: { orders: 0, lines: 0, units: 0, seconds: 0 },
    packing: 1200,
    loading: 600,
    waves: waves.map((id, i) => ({ id, number: i, state: 'started' as const })),
    loads: [],
  });
  const wave = (id: string, minutes: number | null, left = 60) => {
    const at = (m: number) => (minutes === null ? null : new Date(noon + m * MINUTE).toISOString());
    return {
      id,
      forecast: { left, ends: at(minutes!), early: at(minutes! - 1), late: at(minutes! + 5) },
    } as WaveSummary;
  };
  const spare = (waves: WaveSummary[], ids = waves.map((w) => w.id)) =>
    relayOfDeparture(departure(ids), { waves, now: noon, pickers: 2, packers: 2 }).spare;

  it('waits for the last of its waves alone, and for none that has nothing left', () => {
    // Ten minutes at the bench by two, ten at the dock.
    expect(spare([wave('a', 20), wave('b', 35)])).toBe((90 - 35 - 20) * 60);
    expect(spare([wave('a', 20), wave('b', 35, 0)])).toBe((90 - 20 - 20) * 60);
    expect(spare([wave('a', 20), wave('b', 35)], ['a'])).toBe((90 - 20 - 20) * 60);
    expect(spare([])).toBe((90 - 20) * 60);
  });

  it('has no end where nobody picks one of them', () => {
    expect(spare([wave('a', 20), wave('b', null)])).toBeNull();
  });
});
