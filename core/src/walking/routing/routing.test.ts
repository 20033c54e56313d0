import fc from 'fast-check';
import { mapFloor, type Floor, type Point } from '../floor/index.ts';
import { anyFloor, brokenFloor, oneWayFloor, placeOn, plainFloor } from '../floor/arbitraries.ts';
import { treeBound } from './bound.ts';
import { heldKarp } from './heldKarp.ts';
import { lengthOf, walksOf, type RouteProblem } from './problem.ts';
import { byRule, NoRule, openRoute, route, ruleNames, UnreachableStop, type RuleName } from './index.ts';

const on = (floors: fc.Arbitrary<Floor>, most: number): fc.Arbitrary<RouteProblem> =>
  floors.chain((floor) =>
    fc.record({
      floor: fc.constant(floor),
      start: placeOn(floor),
      finish: placeOn(floor),
      stops: fc
        .array(placeOn(floor), { maxLength: most })
        .map((places) => places.map((p, i) => ({ ...p, id: `s${i}` }))),
    }),
  );

const along = (path: Point[]) =>
  path.slice(1).reduce((n, p, i) => n + Math.abs(p[0] - path[i]![0]) + Math.abs(p[1] - path[i]![1]), 0);

/** Whether a drawn walk stays on the floor, goes through nothing that is blocked, and obeys one-way aisles. */
function faultsOf(floor: Floor, path: Point[]): string[] {
  const blocked = floor.blocked ?? [];
  return path.slice(1).flatMap((to, i) => {
    const from = path[i]!;
    const leg = `${from.join()} to ${to.join()}`;
    if (from[0] === to[0]) {
      const [low, high] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
      const open = floor.aisles.some(
        (a) =>
          a.x === from[0] &&
          (a.from ?? -Infinity) <= low &&
          high <= (a.to ?? Infinity) &&
          (a.oneWay === undefined || (a.oneWay === 'up') === to[1] > from[1]) &&
          !blocked.some((b) => 'aisle' in b && b.aisle === a.id && b.from < high && b.to > low),
      );
      return open ? [] : [leg];
    }
    const [low, high] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])];
    const open =
      from[1] === to[1] &&
      floor.crossAisles.includes(from[1]) &&
      !blocked.some((b) => 'crossAisle' in b && b.crossAisle === from[1] && b.from < high && b.to > low);
    return open ? [] : [leg];
  });
}

/** The route, or null where a stop cannot be served. */
function routed(p: RouteProblem) {
  try {
    return route(p);
  } catch (error) {
    if (error instanceof UnreachableStop) return null;
    throw error;
  }
}

