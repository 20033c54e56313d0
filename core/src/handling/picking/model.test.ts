import fc from 'fast-check';
import { ssccOf } from '../../reading/gs1/index.ts';
import { checkOrders, checks, countings, drops, type PickSettings } from '../../deciding/settings/index.ts';
import { freshProgress, judgePick, restOf, type PickInput, type PickProgress, type PickStep } from './index.ts';

/** A pick as somebody would tell it who never saw the program: what was done so far, and what is still to be done. */
interface Told {
  bin: boolean;
  hand: number;
  /** Units that are there, once something was reported missing. */
  there: number | null;
  lot: string | null;
  serials: string[];
  carton: string | null;
  over: boolean;
}
interface Pick {
  step: PickStep;
  progress: PickProgress;
}
type Answer = 'refused' | 'accepted' | 'done';

const [open, one, two, others] = [1, 2, 3, 4].map((n) => ssccOf({ extension: 3, companyPrefix: '9521234' }, n));
const foreign = ssccOf({ extension: 1, companyPrefix: '9521234' }, 7);
const gtin = { unit: '09521234001010', inner: '19521234001017', other: '09521234001027' };

/** What is asked now, in plain rules. */
function asked({ units, item, how }: PickStep, told: Told): string[] {
  const has = (check: 'bin' | 'lot' | 'position') => how.checks.includes(check);
  const goods = told.hand < (told.there ?? units);
  const bin = has('bin') && !told.bin;
  if (bin && (!goods || how.order === 'bin-first')) return ['bin'];
  if (goods) return bin && how.order === 'either' ? ['goods', 'bin'] : ['goods'];
  if (item.tracksLot && has('lot') && told.lot === null) return ['lot'];
  if (how.drop === 'carton') return has('position') || told.carton === null ? ['carton'] : [];
  return has('position') ? ['place'] : [];
}

/** One thing that a picker does: what it is, and what it changes where it is right; null where it is refused. */
class Act implements fc.Command<Told, Pick> {
  constructor(
    readonly name: string,
    readonly input: PickInput,
    readonly rule: (told: Told, step: PickStep, ask: string[]) => Partial<Told> | null,
  ) {}

  toString = () => this.name;
  check = (told: Readonly<Told>) => !told.over;

  run(told: Told, pick: Pick): void {
    const { step } = pick;
    const before = pick.progress;
    const change = this.rule(told, step, asked(step, told));
    const got = judgePick(step, before, this.input, '2026-06-01');
    if (change) Object.assign(told, change);
    // Nothing left to ask ends it, unless it ended by itself: nothing there, or a carton that is full.
    if (change && asked(step, told).length === 0) told.over = true;
    const answer: Answer = change === null ? 'refused' : told.over ? 'done' : 'accepted';
    expect([this.name, got.verdict]).toEqual([this.name, answer]);
    if (got.verdict === 'refused') expect(got.progress).toBe(before);
    if (got.verdict === 'done') expect(got.units).toBe(told.hand);
    pick.progress = got.progress;
    expect(pick.progress).toMatchObject({ counted: told.hand, serials: told.serials, found: told.there });
    expect(new Set(told.serials).size).toBe(told.serials.length);
    // What goes into a further carton is all that was left of what is there.
    const rest = restOf(step, pick.progress);
    if (rest) expect([told.over, rest.units]).toEqual([true, (told.there ?? step.units) - told.hand]);
  }
}

const scan = (text: string): PickInput => ({ kind: 'scan', text });
const touch = (what: 'bin' | 'lot' | 'position' | 'carton' | 'further'): PickInput => ({ kind: 'touch', what });
const goal = (told: Told, step: PickStep) => told.there ?? step.units;

const pack = (code: string, units: number) =>
  new Act(`pack of ${units}`, scan(code), (told, step, ask) => {
    if (!ask.includes('goods')) return null;
    if (step.item.tracksSerial) return {};
    if (step.how.counting === 'once') return { hand: goal(told, step) };
    if (step.how.counting === 'each' && units > 1) return null;
    return told.hand + units <= goal(told, step) ? { hand: told.hand + units } : null;
  });
const lot = (code: string) =>
  new Act(`lot ${code}`, scan(code), (told, step, ask) => {
    const mine = told.lot ?? step.lot;
    const good = code === mine || (told.lot === null && step.otherLots.includes(code));
    return step.item.tracksLot && good && (ask.includes('goods') || ask[0] === 'lot') ? { lot: code } : null;
  });
const serial = (code: string) =>
  new Act(`serial ${code}`, scan(code), (told, step, ask) =>
    step.item.tracksSerial && ask.includes('goods') && step.serialsInBin.includes(code) && !told.serials.includes(code)
      ? { hand: told.hand + 1, serials: [...told.serials, code] }
      : null,
  );
const carton = (sscc: string) =>
  new Act(`carton ${sscc.slice(-3)}`, scan(sscc), (told, step, ask) => {
    if (step.how.drop !== 'carton') return null;
    if (told.carton !== null) return ask[0] === 'carton' && told.carton === sscc ? { over: true } : null;
    if (sscc === step.carton!.sscc || sscc === others || sscc === foreign) return null;
    return { carton: sscc, over: ask[0] === 'carton' };
  });
