import { openSolver, type Solver } from '../solver/index.ts';
import { PlannerError, schemasOf, verbs } from './index.ts';

const floor = {
  aisles: [
    { id: 'B', x: 5 },
    { id: 'A', x: 0 },
  ],
  crossAisles: [0, 23, 46],
};
const depot = { aisle: 'A', y: 0 };
const stop = (id: string, aisle: string, y: number, more = {}) => ({ id, aisle, y, ...more });
let solver: Solver;
beforeAll(async () => (solver = await openSolver()));
const ask = <T = Record<string, unknown>>(verb: string, document: unknown) => {
  const { run, result } = verbs[verb]!;
  const answer = run(document, { solver, now: () => 0 });
  // The answer is what the exported schema says.
  expect(result.safeParse(answer).error).toBeUndefined();
  return answer as T;
};
const refused = (verb: string, document: unknown) => {
  try {
    ask(verb, document);
  } catch (error) {
    if (error instanceof PlannerError) return error.message;
    throw error;
  }
  return null;
};

describe('the planner: route', () => {
  const stops = [stop('s1', 'A', 12.5), stop('s2', 'B', 30)];
  const asked = { floor, start: depot, finish: depot, stops };

  it('answers the shortest walk with its bound, or the walk of a rule beside the same bound', () => {
    const best = ask<{ distance: number }>('route', asked);
    expect(best).toEqual({
      distance: 70,
      sequence: expect.arrayContaining(['s1', 's2']),
      path: expect.arrayContaining([
        [0, 0],
        [5, 30],
      ]),
      lowerBound: 70,
      proven: true,
      method: 'best',
    });
    expect(ask('route', { ...asked, method: 'return' })).toMatchObject({ lowerBound: 70, method: 'return' });
    expect(ask('route', { ...asked, method: 'serpentine', stops: [] })).toMatchObject({
      distance: 0,
      path: [[0, 0]],
      proven: true,
    });
    expect(ask('route', { ...asked, stops: [], finish: { aisle: 'B', y: 2 } })).toMatchObject({
      distance: 7,
      path: [
        [0, 0],
        [5, 0],
        [5, 2],
      ],
    });
  });

  it.each([
    [{ ...asked, start: { aisle: 'Q', y: 0 } }, 'start.aisle: must be an aisle of the floor, and Q is none'],
    [{ ...asked, stops: [stop('s1', 'A', 47)] }, 'stops[0].y: must lie between 0 and 46'],
    [{ ...asked, stops: [stop('s1', 'A', 1), stop('s1', 'B', 1)] }, 'stops[1].id: must not be there twice'],
    [{ ...asked, stops: [{ id: 's1', aisle: 'A', y: '4' }] }, 'stops[0].y: must be a number'],
    [{ ...asked, method: 'spiral' }, 'method: must be one of best, serpentine, return, largest-gap, midpoint'],
    [{ ...asked, method: 'return', start: { aisle: 'A', y: 4 } }, 'method: start must lie at a cross aisle'],
    [{ ...asked, floor: { ...floor, crossAisles: [0] } }, 'floor.crossAisles: must be two at least'],
    [{ ...asked, floor: { ...floor, crossAisles: [0, 9, 9] } }, 'floor.crossAisles[2]: must be more'],
    [
      { ...asked, floor: { ...floor, aisles: [...floor.aisles, { id: 'A', x: 9 }] } },
      'floor.aisles[2].id: must not be there twice',
    ],
    [{ ...asked, floor: { ...floor, blocked: [] } }, 'floor.blocked: is not a field'],
    [
      {
        ...asked,
        floor: { ...floor, aisles: [{ id: 'A', x: 0, oneWay: 'up' }] },
        stops: [stop('s1', 'A', 9)],
        start: { aisle: 'A', y: 20 },
        finish: { aisle: 'A', y: 46 },
      },
      'stops[0]: must be reachable and left again, and s1 is not',
    ],
    [
      {
        ...asked,
        floor: { ...floor, aisles: [{ id: 'A', x: 0, oneWay: 'up' }] },
        stops: [],
        start: { aisle: 'A', y: 9 },
        finish: depot,
      },
      'finish: must be reachable from the start',
    ],
  ])('refuses %#', (document, message) => expect(refused('route', document)).toContain(message));
});

