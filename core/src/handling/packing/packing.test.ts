import fc from 'fast-check';
import {
  commandCode,
  judgePack,
  packCommand,
  packCommands,
  packSteps,
  proposeCarton,
  withInHand,
  type BenchState,
  type OpenCarton,
  type PackInput,
} from './index.ts';

const item = (id: string, gtin: string, more: object = {}) => ({
  id,
  sku: id,
  name: id,
  packs: [
    { gtin, level: 'unit' as const, units: 1 },
    // An indicator of 1 in place of 0 makes the check digit 3 less, modulo 10.
    { gtin: `1${gtin.slice(1, -1)}${(Number(gtin.at(-1)) + 7) % 10}`, level: 'inner' as const, units: 6 },
  ],
  tracksLot: false,
  tracksSerial: false,
  group: null,
  ...more,
});
const jar = item('jar', '09521234001010');
const paste = item('paste', '09521234001027', { tracksLot: true, group: 'food' });
const acid = item('acid', '09521234001034', { group: 'acid' });
const meter = item('meter', '09521234001041', { tracksSerial: true });

const cartonOf = (more: Partial<OpenCarton> = {}): OpenCarton => ({
  id: 'c1',
  typeCode: 'BOX-S',
  number: 1,
  sscc: null,
  weight: { expectedG: 500, toleranceG: 40, measuredG: null },
  contents: [],
  ...more,
});
const one = (name: string, group: string | null = null) => [{ item: name, name, group, units: 1 }];
const state = (more: Partial<BenchState> = {}): BenchState => ({
  loose: [
    { item: jar, lot: null, serial: null, units: 8 },
    { item: paste, lot: 'L1', serial: null, units: 2 },
    { item: paste, lot: 'L2', serial: null, units: 1 },
    { item: acid, lot: null, serial: null, units: 1 },
    { item: meter, lot: null, serial: 'S1', units: 1 },
    { item: meter, lot: null, serial: 'S2', units: 1 },
  ],
  carton: cartonOf(),
  others: [],
  weighing: 'optional',
  boxes: [{ code: 'BOX-S', name: 'Small' }],
  toLane: null,
  lanes: ['LANE-1', 'LANE-2'],
  ...more,
});
const scan = (text: string): PackInput => ({ kind: 'scan', text });
const judge = (input: PackInput, more?: Partial<BenchState>) => judgePack(state(more), input, 2026);

