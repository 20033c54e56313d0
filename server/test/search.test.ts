import fc from 'fast-check';
import type { FoundKind, SearchAnswer } from '@hand-relay/contract';
import { searchKey } from '@hand-relay/core/reading/search';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn } from './steps.ts';

describe('a search', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());

  const find = (text: string, who = desk, kind?: FoundKind): Promise<SearchAnswer> =>
    who.get('search', { query: { text, ...(kind ? { kind } : {}) } });
  const first = async (text: string, who = desk) => {
    const [group] = (await find(text, who)).groups;
    return group ? [group.kind, group.hits[0]!.title] : [];
  };
  const one = async <T>(statement: string): Promise<T> => (await relay.query<T>(`${statement} limit 1`))[0]!;

  it('compares texts in the database as core does', async () => {
    const texts = fc.sample(fc.string({ unit: 'binary', maxLength: 20 }), 300).filter((t) => !t.includes('\0'));
    texts.push('Straße 7-b', 'ÄÖÜ äöü É\'"\\', 'a\u00a0b');
    const keys = await relay.query<{ key: string }>(
      `select search_key(t) as key from jsonb_array_elements_text('${JSON.stringify(texts).replaceAll("'", "''")}') with ordinality as x(t, n) order by n`,
    );
    expect(keys.map((k) => k.key)).toEqual(texts.map(searchKey));
  });

  it('finds what people hold in their hands, however they write it', async () => {
    const order = await takeIn(desk, { number: 'FIND-1', reference: 'PO 4711/88', lines: [['HT-001', 3]] });
    const wave = await startWave(desk, [order]);
    const { runs, wave: gathered } = await desk.get('wave', { id: wave });
    const run = runs[0]!;
    expect(await first('find 1')).toEqual(['order', 'FIND-1']);
    expect(await first('find1')).toEqual(['order', 'FIND-1']);
    expect(await first('po-4711 88')).toEqual(['order', 'FIND-1']);
    // A part of it, and words in any order.
    expect((await find('471188')).groups[0]).toMatchObject({
      kind: 'order',
      hits: [{ title: 'FIND-1', state: 'open' }],
    });
    expect(await first(`wave ${gathered.number}`)).toEqual(['wave', String(gathered.number)]);
    expect(await first(run.number)).toEqual(['run', run.number]);
    expect(await first(run.callSign.toUpperCase())).toEqual(['run', run.number]);

    const { gtin, name, sku } = await one<{ gtin: string; name: string; sku: string }>(
      `select p.gtin, i.name, i.sku from item_pack p join item i on i.id = p.item_id where i.sku = 'HT-001'`,
    );
    expect(await first(gtin)).toEqual(['item', name]);
    expect(await first(sku.replace('-', ' '))).toEqual(['item', name]);
    expect(await first(name.split(/[ ,]+/).reverse().join(' '))).toEqual(['item', name]);
    const { lot } = await one<{ lot: string }>('select lot from lot order by lot');
    expect(await first(lot.toLowerCase())).toEqual(['lot', lot]);
    const { serial } = await one<{ serial: string }>(`select serial from balance where serial <> '' order by serial`);
    expect(await first(serial)).toEqual(['serial', serial]);
    const { code } = await one<{ code: string }>(
      `select code from place where kind = 'bin' and site_id = 'larkmoor' order by code`,
    );
    expect(await first(code.replaceAll('-', ''))).toEqual(['bin', code]);
    expect(await first('cart 01')).toEqual(['cart', 'CART-01']);
    expect(await first('lane 1')).toEqual(['place', 'LANE-1']);
    const { name: customer, city } = await one<{ name: string; city: string }>(
      'select name, city from customer order by number',
    );
    expect(await first(`${city} ${customer}`)).toEqual(['customer', customer]);
    expect(await first('pico')).toEqual(['person', 'Pico Lund']);

    // Packed and shipped: the carton, its shipment and the closed order are found too.
    const pico = await relay.as('pico');
    await pickAll(pico, run.id, 'CART-01');
    await packAll(await relay.as('ada'), order);
    const { sscc, number, id } = await one<{ sscc: string; number: string; id: string }>(
      `select k.sscc, s.number, s.id from carton k join shipment s on s.id = k.shipment_id where k.order_id = '${order}'`,
    );
    expect((await find(`(00) ${sscc}`)).groups).toMatchObject([{ kind: 'carton', hits: [{ id, title: sscc }] }]);
    expect(await first(sscc.slice(-8))).toEqual(['carton', sscc]);
    expect(await first(number)).toEqual(['shipment', number]);
    await relay.query(`update shipment set tracking = 'RR473124829GB' where id = '${id}'`);
    await relay.query(`update customer_order set status = 'closed' where id = '${order}'`);
    expect(await first('rr 473 124 829 gb')).toEqual(['shipment', number]);
    expect((await find('FIND-1')).groups[0]).toMatchObject({
      kind: 'order',
      hits: [{ title: 'FIND-1', state: 'closed' }],
    });
  });

  it('shows the best first: what is it, what begins with it, what has it; open before closed', async () => {
    for (const number of ['9-RANK-7', 'RANK-70', 'RANK-7']) await takeIn(desk, { number, lines: [['HT-001', 1]] });
    const titles = async () => (await find('rank 7')).groups[0]!.hits.map((h) => h.title);
    expect(await titles()).toEqual(['RANK-7', 'RANK-70', '9-RANK-7']);
    await relay.query(`update customer_order set status = 'closed' where number = 'RANK-70'`);
    await takeIn(desk, { number: 'RANK-71', lines: [['HT-001', 1]] });
    expect(await titles()).toEqual(['RANK-7', 'RANK-71', 'RANK-70', '9-RANK-7']);
    for (let n = 0; n < 4; n++) await takeIn(desk, { number: `RANK-7-${n}`, lines: [['HT-001', 1]] });
    expect((await find('rank 7')).groups[0]).toMatchObject({ more: true, hits: { length: 5 } });
    const all = (await find('rank 7', desk, 'order')).groups;
    expect(all).toMatchObject([{ kind: 'order', more: false, hits: { length: 8 } }]);
  });

  it('tells nobody of what they may not see, and nothing where there is nothing to look for', async () => {
    const order = await one<{ number: string; customer: string; name: string }>(
      `select o.number, c.name as customer, i.name from customer_order o join customer c on c.id = o.customer_id
       join order_line l on l.order_id = o.id join item i on i.id = l.item_id where o.site_id = 'larkmoor' order by o.number`,
    );
    const pico = await relay.as('pico');
    expect((await find(order.number, pico)).groups).toEqual([]);
    expect((await find(order.customer, pico)).groups).toEqual([]);
    expect((await find('Pico Lund', pico)).groups).toEqual([]);
    expect((await find(order.name, pico)).groups[0]!.kind).toBe('item');
    expect((await find(' -/- ')).groups).toEqual([]);
    expect((await find('%')).groups).toEqual([]);
    expect((await find('no such thing anywhere')).groups).toEqual([]);
  });
});

