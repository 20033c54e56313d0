import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { packagingActBody, packagingRuleBody } from '@hand-relay/contract';
import { takeOut, type PackagingReason } from '@hand-relay/core/handling/packaging';
import { notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { takeDue } from './due.ts';
import { accounted, palletsWith } from './kinds.ts';

/** @throws Refusal 404 */
async function nameOf({ tx }: Change, type: string): Promise<string> {
  const [known] = await rows<{ name: string }>(
    tx,
    sql`select name from carton_type where id = ${type} union all select name from pallet_type where id = ${type}`,
  );
  if (!known) throw notFound('type of packaging', type);
  return known.name;
}

/** Says how a type is accounted for and ordered; what there is of it stays. */
export async function changePackaging(
  change: Change,
  type: string,
  rule: z.output<typeof packagingRuleBody>,
): Promise<void> {
  const { tx, actor, now } = change;
  const name = await nameOf(change, type);
  await tx.execute(sql`
    insert into packaging (site_id, type_id, accounting, reorder_point, lot, look_after_used, look_after_days, own_line, looked_at)
    values (${actor.siteId}, ${type}, ${rule.accounting}, ${rule.reorderPoint}, ${rule.lot}, ${rule.lookAfterUsed}, ${rule.lookAfterDays},
      ${rule.ownLine}, ${now.toISOString()})
    on conflict (site_id, type_id) do update set accounting = excluded.accounting, reorder_point = excluded.reorder_point, lot = excluded.lot,
      look_after_used = excluded.look_after_used, look_after_days = excluded.look_after_days, own_line = excluded.own_line`);
  // What was closed under another rule is not posted under this one.
  if (rule.accounting !== 'daily') await takeDue(change, [type]);
  change.journal({ kind: 'packaging-rule', facts: { type: name, ...rule } });
  publish(change);
}

/** The row of a type that is accounted for, locked. */
async function lockStock({ tx, actor }: Change, type: string): Promise<{ onHand: number; onOrder: number } | null> {
  const [row] = await rows<{ onHand: number; onOrder: number }>(
    tx,
    sql`select on_hand as "onHand", on_order as "onOrder" from packaging
        where site_id = ${actor.siteId} and type_id = ${type} and accounting <> 'none' for update`,
  );
  return row ?? null;
}

/** @throws Refusal 404, 409 `not-accounted` for a type that the site does not account for */
export async function actOnPackaging(
  change: Change,
  type: string,
  act: z.output<typeof packagingActBody>,
): Promise<void> {
  const { tx, actor, now } = change;
  const name = await nameOf(change, type);
  const stock = await lockStock(change, type);
  if (!stock) throw new Refusal('not-accounted', { type: name });
  const where = sql`where site_id = ${actor.siteId} and type_id = ${type}`;
  if (act.act === 'ordered') await tx.execute(sql`update packaging set on_order = on_order + ${act.units} ${where}`);
  else if (act.act === 'received') {
    // What comes was ordered, as far as anything was.
    await tx.execute(
      sql`update packaging set on_hand = on_hand + ${act.units}, on_order = greatest(0, on_order - ${act.units}) ${where}`,
    );
    await insertMovement(change, { type, reason: 'receipt', units: act.units });
  } else if (act.act === 'counted') {
    await tx.execute(
      sql`update packaging set on_hand = ${act.units}, count_wanted = false, looked_at = ${now.toISOString()} ${where}`,
    );
    // Whoever counts finds what was closed gone.
    await takeDue(change, [type]);
    await insertMovement(change, { type, reason: 'count', units: act.units - stock.onHand });
  } else await tx.execute(sql`update packaging set looked_at = ${now.toISOString()} ${where}`);
  change.journal({
    kind: `packaging-${act.act}`,
    facts: { type: name, ...('units' in act ? { units: act.units } : {}) },
  });
  publish(change);
}

/**
 * Books out what was closed and is not posted yet, of the types that are posted by the day: a posting for each type and day.
 *
 * @param before only days before this one, as `2026-12-24`
 * @returns one posting for each type of which anything was; none when it is run again
 */
export async function postDays(
  change: Change,
  before: string | null = null,
): Promise<{ type: string; units: number }[]> {
  const { tx, actor } = change;
  // One posting after the other, or two would book the same cartons.
  const types = await rows<{ id: string; name: string; onHand: number }>(
    tx,
    sql`select p.type_id as id, coalesce(c.name, q.name) as name, p.on_hand as "onHand" from packaging p
        left join carton_type c on c.id = p.type_id left join pallet_type q on q.id = p.type_id
        where p.site_id = ${actor.siteId} and p.accounting = 'daily' order by p.type_id for update of p`,
  );
  const taken = await takeDue(
    change,
    types.map((t) => t.id),
    before,
  );
  for (const { type, day, units } of taken) {
    const stock = types.find((t) => t.id === type)!;
    await bookOut(change, { type, onHand: stock.onHand, units, reason: 'daily', document: day });
    stock.onHand = Math.max(0, stock.onHand - units);
  }
  const postings = types
    .map(({ id, name }) => ({
      type: name,
      units: taken.filter((t) => t.type === id).reduce((sum, t) => sum + t.units, 0),
    }))
    .filter((p) => p.units > 0);
  if (postings.length > 0) change.journal({ kind: 'packaging-posted', facts: { day: taken.at(-1)!.day, postings } });
  publish(change);
  return postings;
}

/** Books out the packaging of a shipment that is confirmed, each type once; its cost is kept with the shipment. */
export async function shipPackaging(change: Change, shipment: string): Promise<{ costMinor: number }> {
  const { tx, actor } = change;
  const counted = await accounted(tx, actor.siteId);
  const used = await rows<{ type: string; units: number; cost: number; counted: boolean }>(
    tx,
    sql`
    select c.type_id as type, count(*)::int as units, sum(t.cost_minor)::float8 as cost, bool_and(${counted}) as counted
    from carton c join carton_type t on t.id = c.type_id join customer_order o on o.id = c.order_id
    where c.shipment_id = ${shipment} group by 1
    union all
    -- Pallets and crates at every level: each leaves with the last of its shipments.
    select u.type_id, count(*)::int, 0, true from (
      with recursive up as (
        select p.id, p.type_id, p.state, p.outer_id from carton c join pallet p on p.id = c.pallet_id where c.shipment_id = ${shipment}
        union select p.id, p.type_id, p.state, p.outer_id from up join pallet p on p.id = up.outer_id
      ) select * from up where state = 'shipped' and id in (${palletsWith(sql`p.id in (select id from up)`, counted)})
    ) u group by 1
    order by 1`,
  );
  for (const { type, units } of used.filter((u) => u.counted)) {
    const [row] = await rows<{ onHand: number }>(
      tx,
      sql`select on_hand as "onHand" from packaging where site_id = ${actor.siteId} and type_id = ${type} and accounting = 'with-unit' for update`,
    );
    if (row) await bookOut(change, { type, onHand: row.onHand, units, reason: 'shipped', document: shipment });
  }
  if (used.length > 0) change.publish('bench', []);
  return { costMinor: used.reduce((sum, u) => sum + u.cost, 0) };
}

/** Units leave stock; what was not there by the books is written down, and somebody is asked to count. */
async function bookOut(
  change: Change,
  {
    type,
    onHand,
    units,
    ...rest
  }: { type: string; onHand: number; units: number; reason: PackagingReason; document: string },
): Promise<void> {
  const { taken, missing } = takeOut(onHand, units);
  await change.tx.execute(sql`
    update packaging set on_hand = on_hand - ${taken}, count_wanted = count_wanted or ${missing > 0}
    where site_id = ${change.actor.siteId} and type_id = ${type}`);
  await insertMovement(change, { type, units: -units, missing, ...rest });
}

async function insertMovement(
  { tx, actor, now }: Change,
  {
    type,
    reason,
    units,
    missing = 0,
    document = '',
  }: { type: string; reason: PackagingReason; units: number; missing?: number; document?: string },
): Promise<void> {
  await tx.execute(sql`
    insert into packaging_movement (site_id, type_id, at, person_id, reason, units, missing, document)
    select ${actor.siteId}, m.type, ${now.toISOString()}, ${actor.personId}, m.reason, m.units, m.missing, m.document
    from jsonb_to_recordset(${recordset([{ type, reason, units, missing, document }])}) as m(type text, reason text, units int, missing int, document text)`);
}

function publish(change: Change): void {
  change.publish('setup', []);
  change.publish('bench', []);
}