describe('the bench', () => {
  it('gives up an empty carton by the close command, and takes another type in its place', () => {
    expect(judge(scan('DO-CLOSE'))).toEqual({ verdict: 'discard' });
    expect(judge(scan('BOX-S'))).toEqual({ verdict: 'open', box: 'BOX-S' });
  });

  it('takes the number from the sheet of quantities that was scanned before an item', () => {
    const jars = [{ item: jar, lot: null, serial: null, units: 8 }];
    const put = (units: number) => ({ verdict: 'put', item: 'jar', moves: [{ lot: null, serial: null, units }] });
    const times = (text: string, count: number | null, more?: Partial<BenchState>) =>
      judge({ kind: 'scan', text, times: count }, more);
    // Where only one sort of goods waits, the number alone says it all.
    expect(judge(scan('COUNT-5'), { loose: jars })).toEqual(put(5));
    expect(judge(scan('COUNT-ALL'), { loose: jars })).toEqual(put(8));
    expect(judge(scan('COUNT-9'), { loose: jars })).toMatchObject({ code: 'surplus', units: 8 });
    expect(judge(scan('COUNT-0'), { loose: jars })).toMatchObject({ code: 'not-a-count' });
    expect(judge(scan('COUNT-5'))).toMatchObject({ code: 'count-of-which', units: 5 });
    expect(judge(scan('COUNT-5'), { loose: [] })).toMatchObject({ code: 'nothing-to-pack' });
    expect(times('09521234001010', 5)).toEqual(put(5));
    expect(times('09521234001010', null)).toEqual(put(8));
    // An inner pack of six, once.
    expect(times('19521234001017', 1)).toEqual(put(6));
    expect(times('(01)09521234001027(10)L1', null)).toMatchObject({ moves: [{ lot: 'L1', units: 2 }] });
    // A serial number is one unit.
    expect(times('S1', 1)).toMatchObject({ verdict: 'put' });
    expect(times('S1', 2)).toMatchObject({ code: 'surplus' });
    expect(times('09521234001041', null)).toMatchObject({ code: 'which-serial' });
  });

  it('opens, fills and closes a carton by scans alone', () => {
    expect(judge(scan('BOX-S'), { carton: null })).toEqual({ verdict: 'open', box: 'BOX-S' });
    expect(judge(scan('09521234001010'))).toEqual({
      verdict: 'put',
      item: 'jar',
      moves: [{ lot: null, serial: null, units: 1 }],
    });
    expect(judge(scan('(01)09521234001027(10)L2'))).toEqual({
      verdict: 'put',
      item: 'paste',
      moves: [{ lot: 'L2', serial: null, units: 1 }],
    });
    expect(judge(scan('S2'))).toEqual({
      verdict: 'put',
      item: 'meter',
      moves: [{ lot: null, serial: 'S2', units: 1 }],
    });
    expect(judge({ kind: 'put', item: 'jar', lot: null, units: 8 })).toMatchObject({
      verdict: 'put',
      moves: [{ units: 8 }],
    });
    expect(
      judge(scan('DO-CLOSE'), {
        carton: cartonOf({ contents: one('jar') }),
      }),
    ).toEqual({ verdict: 'close', reason: null });
  });

  it.each<[string, PackInput, Partial<BenchState> | undefined, string]>([
    ['goods before a carton', scan('09521234001010'), { carton: null }, 'carton-first'],
    ['another carton where there is none', scan('DO-OTHER'), undefined, 'only-carton'],
    ['the number of a carton that is not open here', scan('395212340000000014'), undefined, 'no-item'],
    ['a carton for nothing', scan('BOX-S'), { carton: null, loose: [] }, 'nothing-to-pack'],
    ['a carton nobody has', scan('BOX-Q'), { carton: null }, 'unknown-carton'],
    ["another order's goods", scan('09521234009993'), undefined, 'not-this-order'],
    ['more than was picked', { kind: 'put', item: 'jar', lot: null, units: 9 }, undefined, 'surplus'],
    [
      'acid beside food',
      scan('09521234001034'),
      {
        carton: cartonOf({ contents: one('paste', 'food') }),
      },
      'keep-apart',
    ],
    ['goods of two lots without saying which', scan('09521234001027'), undefined, 'which-lot'],
    ['a lot that was not picked', scan('(01)09521234001027(10)L9'), undefined, 'wrong-lot'],
    ['a serial item without its serial', scan('09521234001041'), undefined, 'which-serial'],
    ['a serial that was not picked', scan('(01)09521234001041(21)S9'), undefined, 'wrong-serial'],
    ['closing no carton', scan('DO-CLOSE'), { carton: null }, 'nothing-to-close'],
    ['a code nobody knows', scan('hello'), undefined, 'no-item'],
    ['a count of nothing', { kind: 'put', item: 'jar', lot: null, units: 0 }, undefined, 'not-a-count'],
  ])('refuses %s', (_, input, more, code) => expect(judge(input, more)).toMatchObject({ verdict: 'refused', code }));
});