describe('a trace', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  const trace = (query: Record<string, string>) => desk.get('trace', { query });

  it('follows a lot from its bin to the customer, and every unit is somewhere', async () => {
    const [lot] = await relay.query<{ item: string; lot: string; sku: string; units: number }>(
      `select b.item_id as item, b.lot, i.sku, sum(b.units)::int as units from balance b join item i on i.id = b.item_id
       join place p on p.id = b.place_id where b.lot <> '' and p.site_id = 'larkmoor' and p.kind = 'bin'
       group by 1, 2, 3 having sum(b.units) > 20 order by i.sku, b.lot limit 1`,
    );
    const { item, lot: name, sku, units } = lot!;
    const [extractor] = await relay.query<{ sku: string }>(
      `select sku from item where tracks_serial order by sku limit 1`,
    );
    const before = await trace({ item, lot: name });
    expect(before).toMatchObject({ item: { sku }, place: null, onHand: units, shippedUnits: 0, shipped: [] });
    const order = await pickedOrder(desk, await relay.as('pico'), 'CART-01', {
      number: 'TRACE-1',
      reference: 'PO 77',
      lines: [
        [sku, 3],
        [extractor!.sku, 1],
      ],
    });
    const [picked] = await relay.query<{ lot: string; bin: string }>(
      `select k.lot, p.code as bin from pick k join place p on p.id = k.bin_id where k.order_id = '${order}' and k.item_id = '${item}' limit 1`,
    );
    const of = { item, lot: picked!.lot };
    const onCart = await trace(of);
    expect(onCart.now).toContainEqual(
      expect.objectContaining({ kind: 'position', units: 3, order: { id: order, number: 'TRACE-1' } }),
    );
    expect(onCart.moves[0]).toMatchObject({
      reason: 'pick',
      from: picked!.bin,
      units: 3,
      person: 'Pico Lund',
      order: { number: 'TRACE-1' },
    });
    await packAll(await relay.as('ada'), order);
    const [shipment] = await relay.query<{ id: string; number: string }>(
      `select id, number from shipment where order_id = '${order}'`,
    );
    await desk.get('tracking', { id: shipment!.id, body: { from: 'carrier' } });
    await desk.get('confirm', { id: shipment!.id, body: {} });
    // They stand on the order, on the shipment and in the trail's facts.
    const [{ serial }] = (await relay.query<{ serial: string }>(
      `select serial from movement where document = '${shipment!.id}' and serial <> ''`,
    )) as [{ serial: string }];
    const lots = [[{ lot: picked!.lot, serial: '' }], [{ lot: '', serial }]];
    expect((await desk.get('order', { id: order })).lines.map((l) => l.lots)).toEqual(lots);
    expect((await desk.get('shipment', { id: shipment!.id })).lines.map((l) => l.lots)).toEqual(lots);
    const { entries } = await desk.get('trail', { id: order });
    expect(entries.filter((e) => e.kind === 'picked').map((e) => [e.facts['lot'], e.facts['serials']])).toEqual(
      expect.arrayContaining([
        [picked!.lot, undefined],
        ['', [serial]],
      ]),
    );
    const gone = await trace(of);
    expect(gone.shipped).toMatchObject([
      {
        units: 3,
        lot: picked!.lot,
        sku,
        order: { number: 'TRACE-1' },
        reference: 'PO 77',
        shipment: { number: shipment!.number },
        customerNumber: 'C1030',
      },
    ]);
    expect(gone.moves.map((m) => m.reason).slice(0, 3)).toEqual(['ship', 'pack', 'pick']);
    expect(gone.onHand + gone.shippedUnits).toBe(onCart.onHand);
    // On paper, for a recall.
    const paper = await desk.ask('tracePaper', { query: of });
    expect([paper.status, (paper.body as Buffer).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
    // The bin knows it too, and only its own movements.
    const { id: bin } = (
      await relay.query<{ id: string }>(`select id from place where code = '${picked!.bin}' and site_id = 'larkmoor'`)
    )[0]!;
    const there = await trace({ place: bin });
    expect(there).toMatchObject({ item: null, place: { code: picked!.bin, kind: 'bin' }, shipped: [] });
    expect(there.moves.every((m) => [m.from, m.to].includes(picked!.bin))).toBe(true);
    expect(there.moves[0]).toMatchObject({ order: { number: 'TRACE-1' } });
    expect(there.onHand).toBe(
      (await relay.query<{ n: number }>(`select sum(units)::int as n from balance where place_id = '${bin}'`))[0]!.n,
    );
  });

  it('needs an item or a place that there is', async () => {
    expect((await desk.refused('trace', { query: {} })).fields).toMatchObject([{ path: 'item' }]);
    expect(await desk.refused('trace', { query: { item: 'nothing' } })).toMatchObject({ code: 'not-found' });
    expect(await desk.refused('tracePaper', { query: { item: 'nothing' } })).toMatchObject({ code: 'not-found' });
    expect(await desk.refused('trace', { query: { place: 'nothing' } })).toMatchObject({ code: 'not-found' });
    expect(await (await relay.as('pico')).refused('trace', { query: { item: 'nothing' } })).toMatchObject({
      status: 403,
    });
  });
});

describe('the list of picks', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  const list = (query: Record<string, string> = {}) => desk.get('picks', { query });

  it('has every confirmed pick of the days asked for, with its time, its lot, and what went wrong at it', async () => {
    expect(await list()).toEqual({ picks: [], total: 0 });
    const pico = await relay.as('pico');
    const order = await takeIn(desk, {
      number: 'PICKS-1',
      lines: [
        ['SY-001', 3],
        ['HT-003', 4],
        ['JR-001', 5],
      ],
    });
    const wave = await startWave(desk, [order]);
    const run = (await desk.get('wave', { id: wave })).runs[0]!.id;
    const { picks } = await pico.get('takeRun', { id: run, body: { cart: 'CART-01' } });
    const of = (sku: string) => picks.find((p) => p.step.item.sku === sku)!;
    const input = (sku: string, what: object) =>
      pico.get('runInput', { id: run, body: { pick: of(sku).step.id, input: what } });
    await pickOne(pico, run, of('SY-001'), 'CART-01');
    // The wrong bin first; then fewer than asked, the place told by a touch.
    await input('HT-003', { kind: 'scan', text: 'Z-99-9' });
    await input('HT-003', { kind: 'scan', text: of('HT-003').step.bin });
    await input('HT-003', { kind: 'short', units: 3, reason: 'not-found' });
    const gtin = of('HT-003').step.item.packs.find((p) => p.level === 'unit')!.gtin;
    for (let n = 0; n < 3; n++) await input('HT-003', { kind: 'scan', text: gtin });
    await input('HT-003', { kind: 'touch', what: 'position' });
    const found = await list();
    expect(found.total).toBe(2);
    const [tool, syrup] = found.picks;
    expect(tool).toMatchObject({
      person: 'Pico Lund',
      order: { id: order, number: 'PICKS-1' },
      item: { sku: 'HT-003' },
      bin: of('HT-003').step.bin,
      picked: 3,
      asked: 4,
      touched: ['position'],
      refused: 1,
    });
    expect(syrup).toMatchObject({
      item: { sku: 'SY-001' },
      lot: of('SY-001').step.lot,
      picked: 3,
      asked: 3,
      refused: 0,
    });
    const [gap] = await relay.query<{ s: number }>(
      `select extract(epoch from max(confirmed_at) - min(confirmed_at))::float8 as s from pick where run_id = '${run}' and confirmed_at is not null`,
    );
    expect(tool!.seconds).toBeCloseTo(gap!.s, 3);
    // What all of a run should take is what its picks should.
    await pickOne(pico, run, of('JR-001'), 'CART-01');
    const all = (await list()).picks;
    const { runs } = await desk.get('wave', { id: wave });
    expect(all.reduce((n, p) => n + p.expected, 0)).toBeGreaterThan(runs[0]!.metres / 1.2);
    for (const [query, skus] of [
      [{ only: 'short' }, ['HT-003']],
      [{ only: 'touched' }, ['JR-001', 'HT-003', 'SY-001']],
      [{ only: 'refused' }, ['HT-003']],
      [{ find: of('SY-001').step.lot! }, ['SY-001']],
      [{ find: 'pico' }, ['JR-001', 'HT-003', 'SY-001']],
      [{ find: 'picks-1' }, ['JR-001', 'HT-003', 'SY-001']],
      [{ find: '%' }, []],
      [{ from: '2001-01-01' }, []],
      [{ from: '2001-01-01', until: '2099-01-01', find: 'JR-001' }, ['JR-001']],
    ] as const)
      expect([query, (await list(query as Record<string, string>)).picks.map((p) => p.item.sku)]).toEqual([
        query,
        skus,
      ]);
  });

  it('is for who may see the trail, and days are days', async () => {
    const pico = await relay.as('pico');
    expect((await pico.refused('picks')).code).toBe('not-allowed');
    expect((await desk.refused('picks', { query: { from: 'yesterday' } })).fields).toMatchObject([{ path: 'from' }]);
  });
});
