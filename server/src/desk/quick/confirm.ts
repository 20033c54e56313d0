import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { quickBody, quickResult } from '@hand-relay/contract';
import { freshProgress } from '@hand-relay/core/handling/picking';
import { judgeQuick } from '@hand-relay/core/deciding/quick';
import { mustNotBeHeld } from '../holds/index.ts';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { openShipment, shipAtOnce, stageGoods } from '../../dock/shipping/index.ts';
import { lockTotals, move, mustKeepUntil, nextNumbers } from '../../stock/index.ts';
import { freeOrders, itemsOf, lockStock } from '../waves/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

type Asked = z.output<typeof quickBody>['orders'][number];

interface Line {
  id: string;
  line: number;
  order: string;
  item: string;
  sku: string;
  open: number;
  tracksSerial: boolean;
}

/**
 * Confirms what was picked and ships it, in one: the wave, the run and the shipment of each order are written as if
 * people had gone through them, so that books and trails tell the same as ever. Where the site packs, it ends before
 * that: the goods wait at the bench as those of any run.
 *
 * @throws Refusal 409 `quick-too-much`, `quick-not-there`, `quick-lot` where a lot does not keep long enough,
 *   `quick-part` of an order that ships complete, `quick-under-way`, or what stops a release, a pick or a shipment; then nothing of it is written
 */
export async function quickConfirm(
  change: Change,
  { orders }: z.output<typeof quickBody>,
): Promise<z.input<typeof quickResult>> {
  const { tx, actor, now } = change;
  const packs = (await settingsOf(tx, actor.siteId)).stages === 'pick-pack-ship';
  for (const right of ['orders.release', packs ? 'runs.arrange' : 'shipments.confirm'] as const)
    if (!actor.rights.has(right)) throw new Refusal('not-allowed', { needs: [right] });
  await lockStock(tx, actor.siteId);
  const ids = [...new Set(orders.map((o) => o.order))];
  const heads = await rows<{
    id: string;
    number: string;
    complete: boolean;
    service: string | null;
    lane: string | null;
    busy: boolean;
  }>(
    tx,
    sql`select o.id, o.number, o.ship_complete as complete, d.service_id as service, coalesce(o.lane_id, d.lane_id) as lane,
               exists (select 1 from order_line l where l.order_id = o.id and l.released > l.shipped) as busy
        from customer_order o left join departure d on d.id = o.departure_id
        where o.site_id = ${actor.siteId} and o.status = 'open' and o.id = ${anyOf(ids)} for update of o`,
  );
  for (const { order } of orders) {
    const head = heads.find((h) => h.id === order);
    if (!head) throw notFound('order', order);
    if (head.busy) throw new Refusal('quick-under-way', { order: head.number });
    for (const stage of packs ? (['release', 'picking'] as const) : (['release', 'picking', 'shipping'] as const))
      await mustNotBeHeld(tx, order, stage);
  }
  await lockTotals(tx, actor.siteId, itemsOf(ids));
  // What was promised to them before is a part of what they get now.
  await freeOrders(change, ids);
  const lines = await linesOf(change, ids);
  const wrong = judgeQuick(orders, lines, new Set(heads.filter((h) => h.complete).map((h) => h.id)));
  if (wrong?.code === 'no-such-line') throw notFound('line', wrong.line);
  if (wrong?.code === 'quick-part')
    throw new Refusal(wrong.code, { order: heads.find((h) => h.id === wrong.order)!.number });
  if (wrong?.code === 'quick-serials') throw new Refusal(wrong.code, wrong);
  if (wrong) throw new Refusal(wrong.code, wrong);

  await mustKeep(change, orders);

  const wave = change.newId();
  const run = change.newId();
  const [waveNumber] = await nextNumbers(change, 'wave', 1);
  const [runNumber] = await nextNumbers(change, 'run', 1);
  const number = String(runNumber).padStart(4, '0');
  const picks = orders.flatMap(({ order, picks: own }, i) =>
    own.map((p) => ({ ...p, id: change.newId(), order, item: lines.get(p.line)!.item, position: i + 1 })),
  );
  const positions = orders.map(({ order }, i) => ({ order, number: i + 1, place: `position-${run}-${i + 1}` }));
  await tx.execute(sql`
    insert into wave (id, site_id, number, state, created_at, created_by) values (${wave}, ${actor.siteId}, ${waveNumber}, 'started', ${now.toISOString()}, ${actor.personId})`);
  await promise(change, wave, picks, packs);
  await tx.execute(sql`
    insert into run (id, site_id, wave_id, number, call_sign, state, lane_id, positions, picker_id, metres, path, stops, started_at, left_at)
    values (${run}, ${actor.siteId}, ${wave}, ${number}, ${`QUICK ${waveNumber}`}, 'left', ${laneOf(heads)}, ${orders.length}, ${actor.personId}, 0, '[]',
            ${new Set(picks.map((p) => p.bin)).size}, ${now.toISOString()}, ${now.toISOString()})`);
  await tx.execute(sql`
    with p as (select * from jsonb_to_recordset(${recordset(positions)}) as p("order" text, number int, place text)),
    placed as (insert into place (id, site_id, kind, code) select place, ${actor.siteId}, 'position', ${number} || '-' || number from p returning id)
    insert into run_position (run_id, number, order_id, place_id) select ${run}, p.number, p."order", p.place from p join placed on placed.id = p.place`);
  await takeFromBins(change, run, picks);
  change.journal(
    ...orders.map(({ order, picks: own }) => ({
      kind: 'quick-picked',
      orderId: order,
      waveId: wave,
      runId: run,
      facts: { wave: waveNumber, run: number, units: own.reduce((n, p) => n + p.units, 0), picks: own },
    })),
  );

  change.publish('waves', [wave]);
  change.publish('stock', []);
  const unitsOf = (own: Asked['picks']) => own.reduce((n, p) => n + p.units, 0);
  const head = (order: string) => heads.find((h) => h.id === order)!;
  if (packs) {
    change.publish('runs', [run]);
    change.publish('bench', []);
    const atDock = await stageGoods(change, run);
    return {
      shipments: [],
      toPack: orders
        .filter(({ order }) => !atDock.has(order))
        .map(({ order, picks: own }) => ({ order: head(order).number, id: order, units: unitsOf(own) })),
    };
  }
  return { shipments: await shipEach(change, orders, head), toPack: [] };
}

