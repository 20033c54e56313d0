import fc from 'fast-check';
import { anyFloor, placeOn } from './arbitraries.ts';
import { mapFloor, type Floor, type Place } from './index.ts';

/** An independent answer: Dijkstra over a graph of every crossing and both places. */
function byGraph(floor: Floor, from: Place, to: Place): number {
  const points = [...floor.aisles.flatMap((a) => floor.crossAisles.map((y) => ({ aisle: a.id, y }))), from, to];
  const x = new Map(floor.aisles.map((a) => [a.id, a.x]));
  const edge = (a: Place, b: Place) => {
    if (a.aisle === b.aisle) return Math.abs(a.y - b.y);
    return a.y === b.y && floor.crossAisles.includes(a.y) ? Math.abs(x.get(a.aisle)! - x.get(b.aisle)!) : Infinity;
  };
  const cost = points.map(() => Infinity);
  cost[points.length - 2] = 0;
  const open = new Set(points.keys());
  while (open.size > 0) {
    const at = [...open].reduce((a, b) => (cost[b]! < cost[a]! ? b : a));
    open.delete(at);
    for (const next of open) cost[next] = Math.min(cost[next]!, cost[at]! + edge(points[at]!, points[next]!));
  }
  return cost.at(-1)!;
}

const two = anyFloor.chain((floor) => fc.tuple(fc.constant(floor), placeOn(floor), placeOn(floor)));

describe('walks on a floor', () => {
  it('are as short as a search over the whole network finds', () => {
    fc.assert(
      fc.property(two, ([floor, a, b]) => Math.abs(mapFloor(floor).distance(a, b) - byGraph(floor, a, b)) < 1e-9),
    );
  });

  it('are drawn along aisles and cross aisles, as long as they measure', () => {
    fc.assert(
      fc.property(two, ([floor, a, b]) => {
        const map = mapFloor(floor);
        const points = map.walk(a, b);
        let length = 0;
        for (let i = 1; i < points.length; i++) {
          const [dx, dy] = [points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1]];
          expect(dx === 0 || dy === 0).toBe(true);
          if (dx !== 0) expect(floor.crossAisles).toContain(points[i]![1]);
          length += Math.abs(dx) + Math.abs(dy);
        }
        expect(length).toBeCloseTo(map.distance(a, b));
      }),
    );
  });

  it('refuse places off the floor, and say which', () => {
    const map = mapFloor({ aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 10] });
    expect(() => map.distance({ aisle: 'A', y: 11 }, { aisle: 'A', y: 0 })).toThrow('11');
    expect(() => map.distance({ aisle: 'Q', y: 1 }, { aisle: 'A', y: 0 })).toThrow('"Q"');
    expect(() => mapFloor({ aisles: [], crossAisles: [3] })).toThrow('at least two');
  });
});
