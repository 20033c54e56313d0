import { orderFromRow } from '@hand-relay/contract';
import { usualSettings, type SiteSettings } from '@hand-relay/core/deciding/settings';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickAll, pickOne, startWave, takeIn } from './steps.ts';

describe('how a site works', () => {
  let relay: TestRelay;
  let [desk, picker, dock] = [] as unknown as [Person, Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, dock] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('len')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const work = (settings: Partial<SiteSettings>) =>
    desk.get('changeSiteSettings', { body: { ...usualSettings, ...settings } });
  const free = async (sku: string) => {
    const [found] = await relay.query<{ free: number; reserved: number }>(
      `select sum(t.on_hand - t.reserved)::int as free, sum(t.reserved)::int as reserved from stock_total t join item i on i.id = t.item_id
       where t.site_id = 'larkmoor' and i.sku = '${sku}'`,
    );
    return found!;
  };
  const runsOf = async (orders: string[]) => (await desk.get('wave', { id: await startWave(desk, orders) })).runs;

  it('in two stages ships what was picked, as it stands on the cart', async () => {
    await work({ stages: 'pick-ship' });
    const order = await takeIn(desk, {
      number: 'W-2',
      lines: [
        ['HT-001', 3],
        ['JR-001', 4],
      ],
    });
    const [run] = await runsOf([order]);
    await pickAll(picker, run!.id, 'CART-01');
    const { shipments } = await dock.get('dock');
    const row = shipments.find((s) => s.order === order)!;
    expect(row).toMatchObject({ cartons: 0, loose: true, picked: 7, packed: 7 });
    expect(row.weightG).toBeGreaterThan(0);
    // A site that packs again tomorrow has nothing to pack of it.
    await work({ stages: 'pick-pack-ship' });
    expect((await (await relay.as('ada')).get('bench')).runs.map((r) => r.id)).not.toContain(run!.id);
    await work({ stages: 'pick-ship' });
    expect((await dock.refused('confirm', { id: row.shipment, body: { rest: null } })).code).toBe('tracking-missing');
    await dock.get('tracking', { id: row.shipment, body: { from: 'carrier' } });
    const before = await free('HT-001');
    const { state } = await dock.get('confirm', { id: row.shipment, body: { rest: null } });
    expect(state).toBe('confirmed');
    const { row: gone } = await dock.get('shipment', { id: row.shipment });
    expect([gone.loose, gone.weightG]).toEqual([true, row.weightG]);
    // What was reserved has left: what is free stays as it was.
    expect(await free('HT-001')).toEqual({ free: before.free, reserved: before.reserved - 3 });
    expect((await desk.get('order', { id: order })).status).toBe('closed');
    const { shipments: told } = await dock.get('shipmentsJson');
    const lines = told.find((s) => s.order === 'W-2')!.lines;
    expect(lines.map((l) => [l.sku, l.lots.map((p) => p.units)])).toEqual([
      ['HT-001', [3]],
      ['JR-001', [4]],
    ]);
    expect((await dock.ask('packingSlip', { id: row.shipment })).status).toBe(200);
    // The cart is empty and free again.
    const next = await takeIn(desk, { number: 'W-2b', lines: [['HT-001', 1]] });
    const [other] = await runsOf([next]);
    await pickAll(picker, other!.id, 'CART-01');
  });

  it('in one stage ships as the cart is left; what may not go waits at the dock', async () => {
    await work({ stages: 'pick-and-ship' });
    const goes = await takeIn(desk, { number: 'W-1', lines: [['HT-002', 2]] });
    const [run] = await runsOf([goes]);
    await pickAll(picker, run!.id, 'CART-02');
    expect((await desk.get('order', { id: goes })).status).toBe('closed');
    const whole = await takeIn(desk, { number: 'W-1b', shipComplete: true, lines: [['HT-002', 2]] });
    const [short] = await runsOf([whole]);
    const taken = await picker.get('takeRun', { id: short!.id, body: { cart: 'CART-03' } });
    const input = (what: object) =>
      picker.get('runInput', { id: short!.id, body: { pick: taken.picks[0]!.step.id, input: what } });
    await input({ kind: 'scan', text: taken.picks[0]!.step.bin });
    await input({ kind: 'short', units: 1, reason: 'damaged' });
    await input({ kind: 'count', units: 1 });
    await input({ kind: 'scan', text: 'CART-03-1' });
    await picker.get('leaveRun', { id: short!.id, body: { lane: 'LANE-1' } });
    expect((await dock.get('dock')).shipments.map((s) => s.order)).toContain(whole);
    const { entries } = await desk.get('trail', { id: whole });
    expect(entries.find((e) => e.kind === 'ship-waits')!.facts).toMatchObject({ code: 'ships-complete' });
  });

  it('reserves at intake, keeps it through a change and the release, and frees what is cancelled', async () => {
    await work({ reserve: 'intake' });
    const before = await free('HT-004');
    const order = await takeIn(desk, { number: 'W-3', lines: [['HT-004', 5]] });
    expect((await free('HT-004')).reserved).toBe(before.reserved + 5);
    await takeIn(desk, { number: 'W-3', lines: [['HT-004', 8]] });
    expect((await free('HT-004')).reserved).toBe(before.reserved + 8);
    expect((await desk.get('order', { id: order })).lines[0]!.reserved).toBe(8);
    const [run] = await runsOf([order]);
    expect((await free('HT-004')).reserved).toBe(before.reserved + 8);
    expect(run).toBeDefined();
    const dropped = await takeIn(desk, { number: 'W-3b', lines: [['HT-004', 2]] });
    await desk.get('cancelRest', { id: dropped, body: { reason: 'customer rang' } });
    expect((await free('HT-004')).reserved).toBe(before.reserved + 8);
  });

  it('reserves by hand: others go without, until it is freed', async () => {
    await work({ reserve: 'hand' });
    const { free: all } = await free('HT-005');
    const first = await takeIn(desk, { number: 'W-4', priority: 9, lines: [['HT-005', all]] });
    const { lines } = await desk.get('reserve', { id: first });
    expect(lines).toEqual([{ line: 1, asked: all, reserved: all }]);
    // What is kept for it covers it, though nothing is free any more.
    const { rows } = await desk.get('orders', { query: { limit: 1000 } });
    expect(orderFromRow(rows.find((r) => r[0] === first)!).coveredLines).toBe(1);
    const urgent = await takeIn(desk, { number: 'W-4b', priority: 1, lines: [['HT-005', 1]] });
    expect((await desk.get('previewRelease', { body: { orders: [first, urgent] } })).nothing).toEqual(['W-4b']);
    await desk.get('unreserve', { id: first });
    expect((await desk.get('previewRelease', { body: { orders: [first, urgent] } })).nothing).toEqual([]);
    expect((await free('HT-005')).free).toBe(all);
  });

  it('reserves at the scan: what is released can be promised again, unless it counts as taken', async () => {
    await work({ reserve: 'scan', countReleased: true });
    const before = await free('HT-006');
    const first = await takeIn(desk, { number: 'W-5', lines: [['HT-006', before.free]] });
    const [run] = await runsOf([first]);
    expect(await free('HT-006')).toEqual(before);
    const second = await takeIn(desk, { number: 'W-5b', lines: [['HT-006', 1]] });
    expect((await desk.get('previewRelease', { body: { orders: [second] } })).nothing).toEqual(['W-5b']);
    await work({ reserve: 'scan', countReleased: false });
    expect((await desk.get('previewRelease', { body: { orders: [second] } })).units).toBe(1);
    const taken = await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-04' } });
    // One unit is kept for somebody else in the meantime: whoever scans first has the rest, and the last scan is refused.
    await desk.get('reserve', { id: second });
    const last = taken.picks.at(-1)!;
    for (const pick of taken.picks.slice(0, -1)) await pickOne(picker, run!.id, pick, 'CART-04');
    expect((await free('HT-006')).free).toBe(last.step.units - 1);
    await expect(pickOne(picker, run!.id, last, 'CART-04')).rejects.toThrow('promised-away');
  });

  it('lets another lot be taken where that is allowed, and the promise goes with it', async () => {
    await work({ lotSwaps: true });
    const order = await takeIn(desk, { number: 'W-6', lines: [['PP-001', 2]] });
    const [run] = await runsOf([order]);
    const { picks: asked } = await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-05' } });
    expect(asked[0]!.step.otherLots).not.toContain('SWAP-1');
    const row = { bin: asked[0]!.step.bin, item: 'PP-001', units: 9, lot: 'SWAP-1' };
    await desk.get('changeSheet', { id: 'stock', body: { rows: [row] } });
    const { picks } = await picker.get('run', { id: run!.id });
    const pick = picks.find((p) => p.step.otherLots.includes('SWAP-1'));
    if (!pick) throw new Error(`No other lot is offered: ${JSON.stringify(picks.map((p) => p.step))}`);
    const input = (what: object) => picker.get('runInput', { id: run!.id, body: { pick: pick.step.id, input: what } });
    await input({ kind: 'scan', text: pick.step.bin });
    await input({ kind: 'scan', text: 'SWAP-1' });
    await input({ kind: 'count', units: pick.step.units });
    expect(await input({ kind: 'scan', text: 'CART-05-1' })).toMatchObject({ verdict: 'done' });
    const promised = await relay.query<{ lot: string; units: number }>(
      `select r.lot, r.units from reservation r join order_line l on l.id = r.line_id where l.order_id = '${order}' and r.units > 0`,
    );
    expect(promised).toEqual([{ lot: 'SWAP-1', units: pick.step.units }]);
    await picker.get('undoPick', { id: run!.id });
    const { picks: again } = await picker.get('run', { id: run!.id });
    expect(again[0]).toMatchObject({ state: 'open', step: { lot: 'SWAP-1' } });
  });

  it('takes a touch for a scan only where the site does, from roles that may, and the trail tells them apart', async () => {
    const order = await takeIn(desk, { number: 'W-TOUCH', lines: [['HT-003', 2]] });
    const [run] = await runsOf([order]);
    await work({ touch: { bin: 'reason', item: 'never', lot: 'allowed', position: 'allowed' } });
    await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-16' } });
    const pick = async () => (await picker.get('run', { id: run!.id })).picks[0]!;
    const input = async (what: object) =>
      picker.get('runInput', { id: run!.id, body: { pick: (await pick()).step.id, input: what } });
    expect((await pick()).step.touch).toMatchObject({ bin: 'reason', item: 'never' });
    expect(await input({ kind: 'touch', what: 'bin' })).toMatchObject({ code: 'reason-needed' });
    await input({ kind: 'touch', what: 'bin', why: 'unreadable' });
    expect(await input({ kind: 'count', units: 2 })).toMatchObject({ code: 'scan-needed' });
    // A right of the role: whoever has it is believed without a scan.
    await relay.query(
      `update role set rights = rights || '{runs.touch}' where site_id = 'larkmoor' and name = 'picker'`,
    );
    const trusted = await relay.as('pico');
    expect((await trusted.get('run', { id: run!.id })).picks[0]!.step.touch).toMatchObject({ item: 'allowed' });
    await trusted.get('runInput', {
      id: run!.id,
      body: { pick: (await pick()).step.id, input: { kind: 'count', units: 2 } },
    });
    await trusted.get('runInput', {
      id: run!.id,
      body: {
        pick: (await pick()).step.id,
        input: { kind: 'scan', text: `CART-16-${(await pick()).step.position.number}` },
      },
    });
    const { entries } = await desk.get('trail', { id: order });
    expect(entries.find((e) => e.kind === 'picked')!.facts).toMatchObject({ touched: ['bin', 'item'] });
    expect(entries.filter((e) => e.kind === 'scan-accepted').map((e) => e.facts['input'])).toMatchObject([
      { kind: 'touch', why: 'unreadable' },
      { kind: 'count' },
      { kind: 'scan' },
    ]);
    await relay.query(
      `update role set rights = array_remove(rights, 'runs.touch') where site_id = 'larkmoor' and name = 'picker'`,
    );
    await picker.get('leaveRun', { id: run!.id, body: { lane: 'LANE-1' } });
    await work({ lotSwaps: true });
  });

  it('asks at a pick what the site wants asked, and journals who changed that', async () => {
    await work({
      picking: {
        one: { checks: ['item'], order: 'item-first', counting: 'once', drop: 'place' },
        many: usualSettings.picking.many,
      },
    });
    const order = await takeIn(desk, { number: 'W-7', lines: [['HT-001', 6]] });
    const [run] = await runsOf([order]);
    const { picks } = await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-06' } });
    const gtin = picks[0]!.step.item.packs.find((p) => p.level === 'unit')!.gtin;
    const verdict = await picker.get('runInput', {
      id: run!.id,
      body: { pick: picks[0]!.step.id, input: { kind: 'scan', text: gtin } },
    });
    expect(verdict).toMatchObject({ verdict: 'done', units: picks[0]!.step.units });
    const [entry] = await relay.query<{ facts: { before: SiteSettings; after: SiteSettings }; person_id: string }>(
      `select facts, person_id from journal where kind = 'settings-changed' order by id desc limit 1`,
    );
    expect(entry!.person_id).toBe('maren');
    expect(entry!.facts.before.lotSwaps).toBe(true);
    expect(entry!.facts.after.picking.one.counting).toBe('once');
    expect(
      (await desk.refused('changeSiteSettings', { body: { ...usualSettings, stages: 'fly' } })).fields[0]!.path,
    ).toBe('stages');
  });

  describe('people and sites', () => {
    it('lets who works at two sites change over, each with rights of its own', async () => {
      const pico = await relay.as('pico');
      const { sites } = await pico.get('me');
      expect(sites.map((s) => s.id).sort()).toEqual(['fennock', 'larkmoor']);
      const there = await pico.get('switchSite', { body: { site: 'fennock' } });
      expect(there).toMatchObject({ site: { code: 'FK1' }, settings: { stages: 'pick-ship', reserve: 'intake' } });
      expect((await pico.get('me')).site.id).toBe('fennock');
      // The next sign-in begins there; nobody gets to a site where they do not work.
      expect((await (await relay.as('pico')).get('me')).site.id).toBe('fennock');
      await pico.get('switchSite', { body: { site: 'larkmoor' } });
      expect((await (await relay.as('tobi')).refused('switchSite', { body: { site: 'fennock' } })).code).toBe(
        'not-at-site',
      );
    });

    it('holds the depot to its own way: reserved before release, shipped off the cart', async () => {
      const maren = await relay.as('maren');
      await maren.get('switchSite', { body: { site: 'fennock' } });
      const [open] = await relay.query<{ id: string; asked: number; kept: number }>(
        `select o.id, sum(l.asked)::int as asked, sum(r.units)::int as kept from customer_order o join order_line l on l.order_id = o.id
         join reservation r on r.line_id = l.id and r.wave_id is null where o.site_id = 'fennock' group by o.id having sum(l.asked) = sum(r.units) limit 1`,
      );
      const [run] = (await maren.get('wave', { id: await startWave(maren, [open!.id]) })).runs;
      const taken = await maren.get('takeRun', { id: run!.id, body: { cart: 'TROLLEY-1' } });
      for (const pick of taken.picks) {
        const input = (what: object) =>
          maren.get('runInput', { id: run!.id, body: { pick: pick.step.id, input: what } });
        // One scan names the goods and counts them all; the bin may come after it.
        await input({ kind: 'scan', text: pick.step.item.packs[0]!.gtin });
        expect(await input({ kind: 'scan', text: pick.step.bin })).toMatchObject({ verdict: 'done' });
      }
      await maren.get('leaveRun', { id: run!.id, body: { lane: 'NORTH-1' } });
      const row = (await maren.get('dock')).shipments.find((s) => s.order === open!.id)!;
      if ((await maren.get('shipment', { id: row.shipment })).needsTracking)
        await maren.get('tracking', { id: row.shipment, body: { from: 'carrier' } });
      expect((await maren.get('confirm', { id: row.shipment, body: { rest: null } })).state).toBe('confirmed');
      await maren.get('switchSite', { body: { site: 'larkmoor' } });
    });

    it('makes a role out of rights, gives it, and takes a right away from everybody who has it', async () => {
      const role = { role: 'runner', pick: true, pack: true };
      await desk.get('changeSheet', { id: 'roles', body: { rows: [role] } });
      const suri = { person: 'suri', name: 'Suri Okell', roles: 'runner', badge: 'BADGE-2002' };
      await desk.get('changeSheet', { id: 'people', body: { rows: [suri] } });
      const now = await relay.as('suri');
      expect((await now.get('me')).person.rights.sort()).toEqual(['orders.pack', 'runs.pick']);
      await desk.get('changeSheet', { id: 'roles', body: { rows: [{ ...role, pack: false }] } });
      expect((await (await relay.as('suri')).get('me')).person.rights).toEqual(['runs.pick']);
      const used = await desk.get('retireSheetRows', { id: 'roles', body: { rows: [role], retired: true } });
      expect(used.errors[0]).toMatchObject({ column: 'role', expected: 'nothing-there' });
      // Nobody could set the site up any more.
      const locked = await desk.get('changeSheet', {
        id: 'roles',
        body: { rows: ['supervisor', 'administrator'].map((role) => ({ role, pick: true, set_up: false })) },
      });
      expect(locked.errors[0]).toMatchObject({ column: 'set_up', expected: 'a-supervisor' });
    });

    it('signs a device out, and says where the server is reached', async () => {
      const bram = await relay.as('bram');
      const { devices, addresses } = await desk.get('devices');
      expect(addresses.length).toBeGreaterThan(0);
      const his = devices.filter((d) => d.person === 'Bram Tolley');
      for (const d of his) await desk.get('signOutDevice', { id: d.id });
      expect((await bram.refused('me')).code).toBe('not-signed-in');
      const [entry] = await relay.query<{ facts: object }>(
        `select facts from journal where kind = 'device-signed-out' order by id desc limit 1`,
      );
      expect(entry!.facts).toMatchObject({ person: 'Bram Tolley' });
      const code = await desk.ask('addressCode', { query: { text: addresses[0]! } });
      expect((code.body as Buffer).toString()).toContain('<svg');
    });
  });

  describe('printing', () => {
    it('goes where the station prints, is fetched oldest first, and says what became of it', async () => {
      await work({ label: 'a6' });
      const at = (station: string) => desk.get('print', { body: { kind: 'test-page', station } });
      expect([(await at('BENCH-1')).printer, (await at('BENCH-4')).printer, (await at('DOOR-9')).printer]).toEqual([
        'LABEL-1',
        'LABEL-2',
        'LABEL-DOCK',
      ]);
      const { job } = await desk.get('print', { body: { kind: 'badges', station: 'BENCH-1' } });
      const { jobs } = await desk.get('printJobs', { query: { printer: 'SHEETS', state: 'waiting' } });
      expect(jobs).toMatchObject([{ id: job, title: 'Badges', person: 'Maren Holt', printer: 'SHEETS' }]);
      const pdf = await desk.ask('printJobPdf', { id: job });
      expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
      const png = await desk.ask('printJobPng', { id: job });
      if (png.status !== 200) throw new Error(JSON.stringify(png.body));
      // A4 at 144 dots an inch.
      const bytes = png.body as Buffer;
      expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)].map((n) => Math.round(n / 10))).toEqual([119, 168]);
      expect((await desk.refused('printJobPng', { id: job, query: { page: 9 } })).code).toBe('not-found');
      await desk.get('printJobDone', { id: job, body: { state: 'failed', note: 'out of paper' } });
      const { jobs: all } = await desk.get('printJobs');
      expect(all.find((j) => j.id === job)).toMatchObject({ state: 'failed', note: 'out of paper' });
      expect((await picker.refused('print', { body: { kind: 'badges' } })).status).toBe(403);
    });

    it('refuses a station that two printers claim, and says when there is none', async () => {
      const row = { printer: 'LABEL-9', name: 'Spare', prints: 'labels', stations: 'BENCH-1' };
      const { errors } = await desk.get('changeSheet', { id: 'printers', body: { rows: [row] } });
      expect(errors[0]).toMatchObject({ column: 'stations', expected: 'once' });
      expect((await desk.refused('print', { body: { kind: 'test-page', printer: 'NOWHERE' } })).code).toBe(
        'no-printer',
      );
    });
  });

  it('keeps pictures of one’s own, and nothing that is none', async () => {
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const { picture } = await desk.get('savePicture', { body: { data: png.toString('base64') } });
    const back = await desk.ask('picture', { id: picture.split(':')[1]! });
    expect([back.headers['content-type'], Buffer.compare(back.body as Buffer, png)]).toEqual(['image/png', 0]);
    expect((await desk.refused('savePicture', { body: { data: Buffer.from('<svg/>').toString('base64') } })).code).toBe(
      'not-a-picture',
    );
  });
});
