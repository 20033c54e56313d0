import { addDays, localDate } from '@hand-relay/core/calendar';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave, takeIn } from './steps.ts';

const HOUR = 3_600_000;

describe('a roster', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  /** A shift that begins and ends so many hours from now, as the clock of the site shows it. */
  const shift = (person: string, from: number, until: number, more: object = {}) => {
    const now = relay.platform.clock().getTime();
    const time = (at: number) =>
      new Date(at).toLocaleTimeString('en-GB', { timeZone: 'Europe/London', hour: '2-digit', minute: '2-digit' });
    return {
      person,
      day: localDate(now + from * HOUR, 'Europe/London'),
      from: time(now + from * HOUR),
      until: time(now + until * HOUR),
      ...more,
    };
  };
  const put = (...rows: object[]) => desk.get('changeSheet', { id: 'roster', body: { rows } });
  const crew = async (id: string) => (await desk.get('crew')).people.find((p) => p.id === id)!;
  const pickers = async () => (await desk.get('track')).pickers;

  it('is looked at as it comes in: who works here, and when', async () => {
    const { errors } = await put(
      { ...shift('nobody', -1, 1) },
      { ...shift('pico', -1, 1), from: '25:00' },
      { ...shift('pico', -1, 1), day: 'soon' },
    );
    expect(errors.map((e) => [e.row, e.column, e.expected])).toEqual(
      expect.arrayContaining([
        [2, 'from', 'a-time'],
        [3, 'day', 'a-date'],
      ]),
    );
    expect((await put(shift('nobody', -1, 1))).errors).toMatchObject([{ column: 'person', expected: 'a-known' }]);
  });

  it('counts who is on shift in forecasts, each once, and shows them where runs are given', async () => {
    // Maren sits at the desk: nobody is there to pick.
    expect(await pickers()).toBe(0);
    expect((await crew('pico')).shift).toBeNull();
    const { entry } = await put(shift('pico', -1, 7), shift('suri', -1, 7, { team: 'cold' }), shift('ada', -1, 7));
    expect(await pickers()).toBe(2);
    expect(await crew('pico')).toMatchObject({ here: false, shift: { on: true, team: '' } });
    expect(await crew('suri')).toMatchObject({ shift: { on: true, team: 'cold' } });
    // Signed in as well, he is still one.
    await relay.as('pico');
    expect(await pickers()).toBe(2);
    await relay.as('bram');
    expect(await pickers()).toBe(3);
    // A run is given to somebody who is not there.
    await desk.get('setupUndo', { body: { entry: entry! } });
    expect(await pickers()).toBe(2);
    expect((await crew('suri')).shift).toBeNull();
  });

  it('says for which team somebody picks while the shift is on', async () => {
    const order = await takeIn(desk, { number: 'COLD-1', lines: [['HT-003', 1]] });
    const wave = await startWave(desk, [order]);
    const run = (await desk.get('wave', { id: wave })).runs[0]!.id;
    await desk.get('assignRuns', { body: { runs: [run], person: null, team: 'cold' } });
    const suri = await relay.as('suri');
    const offered = async () => (await suri.get('myRuns')).waiting.map((r) => r.id);
    expect(await offered()).not.toContain(run);
    const { entry } = await put(shift('suri', -1, 7, { team: 'cold' }));
    expect(await offered()).toContain(run);
    await desk.get('setupUndo', { body: { entry: entry! } });
    expect(await offered()).not.toContain(run);
    // One that begins later today says nothing of now.
    const later = await put(shift('suri', 1, 7, { team: 'cold' }));
    expect(await offered()).not.toContain(run);
    await desk.get('setupUndo', { body: { entry: later.entry! } });
  });

  it('is imported like every list, and belongs to its site', async () => {
    const day = addDays(localDate(relay.platform.clock().getTime(), 'Europe/London'), 14);
    const [y, m, d] = day.split('-');
    const data = Buffer.from(
      `Mitarbeiter;Datum;Von;Bis\npico;${d}.${m}.${y};06:00;14:00\nada;${d}.${m}.${y};22:00;06:00\n`,
    );
    const seen = await desk.get('previewSheet', {
      id: 'roster',
      body: { file: 'plan.csv', data: data.toString('base64') },
    });
    expect(seen).toMatchObject({ counts: { new: 2, errors: 0 }, guesses: [] });
    await put({ person: 'pico', day, from: '06:00', until: '14:00' });
    await desk.get('switchSite', { body: { site: 'fennock' } });
    expect((await desk.get('sheetRows', { id: 'roster' })).rows).toEqual([]);
    await desk.get('switchSite', { body: { site: 'larkmoor' } });
    expect((await desk.get('sheetRows', { id: 'roster' })).rows.filter((r) => r['retired'] !== true)).toMatchObject([
      { person: 'pico', day, from: '06:00', until: '14:00' },
    ]);
  });

  it('counts nobody for whom there is no cart, and says which benches are free', async () => {
    await Promise.all((['pico', 'suri'] as const).map((id) => relay.as(id)));
    const before = await pickers();
    expect(before).toBeGreaterThan(1);
    const carts = await relay.query<{ code: string }>(
      `select code from cart where site_id = 'larkmoor' and not retired`,
    );
    const retire = (all: boolean, codes: string[]) =>
      relay.query(
        `update cart set retired = ${String(all)} where site_id = 'larkmoor' and code in (${codes.map((c) => `'${c}'`).join()})`,
      );
    const codes = carts.map((c) => c.code);
    await retire(true, codes);
    // A site without any cart works with crates.
    expect(await pickers()).toBe(before);
    await retire(false, codes.slice(0, 1));
    expect(await pickers()).toBe(1);
    await retire(false, codes);
    expect((await desk.get('crew')).bench).toMatchObject({ free: 4, all: 4 });
  });
});
