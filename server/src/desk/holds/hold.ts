import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { holdBody, holdRuleBody, OrderHold, OrderHolds, HoldRuleRow } from '@hand-relay/contract';
import { faultOf } from '@hand-relay/core/deciding/conditions';
import { holdFields } from '@hand-relay/core/deciding/holds';
import {
  iso,
  notFound,
  recordset,
  Refusal,
  rows,
  type Actor,
  type Change,
  type Db,
  type Tx,
} from '../../platform/index.ts';
import { judgeOrders, notesOf } from './judge.ts';

/** The roles that a person has at a site, as an SQL array. */
export const rolesOf = (actor: Actor, siteId: string) =>
  sql`(select m.roles from membership m where m.person_id = ${actor.personId} and m.site_id = ${siteId})`;

/** Holds that lie on an order now, and whether this person may lift each. */
export function holdsOf(on: Db | Tx, actor: Actor, orderId: string): Promise<OrderHold[]> {
  return rows<OrderHold>(
    on,
    sql`select h.id, r.name as rule, h.text, h.stops, h.lifters, ${iso(sql`h.held_at`)} as "heldAt", p.name as "heldBy",
               h.lifters && ${rolesOf(actor, actor.siteId)} as "mayLift"
        from order_hold h left join hold_rule r on r.id = h.rule_id left join person p on p.id = h.held_by
        where h.order_id = ${orderId} and h.site_id = ${actor.siteId} and h.lifted_at is null order by h.held_at`,
  );
}

/** What holds an order now, and how much of it waits in nobody's hands for the hold to end. */
export async function orderHoldsOf(on: Db | Tx, actor: Actor, orderId: string): Promise<OrderHolds> {
  const [there] = await rows<{ goods: number }>(
    on,
    sql`select coalesce(sum(l.picked - l.shipped), 0)::int as goods from order_line l where l.order_id = ${orderId}
        and not exists (select 1 from pick k join run r on r.id = k.run_id
          where k.order_id = ${orderId} and k.state <> 'out' and r.state = 'picking')`,
  );
  return { holds: await holdsOf(on, actor, orderId), goods: there!.goods };
}

/** Holds an order by hand: whoever may release can lift it. */
export async function holdOrder(change: Change, orderId: string, { reason, stops }: z.output<typeof holdBody>) {
  const { tx, actor, now } = change;
  const [order] = await rows<{ status: string }>(
    tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  if (order.status !== 'open') throw new Refusal('order-closed');
  await tx.execute(sql`
    insert into order_hold (id, site_id, order_id, text, stops, lifters, held_at, held_by)
    select ${change.newId()}, ${actor.siteId}, ${orderId}, ${reason}, array(select jsonb_array_elements_text(${recordset(stops)})),
           array(select name from role where site_id = ${actor.siteId} and not retired and 'orders.release' = any(rights)),
           ${now.toISOString()}, ${actor.personId}`);
  change.journal({ kind: 'hold-laid', orderId, facts: { text: reason, name: '' } });
  await notesOf(change, [orderId]);
  return orderHoldsOf(tx, actor, orderId);
}

/** @throws Refusal 403 `may-not-lift` with the roles that may */
export async function liftHold(change: Change, holdId: string, reason: string) {
  const { tx, actor, now } = change;
  const [hold] = await rows<{ order: string; text: string; lifters: string[]; may: boolean }>(
    tx,
    sql`select order_id as "order", text, lifters, lifters && ${rolesOf(actor, actor.siteId)} as may
        from order_hold where id = ${holdId} and site_id = ${actor.siteId} and lifted_at is null for update`,
  );
  if (!hold) throw notFound('hold', holdId);
  if (!hold.may) throw new Refusal('may-not-lift', { roles: hold.lifters.join(', ') });
  await tx.execute(
    sql`update order_hold set lifted_at = ${now.toISOString()}, lifted_by = ${actor.personId} where id = ${holdId}`,
  );
  change.journal({ kind: 'hold-lifted', orderId: hold.order, facts: { text: hold.text, reason } });
  await notesOf(change, [hold.order]);
  return orderHoldsOf(tx, actor, hold.order);
}

/** The site's rules, and how many orders each holds now. */
export async function holdRules(on: Db | Tx, siteId: string): Promise<{ rules: HoldRuleRow[] }> {
  const rules = await rows<HoldRuleRow>(
    on,
    sql`select r.id, r.name, r.text, r.conditions, r.stops, r.lifters, r.retired,
               (select count(*) from order_hold h join customer_order o on o.id = h.order_id and o.site_id = r.site_id
                where h.rule_id = r.id and h.lifted_at is null and o.status = 'open')::int as holding
        from hold_rule r where r.site_id = ${siteId} order by r.retired, r.name`,
  );
  return { rules };
}

/** Makes or changes a rule, and judges every open order by the rules as they are then. */
export async function saveHoldRule(change: Change, rule: z.output<typeof holdRuleBody>) {
  const { tx, actor } = change;
  const fields = rule.conditions.list.flatMap((c, i) => {
    const fault = faultOf(c, holdFields);
    return fault ? [{ path: `conditions.list.${i}`, message: fault }] : [];
  });
  if (fields.length > 0) throw new Refusal('conditions-wrong', {}, fields);
  const id = rule.id ?? change.newId();
  const saved = await rows(
    tx,
    sql`
    insert into hold_rule (id, site_id, name, text, conditions, stops, lifters, retired)
    values (${id}, ${actor.siteId}, ${rule.name}, ${rule.text}, ${JSON.stringify(rule.conditions)}::jsonb,
      array(select jsonb_array_elements_text(${recordset(rule.stops)})), array(select jsonb_array_elements_text(${recordset(rule.lifters)})), ${rule.retired})
    on conflict (id) do update set name = excluded.name, text = excluded.text, conditions = excluded.conditions,
      stops = excluded.stops, lifters = excluded.lifters, retired = excluded.retired where hold_rule.site_id = ${actor.siteId}
    returning id`,
  );
  if (saved.length === 0) throw notFound('rule', id);
  // What lies on already says and stops from now on what the rule says.
  await tx.execute(sql`
    update order_hold h set text = r.text, stops = r.stops, lifters = r.lifters from hold_rule r
    where r.id = h.rule_id and r.id = ${id} and h.lifted_at is null`);
  const open = await rows<{ id: string }>(
    tx,
    sql`select id from customer_order where site_id = ${actor.siteId} and status = 'open'`,
  );
  await judgeOrders(
    change,
    open.map((o) => o.id),
  );
  change.journal({ kind: 'hold-rule-changed', facts: { name: rule.name, retired: rule.retired } });
  change.publish('setup', []);
  return holdRules(tx, actor.siteId);
}
