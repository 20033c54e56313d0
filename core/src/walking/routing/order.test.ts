import fc from 'fast-check';
import { mapFloor } from '../floor/index.ts';
import { anyFloor, brokenFloor, oneWayFloor, placeOn } from '../floor/arbitraries.ts';
import { chain, routeInPhases, UnreachableStop, type Link } from './index.ts';
import type { RouteProblem } from './problem.ts';

describe('walks in phases', () => {
  const problem = (floors = anyFloor) =>
    floors.chain((floor) =>
      fc.record({
        floor: fc.constant(floor),
        start: placeOn(floor),
        finish: placeOn(floor),
        stops: fc
          .array(fc.tuple(placeOn(floor), fc.nat(2)), { maxLength: 6 })
          .map((list) => list.map(([p, phase], i) => ({ ...p, id: `${phase}-${i}` }))),
      }),
    );
  const phaseOf = ({ id }: { id: string }) => Number(id[0]);
  /** Every order of visiting that keeps the phases apart. */
  const shortest = ({ floor, start, finish, stops }: RouteProblem): number => {
    const map = mapFloor(floor);
    const go = (at: RouteProblem['start'], left: RouteProblem['stops']): number => {
      if (left.length === 0) return map.distance(at, finish);
      const phase = Math.min(...left.map(phaseOf));
      return Math.min(
        ...left
          .filter((s) => phaseOf(s) === phase)
          .map((s) => {
            const rest = left.filter((o) => o !== s);
            return map.distance(at, s) + go(s, rest);
          }),
      );
    };
    return go(start, stops);
  };

  it.each([
    ['whole grids', anyFloor],
    ['broken floors', brokenFloor],
  ])('are the shortest that keep phases apart, on %s', (_, floors) => {
    fc.assert(
      fc.property(problem(floors), (p) => {
        const least = shortest(p);
        if (least === Infinity) return expect(() => routeInPhases(p, phaseOf)).toThrow(UnreachableStop);
        const r = routeInPhases(p, phaseOf);
        expect(r.distance).toBeCloseTo(least);
        expect(r.proven).toBe(true);
        expect(r.sequence.map((id) => id[0])).toEqual(p.stops.map((s) => s.id[0]).sort());
      }),
      { numRuns: 120 },
    );
  });

  it('keep phases apart on one-way floors too, never below their bound', () => {
    fc.assert(
      fc.property(problem(oneWayFloor), (p) => {
        let r;
        try {
          r = routeInPhases(p, phaseOf);
        } catch (error) {
          if (error instanceof UnreachableStop) return;
          throw error;
        }
        expect(r.sequence.map((id) => id[0])).toEqual(p.stops.map((s) => s.id[0]).sort());
        expect(r.distance).toBeGreaterThanOrEqual(shortest(p) - 1e-6);
        expect(r.lowerBound).toBeLessThanOrEqual(shortest(p) + 1e-6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('chained runs', () => {
  const distance = (a: number, b: number) => Math.abs(a - b);
  const run = (id: string, bins: number[]): Link<number> => ({
    id,
    from: Math.min(...bins),
    to: Math.max(...bins),
    metres: Math.max(...bins) - Math.min(...bins),
    priority: 5,
  });

  // The example "direction in turn": common practice, no source; figures invented.
  const lists = [run('1', [12, 33, 58]), run('2', [58]), run('3', [33, 58])];
  it('go through the aisles in alternate directions', () => {
    const { runs, metres } = chain(lists, { start: 12, distance, direction: 'alternate' });
    expect(runs).toEqual([
      { id: '1', backward: false },
      expect.objectContaining({ id: '2' }),
      { id: '3', backward: true },
    ]);
    expect(metres).toBe(58 - 12 + (58 - 33));
  });
  it('or always in one', () => {
    const { runs } = chain(lists, { start: 12, distance, direction: 'one' });
    expect(runs.find((r) => r.id === '3')).toEqual({ id: '3', backward: false });
    expect(runs.every((r) => !r.backward)).toBe(true);
  });

  const links = fc
    .array(fc.tuple(fc.nat(60), fc.nat(60), fc.integer({ min: 1, max: 2 })), { maxLength: 5 })
    .map((list) =>
      list.map(([from, to, priority], i) => ({ id: String(i), from, to, metres: Math.abs(from - to), priority })),
    );
  it('take the least walk of all orders and directions, the urgent first', () => {
    fc.assert(
      fc.property(links, fc.constantFrom('alternate' as const, 'one' as const), (list, direction) => {
        const tried = (at: number, left: Link<number>[]): number => {
          if (left.length === 0) return 0;
          const first = Math.min(...left.map((l) => l.priority));
          return Math.min(
            ...left
              .filter((l) => l.priority === first)
              .flatMap((l) => {
                const rest = left.filter((o) => o !== l);
                const ways = [[l.from, l.to] as const, ...(direction === 'one' ? [] : [[l.to, l.from] as const])];
                return ways.map(([from, to]) => distance(at, from) + l.metres + tried(to, rest));
              }),
          );
        };
        const found = chain(list, { start: 0, distance, direction });
        expect(found.runs.map((r) => r.id).sort()).toEqual(list.map((l) => l.id));
        // Of two priorities each is shortest by itself: what the first costs the second is not weighed.
        if (new Set(list.map((l) => l.priority)).size < 2) expect(found.metres).toBeCloseTo(tried(0, list));
        else expect(found.metres).toBeGreaterThanOrEqual(tried(0, list) - 1e-9);
      }),
      { numRuns: 150 },
    );
  });

  it('of many runs are no longer than each taken where it is nearest', () => {
    const many = Array.from({ length: 25 }, (_, i) => run(String(i), [(i * 37) % 60, (i * 53) % 60]));
    const { runs, metres } = chain(many, { start: 0, distance, direction: 'alternate' });
    expect(runs).toHaveLength(25);
    expect(metres).toBeGreaterThanOrEqual(many.reduce((n, r) => n + r.metres, 0));
    expect(metres).toBeLessThan(chain(many, { start: 0, distance, direction: 'one' }).metres);
  });
});
