import type { RunDetail } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickOne, startWave, takeIn, type Wanted } from './steps.ts';

describe('picking', () => {
  let relay: TestRelay;
  let [desk, pico, suri] = [] as unknown as [Person, Person, Person];
  let carts = 0;
  beforeAll(async () => {
    relay = await openTest();
    [desk, pico, suri] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('suri')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  /** A run of one order, taken by Pico. */
  async function taken(lines: Wanted['lines']) {
    const cart = `CART-${String(++carts).padStart(2, '0')}`;
    const order = await takeIn(desk, { number: `P-${carts}`, lines });
    const wave = await startWave(desk, [order]);
    const { runs } = await desk.get('wave', { id: wave });
    const { picks } = await pico.get('takeRun', { id: runs[0]!.id, body: { cart } });
    const input = (what: object, pick = picks[0]!) =>
      pico.get('runInput', { id: runs[0]!.id, body: { pick: pick.step.id, input: what } });
    const scan = (text: string, pick = picks[0]!) => input({ kind: 'scan', text }, pick);
    return { cart, order, run: runs[0]!.id, picks, input, scan };
  }
  const level = (pick: RunDetail['picks'][number], of: string) =>
    pick.step.item.packs.find((p) => p.level === of)!.gtin;

  it('counts inner and outer packs for what they hold, and refuses what would be too many', async () => {
    const { scan, picks, cart } = await taken([['JR-004', 75]]);
    const asked = picks.reduce((n, p) => n + p.step.units, 0);
    expect(asked).toBe(75);
    const pick = picks.find((p) => p.step.units >= 14)!;
    await scan(pick.step.bin, pick);
    let counted = 0;
    for (const [of, units] of [
      ['outer', 72],
      ['inner', 12],
      ['unit', 1],
    ] as const) {
      while (counted + units <= pick.step.units) {
        counted += units;
        expect(await scan(level(pick, of), pick)).toMatchObject({ verdict: 'accepted', progress: { counted } });
      }
      if (units > 1)
        expect(await scan(level(pick, of), pick)).toMatchObject({
          verdict: 'refused',
          code: 'surplus',
          got: String(counted + units),
          units: pick.step.units,
        });
    }
    expect(await scan(`${cart}-${pick.step.position.number}`, pick)).toMatchObject({ verdict: 'done', units: counted });
  });

  it('takes item, lot and count from one GS1 symbol, in the symbol of any pack', async () => {
    const { scan, picks } = await taken([['PP-003', 14]]);
    const pick = picks[0]!;
    await scan(pick.step.bin);
    expect(await scan(`]C101${level(pick, 'unit')}10${pick.step.lot}X`)).toMatchObject({
      code: 'wrong-lot',
      got: `${pick.step.lot}X`,
      expected: pick.step.lot,
    });
    const rest = pick.step.units % 12;
    if (pick.step.units >= 12)
      expect(await scan(`]C101${level(pick, 'inner')}10${pick.step.lot}`)).toMatchObject({
        verdict: 'accepted',
        progress: { counted: 12, lot: true },
      });
    if (rest > 0)
      expect(await scan(`]C101${level(pick, 'unit')}10${pick.step.lot}\u001d30${rest}`)).toMatchObject({
        progress: { counted: pick.step.units, lot: true },
      });
  });

  it('goes by the day of the site, not of Greenwich, when it says that goods are out of date', async () => {
    const now = Date.now();
    // A place where it is another day than in Greenwich just now.
    const zone = new Date(now).getUTCHours() < 12 ? 'Etc/GMT+12' : 'Pacific/Kiritimati';
    const [site] = await relay.query<{ zone: string }>(`select time_zone as zone from site where id = 'larkmoor'`);
    const { scan, picks } = await taken([['PP-003', 1]]);
    await relay.query(`update site set time_zone = '${zone}' where id = 'larkmoor'`);
    await scan(picks[0]!.step.bin);
    const today = localDate(now, zone);
    const label = (day: string) =>
      `]C101${level(picks[0]!, 'unit')}15${day.slice(2).replaceAll('-', '')}10${picks[0]!.step.lot}`;
    expect(await scan(label(addDays(today, -1)))).toMatchObject({ verdict: 'refused', code: 'expired' });
    expect(await scan(label(today))).toMatchObject({ verdict: 'accepted' });
    await relay.query(`update site set time_zone = '${site!.zone}' where id = 'larkmoor'`);
  });

  it('asks for a serial number of every unit where the item has them, each once', async () => {
    const { scan, input, picks } = await taken([['HS-001', 2]]);
    const pick = picks.find((p) => p.step.units > 0)!;
    await scan(pick.step.bin, pick);
    expect(await input({ kind: 'count', units: pick.step.units }, pick)).toMatchObject({ code: 'serial-needed' });
    const [serial] = pick.step.serialsInBin;
    expect(await scan('NO-SUCH-SERIAL', pick)).toMatchObject({ verdict: 'refused', code: 'wrong-serial' });
    expect(await scan(serial!, pick)).toMatchObject({ verdict: 'accepted', progress: { serials: [serial] } });
    if (pick.step.units > 1) expect(await scan(serial!, pick)).toMatchObject({ code: 'repeated-serial' });
  });

  it('gives a serial number that is scanned in two runs to the first that confirms it; the other goes on', async () => {
    const first = await taken([['HS-001', 1]]);
    const cart = `CART-${String(++carts).padStart(2, '0')}`;
    const wave = await startWave(desk, [
      await takeIn(desk, {
        number: 'P-TWICE',
        lines: [
          ['HT-001', 1],
          ['HS-001', 1],
        ],
      }),
    ]);
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const other = await suri.get('takeRun', { id: run!.id, body: { cart } });
    const easy = other.picks.find((p) => !p.step.item.tracksSerial)!;
    await pickOne(suri, run!.id, easy, cart);
    const mine = first.picks[0]!;
    const theirs = other.picks.find((p) => p.step.bin === mine.step.bin)!;
    const [serial, next] = mine.step.serialsInBin;
    const scan = (text: string) =>
      suri.get('runInput', { id: run!.id, body: { pick: theirs.step.id, input: { kind: 'scan', text } } });
    await scan(theirs.step.bin);
    await first.scan(mine.step.bin);
    expect(await scan(serial!)).toMatchObject({ verdict: 'accepted' });
    expect(await first.scan(serial!)).toMatchObject({ verdict: 'accepted' });
    expect(await first.scan(`${first.cart}-1`)).toMatchObject({ verdict: 'done' });
    expect(await scan(`${cart}-${theirs.step.position.number}`)).toMatchObject({
      verdict: 'refused',
      code: 'serial-taken',
      got: serial,
      progress: { serials: [], counted: 0 },
    });
    expect(await scan(serial!)).toMatchObject({ verdict: 'refused', code: 'wrong-serial' });
    expect(await scan(next!)).toMatchObject({ verdict: 'accepted', progress: { serials: [next] } });
    // Undo takes back what was scanned last, not the pick before it.
    expect(await suri.get('undoPick', { id: run!.id, body: { begun: theirs.step.id } })).toEqual({
      pick: theirs.step.id,
    });
    const now = await suri.get('run', { id: run!.id });
    expect(now.picks.map((p) => [p.step.id === easy.step.id, p.state, p.progress.counted > 0])).toEqual(
      now.picks.map((p) => (p.step.id === easy.step.id ? [true, 'done', true] : [false, 'open', false])),
    );
    for (const code of [theirs.step.bin, next!]) await scan(code);
    expect(await scan(`${cart}-${theirs.step.position.number}`)).toMatchObject({ verdict: 'done' });
  });

  it('gives a cart to one run at a time, and only one with places enough', async () => {
    const { cart, run } = await taken([['CM-001', 1]]);
    const other = await startWave(desk, [await takeIn(desk, { number: 'P-OTHER', lines: [['CM-002', 1]] })]);
    const waiting = (await desk.get('wave', { id: other })).runs[0]!;
    const refused = (code: string) => suri.refused('takeRun', { id: waiting.id, body: { cart: code } });
    expect(await refused(cart)).toMatchObject({ code: 'cart-busy', facts: { cart } });
    expect(await refused('CART-77')).toMatchObject({ code: 'unknown-cart', facts: { got: 'CART-77' } });
    expect(await refused('BADGE-2001')).toMatchObject({ code: 'not-a-cart' });
    expect(await suri.refused('takeRun', { id: run, body: { cart: 'CART-20' } })).toMatchObject({
      code: 'run-of-another',
      facts: { picker: 'Pico Lund' },
    });
    await pico.get('returnRun', { id: run });
    const both = await suri.get('takeRun', { id: waiting.id, body: { cart } });
    expect(both.run).toMatchObject({ state: 'picking', picker: 'Suri Okell', cart });
    const many = await Promise.all(
      Array.from({ length: 6 }, (_, i) => takeIn(desk, { number: `P-MANY-${i}`, lines: [['WK-002', 1]] })),
    );
    const wave = await startWave(desk, many);
    const [large] = (await desk.get('wave', { id: wave })).runs;
    expect(large!.orders).toBe(6);
    // Carts 22 to 24 have four places.
    expect(await pico.refused('takeRun', { id: large!.id, body: { cart: 'CART-22' } })).toMatchObject({
      code: 'cart-small',
      facts: { positions: 4, needed: 6 },
    });
  });

  it('puts what may be damaged aside, and sends no other picker for it', async () => {
    const { input, scan, picks, order } = await taken([['BK-001', 3]]);
    const pick = picks[0]!;
    const before = await relay.query<{ units: number }>(
      `select sum(units)::int as units from balance b join place p on p.id = b.place_id where p.code = '${pick.step.bin}' and b.item_id = '${pick.step.item.id}'`,
    );
    await scan(pick.step.bin);
    const found = pick.step.units - 1;
    await input({ kind: 'short', units: found, reason: 'damaged' });
    if (found > 0) await input({ kind: 'count', units: found });
    const done = found > 0 ? await input({ kind: 'touch', what: 'position' }) : null;
    if (done) expect(done).toMatchObject({ verdict: 'done', units: found });
    const after = await relay.query<{ kind: string; units: number }>(
      `select p.kind, sum(units)::int as units from balance b join place p on p.id = b.place_id where b.item_id = '${pick.step.item.id}' and (p.code = '${pick.step.bin}' or p.kind in ('discrepancy', 'position')) group by p.kind order by p.kind`,
    );
    expect(after).toEqual([
      ...(before[0]!.units > pick.step.units ? [{ kind: 'bin', units: before[0]!.units - pick.step.units }] : []),
      { kind: 'discrepancy', units: 1 },
      { kind: 'position', units: found },
    ]);
    const { entries } = await desk.get('trail', { id: order });
    expect(entries.find((e) => e.kind === 'short')!.facts).toMatchObject({ missing: 1, reason: 'damaged', toCount: 1 });
  });

  it('undoes one confirmation after the other, the last first, and none that is packed', async () => {
    const { run, picks, cart, order } = await taken([
      ['FI-001', 1],
      ['UK-002', 1],
    ]);
    for (const pick of picks) await pickOne(pico, run, pick, cart);
    expect(await suri.refused('undoPick', { id: run })).toMatchObject({ code: 'run-of-another' });
    for (const pick of [...picks].reverse())
      expect(await pico.get('undoPick', { id: run })).toEqual({ pick: pick.step.id });
    expect(await pico.get('undoPick', { id: run })).toEqual({ pick: null });
    expect((await desk.get('order', { id: order })).lines.every((l) => l.picked === 0 && l.reserved > 0)).toBe(true);
    for (const pick of picks) await pickOne(pico, run, pick, cart);
    await pico.get('leaveRun', { id: run, body: { lane: 'LANE-3' } });
    expect(await pico.refused('undoPick', { id: run })).toMatchObject({ code: 'run-state', facts: { state: 'left' } });
    expect(await pico.refused('leaveRun', { id: run, body: { lane: 'LANE-3' } })).toMatchObject({ code: 'run-state' });
    const { run: summary } = await desk.get('run', { id: run });
    expect(summary).toMatchObject({ state: 'left', lane: 'LANE-3', cart, picksDone: 2 });
  });

  it('ends a run at once when nothing lies on its cart: there is nothing to pack', async () => {
    const { run, picks, input, order } = await taken([['VL-001', 1]]);
    await input({ kind: 'short', units: 0, reason: 'not-found' }, picks[0]);
    const left = await pico.get('leaveRun', { id: run, body: { lane: 'LANE-1' } });
    expect(left.run.state).toBe('done');
    expect((await desk.get('order', { id: order })).lines[0]).toMatchObject({ released: 0, picked: 0 });
    expect((await desk.get('waves')).waves.find((w) => w.number === left.run.wave)!.state).toBe('done');
    expect((await (await relay.as('ada')).get('bench')).runs.map((r) => r.id)).not.toContain(run);
  });

  it('tells what a device kept for a while at the time when it was done, and believes no more than a day', async () => {
    const { run, picks } = await taken([['QM-001', 2]]);
    const [pick] = picks;
    const done = async (ago: number, input: object) => {
      await pico.get('runInput', { id: run, body: { pick: pick!.step.id, input }, ago });
      const [last] = await relay.query<{ ago: number | null }>(
        `select extract(epoch from at - (facts->>'doneAt')::timestamptz)::float8 as ago from journal where run_id = '${run}' and kind like 'scan-%' order by id desc limit 1`,
      );
      return last!.ago === null ? null : Math.round(last!.ago);
    };
    expect(await done(600_000, { kind: 'scan', text: pick!.step.bin })).toBe(600);
    expect(await done(200, { kind: 'scan', text: 'Z-01-1' })).toBeNull();
    expect(await done(90 * 3_600_000, { kind: 'scan', text: 'Z-01-2' })).toBeNull();
    await done(300_000, { kind: 'count', units: 2 });
    await done(299_000, { kind: 'touch', what: 'position' });
    const [at] = await relay.query<{ ago: number }>(
      `select extract(epoch from now() - confirmed_at)::float8 as ago from pick where id = '${pick!.step.id}'`,
    );
    expect(at!.ago).toBeGreaterThan(295);
  });

  it('takes what a device kept several at a time, each as if it came by itself and once', async () => {
    const { cart, run, picks } = await taken([['QM-001', 2]]);
    const [pick] = picks;
    const input = (key: string, what: object) => ({
      name: 'runInput' as const,
      id: run,
      key: `${run} ${key}`,
      ago: 60_000,
      body: { pick: pick!.step.id, input: what },
    });
    const calls = [
      input('bin', { kind: 'scan', text: pick!.step.bin }),
      input('wrong', { kind: 'scan', text: 'Z-01-1' }),
      { ...input('nobody', {}), body: { pick: 'no-such-pick', input: { kind: 'count', units: 1 } } },
      { ...input('form', {}), body: { pick: 7, input: { kind: 'count', units: 1 } } },
      // Calls that no server knows, or in no form that one can read, are refused alone.
      { ...input('gone', {}), name: 'gone' },
      { ...input('long', {}), id: 'x'.repeat(100) },
      input('nul', { kind: 'scan', text: 'A\u0000' }),
      'no call at all',
      input('count', { kind: 'count', units: 2 }),
    ];
    const first = await pico.get('sendOutbox', { body: { calls } });
    expect(first.answers).toMatchObject([
      { data: { verdict: 'accepted', what: 'bin' } },
      { data: { verdict: 'refused' } },
      { error: { status: 404 } },
      { error: { status: 400, fields: [{ path: 'pick' }] } },
      { error: { status: 400, fields: [{ path: 'calls.4.name' }] } },
      { error: { status: 400, fields: [{ path: 'calls.5.id' }] } },
      { error: { status: 400, fields: [{ path: 'input.text' }] } },
      { error: { status: 400 } },
      { data: { verdict: 'accepted', progress: { counted: 2 } } },
    ]);
    // The answer was lost: all of it comes again, with what was done since.
    const last = input('place', { kind: 'scan', text: `${cart}-1` });
    const again = await pico.get('sendOutbox', { body: { calls: [...calls, last] } });
    expect(again.answers.slice(0, 2)).toEqual(first.answers.slice(0, 2));
    expect(again.answers.at(-1)).toMatchObject({ data: { verdict: 'done', units: 2 } });
    // A call that came by itself is known here too.
    const alone = await pico.get('runInput', { id: run, body: last.body, key: last.key });
    expect(alone).toEqual((again.answers.at(-1) as { data: unknown }).data);
    const [journal] = await relay.query<{ scans: number }>(
      `select count(*)::int as scans from journal where run_id = '${run}' and kind like 'scan-%'`,
    );
    expect(journal!.scans).toBe(4);
    expect(await desk.refused('sendOutbox', { body: { calls: [] } })).toMatchObject({ code: 'malformed' });
  });

  it('lets a scan lead to what it names, wherever it is scanned', async () => {
    const { cart, run, order, picks } = await taken([['QM-001', 1]]);
    const find = async (code: string) => {
      const { kind, id, orders } = await desk.get('find', { query: { code } });
      return [kind, id, orders];
    };
    const [{ number }] = (await relay.query<{ number: string }>(`select number from run where id = '${run}'`)) as [
      { number: string },
    ];
    expect(await find(cart)).toEqual(['run', run, [order]]);
    expect(await find(`RUN-${number}`)).toEqual(['run', run, [order]]);
    expect(await find(`${cart}-1`)).toEqual(['order', order, [order]]);
    expect(await find(`ORDER-P-${carts}`)).toEqual(['order', order, [order]]);
    expect(await find(`p-${carts}`)).toEqual(['order', order, [order]]);
    expect(await find(picks[0]!.step.bin)).toEqual(['bin', expect.any(String), []]);
    expect(await find(picks[0]!.step.item.packs[0]!.gtin)).toEqual(['item', 'item-qm-001', []]);
    for (const code of ['CART-99', 'Z-99-9', '09521234999993', 'nothing at all', 'DO-CLOSE'])
      expect((await find(code))[0]).toBe('nothing');
  });
});