describe('the planner: batch', () => {
  const order = (id: string, aisle: string, more = {}) => ({
    id,
    stops: [stop(`${id}-1`, aisle, 12.5, { units: 2, ...more })],
  });
  const asked = {
    floor,
    start: depot,
    finish: depot,
    cart: { positions: 2 },
    orders: [order('o1', 'A'), order('o2', 'B'), order('o3', 'A')],
  };

  it('shares orders among runs and gives the best route of each', () => {
    const best = ask<{ distance: number; runs: { orders: string[] }[] }>('batch', asked);
    expect(best.runs.map((r) => r.orders.join(' ')).sort()).toEqual(['o1 o3', 'o2']);
    expect(best.distance).toBe(25 + 35);
    const first = ask<{ distance: number; runs: { orders: string[]; sequence: string[] }[] }>('batch', {
      ...asked,
      method: 'first-come',
    });
    expect(first.runs).toEqual([
      { orders: ['o1', 'o2'], distance: 56, sequence: expect.arrayContaining(['o1-1', 'o2-1']) },
      { orders: ['o3'], distance: 25, sequence: ['o3-1'] },
    ]);
    expect(ask('batch', { ...asked, orders: [] })).toEqual({ distance: 0, runs: [] });
    const one = ask<{ runs: unknown[] }>('batch', { ...asked, cart: { positions: 9, maxUnits: 3 } });
    expect(one.runs).toHaveLength(3);
  });

  it.each([
    [{ ...asked, cart: { positions: 0 } }, 'cart.positions: must be 1 or more'],
    [{ ...asked, cart: { positions: 2, maxUnits: 1 } }, 'orders[0]: must fit the cart by itself, and o1 does not'],
    [{ ...asked, orders: [order('o1', 'A'), order('o1', 'B')] }, 'orders[1].id: must not be there twice'],
    [{ ...asked, orders: [order('o1', 'C')] }, 'orders[0].stops[0].aisle: must be an aisle of the floor'],
    [
      { ...asked, orders: [{ id: 'o1', stops: [stop('a', 'A', 1), stop('a', 'A', 2)] }] },
      'orders[0].stops[1].id: must not',
    ],
    [{ ...asked, orders: [order('o1', 'A', { weigth: 3 })] }, 'orders[0].stops[0].weigth: is not a field'],
  ])('refuses %#', (document, message) => expect(refused('batch', document)).toContain(message));
});

describe('the planner: fixed and estimate', () => {
  it('counts pallets and cartons of a pack rule', () => {
    const rule = { item: 'i1', perCarton: 12, perPallet: 60 };
    expect(ask('fixed', { rule, units: 130 })).toEqual({ pallets: 3, fullPallets: 2, cartons: 11, rest: 10 });
    expect(ask('fixed', { rule, units: 0 })).toEqual({ pallets: 0, fullPallets: 0, cartons: 0, rest: 0 });
    expect(refused('fixed', { rule: { ...rule, perPallet: 50 }, units: 1 })).toContain(
      'rule.perPallet: must be a multiple',
    );
    expect(refused('fixed', { rule, units: -1 })).toContain('units: must be 0 or more');
  });

  const run = { id: 'r1', distance: 402, stops: 14, scans: 30, drops: 16, units: { easy: 25, heavy: 2 } };
  const asked = {
    speed: 1.2,
    standards: { perRun: 45, perStop: 6, perUnit: { easy: 2.5, heavy: 6 }, perScan: 1.5, perDrop: 3 },
    runs: [run],
  };
  it('estimates a run by the standards, roughly where its walk is not known yet', () => {
    expect(ask('estimate', asked)).toEqual({ runs: [{ id: 'r1', seconds: 631.5, walk: 335, handling: 296.5 }] });
    const { distance: _, ...unwalked } = run;
    const [rough] = ask<{ runs: { rough: boolean; walk: number; handling: number }[] }>('estimate', {
      ...asked,
      floor,
      runs: [unwalked],
    }).runs;
    expect(rough).toMatchObject({ rough: true, handling: 296.5 });
    // Two aisles of 46 m with fourteen stops: hardly less than both walked through, and no more than both twice.
    expect(rough!.walk * 1.2).toBeGreaterThan(80);
    expect(rough!.walk * 1.2).toBeLessThan(190);
    expect(refused('estimate', { ...asked, runs: [unwalked] })).toContain('floor: must be given');
    expect(refused('estimate', { ...asked, runs: [{ id: 'r1' }] })).toContain('runs[0].stops: must be given');
    expect(refused('estimate', { ...asked, runs: [{ ...run, units: { odd: 1 } }] })).toContain(
      'runs[0].units.odd: must be a class',
    );
  });
});

it('exports what every verb reads and writes as JSON Schema', () => {
  expect(Object.keys(verbs)).toEqual(['route', 'batch', 'allocate', 'cartonise', 'palletise', 'fixed', 'estimate']);
  for (const verb of Object.values(verbs))
    expect(schemasOf(verb)).toMatchObject({
      request: { type: 'object', additionalProperties: false },
      result: { type: 'object' },
    });
});
