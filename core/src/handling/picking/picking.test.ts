import {
  usualSettings,
  type Check,
  type PickSettings,
  type Touching,
  type TouchReason,
} from '../../deciding/settings/index.ts';
import {
  atSameBin,
  awaited,
  freshProgress,
  judgePick,
  judgePutAway,
  positionCode,
  restOf,
  restProgress,
  type PickInput,
  type PickStep,
} from './index.ts';

const gtins = { unit: '09521234001010', inner: '19521234001017', other: '09521234001027' };
const base: PickStep = {
  id: 'p1',
  bin: 'B-07-2',
  item: {
    id: 'i1',
    sku: 'JR-001',
    name: 'Round jar',
    packs: [
      { gtin: gtins.unit, level: 'unit', units: 1 },
      { gtin: gtins.inner, level: 'inner', units: 12 },
    ],
    tracksLot: false,
    tracksSerial: false,
  },
  lot: null,
  serialsInBin: [],
  units: 14,
  position: { cart: 'CART-07', number: 3 },
  carton: null,
  how: usualSettings.picking.many,
  otherLots: [],
  elsewhere: [],
  bestBefore: null,
  stopped: null,
};
const lots: PickStep = { ...base, item: { ...base.item, tracksLot: true }, lot: 'A4802', units: 2 };
const stale: PickStep = { ...lots, bestBefore: '2026-05-31' };
const none = { kind: 'short', units: 0, reason: 'not-found' } as const;
const serials: PickStep = {
  ...base,
  item: { ...base.item, tracksSerial: true },
  serialsInBin: ['S1', 'S2', 'S3'],
  units: 2,
};

const scan = (text: string): PickInput => ({ kind: 'scan', text });

/** Runs inputs through the judge, as device and server do, and gives the last verdict. */
function run(step: PickStep, ...inputs: PickInput[]) {
  let progress = freshProgress;
  return inputs.map((input) => {
    const verdict = judgePick(step, progress, input, '2026-06-01');
    progress = verdict.progress;
    return verdict;
  });
}
const last = (step: PickStep, ...inputs: PickInput[]) => run(step, ...inputs).at(-1)!;

