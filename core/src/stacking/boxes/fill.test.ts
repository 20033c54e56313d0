import fc from 'fast-check';
import { seeded } from '../../random/index.ts';
import {
  Effort,
  faultsOf,
  fill,
  kitFor,
  turnsOf,
  volumeOf,
  type BoxKind,
  type Placed,
  type Room,
  type Sides,
} from './index.ts';

const box = (size: Sides, more: Partial<BoxKind> = {}): BoxKind => ({
  size,
  weightG: 100,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
  ...more,
});
const filled = (room: Room, kinds: BoxKind[], counts: number[], steps = 60) =>
  fill(room, kitFor(kinds, room.inner, counts, 300, room.support), counts, { effort: new Effort(steps), seed: 1 });

const side = fc.integer({ min: 3, max: 30 });
const kind = fc.record({
  size: fc.tuple(side, side, side) as fc.Arbitrary<Sides>,
  weightG: fc.integer({ min: 0, max: 50 }),
  keepUpright: fc.boolean(),
  maxLoadOnTopG: fc.option(fc.integer({ min: 0, max: 120 })),
  stop: fc.constantFrom(1, 2, Infinity),
});

describe('a room that is filled', () => {
  it('holds nothing that the checker finds wrong, and what is left is what it was given less that', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(kind, fc.integer({ min: 0, max: 12 })), { minLength: 1, maxLength: 5 }),
        fc.constantFrom(0, 0.5, 0.75, 1),
        fc.integer({ min: 50, max: 2000 }),
        (goods, support, maxWeightG) => {
          const room: Room = { inner: [60, 40, 50], maxWeightG, support };
          const kinds = goods.map(([k]) => k);
          const counts = goods.map(([, n]) => n);
          const { units, left, volume } = filled(room, kinds, counts, 12);
          expect(faultsOf(room, kinds, units)).toEqual([]);
          expect(units.reduce((sum, u) => sum + volumeOf(u.size), 0)).toBe(volume);
          expect(counts.map((_, k) => units.filter((u) => u.kind === k).length + left[k]!)).toEqual(counts);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('takes all pieces of a room that was cut into them, up to twenty', () => {
    // Perfect packings by construction: a room is cut at random, again and again, and its pieces are turned.
    const random = seeded(7);
    const full = Array.from({ length: 25 }, () => {
      const inner: Sides = [400, 300, 250];
      const pieces: Sides[] = [inner];
      for (const most = random.int(5, 20); pieces.length < most;) {
        const at = random.int(0, pieces.length - 1);
        const axis = random.int(0, 2);
        const whole = pieces[at]![axis]!;
        if (whole < 40) continue;
        const part = random.int(Math.ceil(whole * 0.2), Math.floor(whole * 0.8));
        const cut = (length: number) => pieces[at]!.map((s, k) => (k === axis ? length : s)) as unknown as Sides;
        pieces.splice(at, 1, cut(part), cut(whole - part));
      }
      const kinds = pieces.map((p) => box(random.pick(turnsOf(box(p)))));
      const room = { inner, maxWeightG: Infinity, support: 0.75 };
      return filled(
        room,
        kinds,
        kinds.map(() => 1),
        2000,
      ).left.every((n) => n === 0);
    });
    // The aim is eight of ten.
    expect(full.filter(Boolean).length).toBeGreaterThanOrEqual(23);
  });
});

describe('the checker', () => {
  const room: Room = { inner: [10, 10, 10], maxWeightG: 500, support: 0.75 };
  const kinds = [box([10, 5, 4]), box([10, 5, 4], { keepUpright: true, maxLoadOnTopG: 99, stop: 1 })];
  const at = (kind: number, ...place: [number, number, number]): Placed => ({ kind, at: place, size: [10, 5, 4] });
  const rules = (...units: Placed[]) => faultsOf(room, kinds, units).map((f) => f.rule);

  it('finds each rule broken, and nothing in what is sound', () => {
    expect(rules(at(0, 0, 0, 0), at(0, 0, 5, 0), at(0, 0, 2.5, 4))).toEqual([]);
    expect(rules({ ...at(0, 0, 0, 0), size: [10, 5, 5] })).toEqual(['turned']);
    expect(rules({ kind: 1, at: [0, 0, 0], size: [10, 4, 5] })).toEqual(['turned']);
    expect(rules(at(0, 1, 0, 0))).toEqual(['outside']);
    expect(rules(at(0, 0, 0, 0), at(0, 0, 4, 0))).toEqual(['overlap']);
    // Three quarters of the base must rest on something; two thirds do.
    expect(rules(at(0, 0, 0, 0), at(0, 0, 1.7, 4))).toEqual(['support']);
    expect(rules(at(0, 0, 0, 4))).toEqual(['support']);
    // 100 g on what bears 99; shared by two it bears its half.
    expect(rules(at(1, 0, 0, 0), { ...at(1, 0, 0, 4) })).toEqual(['load']);
    expect(rules(at(1, 0, 0, 0), at(1, 0, 5, 0), at(1, 0, 2.5, 4))).toEqual([]);
    // Delivered first, and yet below.
    expect(rules(at(1, 0, 0, 0), at(0, 0, 0, 4))).toEqual(['stop', 'load']);
    const six = [0, 4].flatMap((z) => [at(0, 0, 0, z), at(0, 0, 5, z)]);
    expect(faultsOf({ ...room, maxWeightG: 399 }, kinds, six)).toEqual([{ rule: 'weight', units: [] }]);
  });
});
