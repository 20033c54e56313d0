import fc from 'fast-check';
import { mapFloor } from '../floor/index.ts';
import { anyFloor, placeOn } from '../floor/arbitraries.ts';
import { openMeter } from '../routing/index.ts';
import { clusters } from './clusters.ts';
import { firstCome, lengthOf, prepare, savings, type Prepared } from './construct.ts';
import { forCrew, leastWalk, timesOf, type GoalRun } from './goal.ts';
import { neighbours } from './near.ts';
import { fits, nothingWeighed, weigh, type BatchOrder, type CartLimits } from './problem.ts';

const orders = (floor: Parameters<typeof placeOn>[0], most: number): fc.Arbitrary<BatchOrder[]> =>
  fc
    .array(
      fc.record({
        stops: fc.array(
          placeOn(floor).map((p) => ({ ...p, id: 's' })),
          { minLength: 1, maxLength: 3 },
        ),
        units: fc.integer({ min: 1, max: 20 }),
        priority: fc.integer({ min: 1, max: 5 }),
        due: fc.option(fc.integer({ min: 1, max: 500 })),
        handling: fc.integer({ min: 0, max: 60 }),
      }),
      { minLength: 1, maxLength: most },
    )
    .map((list) => list.map((o, i) => ({ ...o, id: String(i), weightG: 0, volumeCm3: 0 })));
const gauged = ({ load, length }: ReturnType<typeof openMeter>) => ({ load, gauge: length });
const prepared = (most: number): fc.Arbitrary<Prepared> =>
  anyFloor.chain((floor) =>
    fc
      .record({
        depot: placeOn(floor),
        list: orders(floor, most),
        maxUnits: fc.integer({ min: 20, max: 60 }),
        positions: fc.integer({ min: 1, max: 5 }),
      })
      .map(({ depot, list, ...cart }) => prepare(list, cart, gauged(openMeter(mapFloor(floor), depot, depot)))),
  );

/** Savings as they are told, every pair weighed again at every step: the lengths of all ways to break ties. */
function plainly(problem: Prepared): number[] {
  const weight = (run: number[]) => run.reduce((w, o) => weigh(w, problem.weights[o]!), { ...nothingWeighed });
  const known = new Map<string, number[]>();
  const from = (runs: number[][]): number[] => {
    const key = runs
      .map((r) => [...r].sort().join())
      .sort()
      .join(' ');
    const before = known.get(key);
    if (before) return before;
    const pairs = runs.flatMap((a, i) =>
      runs
        .slice(i + 1)
        .filter((b) => fits(weigh(weight(a), weight(b)), problem.cart))
        .map((b) => ({ a, b, saved: lengthOf(problem, a) + lengthOf(problem, b) - lengthOf(problem, [...a, ...b]) })),
    );
    const most = Math.max(0, ...pairs.map((p) => p.saved));
    const best = pairs.filter((p) => p.saved > 1e-12 && p.saved > most - 1e-9);
    const sums =
      best.length === 0
        ? [runs.reduce((n, r) => n + lengthOf(problem, r), 0)]
        : best.flatMap(({ a, b }) => from([...runs.filter((r) => r !== a && r !== b), [...a, ...b]]));
    known.set(key, [...new Set(sums)]);
    return known.get(key)!;
  };
  return from(problem.orders.map((_, i) => [i]));
}

