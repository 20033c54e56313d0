import fc from 'fast-check';
import { anyFloor, brokenFloor, oneWayFloor, placeOn } from './arbitraries.ts';
import { mapFloor, networkOf, type Floor, type Place } from './index.ts';

/** An independent answer: a search metre by metre along every aisle and cross aisle, all measures being whole. */
function metreByMetre(floor: Floor, from: Place, to: Place): number {
  const blocked = floor.blocked ?? [];
  const high = floor.crossAisles.at(-1)!;
  const key = (aisle: number, y: number) => aisle * (high + 1) + y;
  const near = new Map<number, { to: number; metres: number }[]>();
  const join = (a: number, b: number, metres: number) => near.set(a, [...(near.get(a) ?? []), { to: b, metres }]);
  floor.aisles.forEach((a, i) => {
    for (let y = 0; y < high; y++) {
      const shut = blocked.some((b) => 'aisle' in b && b.aisle === a.id && b.from < y + 1 && b.to > y);
      if (shut || y < (a.from ?? 0) || y + 1 > (a.to ?? high)) continue;
      if (a.oneWay !== 'down') join(key(i, y), key(i, y + 1), 1);
      if (a.oneWay !== 'up') join(key(i, y + 1), key(i, y), 1);
    }
    const next = floor.aisles[i + 1];
    for (const y of next ? floor.crossAisles : []) {
      if (blocked.some((b) => 'crossAisle' in b && b.crossAisle === y && b.from < next!.x && b.to > a.x)) continue;
      join(key(i, y), key(i + 1, y), next!.x - a.x);
      join(key(i + 1, y), key(i, y), next!.x - a.x);
    }
  });
  const at = (p: Place) =>
    key(
      floor.aisles.findIndex((a) => a.id === p.aisle),
      p.y,
    );
  const cost = new Map([[at(from), 0]]);
  const open = new Set([at(from)]);
  while (open.size > 0) {
    const here = [...open].reduce((a, b) => (cost.get(b)! < cost.get(a)! ? b : a));
    open.delete(here);
    for (const { to: next, metres } of near.get(here) ?? []) {
      const sum = cost.get(here)! + metres;
      if (sum >= (cost.get(next) ?? Infinity)) continue;
      cost.set(next, sum);
      open.add(next);
    }
  }
  return cost.get(at(to)) ?? Infinity;
}

const two = (floors: fc.Arbitrary<Floor>) =>
  floors.chain((floor) => fc.tuple(fc.constant(floor), placeOn(floor), placeOn(floor)));

describe('walks on a floor', () => {
  it.each([
    ['a whole grid', anyFloor],
    ['a broken floor', brokenFloor],
    ['a floor with one-way aisles', oneWayFloor],
  ])('are as short as a search metre by metre finds, drawn as long as they measure, on %s', (_, floors) => {
    fc.assert(
      fc.property(two(floors), ([floor, a, b]) => {
        const map = mapFloor(floor);
        const metres = map.distance(a, b);
        expect(metres).toBe(metreByMetre(floor, a, b));
        if (metres === Infinity) return expect(() => map.walk(a, b)).toThrow('Nobody can walk');
        const points = map.walk(a, b);
        let length = 0;
        for (let i = 1; i < points.length; i++) {
          const [dx, dy] = [points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1]];
          expect(dx === 0 || dy === 0).toBe(true);
          if (dx !== 0) expect(floor.crossAisles).toContain(points[i]![1]);
          length += Math.abs(dx) + Math.abs(dy);
        }
        expect(length).toBeCloseTo(metres);
      }),
    );
  });

  it('refuse what is no floor and places off it, and say which', () => {
    const aisles = [{ id: 'A', x: 0 }];
    const map = mapFloor({ aisles, crossAisles: [0, 10] });
    expect(() => map.distance({ aisle: 'A', y: 11 }, { aisle: 'A', y: 0 })).toThrow('11');
    expect(() => map.distance({ aisle: 'Q', y: 1 }, { aisle: 'A', y: 0 })).toThrow('"Q"');
    expect(() => networkOf({ aisles: [], crossAisles: [3] })).toThrow('at least two');
    expect(() => networkOf({ aisles, crossAisles: [3, 3] })).toThrow('ascend');
    expect(() => networkOf({ aisles: [...aisles, ...aisles], crossAisles: [0, 3] })).toThrow('one name');
    const blocked = (b: NonNullable<Floor['blocked']>[number]) =>
      networkOf({ aisles, crossAisles: [0, 3], blocked: [b] });
    expect(() => blocked({ aisle: 'A', from: 2, to: 1 })).toThrow('received 2 to 1');
    expect(() => blocked({ aisle: 'B', from: 0, to: 1 })).toThrow('"B"');
    expect(() => blocked({ crossAisle: 1, from: 0, to: 1 })).toThrow('no cross aisle at 1');
  });
});
