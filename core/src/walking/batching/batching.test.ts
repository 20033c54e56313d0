import fc from 'fast-check';
import { mapFloor, type Floor } from '../floor/index.ts';
import { anyFloor, oneWayFloor, placeOn, plainFloor } from '../floor/arbitraries.ts';
import { openMeter } from '../routing/index.ts';
import { seeded } from '../../random/index.ts';
import {
  batch,
  batchMethods,
  faultsOf,
  fits,
  timesOf,
  weightOf,
  type BatchMethod,
  type BatchOrder,
  type CartLimits,
} from './index.ts';

const limits: fc.Arbitrary<CartLimits> = fc.record({
  positions: fc.integer({ min: 1, max: 4 }),
  maxUnits: fc.option(fc.integer({ min: 20, max: 60 }), { nil: undefined }),
  maxWeightG: fc.option(fc.integer({ min: 3000, max: 9000 }), { nil: undefined }),
  maxVolumeCm3: fc.option(fc.integer({ min: 3000, max: 9000 }), { nil: undefined }),
});
const cases = (most: number, floors: fc.Arbitrary<Floor> = anyFloor) =>
  floors.chain((floor) =>
    fc.record({
      floor: fc.constant(floor),
      depot: placeOn(floor),
      cart: limits,
      orders: fc
        .array(
          fc.record({
            priority: fc.integer({ min: 1, max: 5 }),
            stops: fc.array(
              placeOn(floor).map((p) => ({ ...p, id: 's' })),
              { minLength: 1, maxLength: 4 },
            ),
            units: fc.integer({ min: 1, max: 30 }),
            weightG: fc.integer({ min: 1, max: 4000 }),
            volumeCm3: fc.integer({ min: 1, max: 4000 }),
          }),
          { maxLength: most },
        )
        .map((list): BatchOrder[] => list.map((o, i) => ({ ...o, id: `o${i}` }))),
    }),
  );
const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);

/** The shortest of all ways to share orders among runs. */
function shortestOfAll(orders: BatchOrder[], cart: CartLimits, length: (run: BatchOrder[]) => number): number {
  const go = (left: BatchOrder[]): number => {
    const [first, ...rest] = left;
    if (!first) return 0;
    let least = Infinity;
    for (let set = 0; set < 1 << rest.length; set++) {
      const run = [first, ...rest.filter((_, i) => set & (1 << i))];
      const weight = run.map(weightOf).reduce((a, b) => ({
        count: a.count + b.count,
        units: a.units + b.units,
        weightG: a.weightG + b.weightG,
        volumeCm3: a.volumeCm3 + b.volumeCm3,
      }));
      if (run.length > 1 && !fits(weight, cart)) continue;
      least = Math.min(least, length(run) + go(rest.filter((_, i) => !(set & (1 << i)))));
    }
    return least;
  };
  return go(orders);
}