describe('routes', () => {
  it.each([
    ['whole grids of one to five blocks', plainFloor(5), 250],
    ['floors with blocked stretches and aisles of unequal length', brokenFloor, 250],
    ['floors with one-way aisles', oneWayFloor, 200],
  ])('are as short as the search over subsets finds, on %s', (_, floors, numRuns) => {
    let answered = 0;
    fc.assert(
      fc.property(on(floors, 9), (p) => {
        const walks = walksOf(p);
        const order = heldKarp(walks);
        const shortest = order ? lengthOf(walks, order) : Infinity;
        const r = routed(p);
        if (shortest === Infinity) expect(r).toBeNull();
        else {
          answered += 1;
          expect(r).toMatchObject({ proven: true });
          expect(r!.distance).toBeCloseTo(shortest);
          expect(r!.lowerBound).toBe(r!.distance);
          expect(treeBound(walks, shortest)).toBeLessThanOrEqual(shortest + 1e-6);
        }
      }),
      { numRuns },
    );
    expect(answered).toBeGreaterThan(numRuns / 3);
  });

  it.each([
    ['whole grids', anyFloor],
    ['broken floors', brokenFloor],
    ['one-way floors', oneWayFloor],
    ['floors of nine blocks', plainFloor(9)],
  ])(
    'visit every stop once, along a path on the floor as long as they say, never below their bound: %s',
    (_, floors) => {
      fc.assert(
        fc.property(on(floors, 40), (p) => {
          const r = routed(p);
          if (!r) return;
          expect([...r.sequence].sort()).toEqual(p.stops.map((s) => s.id).sort());
          expect(along(r.path)).toBeCloseTo(r.distance);
          expect(faultsOf(p.floor, r.path)).toEqual([]);
          expect(r.lowerBound).toBeLessThanOrEqual(r.distance);
          const walks = walksOf(p);
          const node = new Map(walks.stopsAt.flatMap((stops, n) => stops.map((s) => [s.id, n] as const)));
          expect(lengthOf(walks, [...new Set(r.sequence.map((id) => node.get(id)!))])).toBeCloseTo(r.distance);
        }),
        { numRuns: 60 },
      );
    },
  );

  it('refuse a stop that one-way aisles shut out, and name it', () => {
    const floor: Floor = { aisles: [{ id: 'A', x: 0, oneWay: 'up' }], crossAisles: [0, 20] };
    const p = { floor, start: { aisle: 'A', y: 10 }, finish: { aisle: 'A', y: 20 } };
    expect(route({ ...p, stops: [{ id: 'on', aisle: 'A', y: 15 }] }).distance).toBe(10);
    expect(() => route({ ...p, stops: [{ id: 'behind', aisle: 'A', y: 5 }] })).toThrow('"behind"');
    const both: Floor = {
      aisles: [
        { id: 'A', x: 0, oneWay: 'up' },
        { id: 'B', x: 4, oneWay: 'up' },
      ],
      crossAisles: [0, 20],
    };
    const stops = [
      { id: 'a', aisle: 'A', y: 5 },
      { id: 'b', aisle: 'B', y: 5 },
    ];
    expect(() => route({ floor: both, start: { aisle: 'A', y: 0 }, finish: { aisle: 'B', y: 20 }, stops })).toThrow(
      '"b"',
    );
  });

  it('without stops walk from start to finish', () => {
    const floor = {
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 5 },
      ],
      crossAisles: [0, 10],
    };
    expect(route({ floor, start: { aisle: 'A', y: 0 }, finish: { aisle: 'B', y: 3 }, stops: [] })).toMatchObject({
      distance: 8,
      sequence: [],
      path: [
        [0, 0],
        [5, 0],
        [5, 3],
      ],
    });
  });
});

