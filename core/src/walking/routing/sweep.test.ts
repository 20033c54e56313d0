import fc from 'fast-check';
import { mapFloor, networkOf, type Floor } from '../floor/index.ts';
import { anyFloor, brokenFloor, oneWayFloor, placeOn } from '../floor/arbitraries.ts';
import { alongKind, openFrontier, type Frontier } from './frontier.ts';
import { heldKarp } from './heldKarp.ts';
import { optionsOf, noOptions, timesAlong, type Needed } from './options.ts';
import { lengthOf, walksOf } from './problem.ts';
import { sweep, type Edge } from './sweep.ts';
import { alongCorners, cornersOf, trace } from './trace.ts';

/** Every state that can be reached by steps of the kinds of a walk that comes back to its start. */
function reachable(frontier: Frontier): Set<number> {
  const kinds = [
    alongKind(1, 1, true),
    alongKind(2, 2, true),
    alongKind(2, 0, false),
    alongKind(0, 2, false),
    alongKind(2, 2, false),
  ];
  const seen = new Set([frontier.begin]);
  for (const state of seen)
    for (let row = 0; row < frontier.rows; row++) {
      if (row + 1 < frontier.rows) for (const kind of kinds) add(frontier.along(state, row, kind));
      add(frontier.drop(state, row));
    }
  function add(state: number) {
    if (state >= 0) seen.add(state);
  }
  return seen;
}

describe('states of a sweep', () => {
  it('are the seven classes of Ratliff and Rosenthal for one block', () => {
    expect(reachable(openFrontier(2)).size).toBe(7);
  });

  it('never leave a piece behind, and end whole alone', () => {
    for (const rows of [2, 3, 4]) {
      const frontier = openFrontier(rows);
      for (const state of reachable(frontier)) {
        const meets = Array.from({ length: rows }, (_, r) => frontier.at(state, r));
        // An odd number of odd junctions cannot be.
        expect(meets.filter((m) => m === 1).length % 2).toBe(0);
        if (frontier.whole(state) && state !== frontier.closed)
          expect(meets.every((m) => m === 0 || m === 2)).toBe(true);
        const touched = meets.filter((m) => m > 0).length;
        for (let r = 0; r < rows; r++) {
          const dropped = frontier.drop(state, r);
          if (meets[r] === 0) expect(dropped).toBe(state);
          else if (meets[r] === 1) expect(dropped).toBe(-1);
          else if (touched === 1) expect(dropped).toBe(frontier.closed);
          else if (dropped >= 0) expect(frontier.at(dropped, r)).toBe(0);
        }
      }
    }
  });

  it('take nothing on once the walk is closed', () => {
    const frontier = openFrontier(3);
    expect(frontier.along(frontier.closed, 0, alongKind(1, 1, true))).toBe(-1);
    expect(frontier.along(frontier.closed, 0, alongKind(0, 0, false))).toBe(frontier.closed);
    expect(frontier.visit(frontier.closed, 1, false)).toBe(-1);
    expect(frontier.drop(frontier.closed, 1)).toBe(frontier.closed);
  });
});

describe('ways along a stretch of aisle', () => {
  const floor: Floor = { aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 20] };
  const told = (f: Floor, needed: Needed | null) => {
    const into = noOptions();
    optionsOf(networkOf(f), 0, 0, needed, 0, needed?.ys.length ?? 0, into);
    return Array.from({ length: into.count }, (_, i) => `${into.kind[i]} ${into.metres[i]}`).sort();
  };
  const is = (low: number, high: number, through: boolean, metres: number) =>
    `${alongKind(low, high, through)} ${metres}`;

  it('are through once or twice, from either end, or from both around the largest gap', () => {
    expect(told(floor, { ys: [2, 5, 15], odd: [] })).toEqual(
      [is(1, 1, true, 20), is(2, 2, true, 40), is(2, 0, false, 30), is(0, 2, false, 36), is(2, 2, false, 20)].sort(),
    );
    expect(told(floor, null)).toEqual([is(0, 0, false, 0), is(1, 1, true, 20), is(2, 2, true, 40)].sort());
  });

  it('leave out what is blocked, and nothing where two stretches cut stops off', () => {
    const cut = (from: number, to: number) => ({ ...floor, blocked: [{ aisle: 'A', from, to }] });
    expect(told(cut(8, 10), { ys: [2, 5, 15], odd: [] })).toEqual([is(2, 2, false, 2 * (20 - 10))]);
    expect(told(cut(8, 10), null)).toEqual([is(0, 0, false, 0)]);
    const twice = {
      ...floor,
      blocked: [
        { aisle: 'A', from: 1, to: 1.5 },
        { aisle: 'A', from: 18, to: 19 },
      ],
    };
    expect(told(twice, { ys: [5], odd: [] })).toEqual([]);
  });

  it('are walked through alone where an aisle is one-way', () => {
    const up: Floor = { ...floor, aisles: [{ id: 'A', x: 0, oneWay: 'up' }] };
    expect(told(up, { ys: [5], odd: [] })).toEqual([is(1, 1, true, 20), is(2, 2, true, 40)].sort());
  });

  it('change between once and twice where the walk starts or ends', () => {
    expect(timesAlong([4, 9], [9], 1, -1)).toEqual([1, 1, 2]);
    expect(timesAlong([4, 9], [4, 9], 0, 0)).toEqual([0, 1, 2]);
    expect(timesAlong([4, 9], [], 1, 1)).toBeNull();
    expect(timesAlong([4, 9], [], 0, 1)).toEqual([2, 0, 2]);
  });
});

