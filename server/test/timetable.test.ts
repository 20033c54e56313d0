import supertest from 'supertest';
import { house } from '@hand-relay/demo';
import { turnTimetable } from '../src/desk/waves/index.ts';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickAll, takeIn } from './steps.ts';

// A winter day ahead: the site's clock shows UTC, and sign-ins of today are not over by then.
let now = new Date('2030-01-15T07:00:00Z');
let relay: TestRelay;
let desk: Person;
beforeAll(async () => {
  relay = await openTest({ clock: () => now });
  desk = await relay.as('maren');
  // The demo's own entries gather by hand alone; here they are out of the way.
  await relay.query(`update timetable set retired = true`);
});
afterEach(() => checkBooks(relay, expect.getState().currentTestName ?? ''));
afterAll(() => relay.close());

let entries = 0;
/** An entry for orders of the field channel of one size, of which each test takes in its own. */
async function entry(row: Record<string, unknown>): Promise<string> {
  const name = `Entry ${++entries}`;
  const body = { rows: [{ entry: name, kind: 'production', max_units: 4, wave_orders: 3, ...row }] };
  const done = await desk.ask('changeSheet', { id: 'timetable', body });
  if (done.status !== 200 || (done.body as { errors: unknown[] }).errors.length > 0)
    throw new Error(JSON.stringify(done.body));
  return name;
}
const retire = () => relay.query(`update timetable set retired = true`);
const order = (number: string, more = {}) =>
  takeIn(desk, { number, lines: [['BR-001', 2]], kind: 'production', due: '2030-01-15', ...more });
const at = async (time: string) => {
  now = new Date(`2030-01-15T${time}:00Z`);
  await turnTimetable(relay.platform);
};
const wavesOf = async (name: string) =>
  (await desk.get('waves')).waves.filter((w) => w.entry === name).sort((a, b) => a.number - b.number);

describe('the timetable', () => {
  it.each([
    ['hand', 'hand', 'hand'],
    ['hand', 'gathered', 'hand'],
    ['hand', 'gathered', 'planned'],
    ['hand', 'time', 'time'],
    ['time', 'hand', 'hand'],
    ['time', 'gathered', 'time'],
    ['time', 'time', 'planned'],
    ['time', 'gathered', 'planned'],
    ['level', 'hand', 'hand'],
    ['level', 'gathered', 'planned'],
    ['level', 'time', 'hand'],
    ['level', 'time', 'time'],
  ])('gathers by %s, plans by %s, starts by %s', async (gather, plan, start) => {
    now = new Date('2030-01-15T07:00:00Z');
    const name = await entry({
      gather,
      gather_at: '09:00',
      gather_level: 2,
      plan,
      plan_at: '10:00',
      start,
      start_at: '11:00',
    });
    const id = (await desk.get('timetable')).entries.find((e) => e.name === name)!.id;
    await order(`TT-${entries}-A`);
    await at('08:00');
    if (gather === 'level') expect(await wavesOf(name)).toEqual([]);
    await order(`TT-${entries}-B`);
    expect((await desk.get('timetable')).entries.find((e) => e.name === name)).toMatchObject({ orders: 2, units: 4 });
    await at('08:10');
    expect(await wavesOf(name)).toHaveLength(gather === 'level' ? 1 : 0);
    if (gather === 'hand') await desk.get('gatherEntry', { id });
    await at('09:30');
    const [wave] = await wavesOf(name);
    expect(wave).toMatchObject({ orders: 2, units: 4 });
    const planned = plan === 'gathered';
    expect(wave!.state).toBe(planned ? (start === 'planned' ? 'started' : 'planned') : 'gathering');
    await at('10:30');
    if (plan === 'hand') await desk.get('planWave', { id: wave!.id });
    expect((await wavesOf(name))[0]!.state).toBe(start === 'planned' && plan !== 'hand' ? 'started' : 'planned');
    await at('11:30');
    const [last] = await wavesOf(name);
    expect(last!.state).toBe(start === 'hand' ? 'planned' : 'started');
    // One turn more changes nothing.
    await at('11:40');
    expect((await wavesOf(name)).map((w) => [w.id, w.state])).toEqual([[last!.id, last!.state]]);
    expect((await desk.refused('gatherEntry', { id })).code).toBe('nothing-to-gather');
    await desk.get('cancelWave', { id: last!.id });
    await relay.query(`update customer_order set status = 'cancelled' where number like 'TT-${entries}-%'`);
    await retire();
  });

  it('fills waves up to their limits and opens the next, each picked as the entry says', async () => {
    now = new Date('2030-01-15T07:00:00Z');
    const name = await entry({ gather: 'hand', picking: 'single', team: 'north', people: 2, cart: 'Shelf, 8 places' });
    const id = (await desk.get('timetable')).entries.find((e) => e.name === name)!.id;
    for (let i = 0; i < 5; i++) await order(`LIM-${i}`);
    const first = (await desk.get('gatherEntry', { id })).wave;
    const second = (await desk.get('gatherEntry', { id })).wave;
    expect(second).not.toBe(first);
    expect((await wavesOf(name)).map((w) => w.orders)).toEqual([3, 2]);
    await order('LIM-5');
    expect((await desk.get('gatherEntry', { id })).wave).toBe(second);
    expect((await wavesOf(name))[1]).toMatchObject({
      orders: 3,
      picking: 'single',
      team: 'north',
      people: 2,
      cart: 'Shelf, 8 places',
    });
    // What an order is too large for, or on hold, stays.
    await order('LIM-BIG', { lines: [['BR-001', 9]] });
    expect((await desk.refused('gatherEntry', { id })).code).toBe('nothing-to-gather');
    await desk.get('planWave', { id: first });
    expect((await desk.get('wave', { id: first })).runs).toHaveLength(3);
    await retire();
  });

  it('is told what is wrong with an entry, where it is wrong', async () => {
    const rows = [
      { entry: 'Wrong', departure: 'None such', gather: 'time', plan: 'hand', start: 'hand', picking: 'sort' },
    ];
    const { errors } = (await desk.ask('changeSheet', { id: 'timetable', body: { rows } })).body as {
      errors: { column: string }[];
    };
    expect(errors.map((e) => e.column).sort()).toEqual(['departure', 'gather_at']);
  });
});

