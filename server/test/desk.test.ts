import { deskLineFields, type DeskLine } from '@hand-relay/contract';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave, takeIn } from './steps.ts';

const DAY = 86_400_000;
const dayAt = (n: number) => new Date(Date.now() + n * DAY).toISOString().slice(0, 10);

describe('the Desk: what can go, who gets the stock', () => {
  let relay: TestRelay;
  let [desk, service] = [] as unknown as [Person, Person];
  /** An item that nobody else asks for, with so many units free. */
  let sku = '';
  let item = '';
  let free = 0;
  const orders: Record<string, string> = {};
  const lineOf = async (order: string, n = 1) =>
    (await desk.get('order', { id: order })).lines.find((l) => l.line === n)!;
  const gets = async (policy: 'priority' | 'fair-share' | 'most-orders') =>
    Object.fromEntries(
      (await desk.get('itemAvailability', { id: item, query: { policy } })).askers.map((a) => [a.number, a.gets]),
    );

  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
    service = await relay.as('tobi');
    const [found] = await relay.query<{ id: string; sku: string; free: number }>(
      `select i.id, i.sku, sum(t.on_hand - t.reserved)::int as free from item i join stock_total t on t.item_id = i.id
       where t.site_id = 'larkmoor' and not i.tracks_lot and not i.tracks_serial
         and not exists (select 1 from order_line l join customer_order o on o.id = l.order_id where l.item_id = i.id and o.site_id = t.site_id)
       group by i.id having sum(t.on_hand - t.reserved) between 20 and 400 order by i.sku limit 1`,
    );
    ({ sku, id: item, free } = found!);
    const ask = async (name: string, quantity: number, more = {}) =>
      (orders[name] = await takeIn(desk, { number: name, lines: [[sku, quantity]], ...more }));
    // The urgent one asks nearly all; three small ones fit together without it.
    const small = Math.floor(free / 4);
    await ask('BIG', free - 2, { priority: 1 });
    await ask('S1', small, { priority: 5 });
    await ask('S2', small, { priority: 6 });
    await ask('S3', small, { priority: 7, shipComplete: true });
  });
  afterAll(() => relay.close());

  it('tells what is sure, what needs a choice, and which items fall short', async () => {
    const { orders: rows, short } = await desk.get('outlook');
    const row = (name: string) => rows.find((r) => r[0] === orders[name])!;
    expect(row('BIG')[1]).toBe('choose');
    expect(row('S3').slice(1, 4)).toEqual(['choose', 0, 0]);
    const small = Math.floor(free / 4);
    expect(short.find((s) => s.id === item)).toMatchObject({ sku, free, asked: free - 2 + 3 * small, orders: 4 });
  });

  it('reads what it computes with once for as long as nothing changed, and never shows what was before', async () => {
    const { db } = relay.platform;
    const execute = db.execute.bind(db);
    let statements = 0;
    db.execute = ((statement: Parameters<typeof execute>[0]) => {
      statements += 1;
      return execute(statement);
    }) as never;
    const reads = async (work: () => Promise<unknown>) => {
      const before = statements;
      await work();
      return statements - before;
    };
    const look = () => desk.get('orderAvailability', { id: orders['S1']! });
    await look();
    const kept = await reads(look);
    const { id: line } = await lineOf(orders['S1']!);
    const gets = async () => (await look()).promise!.lines[0]!.gets;
    for (const units of [1, 2, 0]) {
      await desk.get('allocateManually', { body: { lines: [{ line, units }] } });
      expect(await gets()).toBe(units);
    }
    await desk.get('allocateManually', { body: { lines: [{ line, units: null }] } });
    expect(await reads(look)).toBeGreaterThan(kept);
    // A notice that something changed may still come in; then all is as it was.
    let again = await reads(look);
    for (let tries = 0; again !== kept && tries < 50; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      again = await reads(look);
    }
    expect(again).toBe(kept);
    db.execute = execute;
  });

  it('narrows the view by what is given, and computes within it', async () => {
    const all = await desk.get('outlook');
    const some = await desk.get('outlook', { query: { class: 'A', until: dayAt(2), channel: 'account' } });
    expect(some.orders.length).toBeGreaterThan(0);
    expect(some.orders.length).toBeLessThan(all.orders.length);
    const zoned = await desk.get('outlook', { query: { zone: 'cold' } });
    const carried = await desk.get('outlook', { query: { carrier: 'no such carrier' } });
    expect(zoned.orders.length).toBeLessThan(all.orders.length);
    expect(carried.orders).toEqual([]);
    expect((await desk.refused('outlook', { query: { until: 'soon' } })).fields[0]!.path).toBe('until');
  });

  it('shares an item by each policy, and sets them side by side', async () => {
    const small = Math.floor(free / 4);
    expect(await gets('priority')).toEqual({ BIG: free - 2, S1: 2, S2: 0, S3: 0 });
    expect(await gets('most-orders')).toMatchObject({ S1: small, S2: small, S3: small });
    const fair = await gets('fair-share');
    expect(fair['S1']! + fair['S2']! + fair['BIG']! + fair['S3']!).toBe(free);
    const { tallies, sides, lines, going } = await desk.get('comparePolicies', { body: {} });
    const at = (policy: string) => tallies.findIndex((tally) => tally.policy === policy);
    const [priority, most] = [tallies[at('priority')], tallies[at('most-orders')]];
    expect(most!.orders).toBeGreaterThan(priority!.orders);
    expect(most!.bound).toBeGreaterThanOrEqual(most!.orders);
    const { complete } = sides.find((s) => s.order === orders['S1'])!;
    expect([complete[at('priority')], complete[at('most-orders')]]).toEqual([false, true]);
    expect(lines.find((l) => l.order === orders['BIG'])!.units[0]).toBe(free - 2);
    expect(going[at('most-orders')]).toContain(orders['S3']);
  });

  it('says why a line gets what it gets, and lets a person with the right decide otherwise', async () => {
    const small = Math.floor(free / 4);
    const line = async (name: string) =>
      (await desk.get('orderAvailability', { id: orders[name]! })).promise!.lines[0]!;
    expect(await line('S2')).toMatchObject({ gets: 0, reason: 'taken', sure: 0, could: small });
    expect((await line('S2')).takers[0]).toMatchObject({ number: 'BIG', units: free - 2 });
    const wanted = { lines: [{ line: (await lineOf(orders['S2']!)).id, units: small }] };
    expect((await service.refused('allocateManually', { body: wanted })).status).toBe(403);
    const before = await desk.get('allocateManually', { body: wanted });
    expect(before.lines[0]!.units).toBeNull();
    // It survives a new computation, and stands in the trail.
    expect(await gets('priority')).toMatchObject({ S2: small, BIG: free - small });
    expect((await line('S2')).reason).toBe('full');
    expect((await desk.get('trail', { id: orders['S2']! })).entries.map((e) => e.kind)).toContain('line-allocated');
    const much = await desk.refused('allocateManually', {
      body: { lines: [{ line: wanted.lines[0]!.line, units: 9999 }] },
    });
    expect(much).toMatchObject({ code: 'allocated-too-much', facts: { open: small } });
    await desk.get('allocateManually', { body: before });
    expect(await gets('priority')).toMatchObject({ S2: 0, BIG: free - 2 });
  });

  it('counts nothing that lies in a blocked bin', async () => {
    const [bin] = await relay.query<{ code: string; units: number; id: string }>(
      `select p.code, p.id, b.units from balance b join place p on p.id = b.place_id where b.item_id = '${item}' and p.kind = 'bin' and p.site_id = 'larkmoor' limit 1`,
    );
    await relay.query(`update place set blocked = 'count' where id = '${bin!.id}'`);
    const blocked = await desk.get('itemAvailability', { id: item });
    expect(blocked).toMatchObject({ onHand: free, blocked: bin!.units });
    expect(blocked.lots.reduce((n, l) => n + Math.max(0, l.free), 0)).toBe(free - bin!.units);
    await relay.query(`update place set blocked = null where id = '${bin!.id}'`);
  });

  it('tells when the rest can go, by supply that is expected', async () => {
    const row = { reference: 'PO-1', item: sku, due: dayAt(3), units: 3 * free, source: 'purchase' };
    await desk.get('changeSheet', { id: 'supply', body: { rows: [row] } });
    const { promise } = await desk.get('orderAvailability', { id: orders['S3']! });
    expect(promise!.lines[0]!.fullBy).toBeNull();
    const late = await takeIn(desk, { number: 'LATE', lines: [[sku, free + 5]], priority: 9 });
    expect((await desk.get('orderAvailability', { id: late })).promise).toMatchObject({
      readiness: 'choose',
      fullBy: dayAt(3),
    });
  });

  it('computes for several classes, channels and days, and for an item alone', async () => {
    const count = async (query: Record<string, string>) => (await desk.get('outlook', { query })).orders.length;
    const by = await Promise.all(['A', 'B', 'A|B'].map((value) => count({ class: value })));
    expect(by[2]).toBe(by[0]! + by[1]!);
    const { departures } = await desk.get('deskPlaces');
    expect(await count({ departure: departures.join('|'), channel: 'web|account|field', kind: 'order' })).toBe(
      await count({ kind: 'order' }),
    );
    const day = await Promise.all([dayAt(1), dayAt(2)].map((d) => count({ from: d, until: d })));
    expect(await count({ from: dayAt(1), until: dayAt(2) })).toBe(day[0]! + day[1]!);
    const ofItem = await desk.get('outlook', { query: { item: sku.toLowerCase() } });
    const page = await desk.get('order', { id: ofItem.orders[0]![0] as string });
    expect(page.lines.map((l) => l.sku)).toContain(sku);
    expect(await desk.refused('outlook', { query: { kind: 'order|X' } })).toMatchObject({ fields: [{ path: 'kind' }] });
  });

  it('keeps views by name for whoever made them', async () => {
    const keep = (settings: object) => desk.get('saveView', { body: { list: 'orders', name: 'Mine', settings } });
    await keep({ class: 'A' });
    const { views } = await keep({ class: 'B' });
    expect(views.map((v) => [v.name, v.settings])).toEqual([['Mine', { class: 'B' }]]);
    expect((await service.get('savedViews')).views).toEqual([]);
    // Shared, everybody has it, and only who made it can delete it.
    await desk.get('saveView', { body: { list: 'orders', name: 'Mine', settings: { class: 'C' }, shared: true } });
    expect((await service.get('savedViews')).views).toMatchObject([{ name: 'Mine', shared: true, mine: false }]);
    expect((await service.refused('deleteView', { id: views[0]!.id })).status).toBe(404);
    expect((await desk.get('deleteView', { id: views[0]!.id })).views).toEqual([]);
  });

  it('looks before it releases, gives lines exactly what was decided, and joins a wave that still gathers', async () => {
    const small = Math.floor(free / 4);
    const line = (await lineOf(orders['BIG']!)).id;
    const body = { orders: [orders['BIG']!, orders['S1']!], lines: [{ line, units: 3 }] };
    const look = await desk.get('previewRelease', { body });
    expect(look).toMatchObject({ orders: 2, ordersComplete: 1, units: 3 + small, cartons: 2 });
    expect(look.seconds).toBeGreaterThan(0);
    expect(look.departures.reduce((n, d) => n + d.units, 0)).toBe(look.units);
    const { wave, number } = await desk.get('release', { body });
    expect(await lineOf(orders['BIG']!)).toMatchObject({ released: 3, reserved: 3 });
    // More of the same line goes into the same wave: it adds up.
    const more = await desk.get('release', {
      body: { orders: [orders['BIG']!, orders['S3']!], lines: [{ line, units: 2 }], wave },
    });
    expect(more).toMatchObject({ wave, number });
    expect(await lineOf(orders['BIG']!)).toMatchObject({ released: 5, reserved: 5 });
    expect((await desk.get('wave', { id: wave })).orders).toHaveLength(3);
    await desk.get('planWave', { id: wave });
    const closed = await desk.refused('release', { body: { orders: [orders['S2']!], wave } });
    expect(closed).toMatchObject({ code: 'wave-state', facts: { state: 'planned' } });
    await desk.get('cancelWave', { id: wave });
    expect(await lineOf(orders['BIG']!)).toMatchObject({ released: 0, reserved: 0 });
  });

  it('keeps a manual allocation through a release of it, and forgets it after', async () => {
    const line = (await lineOf(orders['S2']!)).id;
    await desk.get('allocateManually', { body: { lines: [{ line, units: 1 }] } });
    await startWave(desk, [orders['S2']!]);
    expect(await lineOf(orders['S2']!)).toMatchObject({ released: 1 });
    const [after] = await relay.query<{ manual: number | null }>(
      `select manually_allocated as manual from order_line where id = '${line}'`,
    );
    expect(after!.manual).toBeNull();
  });

  it('tells where an item lies and for whom it is reserved, ahead of a release and with one', async () => {
    const [s1] = [orders['S1']!];
    await desk.get('reserve', { id: s1, body: {} });
    const stock = await desk.get('itemStock', { id: item });
    const [there] = await relay.query<{ units: number }>(
      `select sum(b.units)::int as units from balance b join place p on p.id = b.place_id
       where b.item_id = '${item}' and p.kind = 'bin' and p.site_id = 'larkmoor'`,
    );
    expect(stock.bins.reduce((n, b) => n + b.units, 0)).toBe(there!.units);
    expect(stock.bins.reduce((n, b) => n + b.toPick, 0)).toBe(1);
    const { reserved } = await lineOf(s1);
    expect(stock.reserved.map((r) => [r.order.number, r.units, r.wave?.state ?? null])).toEqual(
      expect.arrayContaining([
        ['S1', reserved, null],
        ['S2', 1, 'started'],
      ]),
    );
    expect(await desk.refused('itemStock', { id: 'nothing' })).toMatchObject({ code: 'not-found' });
  });

  it('lists open lines one by one, and reserves, frees and releases a part of one without its neighbours', async () => {
    const order = await takeIn(desk, {
      number: 'TWO',
      lines: [
        ['HT-003', 6],
        ['HT-004', 5],
      ],
    });
    const mine = async () => {
      const { rows } = await desk.get('deskLines');
      return rows
        .map((row) => Object.fromEntries(row.map((v, i) => [deskLineFields[i], v])) as unknown as DeskLine)
        .filter((l) => l.order === order);
    };
    const [hammer, tool] = (await mine()).sort((a, b) => a.line - b.line);
    expect([hammer, tool]).toMatchObject([
      { number: 'TWO', line: 1, sku: 'HT-003', open: 6, reserved: 0, held: '' },
      { line: 2, sku: 'HT-004', open: 5, reserved: 0 },
    ]);
    const reserve = (lines: { line: string; units: number }[]) => service.get('reserveLines', { body: { lines } });
    expect(await reserve([{ line: hammer!.id, units: 4 }])).toEqual({
      lines: [{ line: hammer!.id, before: 0, after: 4 }],
    });
    expect((await mine()).map((l) => [l.line, l.reserved, l.free])).toEqual(
      expect.arrayContaining([
        [1, 4, hammer!.free - 4],
        [2, 0, tool!.free],
      ]),
    );
    // Fewer of the one, more of the other than there is: as many as there are.
    const { lines } = await reserve([
      { line: hammer!.id, units: 1 },
      { line: tool!.id, units: 5 },
    ]);
    expect(lines).toEqual([
      { line: hammer!.id, before: 4, after: 1 },
      { line: tool!.id, before: 0, after: Math.min(5, tool!.free) },
    ]);
    await reserve(lines.map(({ line, before }) => ({ line, units: before })));
    expect((await mine()).map((l) => [l.line, l.reserved])).toEqual(
      expect.arrayContaining([
        [1, 4],
        [2, 0],
      ]),
    );
    // One line leaves, the other stays.
    await desk.get('release', {
      body: {
        orders: [order],
        lines: [
          { line: hammer!.id, units: 6 },
          { line: tool!.id, units: 0 },
        ],
      },
    });
    expect(await mine()).toMatchObject([{ line: 2, open: 5, reserved: 0 }]);
    expect(await service.refused('reserveLines', { body: { lines: [{ line: 'nothing', units: 1 }] } })).toMatchObject({
      code: 'not-found',
    });
    expect((await desk.get('deskLines', { query: { item: 'HT-004' } })).rows.length).toBeGreaterThan(0);
    expect((await desk.get('deskLines', { query: { from: '2999-01-01' } })).rows).toEqual([]);
  });

  it('writes any list as a workbook', async () => {
    const answer = await desk.ask('workbook', {
      body: {
        cells: [
          ['order', 'units'],
          ['A', 3],
        ],
      },
    });
    expect(answer.status).toBe(200);
    expect(answer.headers['content-type']).toContain('spreadsheetml');
  });
});
