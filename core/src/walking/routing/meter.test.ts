import fc from 'fast-check';
import { mapFloor, type Place } from '../floor/index.ts';
import { anyFloor, brokenFloor, oneWayFloor, placeOn, plainFloor } from '../floor/arbitraries.ts';
import { openMeter, route, UnreachableStop } from './index.ts';

describe('a meter', () => {
  it.each([
    ['one block', plainFloor(1), 600],
    ['whole grids', anyFloor, 150],
    ['broken floors', brokenFloor, 150],
    ['one-way floors', oneWayFloor, 60],
  ])('measures what the route walks, on %s', (_, floors, numRuns) => {
    const cases = floors.chain((floor) =>
      fc.record({
        floor: fc.constant(floor),
        ends: fc.oneof(
          fc.tuple(placeOn(floor), placeOn(floor)),
          fc
            .record({
              aisle: fc.constantFrom(...floor.aisles.map((a) => a.id)),
              y: fc.constantFrom(floor.crossAisles[0]!, floor.crossAisles.at(-1)!),
            })
            .map((p): [Place, Place] => [p, p]),
        ),
        loads: fc.array(fc.array(placeOn(floor), { maxLength: 5 }), { maxLength: 3 }),
      }),
    );
    fc.assert(
      fc.property(cases, ({ floor, ends: [start, finish], loads }) => {
        const map = mapFloor(floor);
        const stops = loads.flat().map((p, i) => ({ ...p, id: String(i) }));
        let distance;
        try {
          ({ distance } = route({ floor, start, finish, stops }, { seed: 1 }, map));
        } catch (error) {
          if (error instanceof UnreachableStop) return;
          throw error;
        }
        const meter = openMeter(map, start, finish);
        expect(meter.length(loads.map((l) => meter.load(l)))).toBeCloseTo(distance);
      }),
      { numRuns },
    );
  });

  it('measures aisles of any number of places', () => {
    const map = mapFloor({
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 4 },
      ],
      crossAisles: [0, 100],
    });
    const home = { aisle: 'A', y: 0 };
    const meter = openMeter(map, home, home);
    const loadOf = (aisle: string, count: number, from: number) =>
      meter.load(Array.from({ length: count }, (_, i) => ({ aisle, y: from + i / 4 })));
    // A few in A before B outgrows its room: they stay where they are.
    expect(meter.length([loadOf('A', 3, 90), loadOf('B', 70, 1), loadOf('B', 200, 20)])).toBe(2 * 100 + 2 * 4);
    expect(meter.length([loadOf('B', 9, 10)])).toBe(2 * 12 + 2 * 4);
  });
});