describe('a sweep', () => {
  const cases = (floors: fc.Arbitrary<Floor>) =>
    floors.chain((floor) =>
      fc.tuple(fc.constant(floor), placeOn(floor), fc.array(placeOn(floor), { minLength: 1, maxLength: 25 })),
    );

  it('makes edges that hang together, with an even number of them at every place, as long as it says', () => {
    fc.assert(
      fc.property(cases(fc.oneof(anyFloor, brokenFloor)), ([floor, start, places]) => {
        const { network } = mapFloor(floor);
        const needed: (Needed | null)[] = network.columns.map(() => null);
        for (const { aisle, y } of [start, ...places]) {
          const list = (needed[network.columnOf.get(aisle)!] ??= { ys: [], odd: [] });
          if (!list.ys.includes(y)) list.ys.push(y);
        }
        for (const list of needed) list?.ys.sort((a, b) => a - b);
        const { metres, edges } = sweep(network, needed, true);
        expect(sweep(network, needed).metres).toBe(metres);
        if (metres === Infinity) return expect(edges).toEqual([]);
        const x = (column: number) => network.columns[column]!.x;
        const long = ({ from, to, times }: Edge) =>
          times * (Math.abs(x(from.column) - x(to.column)) + Math.abs(from.y - to.y));
        expect(edges.reduce((n, e) => n + long(e), 0)).toBeCloseTo(metres);
        const meets = new Map<string, number>();
        for (const { from, to, times } of edges)
          for (const p of [from, to]) meets.set(`${p.column} ${p.y}`, (meets.get(`${p.column} ${p.y}`) ?? 0) + times);
        expect([...meets.values()].every((n) => n % 2 === 0)).toBe(true);
        const walk = trace(edges, { column: network.columnOf.get(start.aisle)!, y: start.y });
        expect(walk).toHaveLength(1 + edges.reduce((n, e) => n + e.times, 0));
        const passed = new Set(walk.map((p) => `${p.column} ${p.y}`));
        for (const { aisle, y } of places) expect(passed.has(`${network.columnOf.get(aisle)!} ${y}`)).toBe(true);
        const corners = cornersOf(walk.map((p) => [x(p.column), p.y]));
        expect(alongCorners(corners)).toBeCloseTo(metres);
        expect(corners.length).toBeLessThanOrEqual(walk.length);
      }),
      { numRuns: 120 },
    );
  });

  it('is below every walk where aisles are one-way', () => {
    fc.assert(
      fc.property(
        oneWayFloor.chain((floor) =>
          fc.tuple(fc.constant(floor), placeOn(floor), fc.array(placeOn(floor), { maxLength: 7 })),
        ),
        ([floor, start, places]) => {
          const walks = walksOf({
            floor,
            start,
            finish: start,
            stops: places.map((p, i) => ({ ...p, id: String(i) })),
          });
          const order = heldKarp(walks);
          if (!order) return;
          const { network } = mapFloor(floor);
          const needed: (Needed | null)[] = network.columns.map(() => null);
          for (const { aisle, y } of [start, ...places]) {
            const list = (needed[network.columnOf.get(aisle)!] ??= { ys: [], odd: [] });
            if (!list.ys.includes(y)) list.ys.push(y);
          }
          for (const list of needed) list?.ys.sort((a, b) => a - b);
          const { metres } = sweep(network, needed);
          const alone = needed.filter(Boolean).length === 1;
          // Within one aisle nobody need come to a cross aisle, and the sweep knows walks over cross aisles alone.
          if (!alone && metres < Infinity) expect(metres).toBeLessThanOrEqual(lengthOf(walks, order) + 1e-6);
        },
      ),
      { numRuns: 120 },
    );
  });
});
