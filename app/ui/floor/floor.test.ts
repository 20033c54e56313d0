import fc from 'fast-check';
import { capsulesOf, CAPSULE, rangesOf } from './capsules.ts';
import { aheadUp, boxOf, planAround, turnedTo, turnMatrix, type Point, type Turn } from './planView.ts';
import { racksOf } from './Racks.tsx';
import { stopsOf } from './stopsOf.ts';
import { cutWalk } from './walk.ts';

const turns: Turn[] = ['north', 'east', 'south', 'west'];
const metre = fc.integer({ min: -20, max: 60 });
const long = (walk: readonly Point[]) =>
  walk.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - walk[i]![0], y - walk[i]![1]), 0);

describe('stops on a plan', () => {
  it('are one where the picks follow one another at one place, and done when all of them are', () => {
    const at = (aisle: string, y: number) => ({ aisle, y });
    expect(
      stopsOf([
        { at: at('A', 1), state: 'picked' },
        { at: at('A', 1), state: 'open' },
        { at: at('B', 1), state: 'picked' },
        { at: at('A', 1), state: 'open' },
      ] as Parameters<typeof stopsOf>[0]),
    ).toEqual([
      { ...at('A', 1), number: 1, done: false },
      { ...at('B', 1), number: 2, done: true },
      { ...at('A', 1), number: 3, done: false },
    ]);
  });

  it('merge where they are closer than 18 pixels, said as ranges', () => {
    const row = [0, 10, 20, 60].map((y, i) => ({ number: 28 + i, x: 0, y }));
    expect(capsulesOf(row).map((c) => c.label)).toEqual(['31', '28–30']);
    expect(rangesOf([3, 28, 29, 30, 31])).toBe('3, 28–31');
    expect(rangesOf([1, 3, 5, 7, 9, 11, 13])).toBe('1–13');
  });

  it('are each in one capsule, and no capsule covers another', () => {
    const dot = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }));
    fc.assert(
      fc.property(fc.array(dot, { maxLength: 40 }), (places) => {
        const dots = places.map(([x, y], i) => ({ number: i + 1, x, y }));
        const capsules = capsulesOf(dots);
        expect(capsules.flatMap((c) => c.numbers).sort((a, b) => a - b)).toEqual(dots.map((d) => d.number));
        for (const a of capsules)
          for (const b of capsules)
            if (a !== b)
              expect(Math.abs(a.x - b.x) >= (a.width + b.width) / 2 || Math.abs(a.y - b.y) >= CAPSULE).toBe(true);
      }),
    );
  });
});

describe('a walk', () => {
  // Up one aisle, over, down the next, and back along the front.
  const path: Point[] = [
    [0, 0],
    [0, 20],
    [3, 20],
    [3, 0],
    [0, 0],
  ];

  it('is cut at the last stop that is done, also where it passes there twice', () => {
    expect(cutWalk(path, [])).toEqual({ behind: [], ahead: path });
    expect(cutWalk(path, [[0, 5]]).behind).toEqual([
      [0, 0],
      [0, 5],
    ]);
    expect(
      cutWalk(path, [
        [0, 5],
        [3, 8],
      ]).ahead,
    ).toEqual([
      [3, 8],
      [3, 0],
      [0, 0],
    ]);
    // The start is passed again at the end: a first stop there is at the beginning.
    expect(cutWalk(path, [[0, 0]]).ahead).toEqual(path);
  });

  it('keeps its length in two parts', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(metre, metre), { minLength: 2, maxLength: 9 }),
        fc.nat(),
        fc.nat(),
        (corners, leg, t) => {
          const at = leg % (corners.length - 1);
          const share = (t % 5) / 4;
          const [a, b] = [corners[at]!, corners[at + 1]!];
          const stop: Point = [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
          const { behind, ahead } = cutWalk(corners, [stop]);
          expect(long(behind) + long(ahead)).toBeCloseTo(long(corners), 6);
        },
      ),
    );
  });

  it('has what lies ahead above', () => {
    expect(turns.map((turn) => turnedTo[turn](0, 1))).toEqual([
      [0, -1],
      [-1, -0],
      [-0, 1],
      [1, 0],
    ]);
    expect([aheadUp(path), aheadUp(path.slice(1)), aheadUp(path.slice(2)), aheadUp(path.slice(3))]).toEqual([
      'north',
      'east',
      'south',
      'west',
    ]);
    fc.assert(
      fc.property(fc.array(fc.tuple(metre, metre), { minLength: 2, maxLength: 2 }), (ahead) => {
        const turn = aheadUp(ahead);
        const [from, to] = ahead.map(([x, y]) => turnedTo[turn](x, y));
        const [du, dv] = [to![0] - from![0], to![1] - from![1]];
        expect(-dv).toBeGreaterThanOrEqual(Math.abs(du) - 1e-9);
      }),
    );
  });
});

describe('a view of the floor', () => {
  it('is turned as its matrix says, and holds what it held', () => {
    fc.assert(
      fc.property(fc.constantFrom(...turns), metre, metre, (turn, x, y) => {
        const [a, b, c, d] = turnMatrix[turn].match(/-?\d+/g)!.map(Number);
        const [u, v] = turnedTo[turn](x, y);
        expect([a! * x + c! * y + 0, b! * x + d! * y + 0]).toEqual([u + 0, v + 0]);
        const box = boxOf({ left: x - 1, bottom: y - 2, width: 3, height: 5 }, turn);
        expect(u >= box.u && u <= box.u + box.width && v >= box.v && v <= box.v + box.height).toBe(true);
      }),
    );
  });

  it('has one aisle more at each side than a walk needs', () => {
    const aisles = [0, 3, 6, 9, 12].map((x, i) => ({ id: 'ABCDE'[i]!, x }));
    const floor = { aisles, crossAisles: [0, 20], places: [] };
    expect(
      planAround(floor, [
        [3, 4],
        [6, 9],
      ]),
    ).toEqual({ left: -2, bottom: 1, width: 13, height: 11 });
    expect(planAround(floor, [[0, 4]])).toMatchObject({ left: -2, width: 7 });
    expect(planAround(floor, [])).toMatchObject({ left: -3 });
  });

  it('names a rack by what its bins share', () => {
    const bin = (code: string, side: 'left' | 'right', open = 0) => ({
      bin: code,
      aisle: 'A',
      y: 1,
      side,
      zone: 'z',
      open,
    });
    const { racks, most } = racksOf(
      {
        aisles: [{ id: 'A', x: 0 }],
        zones: [{ code: 'z', name: 'Z', cold: true }],
        bins: [bin('A-01-1', 'left', 3), bin('A-01-2', 'left', 4), bin('A-02-1', 'right')],
      },
      new Set(['A-01-2']),
      undefined,
    );
    expect(racks.map((r) => [r.name, r.open, r.found, r.cold])).toEqual([
      ['A-01', 7, true, true],
      ['A-02-1', 0, false, true],
    ]);
    expect(most).toBe(7);
  });
});