describe('a pick', () => {
  it('is done by bin, packs and position; packs count for what they hold', () => {
    const verdicts = run(
      base,
      scan('B-07-2'),
      scan(gtins.inner),
      scan(gtins.unit),
      scan(gtins.unit),
      scan('CART-07-3'),
    );
    expect(verdicts.map((v) => v.verdict)).toEqual(['accepted', 'accepted', 'accepted', 'accepted', 'done']);
    expect(verdicts.at(-1)).toMatchObject({ units: 14 });
  });

  it('is done by a link on the goods, which tells item, lot and count in one', () =>
    expect(
      last(
        lots,
        scan('B-07-2'),
        scan(`https://id.gs1.org/01/${gtins.unit}/10/A4802?15=270601&37=2`),
        scan('CART-07-3'),
      ),
    ).toMatchObject({ verdict: 'done', units: 2 }));

  it('is done by touch and a typed count', () =>
    expect(
      last(base, { kind: 'touch', what: 'bin' }, { kind: 'count', units: 14 }, { kind: 'touch', what: 'position' }),
    ).toMatchObject({ verdict: 'done', units: 14 }));

  it('takes lot and count from one GS1 symbol', () =>
    expect(last(lots, scan('B-07-2'), scan(`01${gtins.unit}10A4802\u001d372`), scan('CART-07-3'))).toMatchObject({
      verdict: 'done',
      units: 2,
      progress: { lot: true },
    }));

  it('asks for the lot where the symbol does not say it', () => {
    const verdicts = run(lots, scan('B-07-2'), { kind: 'count', units: 2 }, scan('A4802'), scan('CART-07-3'));
    expect(verdicts[1]).toMatchObject({ verdict: 'accepted' });
    expect(awaited(lots, verdicts[1]!.progress)).toEqual(['lot']);
    expect(verdicts[3]).toMatchObject({ verdict: 'done' });
  });

  it('counts every serial number once', () =>
    expect(last(serials, scan('B-07-2'), scan('S3'), scan(`01${gtins.unit}21S1`), scan('CART-07-3'))).toMatchObject({
      verdict: 'done',
      units: 2,
      progress: { serials: ['S3', 'S1'] },
    }));

  it.each<[string, PickStep, PickInput[], string]>([
    ['another bin', base, [scan('B-07-1')], 'wrong-bin'],
    ['another bin while counting', base, [scan('B-07-2'), scan('A-01-1')], 'wrong-bin'],
    ['the item before the bin', base, [scan(gtins.unit)], 'bin-first'],
    ['another item', base, [scan('B-07-2'), scan(gtins.other)], 'wrong-item'],
    ['the position before the item', base, [scan('B-07-2'), scan('CART-07-3')], 'item-first'],
    ['another position', base, [scan('B-07-2'), { kind: 'count', units: 14 }, scan('CART-07-4')], 'wrong-position'],
    [
      "another cart's position",
      base,
      [scan('B-07-2'), { kind: 'count', units: 14 }, scan('CART-08-3')],
      'wrong-position',
    ],
    ['a pack too many', base, [scan('B-07-2'), scan(gtins.inner), scan(gtins.inner)], 'surplus'],
    [
      'one more when all are counted',
      base,
      [scan('B-07-2'), { kind: 'count', units: 14 }, scan(gtins.unit)],
      'surplus',
    ],
    ['a count too large', base, [scan('B-07-2'), { kind: 'count', units: 15 }], 'surplus'],
    ['a count that is none', base, [scan('B-07-2'), { kind: 'count', units: 1.5 }], 'not-a-count'],
    ['another lot', lots, [scan('B-07-2'), scan(`01${gtins.unit}10B9`)], 'wrong-lot'],
    ['another lot, by itself', lots, [scan('B-07-2'), { kind: 'count', units: 2 }, scan('B9')], 'wrong-lot'],
    ['another lot before the count', lots, [scan('B-07-2'), scan('B9')], 'wrong-lot'],
    [
      'goods that are out of date by their own label',
      lots,
      [scan('B-07-2'), scan(`01${gtins.unit}17260531`)],
      'expired',
    ],
    ['a link to other goods', base, [scan('B-07-2'), scan('https://id.gs1.org/01/09506000134352')], 'wrong-item'],
    ['a serial number of another bin', serials, [scan('B-07-2'), scan('S9')], 'wrong-serial'],
    ['the same serial number again', serials, [scan('B-07-2'), scan('S1'), scan('S1')], 'repeated-serial'],
    ['a count where each is scanned', serials, [scan('B-07-2'), { kind: 'count', units: 2 }], 'serial-needed'],
    ['a code nobody knows', base, [scan('hello')], 'unknown-code'],
    ['a touch out of turn', base, [{ kind: 'touch', what: 'position' }], 'not-awaited'],
    ['a lane at the position', base, [scan('B-07-2'), { kind: 'count', units: 14 }, scan('LANE-1')], 'not-awaited'],
    [
      'anything while the order is on hold',
      { ...base, stopped: { by: 'hold', why: 'Unpaid.' } },
      [scan('B-07-2')],
      'held',
    ],
    ['a short while the order is on hold', { ...base, stopped: { by: 'hold', why: 'Unpaid.' } }, [none], 'held'],
    ['a bin that is blocked', { ...base, stopped: { by: 'blocked', why: 'damaged' } }, [scan('B-07-2')], 'blocked'],
    ['the promised lot once it is out of date', stale, [scan('B-07-2'), scan(`01${gtins.unit}10A4802`)], 'expired'],
    ['a count of it', stale, [scan('B-07-2'), { kind: 'count', units: 2 }], 'expired'],
    ['a bin that has nothing of it', base, [{ ...none, rest: { bin: 'C-01-1', lot: null } }], 'not-there'],
    ['a short that is none', base, [{ kind: 'short', units: 14, reason: 'not-enough' }], 'not-a-count'],
  ])('refuses %s', (_, step, inputs, code) => {
    const verdicts = run(step, ...inputs);
    expect(verdicts.at(-1)).toMatchObject({ verdict: 'refused', code });
    expect(verdicts.at(-1)!.progress).toEqual(verdicts.at(-2)?.progress ?? freshProgress);
  });

  it('ends at once when nothing is there, and with what is there else', () => {
    expect(last(base, { kind: 'short', units: 0, reason: 'not-found' })).toMatchObject({ verdict: 'done', units: 0 });
    expect(
      last(
        base,
        scan('B-07-2'),
        scan(gtins.inner),
        { kind: 'short', units: 12, reason: 'not-enough' },
        scan('CART-07-3'),
      ),
    ).toMatchObject({ verdict: 'done', units: 12 });
  });

  it('takes what is not here from another bin, as far as that one holds it', () => {
    const there = { bin: 'C-01-1', lot: null, units: 9, serials: [], at: { aisle: 'C', y: 2 } };
    const step: PickStep = { ...base, elsewhere: [there] };
    const short = (units: number): PickInput => ({
      kind: 'short',
      units,
      reason: 'not-enough',
      note: 'gone',
      rest: { bin: 'C-01-1', lot: null },
    });
    const all = last(step, short(0));
    expect(all).toMatchObject({ verdict: 'done', units: 0, progress: { note: 'gone' } });
    expect(restOf(step, all.progress)).toMatchObject({ id: 'p1.r', bin: 'C-01-1', units: 9, elsewhere: [] });
    const some = last(step, short(12), { kind: 'count', units: 12 }, scan('CART-07-3'));
    expect(some).toMatchObject({ verdict: 'done', units: 12 });
    expect(restOf(step, some.progress)).toMatchObject({ units: 2 });
    expect(restOf(step, last(step, none).progress)).toBeNull();
    // Where it is blocked, that is the way on.
    expect(last({ ...step, stopped: { by: 'blocked', why: 'count' } }, short(0))).toMatchObject({ verdict: 'done' });
  });

  describe('goes as the site works', () => {
    const by = (how: Partial<PickSettings>, step = base): PickStep => ({ ...step, how: { ...step.how, ...how } });
    const few: Check[] = ['item'];

    it.each<[string, PickStep, PickInput[], object]>([
      [
        'the item before the bin',
        by({ order: 'item-first', checks: ['bin', 'item'] }),
        [{ kind: 'count', units: 14 }, scan('B-07-2')],
        { verdict: 'done', units: 14 },
      ],
      [
        'whichever comes first: item',
        by({ order: 'either' }),
        [scan(gtins.inner)],
        { verdict: 'accepted', progress: { counted: 12, bin: false } },
      ],
      [
        'whichever comes first: bin',
        by({ order: 'either' }),
        [scan('B-07-2')],
        { verdict: 'accepted', progress: { bin: true } },
      ],
      [
        'without bin and position',
        by({ checks: few }),
        [scan(gtins.inner), scan(gtins.unit), scan(gtins.unit)],
        { verdict: 'done', units: 14 },
      ],
      [
        'one scan for all',
        by({ counting: 'once' }),
        [scan('B-07-2'), scan(gtins.unit)],
        { verdict: 'accepted', progress: { counted: 14 } },
      ],
      [
        'every unit scanned',
        by({ counting: 'each' }),
        [scan('B-07-2'), { kind: 'count', units: 14 }],
        { verdict: 'refused', code: 'scan-each' },
      ],
      // Two scans of packs of twelve are two scans, not 24 units that somebody looked at.
      [
        'every unit scanned, a pack of several is none',
        by({ counting: 'each' }),
        [scan('B-07-2'), scan(gtins.inner)],
        { verdict: 'refused', code: 'scan-each', progress: { counted: 0 } },
      ],
      [
        'every unit scanned, nor is a label with a count',
        by({ counting: 'each' }),
        [scan('B-07-2'), scan(`01${gtins.unit}3712`)],
        { verdict: 'refused', code: 'scan-each', progress: { counted: 0 } },
      ],
      [
        'every unit scanned, a single one is',
        by({ counting: 'each' }),
        [scan('B-07-2'), scan(gtins.unit)],
        { verdict: 'accepted', progress: { counted: 1 } },
      ],
      [
        'a number from the sheet of counts, in what the card asks in',
        { ...base, units: 24, countedBy: 12 },
        [scan('B-07-2'), scan('COUNT-2')],
        { verdict: 'accepted', progress: { counted: 24 } },
      ],
      [
        'all from the sheet of counts',
        base,
        [scan('B-07-2'), scan('COUNT-ALL')],
        { verdict: 'accepted', progress: { counted: 14 } },
      ],
      [
        'a number too high from the sheet of counts',
        { ...base, units: 24, countedBy: 12 },
        [scan('B-07-2'), scan('COUNT-3')],
        { verdict: 'refused', code: 'surplus', got: '36', units: 24 },
      ],
      ['a number before the bin', base, [scan('COUNT-2')], { verdict: 'refused', code: 'bin-first' }],
      [
        'without a look at the lot',
        by({ checks: ['bin', 'item'] }, lots),
        [scan('B-07-2'), { kind: 'count', units: 2 }],
        { verdict: 'done', units: 2 },
      ],
      [
        'another lot where that is allowed',
        { ...lots, otherLots: ['B9'] },
        [scan('B-07-2'), scan(`01${gtins.unit}10B9`)],
        { verdict: 'accepted', progress: { lot: true, swapped: 'B9', counted: 1 } },
      ],
      [
        'and no third one after it',
        { ...lots, otherLots: ['B9'] },
        [scan('B-07-2'), scan(`01${gtins.unit}10B9`), scan(`01${gtins.unit}10A4802`)],
        { verdict: 'refused', code: 'wrong-lot', expected: 'B9' },
      ],
      [
        'a short that leaves nothing to check',
        by({ checks: few }),
        [scan(gtins.inner), { kind: 'short', units: 12, reason: 'not-enough' }],
        { verdict: 'done', units: 12 },
      ],
    ])('%s', (_, step, inputs, verdict) => expect(last(step, ...inputs)).toMatchObject(verdict));
  });

  describe('tells a touch from a scan, as the site has it', () => {
    const touching = (rules: Partial<Touching>): PickStep => ({ ...base, touch: { ...usualSettings.touch, ...rules } });
    const press = (what: 'bin' | 'position', why?: TouchReason): PickInput => ({
      kind: 'touch',
      what,
      ...(why && { why }),
    });
    const count = (why?: TouchReason): PickInput => ({ kind: 'count', units: 14, ...(why && { why }) });
    const here = scan('B-07-2');
    it.each<[string, PickStep, PickInput[], object]>([
      ['allowed, and noted', base, [press('bin')], { verdict: 'accepted', progress: { touched: ['bin'] } }],
      ['never', touching({ bin: 'never' }), [press('bin')], { code: 'scan-needed', expected: 'B-07-2' }],
      ['never, whatever the reason', touching({ bin: 'never' }), [press('bin', 'scanner')], { code: 'scan-needed' }],
      ['without its reason', touching({ bin: 'reason' }), [press('bin')], { code: 'reason-needed' }],
      ['with its reason', touching({ bin: 'reason' }), [press('bin', 'no-label')], { progress: { touched: ['bin'] } }],
      ['a number with nothing scanned', touching({ item: 'never' }), [here, count()], { code: 'scan-needed' }],
      [
        'a number from the sheet with nothing scanned',
        touching({ item: 'never' }),
        [here, scan('COUNT-ALL')],
        { code: 'scan-needed' },
      ],
      [
        'a number after one of the goods was scanned',
        touching({ item: 'never' }),
        [here, scan(gtins.unit), count()],
        { verdict: 'accepted', progress: { counted: 14, touched: [] } },
      ],
      [
        'the place too',
        touching({ position: 'reason' }),
        [here, count(), press('position')],
        { code: 'reason-needed', expected: 'CART-07-3' },
      ],
      [
        'all by touch, and all of it noted',
        base,
        [press('bin'), count(), press('position')],
        { verdict: 'done', progress: { touched: ['bin', 'item', 'position'] } },
      ],
    ])('%s', (_, step, inputs, verdict) => expect(last(step, ...inputs)).toMatchObject(verdict));
  });

  describe('of which another bin is scanned', () => {
    const other = { bin: 'F3', lot: null, units: 14, serials: [], at: { aisle: 'F', y: 3 } };
    const free: PickStep = { ...base, otherBins: true, elsewhere: [other] };
    it('is taken from there where the site leaves that to the picker: a pick of its own, whose bin is scanned', () => {
      const done = last(free, scan('f3'));
      expect(done).toMatchObject({ verdict: 'done', what: 'bin', units: 0, progress: { moved: true, reason: null } });
      expect(restOf(free, done.progress)).toMatchObject({ id: 'p1.r', bin: 'F3', units: 14 });
      expect(restProgress(done.progress)).toMatchObject({ bin: true, counted: 0 });
    });
    it.each<[string, PickStep, PickInput[]]>([
      ['where the site does not', { ...free, otherBins: false }, [scan('F3')]],
      ['that does not hold all of it', { ...free, elsewhere: [{ ...other, units: 13 }] }, [scan('F3')]],
      ['that holds another lot', { ...free, elsewhere: [{ ...other, lot: 'X' }] }, [scan('F3')]],
      ['after something was counted', free, [scan('B-07-2'), scan(gtins.unit), scan('F3')]],
      ['that holds something else', free, [scan('C-01-1')]],
    ])('is refused %s', (_, step, inputs) =>
      expect(last(step, ...inputs)).toMatchObject({ verdict: 'refused', code: 'wrong-bin', expected: 'B-07-2' }),
    );
  });

  it('lets whoever stands at a bin scan it once for all that follows there', () => {
    const at = (bin: string, open = true) => ({ bin, open });
    const picks = [at('A', false), at('B'), at('B', false), at('B'), at('C'), at('B')];
    expect(atSameBin(picks, 1)).toEqual([3]);
    expect(atSameBin(picks, 0)).toEqual([]);
    expect(atSameBin(picks, 5)).toEqual([]);
  });

  const { unit, inner } = gtins;
  const one: PickStep = { ...base, units: 1 };
  const bin = scan('B-07-2');
  const place = scan('CART-07-3');
  const typed = (units: number): PickInput => ({ kind: 'count', units });
  const touch = (what: 'bin' | 'position' | 'further'): PickInput => ({ kind: 'touch', what });
  const boxed = (sscc: string | null): PickStep => ({
    ...one,
    how: { ...base.how, drop: 'carton' },
    carton: { sscc, box: 'BOX-M', boxes: ['BOX-M'], others: [], prefix: '39521234' },
  });

  it('ends with what a carton still took, and asks the rest with another one: three scans and two touches', () => {
    const step = { ...boxed('395212340000000014'), units: 14 };
    const full = last(step, bin, scan(inner), touch('further'));
    expect(full).toMatchObject({ verdict: 'done', units: 12, progress: { full: true } });
    const rest = restOf(step, full.progress)!;
    expect([rest.id, rest.units, rest.bin]).toEqual(['p1.r', 2, step.bin]);
    let progress = restProgress(full.progress);
    const again = [typed(2), scan('395212340000000014'), scan('395212340000000021')].map((input) => {
      const verdict = judgePick(rest, progress, input, '2026-06-01');
      progress = verdict.progress;
      return verdict;
    });
    expect(again).toMatchObject([
      { verdict: 'accepted' },
      { verdict: 'refused', code: 'used-carton' },
      { verdict: 'done', units: 2, progress: { sscc: '395212340000000021' } },
    ]);
  });

  it.each<[string, PickStep, PickInput[], scans: number, touches: number]>([
    ['one unit', one, [bin, scan(unit), place], 3, 0],
    ['one unit, by touch', one, [touch('bin'), typed(1), touch('position')], 0, 3],
    ['fourteen by packs', base, [bin, scan(inner), scan(unit), scan(unit), place], 5, 0],
    ['fourteen typed or by the key for all', base, [bin, typed(14), place], 2, 1],
    ['fourteen by one scan', { ...base, how: { ...base.how, counting: 'once' } }, [bin, scan(unit), place], 3, 0],
    ['a lot told by the symbol', lots, [bin, scan(`01${unit}10A4802\u001d372`), place], 3, 0],
    ['a lot scanned by itself', lots, [bin, typed(2), scan('A4802'), place], 3, 1],
    ['two serial numbers', serials, [bin, scan('S1'), scan('S2'), place], 4, 0],
    ['without a place', { ...one, how: { ...base.how, checks: ['bin', 'item'] } }, [bin, scan(unit)], 2, 0],
    ['straight into the carton', boxed('395212340000000014'), [bin, scan(unit), scan('395212340000000014')], 3, 0],
    ['a carton begun with it', boxed(null), [bin, scan(unit), scan('395212340000000021')], 3, 0],
    ['goods only', { ...one, how: { ...base.how, checks: ['item'] } }, [scan(unit)], 1, 0],
  ])('costs no more than the scans that are asked: %s', (_, step, inputs, scans, touches) => {
    const verdicts = run(step, ...inputs);
    expect(verdicts.map((v) => v.verdict)).toEqual([...inputs.slice(1).map(() => 'accepted'), 'done']);
    expect(inputs.filter((i) => i.kind === 'scan')).toHaveLength(scans);
    expect(inputs.filter((i) => i.kind !== 'scan')).toHaveLength(touches);
  });

  it('asks for the bin first where either may come, and for the rest of the goods once some are in hand', () => {
    const step: PickStep = { ...base, how: { ...base.how, order: 'either' } };
    expect(awaited(step, freshProgress)).toEqual(['bin', 'item']);
    expect(awaited(step, { ...freshProgress, counted: 1 })).toEqual(['item', 'bin']);
    expect(awaited(step, { ...freshProgress, counted: 14 })).toEqual(['bin']);
  });

  it('names a position as its label does', () =>
    expect(positionCode({ cart: 'CART-07', number: 3 })).toBe('CART-07-3'));
});

