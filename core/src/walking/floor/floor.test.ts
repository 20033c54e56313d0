import fc from 'fast-check';
import { anyFloor, brokenFloor, oneWayFloor, placeOn } from './arbitraries.ts';
import { layoutRows, mapFloor, networkOf, readLayout, type Floor, type Layout, type Place } from './index.ts';

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

describe('a layout as rows of a file', () => {
  const layout = fc.oneof(brokenFloor, oneWayFloor).chain((floor) =>
    fc.record({
      aisles: fc.constant(floor.aisles.map((a) => JSON.parse(JSON.stringify(a)) as Layout['aisles'][number])),
      crossAisles: fc.constant(floor.crossAisles),
      blocked: fc.constant<Layout['blocked']>([...(floor.blocked ?? [])]),
      start: placeOn(floor),
      finish: fc.option(placeOn(floor)),
    }),
  );
  it('is read back as it was, whatever the order of its columns', () => {
    fc.assert(
      fc.property(layout, fc.integer({ min: 0, max: 6 }), (l, turn) => {
        const rows = layoutRows(l).map((r) => [...r.slice(turn), ...r.slice(0, turn)]);
        expect(readLayout([...rows, ['', '']])).toEqual(l);
      }),
    );
  });

  it('says by row and column what is wrong, all of it', () => {
    const rows = layoutRows({
      aisles: [{ id: 'A', x: 0 }],
      crossAisles: [0, 10],
      blocked: [],
      start: { aisle: 'A', y: 0 },
      finish: null,
    });
    const wrong = (change: (rows: string[][]) => void) => {
      const copy = rows.map((r) => [...r]);
      change(copy);
      const found = readLayout(copy);
      return Array.isArray(found) ? found.map((f) => `${f.row} ${f.column} ${f.expected}`) : found;
    };
    expect(wrong((r) => (r[1]![2] = 'far'))).toEqual(['2 x_m number']);
    expect(wrong((r) => (r[1]![6] = 'left'))).toEqual(['2 one_way up-or-down']);
    expect(wrong((r) => r.push([...r[1]!]))).toEqual(['6 aisle new-aisle']);
    expect(wrong((r) => (r[4]![1] = 'Q'))).toEqual(['5 aisle known-aisle']);
    expect(wrong((r) => r.push(['wall', '', '', '', '', '', '']))).toEqual(['6 part known-part']);
    expect(wrong((r) => r.push(['blocked', 'A', '', '', '6', '4', '']))).toEqual(['6 to_m from-below-to']);
    expect(wrong((r) => r.push([...r[4]!]))).toEqual(['6 part one-start']);
    expect(wrong((r) => r.splice(2, 3))).toEqual(['3 part two-cross-aisles', '3 part one-start']);
  });
});