describe('waves in parts and on paper', () => {
  it('picked by zones an order is in several runs, and done when all its parts are', async () => {
    now = new Date('2030-01-15T12:00:00Z');
    const chilled = (
      await relay.query<{ sku: string }>(
        `select sku from item where temperature = 'chilled' and not tracks_serial limit 1`,
      )
    )[0]!.sku;
    const id = await takeIn(desk, {
      number: 'PARTS',
      lines: [
        ['BR-001', 1],
        [chilled, 1],
      ],
    });
    const { wave } = await desk.get('release', { body: { orders: [id] } });
    await desk.get('changeWave', { id: wave, body: { picking: 'zones' } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const { runs } = await desk.get('wave', { id: wave });
    expect(runs.length).toBe(2);
    expect(new Set(runs.map((r) => r.area)).size).toBe(2);
    const picker = await relay.as('pico');
    await pickAll(picker, runs[0]!.id, 'CART-11');
    expect((await desk.get('wave', { id: wave })).wave.state).toBe('started');
    await pickAll(picker, runs[1]!.id, 'CART-12');
    const packer = await relay.as('ada');
    expect((await packer.get('benchOrder', { id })).bench.loose).toHaveLength(2);
  });

  it('prints pick lists with the codes that a scanner reads, and labels for bins', async () => {
    const id = await takeIn(desk, {
      number: 'PAPER',
      lines: [
        ['BR-001', 2],
        ['QC-001', 1],
      ],
    });
    const { wave: released } = await desk.get('release', { body: { orders: [id] } });
    await desk.get('planWave', { id: released });
    const [run] = (await desk.get('wave', { id: released })).runs;
    const { picks } = await desk.get('run', { id: run!.id });
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: house.PASSWORD }).expect(200);
    const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    const textOf = async (path: string) => {
      const { body } = await agent
        .get(path)
        .buffer()
        .parse((res, done) => {
          const parts: Buffer[] = [];
          res.on('data', (part: Buffer) => parts.push(part));
          res.on('end', () => done(null, Buffer.concat(parts)));
        });
      const pdf = await getDocument({ data: new Uint8Array(body as Buffer), verbosity: 0 }).promise;
      const pages: string[] = [];
      for (let p = 1; p <= pdf.numPages; p++)
        pages.push(
          (await (await pdf.getPage(p)).getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(' '),
        );
      return pages;
    };
    const [list] = await textOf(`/api/runs/${run!.id}/pick-list.pdf`);
    for (const pick of picks) {
      expect(list).toContain(pick.step.bin);
      expect(list).toContain(pick.step.item.sku);
    }
    expect(list).toContain(run!.number);
    const paper = await textOf(`/api/waves/${released}/pick-lists.pdf`);
    expect(paper).toHaveLength(2);
    expect(paper[0]).toContain(`Wave ${run!.wave}`);
    const labels = await textOf('/api/floor/labels.pdf?aisle=A');
    expect(labels.join(' ')).toContain('A-01-1');
    expect(labels.join(' ')).not.toContain('B-01-1');
  });
});