describe('rules of thumb', () => {
  const floor = { aisles: [0, 5, 10, 15].map((x, i) => ({ id: 'ABCD'[i]!, x })), crossAisles: [0, 20] };
  const depot = { aisle: 'A', y: 0 };
  const stops = [
    ['A', 4],
    ['B', 6],
    ['B', 16],
    ['C', 10],
    ['D', 12],
  ].map(([aisle, y], i) => ({ id: `s${i + 1}`, aisle: String(aisle), y: Number(y) }));

  // Worked by hand from the descriptions in Hall 1993 and Roodbergen and De Koster 2001.
  it.each<[RuleName, number, string]>([
    ['serpentine', 20 * 4 + 15 * 2, 's1 s2 s3 s4 s5'.replace('s2 s3', 's3 s2')],
    ['return', 2 * (4 + 16 + 10 + 12) + 15 * 2, 's1 s2 s3 s4 s5'],
    ['midpoint', 20 * 2 + 15 * 2 + 2 * 4 + 2 * 6 + 2 * 10, 's1 s3 s5 s4 s2'],
    ['largest-gap', 20 * 2 + 15 * 2 + 2 * 4 + 2 * 6 + 2 * 10, 's1 s3 s4 s5 s2'],
  ])('%s in one block', (rule, distance, sequence) => {
    const ruled = byRule(rule, { floor, start: depot, finish: depot, stops }, mapFloor(floor));
    expect(ruled.distance).toBe(distance);
    expect(ruled.sequence.join(' ')).toBe(sequence);
  });

  it('serve blocks from the farthest to the nearest, each from its nearer end', () => {
    const blocks = { ...floor, crossAisles: [0, 10, 20] };
    const some = [
      ['A', 2],
      ['B', 14],
      ['D', 16],
      ['B', 4],
      ['D', 6],
    ].map(([aisle, y], i) => ({ id: `s${i + 1}`, aisle: String(aisle), y: Number(y) }));
    const ruled = byRule('serpentine', { floor: blocks, start: depot, finish: depot, stops: some }, mapFloor(blocks));
    expect(ruled.sequence.join(' ')).toBe('s1 s2 s3 s5 s4');
    // Up A, through B and D to the middle, on down D, left to B, in and out from the front, back.
    expect(ruled.distance).toBe(10 + 5 + 10 + 10 + 10 + 10 + 10 + 2 * 4 + 5);
  });

  it('are never shorter than the route, visit all, and stay on the floor', () => {
    const corner = (f: Floor) =>
      fc.record({ aisle: fc.constantFrom(...f.aisles.map((a) => a.id)), y: fc.constantFrom(...f.crossAisles) });
    const cases = anyFloor.chain((f) =>
      fc.record({
        floor: fc.constant(f),
        start: corner(f),
        finish: corner(f),
        stops: fc.array(placeOn(f), { maxLength: 30 }).map((places) => places.map((p, i) => ({ ...p, id: `s${i}` }))),
      }),
    );
    fc.assert(
      fc.property(cases, (p) => {
        const best = route(p).distance;
        for (const rule of ruleNames) {
          const ruled = byRule(rule, p, mapFloor(p.floor));
          expect([...ruled.sequence].sort()).toEqual(p.stops.map((s) => s.id).sort());
          expect(along(ruled.path)).toBeCloseTo(ruled.distance);
          expect(faultsOf(p.floor, ruled.path)).toEqual([]);
          expect(ruled.distance).toBeGreaterThanOrEqual(best - 1e-9);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('refuse what they cannot answer', () => {
    const inside = { floor, start: { aisle: 'A', y: 3 }, finish: depot, stops };
    expect(() => byRule('return', inside, mapFloor(floor))).toThrow(new NoRule('start must lie at a cross aisle'));
    const oneWay: Floor = { ...floor, aisles: floor.aisles.map((a) => ({ ...a, oneWay: 'up' })) };
    expect(() => byRule('return', { ...inside, floor: oneWay }, mapFloor(oneWay))).toThrow(NoRule);
  });
});

describe('a walk with free ends', () => {
  /** The least over every order of visiting, from whichever stop to whichever. */
  const least = ({ floor, stops }: RouteProblem) => {
    const map = mapFloor(floor);
    const go = (at: RouteProblem['start'], left: RouteProblem['stops']): number =>
      left.length === 0
        ? 0
        : Math.min(
            ...left.map(
              (s) =>
                map.distance(at, s) +
                go(
                  s,
                  left.filter((o) => o !== s),
                ),
            ),
          );
    return Math.min(
      ...stops.map((s) =>
        go(
          s,
          stops.filter((o) => o !== s),
        ),
      ),
    );
  };

  it.each([
    ['whole grids', plainFloor(4)],
    ['broken floors', brokenFloor],
    ['floors with one-way aisles', oneWayFloor],
  ])('is the shortest there is on %s, and is drawn on the floor', (_, floors) => {
    fc.assert(
      fc.property(on(floors, 6), (p) => {
        fc.pre(p.stops.length > 0);
        const shortest = least(p);
        if (shortest === Infinity) return expect(() => openRoute(p.stops, mapFloor(p.floor))).toThrow(UnreachableStop);
        const r = openRoute(p.stops, mapFloor(p.floor));
        expect(r.distance).toBeCloseTo(shortest);
        expect(along(r.path)).toBeCloseTo(r.distance);
        expect(r.proven).toBe(true);
        expect(faultsOf(p.floor, r.path)).toEqual([]);
        expect([...r.sequence].sort()).toEqual(p.stops.map((s) => s.id).sort());
      }),
      { numRuns: 150 },
    );
  });

  it('keeps its bound below what it found where it has to search', () => {
    fc.assert(
      fc.property(on(oneWayFloor, 24), (p) => {
        fc.pre(p.stops.length > 0);
        const map = mapFloor(p.floor);
        let open;
        try {
          open = openRoute(p.stops, map);
        } catch (error) {
          if (error instanceof UnreachableStop) return;
          throw error;
        }
        expect(open.lowerBound).toBeLessThanOrEqual(open.distance + 1e-6);
        expect(along(open.path)).toBeCloseTo(open.distance);
        expect(new Set(open.sequence).size).toBe(p.stops.length);
      }),
      { numRuns: 40 },
    );
  });
});