describe('batches', () => {
  it('are never longer than savings, and those than first come, whatever the time; more time is never longer', () => {
    fc.assert(
      fc.property(
        cases(14, fc.oneof(plainFloor(4), oneWayFloor)),
        fc.nat(60),
        ({ floor, depot, cart, orders }, asks) => {
          const at = { floor, start: depot, finish: depot };
          const lengths = (method: BatchMethod, most: number) => {
            let asked = 0;
            const { runs, lengths } = batch(orders, cart, at, { method, spent: () => (asked++ < most ? 0 : 1) });
            expect(faultsOf(orders, cart, runs)).toEqual([]);
            return sum(lengths);
          };
          // No time at all, some, and twice as much.
          const [none, some, more] = [0, asks, 2 * asks].map((most) => lengths('best', most));
          const [savings, first] = [lengths('savings', 0), lengths('first-come', 0)];
          expect(savings).toBeLessThanOrEqual(first + 1e-6);
          expect(none).toBeLessThanOrEqual(savings + 1e-6);
          expect(some).toBeLessThanOrEqual(none! + 1e-6);
          expect(more).toBeLessThanOrEqual(some! + 1e-6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it.each([1, 6])('of more orders too, in %i blocks', (blocks) => {
    const random = seeded(blocks);
    const crossAisles = Array.from({ length: blocks + 1 }, (_, r) => r * 12);
    const floor: Floor = { aisles: Array.from({ length: 8 }, (_, i) => ({ id: `A${i}`, x: i * 5 })), crossAisles };
    const orders = Array.from({ length: 140 }, (_, o): BatchOrder => ({
      id: `o${o}`,
      priority: 5,
      units: 3,
      weightG: 0,
      volumeCm3: 0,
      stops: Array.from({ length: 3 }, (_, s) => ({
        id: `${o}-${s}`,
        aisle: `A${random.int(0, 7)}`,
        y: random.int(1, 12 * blocks - 1),
      })),
    }));
    const depot = { aisle: 'A0', y: 0 };
    const at = { floor, start: depot, finish: depot };
    const cart = { positions: 12 };
    const metres = (method: BatchMethod, most: number) => {
      let asked = 0;
      const { runs, lengths } = batch(orders, cart, at, { method, spent: () => (asked++ < most ? 0 : 1) });
      expect(faultsOf(orders, cart, runs)).toEqual([]);
      return sum(lengths);
    };
    const first = metres('first-come', 0);
    const [none, half, whole] = [0, 30, 60].map((most) => metres('best', most));
    expect(none).toBeLessThanOrEqual(first + 1e-6);
    expect(half).toBeLessThanOrEqual(none! + 1e-6);
    expect(whole).toBeLessThanOrEqual(half! + 1e-6);
    expect(whole).toBeLessThan(first * 0.97);
  });

  it('come out the same for one seed, however slow the clock was', () => {
    const random = seeded(3);
    const floor: Floor = { aisles: [0, 5, 10, 15].map((x, i) => ({ id: 'ABCD'[i]!, x })), crossAisles: [0, 20] };
    const orders = Array.from({ length: 12 }, (_, o): BatchOrder => ({
      id: `o${o}`,
      priority: 5,
      units: 1,
      weightG: 0,
      volumeCm3: 0,
      stops: [{ id: 's', aisle: 'ABCD'[random.int(0, 3)]!, y: random.int(1, 19) }],
    }));
    const depot = { aisle: 'A', y: 0 };
    const run = (slow: number) => {
      let asked = 0;
      return batch(orders, { positions: 3 }, { floor, start: depot, finish: depot }, { spent: () => asked++ * slow })
        .runs;
    };
    expect(run(1e-7)).toEqual(run(1e-6));
  });

  it('hold every order once and never more than the cart takes, by every method; the search is never longer than savings', () => {
    fc.assert(
      fc.property(cases(14), ({ floor, depot, cart, orders }) => {
        const at = { floor, start: depot, finish: depot };
        const [best, savings, first] = batchMethods.map((method) => {
          let asked = 0;
          const found = batch(orders, cart, at, { method, spent: () => asked++ / 100 });
          expect(faultsOf(orders, cart, found.runs)).toEqual([]);
          const meter = openMeter(mapFloor(floor), depot, depot);
          found.runs.forEach((run, i) => {
            const stops = run.flatMap((id) => orders.find((o) => o.id === id)!.stops);
            expect(found.lengths[i]).toBeCloseTo(meter.length([meter.load(stops)]));
          });
          return sum(found.lengths);
        });
        expect(best).toBeLessThanOrEqual(savings! + 1e-6);
        expect(savings).toBeLessThanOrEqual(sum(orders.map((o) => sum(batch([o], cart, at).lengths))) + 1e-6);
        expect(first).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 60 },
    );
  });

  it('are the shortest there are where few orders are shared out', () => {
    fc.assert(
      fc.property(cases(5), ({ floor, depot, cart, orders }) => {
        const meter = openMeter(mapFloor(floor), depot, depot);
        const least = shortestOfAll(orders, cart, (run) => meter.length(run.map((o) => meter.load(o.stops))));
        const found = batch(orders, cart, { floor, start: depot, finish: depot });
        expect(sum(found.lengths)).toBeCloseTo(least);
      }),
      { numRuns: 40 },
    );
  });

  const floor: Floor = { aisles: [0, 5, 10, 15].map((x, i) => ({ id: 'ABCD'[i]!, x })), crossAisles: [0, 20] };
  const depot = { aisle: 'A', y: 0 };
  const at = { floor, start: depot, finish: depot };
  const order = (id: string, aisle: string, more: Partial<BatchOrder> = {}): BatchOrder => ({
    id,
    priority: 5,
    stops: [{ id, aisle, y: 10 }],
    units: 1,
    weightG: 1,
    volumeCm3: 1,
    ...more,
  });

  it('share out orders whose bins nobody can walk to all the same', () => {
    // Every aisle leads up only: whoever goes in does not come back to the depot.
    const oneWay: Floor = { ...floor, aisles: floor.aisles.map((a) => ({ ...a, oneWay: 'up' as const })) };
    const orders = ['A', 'B', 'C'].map((aisle, i) => order(`o${i}`, aisle));
    const { runs } = batch(orders, { positions: 2 }, { ...at, floor: oneWay });
    expect(faultsOf(orders, { positions: 2 }, runs)).toEqual([]);
  });

  it('give the same answer for the same seed, put neighbours together, and take orders as they come when asked', () => {
    const orders = ['A', 'D', 'B', 'D', 'A', 'C'].map((aisle, i) => order(`o${i}`, aisle));
    const once = batch(orders, { positions: 2 }, at, { seed: 4 });
    expect(batch(orders, { positions: 2 }, at, { seed: 4 })).toEqual(once);
    expect(once.runs.map((r) => r.join(' ')).sort()).toEqual(['o0 o4', 'o1 o3', 'o2 o5']);
    expect(batch(orders, { positions: 2 }, at, { method: 'first-come' }).runs).toEqual([
      ['o0', 'o1'],
      ['o2', 'o3'],
      ['o4', 'o5'],
    ]);
    expect(() => batch([], { positions: 0 }, at)).toThrow('received 0');
  });

  it('keep a departure that one long run would miss, and share the work of a crew evenly', () => {
    const crew = { people: 1, speed: 1, perRun: 10 };
    // One run of both takes 105 s; the truck for the far one waits 65.
    const orders = [order('near', 'C', { handling: 20 }), order('far', 'D', { due: 65, handling: 5 })];
    expect(batch(orders, { positions: 2 }, at, {}).runs).toEqual([['near', 'far']]);
    const apart = batch(orders, { positions: 2 }, at, { crew });
    expect(apart.runs).toHaveLength(2);
    const timed = timesOf(
      [
        { orders: [0], metres: 40 },
        { orders: [1], metres: 50 },
      ],
      orders,
      crew,
    );
    expect(timed).toEqual([
      { run: 1, person: 0, begins: 0, ends: 65 },
      { run: 0, person: 0, begins: 65, ends: 135 },
    ]);
    const many = ['A', 'A', 'A', 'A', 'B', 'B', 'C', 'D'].map((aisle, i) => order(`o${i}`, aisle, { handling: 40 }));
    const ends = (people: number) => {
      const { runs, lengths } = batch(many, { positions: 8 }, at, { crew: { ...crew, people } });
      const timed = timesOf(
        runs.map((r, i) => ({ orders: r.map((id) => Number(id.slice(1))), metres: lengths[i]! })),
        many,
        { ...crew, people },
      );
      return Math.max(...timed.map((t) => t.ends));
    };
    expect(ends(2)).toBeLessThan(0.7 * ends(1));
    // A handful of small orders from one aisle stays one trip, however many people are there.
    const few = [0, 1, 2].map((i) => order(`f${i}`, 'A', { handling: 3 }));
    expect(batch(few, { positions: 8 }, at, { crew: { people: 9, speed: 1, perRun: 45 } }).runs).toHaveLength(1);
  });
});
