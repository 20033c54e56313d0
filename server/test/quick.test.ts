import type { QuickOrder } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, takeIn } from './steps.ts';

/** Picks of an order as asked: everything from where the list says that it lies. */
const asAsked = (order: QuickOrder, most = Infinity) => ({
  order: order.id,
  picks: order.lines.flatMap((l) =>
    l.from.map(({ bin, lot, units, serials }) => ({
      line: l.line,
      bin,
      lot,
      units: Math.min(units, most),
      serials: l.tracksSerial ? serials.slice(0, Math.min(units, most)) : [],
    })),
  ),
});

describe('the quick path of a site that packs nothing', () => {
  let relay: TestRelay;
  let [desk, picker] = [] as unknown as Person[];
  const find = async (number: string) => (await desk!.get('quickList')).orders.find((o) => o.number === number)!;
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker] = await Promise.all((['maren', 'pico'] as const).map((id) => relay.as(id)));
    await desk!.get('switchSite', { body: { site: 'fennock' } });
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  it('lists what is due with the bins to fetch it from, and confirms and ships it once', async () => {
    const { orders, more } = await desk!.get('quickList');
    expect(more).toBe(0);
    const due = await relay.query<{ n: number }>(
      `select count(*)::int as n from customer_order where site_id = 'fennock' and status = 'open' and due <= (now() at time zone 'Europe/London')::date`,
    );
    expect(orders).toHaveLength(due[0]!.n);
    const full = orders.filter((o) => o.held === null && o.lines.every((l) => l.gets === l.asked)).slice(0, 3);
    const body = { orders: full.map((o) => asAsked(o)) };
    const { shipments } = await desk!.get('quickConfirm', { body, key: 'quick-once' });
    expect(shipments.map((s) => s.order)).toEqual(full.map((o) => o.number));
    for (const [i, { id, number }] of full.entries()) {
      const order = await desk!.get('order', { id });
      expect(order.status).toBe('closed');
      expect(order.shipments).toMatchObject([{ state: 'confirmed', tracking: shipments[i]!.tracking }]);
      expect(order.lines.every((l) => l.shipped === l.asked)).toBe(true);
      const kinds = (await desk!.get('trail', { id })).entries.map((e) => e.kind);
      expect([number, kinds]).toEqual([number, expect.arrayContaining(['quick-picked', 'shipped', 'wave-done'])]);
    }
    expect((await desk!.get('quickConfirm', { body, key: 'quick-once' })).shipments).toEqual(shipments);
    expect((await desk!.refused('quickConfirm', { body })).status).toBe(404);
  });

  it('takes exact quantities by line: the rest stays open, except where an order ships complete', async () => {
    const lines: [string, number][] = (
      await relay.query<{ sku: string }>(
        `select i.sku from balance b join place p on p.id = b.place_id join item i on i.id = b.item_id
         join stock_total t on t.item_id = i.id and t.site_id = 'fennock'
         where p.site_id = 'fennock' and p.kind = 'bin' and t.on_hand - t.reserved >= 12 order by b.units desc limit 2`,
      )
    ).map(({ sku }) => [sku, 3]);
    const due = new Date().toISOString().slice(0, 10);
    const part = await takeIn(desk!, { number: 'Q-PART', lines, due });
    await takeIn(desk!, { number: 'Q-WHOLE', lines, due, shipComplete: true });
    const body = { orders: [asAsked(await find('Q-PART'), 1)] };
    await desk!.get('quickConfirm', { body });
    expect((await desk!.get('order', { id: part })).lines.map((l) => [l.asked, l.shipped])).toEqual([
      [3, 1],
      [3, 1],
    ]);
    // The rest is due still, and can go later.
    expect((await find('Q-PART')).lines.map((l) => l.asked)).toEqual([2, 2]);
    const whole = await desk!.refused('quickConfirm', { body: { orders: [asAsked(await find('Q-WHOLE'), 1)] } });
    expect(whole).toMatchObject({ code: 'quick-part', facts: { order: 'Q-WHOLE' } });
    const too = asAsked(await find('Q-PART'));
    too.picks[0]!.units = 9;
    expect((await desk!.refused('quickConfirm', { body: { orders: [too] } })).code).toBe('quick-too-much');
    const gone = asAsked(await find('Q-PART'));
    gone.picks[0]!.bin = 'N4-20-2';
    expect((await desk!.refused('quickConfirm', { body: { orders: [gone] } })).code).toBe('quick-not-there');
  });

  it('takes lots where the list says, and serial numbers by name, each once and where it lies', async () => {
    const { settings } = await desk!.get('siteSettings');
    const there = await relay.as('maren');
    await there.get('switchSite', { body: { site: 'larkmoor' } });
    await there.get('changeSiteSettings', { body: { ...settings, stages: 'pick-and-ship', reserve: 'scan' } });
    const lines: [string, number][] = [
      ['PP-002', 3],
      ['RF-001', 2],
    ];
    const due = new Date().toISOString().slice(0, 10);
    const id = await takeIn(there, { number: 'Q-KEPT', lines, due });
    const order = (await there.get('quickList')).orders.find((o) => o.number === 'Q-KEPT')!;
    const [paste, meter] = order.lines;
    expect(paste!.from.every((f) => f.lot !== '')).toBe(true);
    expect(meter!.tracksSerial && meter!.from[0]!.serials.length > 0).toBe(true);
    const body = { orders: [asAsked(order)] };
    const picks = body.orders[0]!.picks.filter((p) => p.line === meter!.line);
    const serials = picks.flatMap((p) => p.serials);
    const named = (name: (serial: string, n: number) => string) => {
      let n = 0;
      for (const pick of picks) pick.serials = pick.serials.map((serial) => name(serial, n++));
    };
    named(() => serials[0]!);
    expect((await there.refused('quickConfirm', { body })).code).toBe('quick-serials');
    named((_, n) => `NOT-HERE-${n}`);
    expect((await there.refused('quickConfirm', { body })).status).toBe(409);
    expect((await there.get('order', { id })).lines.map((l) => l.released)).toEqual([0, 0]);
    await there.get('quickConfirm', { body: { orders: [asAsked(order)] } });
    expect((await there.get('order', { id })).status).toBe('closed');
    const gone = await relay.query<{ serial: string }>(
      `select m.serial from movement m join place p on p.id = m.to_place where p.kind = 'outside' and m.serial <> '' order by 1`,
    );
    expect(gone.map((g) => g.serial)).toEqual([...serials].sort());
    await there.get('changeSiteSettings', { body: { ...settings, stages: 'pick-pack-ship', reserve: 'release' } });
    await desk!.get('switchSite', { body: { site: 'fennock' } });
  });

  it('keeps out orders on hold and under way, and people without the rights', async () => {
    const [first] = (await desk!.get('quickList')).orders.filter((o) => o.held === null && o.lines.some((l) => l.gets));
    await desk!.get('holdOrder', { id: first!.id, body: { reason: 'wait for the office', stops: ['shipping'] } });
    expect((await find(first!.number)).held).toBe('wait for the office');
    expect((await desk!.refused('quickConfirm', { body: { orders: [asAsked(first!)] } })).code).toBe('order-held');
    const [hold] = (await desk!.get('holds', { id: first!.id })).holds;
    await desk!.get('liftHold', { id: hold!.id, body: { reason: 'office says go' } });
    await desk!.get('release', { body: { orders: [first!.id] } });
    expect(await find(first!.number)).toBeUndefined();
    expect((await desk!.refused('quickConfirm', { body: { orders: [asAsked(first!)] } })).code).toBe('quick-under-way');
    await picker!.get('switchSite', { body: { site: 'fennock' } });
    expect((await picker!.refused('quickConfirm', { body: { orders: [asAsked(first!)] } })).status).toBe(403);
  });

  it('finds one order, a later day and a part of a name, and takes other bins and lots, but none that keeps too short', async () => {
    const later = new Date(Date.now() + 20 * 86_400_000).toISOString().slice(0, 10);
    const there = await relay.as('maren');
    await there.get('switchSite', { body: { site: 'larkmoor' } });
    const [stocked] = await relay.query<{ sku: string; item: string; bin: string; lot: string; units: number }>(
      `select i.sku, i.id as item, p.code as bin, b.lot, b.units from balance b join place p on p.id = b.place_id join item i on i.id = b.item_id
       join lot t on t.item_id = i.id and t.lot = b.lot
       where p.site_id = 'larkmoor' and p.kind = 'bin' and b.units > 10 and not exists (select 1 from pick k where k.bin_id = p.id)
         and (select count(distinct x.place_id) from balance x join place q on q.id = x.place_id and q.kind = 'bin' and q.site_id = 'larkmoor' where x.item_id = i.id) > 1
       order by i.sku, p.code limit 1`,
    );
    const { sku, item } = stocked!;
    const id = await takeIn(there, { number: 'Q-LATER', lines: [[sku, 2]], due: later, reference: 'PO quick 7' });
    const found = async (query: Record<string, string>) =>
      (await there.get('quickList', { query })).orders.map((o) => o.number);
    expect(await found({})).not.toContain('Q-LATER');
    expect(await found({ until: later, find: 'quick 7' })).toEqual(['Q-LATER']);
    expect(await found({ until: 'any', find: '%' })).toEqual([]);
    const [order] = (await there.get('quickList', { query: { order: id } })).orders;
    const [line] = order!.lines;
    const [other] = line!.others;
    expect(other).toMatchObject({ there: expect.any(Number) });
    const pick = (units: number, { bin, lot }: { bin: string; lot: string }) => ({
      orders: [{ order: id, picks: [{ line: line!.line, bin, lot, units, serials: [] }] }],
    });
    const keeps = (day: string | null) =>
      relay.query(
        `update lot set best_before = ${day === null ? 'null' : `'${day}'`} where item_id = '${item}' and lot = '${other!.lot}'`,
      );
    await keeps('2020-01-01');
    const short = await there.refused('quickConfirm', { body: pick(2, other!) });
    expect(short).toMatchObject({ code: 'quick-lot', facts: { sku, lot: other!.lot } });
    expect((await there.get('quickList', { query: { order: id } })).orders[0]!.lines[0]!.others).not.toContainEqual(
      expect.objectContaining({ lot: other!.lot }),
    );
    await keeps(other!.bestBefore);
    expect((await there.get('quickConfirm', { body: pick(2, other!) })).toPack).toEqual([
      { order: 'Q-LATER', id, units: 2 },
    ]);
    const picked = await relay.query<{ bin: string; lot: string }>(
      `select p.code as bin, k.lot from pick k join place p on p.id = k.bin_id where k.order_id = '${id}'`,
    );
    expect(picked).toEqual([{ bin: other!.bin, lot: other!.lot }]);
  });

  it('ends at the bench where the site packs: packed, confirmed and shipped from there', async () => {
    const packer = await relay.as('maren');
    await packer.get('switchSite', { body: { site: 'larkmoor' } });
    const due = new Date().toISOString().slice(0, 10);
    const id = await takeIn(packer, { number: 'Q-BENCH', lines: [['HT-001', 2]], due });
    const [order] = (await packer.get('quickList', { query: { order: id } })).orders;
    await relay.query(`update customer_order set ship_complete = true where id = '${id}'`);
    const part = await packer.refused('quickConfirm', { body: { orders: [asAsked(order!, 1)] } });
    expect(part).toMatchObject({ code: 'quick-part', facts: { order: 'Q-BENCH' } });
    const done = await packer.get('quickConfirm', { body: { orders: [asAsked(order!)] } });
    expect(done).toEqual({ shipments: [], toPack: [{ order: 'Q-BENCH', id, units: 2 }] });
    const { runs } = await packer.get('bench');
    expect(runs.flatMap((r) => r.orders).find((o) => o.id === id)).toMatchObject({ units: 2, packed: 0 });
    expect((await packer.get('order', { id })).lines).toMatchObject([{ picked: 2, packed: 0, shipped: 0 }]);
    await packAll(packer, id);
    const [shipment] = (await packer.get('dock')).shipments.filter((one) => one.order === id);
    await packer.get('tracking', { id: shipment!.shipment, body: { from: 'carrier' } });
    await packer.get('confirm', { id: shipment!.shipment, body: { rest: null } });
    expect((await packer.get('order', { id })).status).toBe('closed');
    expect((await packer.get('bench')).runs.flatMap((r) => r.orders).map((o) => o.id)).not.toContain(id);
    // Who packs confirms nothing that was picked.
    const service = await relay.as('ada');
    expect((await service.refused('quickConfirm', { body: { orders: [asAsked(order!)] } })).status).toBe(403);
  });
});