describe('ways to begin', () => {
  it('first come: a run is closed when the next order does not fit, and never opened again', () => {
    const order = (units: number, i: number): BatchOrder => ({
      id: String(i),
      priority: 5,
      stops: [],
      units,
      weightG: 0,
      volumeCm3: 0,
    });
    const cart: CartLimits = { positions: 3, maxUnits: 10 };
    const floor = { aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 5] };
    const meter = openMeter(mapFloor(floor), { aisle: 'A', y: 0 }, { aisle: 'A', y: 0 });
    const runs = (...units: number[]) => firstCome(prepare(units.map(order), cart, gauged(meter)));
    expect(runs(6, 5, 4, 1, 1, 1, 1)).toEqual([[0], [1, 2, 3], [4, 5, 6]]);
    expect(runs(20, 1)).toEqual([[0], [1]]);
    expect(runs()).toEqual([]);
  });

  it('savings: as short as by weighing every pair again at every step', () => {
    fc.assert(
      fc.property(prepared(7), (problem) => {
        const sum = savings(problem).reduce((n, r) => n + lengthOf(problem, r), 0);
        // Of pairs that save the same either may be joined first, and what follows may differ: any of them will do.
        const plain = plainly(problem);
        expect(plain.some((length) => Math.abs(length - sum) < 1e-6) ? sum : plain).toBe(sum);
      }),
      { numRuns: 300 },
    );
  });

  it('neighbours: never an order itself, and those with the same way first', () => {
    fc.assert(
      fc.property(prepared(12), (problem) => {
        const rows = [0, 10, 20];
        const near = neighbours(problem.loads, rows, 4);
        const cells = problem.loads.map(
          (load) =>
            new Set(load.flatMap((ys, c) => [...(ys ?? [])].map((y) => `${c} ${rows.findLastIndex((r) => r <= y)}`))),
        );
        const alike = (a: number, b: number) => {
          const shared = [...cells[a]!].filter((cell) => cells[b]!.has(cell)).length;
          return shared / (cells[a]!.size + cells[b]!.size - shared);
        };
        near.forEach((list, o) => {
          const others = cells.map((_, b) => b).filter((b) => b !== o && alike(o, b) > 0);
          const best = others.sort((a, b) => alike(o, b) - alike(o, a) || a - b).slice(0, 4);
          expect(list.map((b) => alike(o, b))).toEqual(best.map((b) => alike(o, b)));
          expect(list).not.toContain(o);
          expect(new Set(list).size).toBe(list.length);
          expect(list.length).toBeLessThanOrEqual(4);
        });
        // Every order is in one cluster.
        expect(
          clusters(problem, near)
            .flat()
            .sort((a, b) => a - b),
        ).toEqual(problem.orders.map((_, i) => i));
      }),
      { numRuns: 40 },
    );
  });
});

describe('what a way of batching costs', () => {
  const goalCases = fc.record({
    list: orders({ aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 9] }, 8),
    cut: fc.array(fc.nat(3), { minLength: 8, maxLength: 8 }),
    people: fc.integer({ min: 1, max: 3 }),
    move: fc.nat(7),
    to: fc.nat(3),
  });
  it('is told of a trial as if it were done', () => {
    fc.assert(
      fc.property(goalCases, ({ list, cut, people, move, to }) => {
        const metres = (o: number[]) => 10 * o.length + o.reduce((n, x) => n + x, 0);
        const run = (of: number[]): GoalRun => ({ orders: of, metres: of.length === 0 ? 0 : metres(of) });
        const runs = [0, 1, 2, 3]
          .map((r) => list.flatMap((_, i) => (cut[i] === r ? [i] : [])))
          .filter((r) => r.length > 0);
        const order = move % list.length;
        const from = runs.findIndex((r) => r.includes(order));
        const into = Math.min(to, runs.length);
        if (into === from) return;
        const a = run(runs[from]!.filter((o) => o !== order));
        const b = run([...(runs[into] ?? []), order]);
        const before = runs.map(run);
        const after = [...before];
        after[from] = a;
        after[into] = b;
        for (const goal of [leastWalk, forCrew(list, { people, speed: 1.2, perRun: 45 })])
          expect(goal(before, { from, to: into, a, b, cost: goal(before) })).toBeCloseTo(
            goal(after.filter((r) => r.orders.length > 0)),
          );
      }),
      { numRuns: 150 },
    );
  });

  it('has those walked first whose departure can hardly be made, before those that have time', () => {
    const order = (id: number, due: number | null): BatchOrder => ({
      id: String(id),
      priority: 5,
      stops: [],
      units: 1,
      weightG: 0,
      volumeCm3: 0,
      due,
    });
    const list = [order(0, null), order(1, 3600), order(2, 0), order(3, 60)];
    const timed = timesOf(
      list.map((_, i) => ({ orders: [i], metres: 10 })),
      list,
      { people: 1, speed: 1, perRun: 0 },
    );
    expect(timed.map((t) => t.run)).toEqual([2, 3, 1, 0]);
  });

  it('knows when each run is walked: nobody walks two at once, and nobody waits while there is a run', () => {
    fc.assert(
      fc.property(goalCases, ({ list, people }) => {
        const crew = { people, speed: 1, perRun: 5 };
        const timed = timesOf(
          list.map((_, i) => ({ orders: [i], metres: 7 * i })),
          list,
          crew,
        );
        expect(timed.map((t) => t.run).sort((a, b) => a - b)).toEqual(list.map((_, i) => i));
        for (const person of Array.from({ length: people }, (_, p) => p)) {
          const own = timed.filter((t) => t.person === person);
          own.forEach((t, i) => expect(t.begins).toBeCloseTo(i === 0 ? 0 : own[i - 1]!.ends));
        }
        // In the order of what leaves first.
        const dues = timed.map((t) => list[t.run]!.due ?? Infinity);
        expect(dues).toEqual([...dues].sort((a, b) => a - b));
      }),
      { numRuns: 100 },
    );
  });
});
