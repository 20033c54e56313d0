import fc from 'fast-check';
import type { Sides } from '../boxes/index.ts';
import { isometric } from './index.ts';

const inner: Sides = [40, 30, 20];
const cube = (x: number, y: number, z: number, side = 10) => ({
  at: [x, y, z] as Sides,
  size: [side, side, side] as Sides,
});

describe('an isometric drawing', () => {
  it('shows three sides of each box inside the drawing, whatever corner it is seen from', () => {
    const place = fc.tuple(
      fc.integer({ min: 0, max: 30 }),
      fc.integer({ min: 0, max: 20 }),
      fc.integer({ min: 0, max: 10 }),
    );
    fc.assert(
      fc.property(fc.array(place, { maxLength: 6 }), fc.integer({ min: 0, max: 3 }), (places, quarter) => {
        const drawn = isometric(
          inner,
          places.map(([x, y, z]) => cube(x, y, z)),
          quarter,
        );
        expect(drawn.faces).toHaveLength(3 * places.length);
        for (const [x, y] of drawn.faces.flatMap((f) => f.points)) {
          expect(x).toBeGreaterThanOrEqual(-1e-9);
          expect(x).toBeLessThanOrEqual(drawn.width + 1e-9);
          expect(y).toBeGreaterThanOrEqual(-1e-9);
          expect(y).toBeLessThanOrEqual(drawn.height + 1e-9);
        }
      }),
    );
  });

  it('draws what lies behind and below first, from every corner', () => {
    const order = (quarter: number) => [
      ...new Set(isometric(inner, [cube(30, 20, 0), cube(0, 0, 0), cube(30, 20, 10)], quarter).faces.map((f) => f.box)),
    ];
    expect(order(0)).toEqual([1, 0, 2]);
    // Seen from the other end the one alone is in front of what it hid behind.
    expect(order(2)[0]).toBe(0);
    for (const quarter of [1, 2, 3]) expect(order(quarter).indexOf(0)).toBeLessThan(order(quarter).indexOf(2));
  });
});
