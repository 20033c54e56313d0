import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const planner = (input: unknown, ...args: string[]) =>
  spawnSync(process.execPath, [fileURLToPath(new URL('../../bin/planner.mjs', import.meta.url)), ...args], {
    input: typeof input === 'string' ? input : JSON.stringify(input),
    encoding: 'utf8',
  });
const order = (id: string, units: number, more = {}) => ({
  id,
  shipDate: '2026-03-02',
  lines: [{ id: '1', item: 'i1', units }],
  ...more,
});
const asked = {
  supply: [
    { item: 'i1', lot: 'L2', bestBefore: '2026-04-20', units: 4 },
    { item: 'i1', lot: 'L1', bestBefore: '2026-03-20', units: 3 },
    { item: 'i1', lot: 'L2', bestBefore: '2026-04-20', units: 2 },
  ],
  orders: [order('big', 8, { priority: 1 }), order('a', 4, { shipComplete: true }), order('b', 4)],
};

describe('the planner on the command line', () => {
  it('answers one document with one, under each policy', () => {
    const ask = (policy: string) =>
      JSON.parse(planner({ ...asked, policy }, 'allocate').stdout) as Record<string, unknown>;
    const lots = (first: number, second: number) => [
      { lot: 'L1', units: first },
      { lot: 'L2', units: second },
    ];
    expect(ask('priority')).toEqual({
      lines: [
        { order: 'big', line: '1', units: 8, lots: lots(3, 5) },
        { order: 'a', line: '1', units: 0, lots: [] },
        { order: 'b', line: '1', units: 1, lots: [{ lot: 'L2', units: 1 }] },
      ],
      ordersComplete: 1,
      unitsAllocated: 9,
    });
    expect(ask('most-orders')).toMatchObject({ ordersComplete: 2, unitsAllocated: 9, bound: 2 });
    expect(ask('fair-share')).toMatchObject({
      lines: [{ units: 6 }, { units: 0 }, { units: 3 }],
      ordersComplete: 0,
    });
    expect(JSON.parse(planner({ supply: [], orders: [], policy: 'most-orders' }, 'allocate').stdout)).toEqual({
      lines: [],
      ordersComplete: 0,
      unitsAllocated: 0,
      bound: 0,
    });
  });

  it('walks a floor of aisles, in the time it is given, and says what its documents look like', () => {
    const floor = {
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 4, oneWay: 'up' },
      ],
      crossAisles: [0, 20],
    };
    const depot = { aisle: 'A', y: 0 };
    const stops = Array.from({ length: 30 }, (_, i) => ({ id: `s${i}`, aisle: i % 2 ? 'A' : 'B', y: (i * 7) % 20 }));
    const done = planner({ floor, start: depot, finish: depot, stops, seconds: 0.2 }, 'route');
    expect(JSON.parse(done.stdout)).toMatchObject({
      distance: 48,
      proven: true,
      sequence: expect.arrayContaining(['s0', 's29']) as unknown,
    });
    const schema = JSON.parse(planner('', 'schema', 'batch').stdout) as {
      request: { properties: object };
      result: { properties: object };
    };
    expect(Object.keys(schema.request.properties)).toEqual(
      expect.arrayContaining(['floor', 'cart', 'orders', 'method', 'seconds', 'seed']),
    );
    expect(Object.keys(schema.result.properties)).toEqual(['distance', 'runs']);
  });

  it.each([
    ['{', ['allocate'], 'document: must be JSON'],
    [asked, ['allocate'], 'policy: must be one of priority, fair-share, most-orders'],
    [{ ...asked, policy: 'priority', polcy: 1 }, ['allocate'], 'polcy: is not a field of this document'],
    [
      { ...asked, policy: 'priority', orders: [order('a', 1.5)] },
      ['allocate'],
      'orders[0].lines[0].units: must be a whole',
    ],
    [
      { ...asked, policy: 'priority', orders: [order('a', 1), order('a', 2)] },
      ['allocate'],
      'orders[1].id: must not be there twice',
    ],
    [
      { ...asked, policy: 'priority', supply: [...asked.supply, { item: 'i1', lot: 'L1', units: 1 }] },
      ['allocate'],
      'supply[3].bestBefore: must be the same in every row of lot L1',
    ],
    ['{}', ['walk'], 'verb: must be one of route, batch, allocate, cartonise, palletise, fixed, estimate'],
    ['{}', ['schema', 'walk'], 'verb: must be one of route'],
  ])('refuses %#: exit 2, one line that names the field, nothing answered', (input, args, message) => {
    const done = planner(input, ...args);
    expect({ status: done.status, stdout: done.stdout, lines: done.stderr.trim().split('\n').length }).toEqual({
      status: 2,
      stdout: '',
      lines: 1,
    });
    expect(done.stderr).toContain(message);
  });
});
