import fc from 'fast-check';
import { mapFloor } from '../floor/index.ts';
import { anyFloor, placeOn } from '../floor/arbitraries.ts';
import { serpentine } from './construct.ts';
import { lengthOf, measure, type RouteProblem } from './problem.ts';
import { route } from './index.ts';

const problem = (most: number): fc.Arbitrary<RouteProblem> =>
  anyFloor.chain((floor) =>
    fc.record({
      floor: fc.constant(floor),
      start: placeOn(floor),
      finish: placeOn(floor),
      stops: fc
        .array(placeOn(floor), { maxLength: most })
        .map((places) => places.map((p, i) => ({ ...p, id: `s${i}` }))),
    }),
  );

function shortestOfAll({ floor, start, finish, stops }: RouteProblem): number {
  const map = mapFloor(floor);
  const go = (at: RouteProblem['start'], left: RouteProblem['stops']): number =>
    left.length === 0
      ? map.distance(at, finish)
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
  return go(start, stops);
}

const along = (path: [number, number][]) =>
  path.slice(1).reduce((n, p, i) => n + Math.abs(p[0] - path[i]![0]) + Math.abs(p[1] - path[i]![1]), 0);

describe('routes', () => {
  it('are the shortest where few places are visited: every order of visiting was tried', () => {
    fc.assert(
      fc.property(problem(6), (p) => {
        const r = route(p);
        expect(r.proven).toBe(true);
        expect(r.distance).toBeCloseTo(shortestOfAll(p));
      }),
      { numRuns: 150 },
    );
  });

  it('visit every stop once, along a path as long as they say, never longer than the serpentine rule', () => {
    fc.assert(
      fc.property(problem(40), (p) => {
        const r = route(p);
        const walks = measure(p);
        expect([...r.sequence].sort()).toEqual(p.stops.map((s) => s.id).sort());
        expect(along(r.path)).toBeCloseTo(r.distance);
        expect(r.distance).toBeLessThanOrEqual(lengthOf(walks, serpentine(walks, mapFloor(p.floor).x)) + 1e-9);
      }),
      { numRuns: 100 },
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
    });
  });
});