/** The lane that all orders are taken to; null where they go to several. */
function laneOf(heads: readonly { lane: string | null }[]): string | null {
  const lanes = new Set(heads.map((h) => h.lane));
  return lanes.size === 1 ? [...lanes][0]! : null;
}

/** Opens and confirms the shipment of each order. */
async function shipEach(
  change: Change,
  orders: Asked[],
  headOf: (order: string) => { id: string; number: string; service: string | null },
): Promise<z.input<typeof quickResult>['shipments']> {
  const { tx } = change;
  const shipments: z.input<typeof quickResult>['shipments'] = [];
  for (const { order, picks: own } of orders) {
    const head = headOf(order);
    const id = await openShipment(change, head, true);
    await shipAtOnce(change, id).catch((error: unknown) => {
      // Of many orders confirmed at once the refusal must name the one that it is about.
      throw error instanceof Refusal ? error.ofOrder(head.number) : error;
    });
    const [made] = await rows<{ number: string; tracking: string | null }>(
      tx,
      sql`select number, tracking from shipment where id = ${id}`,
    );
    const units = own.reduce((n, p) => n + p.units, 0);
    shipments.push({ order: head.number, id, shipment: made!.number, units, tracking: made!.tracking });
  }
  return shipments;
}

/**
 * Lots that somebody took must keep as long as the customer asks.
 *
 * @throws Refusal 409 `quick-lot` for the first that does not
 */
async function mustKeep({ tx, actor, now }: Change, orders: Asked[]): Promise<void> {
  const until = mustKeepUntil(actor.siteId, sql`l.item_id`, now);
  const [short] = await rows<{ sku: string; lot: string; keeps: string }>(
    tx,
    sql`select i.sku, p.lot, ${until}::text as keeps
        from jsonb_to_recordset(${recordset(orders.flatMap((o) => o.picks))}) as p(line text, lot text)
        join order_line l on l.id = p.line join item i on i.id = l.item_id join customer_order o on o.id = l.order_id
        join customer c on c.id = o.customer_id join lot t on t.item_id = l.item_id and t.lot = p.lot
        where t.best_before < ${until} limit 1`,
  );
  if (short) throw new Refusal('quick-lot', short);
}

async function linesOf({ tx }: Change, orders: string[]): Promise<Map<string, Line>> {
  const lines = await rows<Line>(
    tx,
    sql`select l.id, l.line, l.order_id as "order", l.item_id as item, i.sku, l.asked - l.cancelled - l.released as open, i.tracks_serial as "tracksSerial"
        from order_line l join item i on i.id = l.item_id where l.order_id = ${anyOf(orders)} for update of l`,
  );
  return new Map(lines.map((l) => [l.id, l]));
}

type Pick = Asked['picks'][number] & { id: string; order: string; item: string; position: number };