describe('several cartons and their weight', () => {
  const full = cartonOf({ contents: one('jar') });
  const [second, third] = [
    cartonOf({ id: 'c2', number: 2 }),
    cartonOf({ id: 'c3', number: 3, sscc: '395212340000000014' }),
  ];

  it('opens one beside another that holds goods, and takes them in hand in turn or by their numbers', () => {
    expect(judge(scan('BOX-S'), { carton: full })).toEqual({ verdict: 'open', box: 'BOX-S' });
    const turn = (carton: OpenCarton, others: OpenCarton[]) => judge(scan('DO-OTHER'), { carton, others });
    expect(turn(second, [third, full])).toMatchObject({ verdict: 'take', carton: 'c3' });
    expect(turn(third, [second, full])).toMatchObject({ verdict: 'take', carton: 'c1' });
    expect(judge(scan('395212340000000014'), { carton: full, others: [third] })).toMatchObject({ carton: 'c3' });
    const bench = withInHand(state({ carton: full, others: [second, third] }), 'c2');
    expect([bench.carton, bench.others]).toEqual([second, [third, full]]);
    // One that is closed meanwhile is not in hand any more: the bench's own is.
    expect(withInHand(bench, 'gone').carton).toBe(second);
  });

  const weighed = (measuredG: number | null, weighing: BenchState['weighing'] = 'optional') => ({
    carton: cartonOf({ contents: one('jar'), weight: { expectedG: 500, toleranceG: 40, measuredG } }),
    weighing,
  });

  it('closes by a weight that is expected, else only with a reason', () => {
    expect(judge({ kind: 'weigh', grams: 540 })).toEqual({ verdict: 'weigh', grams: 540, asExpected: true });
    expect(judge({ kind: 'weigh', grams: 541 })).toMatchObject({ asExpected: false });
    expect(judge({ kind: 'weigh', grams: -3 })).toMatchObject({ code: 'not-a-weight', got: '-3' });
    expect(judge(scan('DO-CLOSE'), weighed(540))).toEqual({ verdict: 'close', reason: null });
    const off = { verdict: 'refused', code: 'weight-off', expected: '500', got: '541', units: 40 };
    expect(judge(scan('DO-CLOSE'), weighed(541))).toEqual(off);
    expect(judge(scan('DO-COUNTED'), weighed(541))).toEqual({ verdict: 'close', reason: 'counted' });
    expect(judge({ kind: 'close', reason: 'scale' }, weighed(100))).toEqual({ verdict: 'close', reason: 'scale' });
    // Where the weight is as expected there is nothing to give a reason for.
    expect(judge({ kind: 'close', reason: 'scale' }, weighed(500))).toEqual({ verdict: 'close', reason: null });
  });

  it('is weighed first where the site wants it always', () => {
    expect(judge(scan('DO-CLOSE'), weighed(null, 'always'))).toMatchObject({ code: 'weigh-first' });
    expect(judge(scan('DO-COUNTED'), weighed(null, 'always'))).toMatchObject({ code: 'weigh-first' });
    expect(judge(scan('DO-CLOSE'), weighed(null))).toEqual({ verdict: 'close', reason: null });
  });
});

/** What the bench would do with a verdict: the state that comes after it. */
function after(before: BenchState, input: PackInput): BenchState {
  const verdict = judgePack(before, input, 2026);
  if (verdict.verdict === 'open') return { ...before, carton: cartonOf({ typeCode: verdict.box }) };
  if (verdict.verdict === 'close' || verdict.verdict === 'discard') return { ...before, carton: null };
  if (verdict.verdict !== 'put') return before;
  const loose = before.loose
    .map((l) => {
      if (l.item.id !== verdict.item) return l;
      const taken = verdict.moves.filter((m) => m.lot === l.lot && m.serial === l.serial);
      return { ...l, units: l.units - taken.reduce((n, m) => n + m.units, 0) };
    })
    .filter((l) => l.units > 0);
  const { name, group } = before.loose.find((l) => l.item.id === verdict.item)!.item;
  const units = verdict.moves.reduce((n, m) => n + m.units, 0);
  const carton = before.carton!;
  return {
    ...before,
    loose,
    carton: { ...carton, contents: [...carton.contents, { item: verdict.item, name, group, units }] },
  };
}

describe('whatever is scanned at the bench', () => {
  const code = fc.constantFrom(
    ...[
      'BOX-S',
      'BOX-Q',
      'DO-CLOSE',
      'DO-DANCE',
      '09521234001010',
      '19521234001010',
      '09521234001027',
      'S1',
      'S2',
      'S9',
    ],
    ...[
      '(01)09521234001027(10)L1',
      '(01)09521234001027(10)L2',
      '09521234001034',
      '(01)09521234001041(21)S1',
      'hello',
      'CART-01',
    ],
  );
  const total = (of: BenchState) => of.loose.reduce((n, l) => n + l.units, 0);

  it('no unit is packed that was not picked, and never acid beside food', () => {
    fc.assert(
      fc.property(fc.array(code, { maxLength: 40 }), (codes) => {
        let at = state({ carton: null });
        let packed = 0;
        for (const text of codes) {
          const next = after(at, scan(text));
          packed += total(at) - total(next);
          expect(next.loose.every((l) => l.units > 0)).toBe(true);
          expect(packed + total(next)).toBe(total(state()));
          const groups = new Set(next.carton?.contents.map((c) => c.group).filter(Boolean));
          expect(groups.size).toBeLessThanOrEqual(1);
          at = next;
        }
      }),
    );
  });
});