describe('goods that go back', () => {
  const step = { bin: 'B-07-2', item: { sku: 'JR-001', packs: base.item.packs } };
  const judge = (...inputs: Parameters<typeof judgePutAway>[2][]) =>
    inputs.reduce((v, input) => judgePutAway(step, v.progress, input, 2026), {
      verdict: 'accepted',
      progress: { item: null, bin: null },
    } as ReturnType<typeof judgePutAway>);
  const code = (text: string) => ({ kind: 'scan' as const, text });

  it.each([
    ['goods, then bin', [code(gtins.inner), code('B-07-2')]],
    ['bin, then goods by their number', [code('b-07-2'), code('jr-001')]],
    [
      'by touch',
      [
        { kind: 'touch' as const, what: 'bin' as const },
        { kind: 'touch' as const, what: 'item' as const },
      ],
    ],
  ])('lie in their bin again: %s', (_, inputs) => expect(judge(...inputs).verdict).toBe('done'));

  it.each([
    ['wrong-item', gtins.other],
    ['wrong-bin', 'B-07-3'],
    ['unknown-code', 'CART-07'],
  ])('%s changes nothing', (why, text) =>
    expect(judge(code('B-07-2'), code(text))).toMatchObject({
      verdict: 'refused',
      code: why,
      progress: { bin: 'B-07-2', item: null },
    }),
  );
});