/** Promises what was picked to its lines, firmly; stock that is promised to others is refused. */
async function promise({ tx, actor }: Change, wave: string, picks: Pick[], packs: boolean): Promise<void> {
  const short = await rows<{ sku: string; lot: string; units: number; free: number }>(
    tx,
    sql`
    select i.sku, p.lot, p.units, coalesce(t.on_hand - t.reserved, 0)::int as free
    from (select item, lot, sum(units)::int as units from jsonb_to_recordset(${recordset(picks)}) as p(item text, lot text, units int) group by 1, 2) p
    join item i on i.id = p.item left join stock_total t on t.site_id = ${actor.siteId} and t.item_id = p.item and t.lot = p.lot
    where coalesce(t.on_hand - t.reserved, 0) < p.units limit 1`,
  );
  if (short[0]) throw new Refusal('quick-not-there', { ...short[0] });
  await tx.execute(sql`
    with p as (
      select line, item, lot, sum(units)::int as units from jsonb_to_recordset(${recordset(picks)}) as p(line text, item text, lot text, units int) group by 1, 2, 3
    ), kept as (
      insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
      select ${wave}, line, ${actor.siteId}, item, lot, units, units from p
    ), of_line as (select line, sum(units)::int as units from p group by 1),
    joined as (insert into wave_line (wave_id, line_id, units) select ${wave}, line, units from of_line)
    update order_line l set released = l.released + o.units, picked = l.picked + o.units, packed = l.packed + ${packs ? sql`0` : sql`o.units`}, manually_allocated = null
    from of_line o where l.id = o.line`);
}

/** Writes the picks as done, and takes the goods out of their bins; what others are sent there for stays. */
async function takeFromBins(change: Change, run: string, picks: Pick[]): Promise<void> {
  const { tx, actor, now } = change;
  await tx.execute(sql`
    select 1 from balance b join place q on q.id = b.place_id
    where q.site_id = ${actor.siteId} and q.kind = 'bin' and (q.code, b.item_id, b.lot) in (
      select bin, item, lot from jsonb_to_recordset(${recordset(picks)}) as p(item text, bin text, lot text))
    order by b.place_id, b.item_id, b.lot, b.serial for update of b`);
  const short = await rows<{ sku: string; bin: string; units: number; free: number }>(
    tx,
    sql`
    select i.sku, p.bin, p.units, coalesce(h.units, 0)::int as free
    from (select item, bin, lot, sum(units)::int as units from jsonb_to_recordset(${recordset(picks)}) as p(item text, bin text, lot text, units int) group by 1, 2, 3) p
    join item i on i.id = p.item
    left join lateral (
      select sum(b.units) - coalesce((select sum(k.units - k.picked) from pick k where k.state = 'open' and k.bin_id = min(b.place_id) and k.item_id = p.item and k.lot = p.lot), 0) as units
      from balance b join place q on q.id = b.place_id where q.site_id = ${actor.siteId} and q.kind = 'bin' and q.code = p.bin and q.blocked is null and b.item_id = p.item and b.lot = p.lot
    ) h on true
    where coalesce(h.units, 0) < p.units limit 1`,
  );
  if (short[0]) throw new Refusal('quick-not-there', { ...short[0] });
  await tx.execute(sql`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, picked, state, progress, confirmed_at, confirmed_by)
    select p.id, ${run}, p.n, p."order", p.line, p.item, p.lot, b.id, p.position, p.units, p.units, 'done', ${JSON.stringify(freshProgress)}::jsonb,
           ${now.toISOString()}, ${actor.personId}
    from jsonb_to_recordset(${recordset(picks.map((p, i) => ({ ...p, n: i + 1 })))})
      as p(id text, n int, "order" text, line text, item text, lot text, bin text, position int, units int)
    join place b on b.site_id = ${actor.siteId} and b.kind = 'bin' and b.code = p.bin`);
  const bins = await rows<{ pick: string; bin: string; place: string }>(
    tx,
    sql`select k.id as pick, k.bin_id as bin, q.place_id as place from pick k
        join run_position q on q.run_id = k.run_id and q.number = k.position where k.run_id = ${run}`,
  );
  const at = new Map(bins.map((b) => [b.pick, b]));
  const moves = picks.flatMap(({ id, item, lot, units, serials }) => {
    const one = { from: at.get(id)!.bin, to: at.get(id)!.place, item, lot };
    return serials.length > 0
      ? serials.map((serial) => ({ ...one, serial, units: 1 }))
      : [{ ...one, serial: '', units }];
  });
  await move(change, moves, 'pick', run);
}
