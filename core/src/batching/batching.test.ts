import fc from 'fast-check';
import { batch, type BatchOrder } from './index.ts';

const floor = { aisles: [0, 5, 10, 15].map((x, i) => ({ id: 'ABCD'[i]!, x })), crossAisles: [0, 20] };
const start = { aisle: 'A', y: 0 };
const order = fc.record({
  priority: fc.integer({ min: 1, max: 5 }),
  stops: fc.array(
    fc.record({ id: fc.string(), aisle: fc.constantFrom('A', 'B', 'C', 'D'), y: fc.integer({ min: 0, max: 20 }) }),
    { minLength: 1, maxLength: 4 },
  ),
  units: fc.integer({ min: 1, max: 30 }),
  weightG: fc.integer({ min: 1, max: 5000 }),
  volumeCm3: fc.integer({ min: 1, max: 5000 }),
});
const orders = fc
  .array(order, { maxLength: 25 })
  .map((list): BatchOrder[] => list.map((o, i) => ({ ...o, id: `o${i}` })));

describe('batches', () => {
  it('hold every order once and never more than the cart takes, but for an order too large by itself', () => {
    fc.assert(
      fc.property(orders, fc.integer({ min: 1, max: 6 }), (list, positions) => {
        const limits = { positions, maxUnits: 40, maxWeightG: 8000 };
        const runs = batch(list, limits, floor, start);
        expect(runs.flat().sort()).toEqual(list.map((o) => o.id).sort());
        const byId = new Map(list.map((o) => [o.id, o]));
        for (const run of runs) {
          const own = run.map((id) => byId.get(id)!);
          expect(run.length).toBeLessThanOrEqual(positions);
          if (run.length === 1) continue;
          expect(own.reduce((n, o) => n + o.units, 0)).toBeLessThanOrEqual(40);
          expect(own.reduce((n, o) => n + o.weightG, 0)).toBeLessThanOrEqual(8000);
        }
      }),
    );
  });

  it('begin with what is most urgent and put neighbours together', () => {
    const at = (id: string, aisle: string, priority: number): BatchOrder => ({
      id,
      priority,
      stops: [{ id, aisle, y: 10 }],
      units: 1,
      weightG: 1,
      volumeCm3: 1,
    });
    expect(
      batch([at('far', 'D', 3), at('near', 'A', 3), at('urgent', 'D', 1)], { positions: 2 }, floor, start),
    ).toEqual([['urgent', 'far'], ['near']]);
  });

  it('refuse a cart without positions', () =>
    expect(() => batch([], { positions: 0 }, floor, start)).toThrow('received 0'));
});