describe('the carton proposed', () => {
  const types = [
    { code: 'S', inner: [300, 200, 150] as [number, number, number], tareG: 100, maxWeightG: 5000 },
    { code: 'L', inner: [600, 400, 300] as [number, number, number], tareG: 500, maxWeightG: 20_000 },
  ];
  it('is the smallest that should take all, the largest when one is not enough, none for a piece too big', () => {
    expect(proposeCarton(types, [{ size: [100, 100, 100], weightG: 500, units: 2 }])?.code).toBe('S');
    expect(proposeCarton(types, [{ size: [100, 100, 100], weightG: 3000, units: 2 }])?.code).toBe('L');
    expect(proposeCarton(types, [{ size: [100, 100, 100], weightG: 10, units: 900 }])?.code).toBe('L');
    // Their volume is little more than half of the small one, but no two of them stand in it.
    expect(proposeCarton(types, [{ size: [160, 160, 140], weightG: 10, units: 2 }])?.code).toBe('L');
    // Three that fill it to the brim are no more than it takes.
    expect(proposeCarton(types, [{ size: [100, 200, 150], weightG: 10, units: 3 }])?.code).toBe('S');
    expect(proposeCarton(types, [{ size: [700, 100, 100], weightG: 10, units: 1 }])).toBeUndefined();
    expect(proposeCarton(types, [])).toBeUndefined();
  });

  it('always takes each single piece by size and weight', () => {
    const side = fc.integer({ min: 1, max: 700 });
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            size: fc.tuple(side, side, side),
            weightG: fc.integer({ min: 1, max: 25_000 }),
            units: fc.integer({ min: 1, max: 9 }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        (goods) => {
          const type = proposeCarton(types, goods);
          if (!type) return;
          const inner = [...type.inner].sort((a, b) => a - b);
          for (const g of goods) {
            expect(g.weightG).toBeLessThanOrEqual(type.maxWeightG);
            [...g.size].sort((a, b) => a - b).forEach((s, i) => expect(s).toBeLessThanOrEqual(inner[i]!));
          }
        },
      ),
    );
  });
});

describe('what a packer does next', () => {
  const places = ['jar', 'jar', 'tin', 'jar'].map((item) => ({ item }));

  it('follows the places of the plan, whichever unit was put in', () => {
    expect(packSteps(places, new Map())).toEqual({
      steps: [
        { item: 'jar', inside: 0, of: 3 },
        { item: 'tin', inside: 0, of: 1 },
      ],
      filled: [false, false, false, false],
      next: 0,
    });
    const two = packSteps(places, new Map([['jar', 2]]));
    expect([two.filled, two.next]).toEqual([[true, true, false, false], 2]);
    const ahead = packSteps(places, new Map([['tin', 1]]));
    expect([ahead.filled, ahead.next]).toEqual([[false, false, true, false], 0]);
    // More than was foreseen for this carton changes nothing in its places.
    expect(
      packSteps(
        places,
        new Map([
          ['jar', 5],
          ['tin', 1],
        ]),
      ).next,
    ).toBeNull();
  });
});

it('reads the commands of the sheet as they are printed, and nothing else', () => {
  for (const command of packCommands) expect(packCommand(` ${commandCode(command).toLowerCase()} `)).toBe(command);
  expect(packCommand('DO-SOMETHING')).toBeNull();
  expect(packCommand('BOX-M')).toBeNull();
});

it('confirms closed cartons in their lane, and in no other', () => {
  const toLane = { lane: 'LANE-2', cartons: [1, 2].map((number) => ({ id: `c${number}`, number })) };
  expect(judge(scan(' lane-2 '), { toLane })).toEqual({ verdict: 'stand', lane: 'LANE-2', cartons: ['c1', 'c2'] });
  expect(judge(scan('LANE-1'), { toLane })).toMatchObject({ code: 'other-lane', expected: 'LANE-2', got: 'LANE-1' });
  expect(judge(scan('LANE-2'))).toMatchObject({ code: 'nothing-for-lane', got: 'LANE-2' });
});