const count = (units: number, input: PickInput = { kind: 'count', units }) =>
  new Act(`count ${units}`, input, (told, step, ask) =>
    !(ask.length === 1 && ask[0] === 'bin') &&
    step.how.counting !== 'each' &&
    !step.item.tracksSerial &&
    units >= 0 &&
    units <= goal(told, step)
      ? { hand: units }
      : null,
  );
const short = (units: number) =>
  new Act(`only ${units}`, { kind: 'short', units, reason: 'damaged' }, (told, step) =>
    units >= 0 && units < step.units && units >= told.hand ? { there: units, bin: true, over: units === 0 } : null,
  );
const never = (name: string, text: string) => new Act(name, scan(text), () => null);
const asItIs = (name: string, what: 'bin' | 'lot', change: (step: PickStep) => Partial<Told>) =>
  new Act(name, touch(what), (_, step, ask) => (ask.includes(what) ? change(step) : null));

const acts = [
  new Act('right bin', scan('B-07-2'), (_, __, ask) =>
    ask.includes('bin') || ask.includes('goods') ? { bin: true } : null,
  ),
  asItIs('here, by touch', 'bin', () => ({ bin: true })),
  asItIs('lot, by touch', 'lot', (step) => ({ lot: step.lot })),
  new Act('right place', scan('CART-07-3'), (_, __, ask) => (ask[0] === 'place' ? { over: true } : null)),
  new Act('in, by touch', touch('position'), (_, __, ask) => (ask[0] === 'place' ? { over: true } : null)),
  new Act('in the carton, by touch', touch('carton'), (told, _, ask) =>
    ask[0] === 'carton' && told.carton !== null ? { over: true } : null,
  ),
  new Act('another carton', touch('further'), (told, step) =>
    told.carton === null
      ? null
      : told.hand === 0 || told.hand >= goal(told, step)
        ? { carton: null }
        : // The carton took what is in hand: what is left is a pick of its own.
          { over: true },
  ),
];

const act = fc.oneof(
  fc.constantFrom(...acts),
  fc.constantFrom(pack(gtin.unit, 1), pack(gtin.inner, 12), lot('A4802'), lot('B9'), lot('X1')),
  fc.constantFrom('S1', 'S2', 'S3', 'S9').map(serial),
  fc.constantFrom(open!, one!, two!, others!, foreign).map(carton),
  fc.integer({ min: -1, max: 16 }).map((units) => count(units)),
  fc.integer({ min: 0, max: 16 }).map((units) => count(units, scan(`COUNT-${units}`))),
  fc.integer({ min: -1, max: 14 }).map(short),
  fc.constantFrom(
    never('other bin', 'B-07-1'),
    never('other goods', gtin.other),
    never('other place', 'CART-07-1'),
    never('a lane', 'LANE-1'),
    never('anything', '?!'),
  ),
);

const way: fc.Arbitrary<PickSettings> = fc.record({
  checks: fc.subarray([...checks]),
  order: fc.constantFrom(...checkOrders),
  counting: fc.constantFrom(...countings),
  drop: fc.constantFrom(...drops),
});

const stepOf = (how: PickSettings, kind: 'plain' | 'lots' | 'serials', begun: boolean): PickStep => ({
  id: 'p1',
  bin: 'B-07-2',
  item: {
    id: 'i1',
    sku: 'JR-001',
    name: 'Round jar',
    packs: [
      { gtin: gtin.unit, level: 'unit', units: 1 },
      { gtin: gtin.inner, level: 'inner', units: 12 },
    ],
    tracksLot: kind === 'lots',
    tracksSerial: kind === 'serials',
  },
  lot: kind === 'lots' ? 'A4802' : null,
  serialsInBin: kind === 'serials' ? ['S1', 'S2', 'S3'] : [],
  units: kind === 'serials' ? 2 : 14,
  position: { cart: 'CART-07', number: 3 },
  carton:
    how.drop === 'carton'
      ? { sscc: begun ? open! : null, box: 'BOX-M', boxes: ['BOX-M'], others: [others!], prefix: '39521234' }
      : null,
  how,
  otherLots: ['B9'],
  elsewhere: [],
  bestBefore: null,
  stopped: null,
});

it('answers whatever a picker does as plain rules say, in every way of picking', () => {
  const kind = fc.constantFrom('plain', 'lots', 'serials' as const);
  fc.assert(
    fc.property(
      way,
      kind,
      fc.boolean(),
      fc.commands([act], { maxCommands: 30, size: 'max' }),
      (how, goods, begun, commands) => {
        const step = stepOf(how, goods, begun);
        fc.modelRun(
          () => ({
            model: {
              bin: false,
              hand: 0,
              there: null,
              lot: null,
              serials: [] as string[],
              carton: step.carton?.sscc ?? null,
              over: false,
            },
            real: { step, progress: freshProgress },
          }),
          commands,
        );
      },
    ),
    { numRuns: 1000 },
  );
});
