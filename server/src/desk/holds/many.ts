import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { holdOrdersBody, liftHoldsBody } from '@hand-relay/contract';
import { anyOf, recordset, rows, type Change } from '../../platform/index.ts';
import { rolesOf } from './hold.ts';
import { notesOf } from './judge.ts';

/** Holds orders by hand, each with a hold of its own; closed ones are left out. */
export async function holdOrders(
  change: Change,
  { orders, reason, stops }: z.output<typeof holdOrdersBody>,
): Promise<{ held: number; closed: number; holds: string[] }> {
  const { tx, actor, now } = change;
  const open = await rows<{ id: string }>(
    tx,
    sql`select id from customer_order where site_id = ${actor.siteId} and status = 'open' and id = ${anyOf(orders)} order by id for update`,
  );
  const holds = open.map(({ id }) => ({ order: id, id: change.newId() }));
  await tx.execute(sql`
    insert into order_hold (id, site_id, order_id, text, stops, lifters, held_at, held_by)
    select h.id, ${actor.siteId}, h."order", ${reason}, array(select jsonb_array_elements_text(${recordset(stops)})),
           array(select name from role where site_id = ${actor.siteId} and not retired and 'orders.release' = any(rights)),
           ${now.toISOString()}, ${actor.personId}
    from jsonb_to_recordset(${recordset(holds)}) as h(id text, "order" text)`);
  change.journal(
    ...open.map(({ id }) => ({ kind: 'hold-laid', orderId: id, facts: { text: reason, name: '', stops } })),
  );
  if (open.length > 0)
    await notesOf(
      change,
      open.map((o) => o.id),
    );
  return { held: open.length, closed: new Set(orders).size - open.length, holds: holds.map((h) => h.id) };
}

/** Lifts holds, or all of some orders, as far as the person's roles may; by whom the others are lifted they say themselves. */
export async function liftHolds(
  change: Change,
  { orders, holds, reason }: z.output<typeof liftHoldsBody>,
): Promise<{ lifted: number; mayNot: number; holds: string[] }> {
  const { tx, actor, now } = change;
  const there = await rows<{ id: string; order: string; text: string; may: boolean }>(
    tx,
    // The person who held an order by mistake may take that back, whatever their roles.
    sql`select h.id, h.order_id as "order", h.text, h.lifters && ${rolesOf(actor, actor.siteId)} or (h.rule_id is null and h.held_by = ${actor.personId}) as may
        from order_hold h where h.site_id = ${actor.siteId} and h.lifted_at is null
          and (h.order_id = ${anyOf(orders)} or h.id = ${anyOf(holds)}) order by h.order_id, h.id for update`,
  );
  const lifted = there.filter((h) => h.may);
  await tx.execute(sql`
    update order_hold set lifted_at = ${now.toISOString()}, lifted_by = ${actor.personId} where id = ${anyOf(lifted.map((h) => h.id))}`);
  change.journal(...lifted.map((h) => ({ kind: 'hold-lifted', orderId: h.order, facts: { text: h.text, reason } })));
  const touched = [...new Set(lifted.map((h) => h.order))];
  if (touched.length > 0) await notesOf(change, touched);
  return {
    lifted: touched.length,
    mayNot: new Set(there.filter((h) => !h.may).map((h) => h.order)).size,
    holds: lifted.map((h) => h.id),
  };
}

/** Lays on again what the person lifted. */
export async function restoreHolds(change: Change, holds: readonly string[]): Promise<{ holds: number }> {
  const { tx, actor } = change;
  const back = await rows<{ order: string; text: string }>(
    tx,
    sql`update order_hold set lifted_at = null, lifted_by = null
        where site_id = ${actor.siteId} and lifted_by = ${actor.personId} and lifted_at is not null and id = ${anyOf(holds)}
        returning order_id as "order", text`,
  );
  change.journal(...back.map((h) => ({ kind: 'hold-laid', orderId: h.order, facts: { text: h.text, name: '' } })));
  const touched = [...new Set(back.map((h) => h.order))];
  if (touched.length > 0) await notesOf(change, touched);
  return { holds: back.length };
}
