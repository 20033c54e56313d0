import { sql } from 'drizzle-orm';
import { judgeHolds, type HoldRule, type LaidHold, type Stage } from '@hand-relay/core/deciding/holds';
import type { Values } from '@hand-relay/core/deciding/conditions';
import { anyOf, recordset, Refusal, rows, type Change, type Tx } from '../../platform/index.ts';

type Rule = HoldRule & { name: string; text: string; stops: Stage[]; lifters: string[] };

/** Facts of orders that a site's rules ask about; values in whole units of money. */
function factsOf(tx: Tx, siteId: string, orderIds: string[]) {
  return rows<{ order: string; values: Values }>(
    tx,
    sql`
    select o.id as "order", jsonb_build_object(
      'number', o.number, 'channel', o.channel, 'kind', o.kind, 'reference', o.reference, 'due', o.due, 'tags', to_jsonb(o.tags),
      'departure', d.name, 'carrier', k.name, 'service', v.name, 'priority', o.priority, 'note', o.note,
      'street', o.ship_street, 'postcode', o.ship_postcode, 'city', o.ship_city, 'country', o.ship_country,
      'customer', c.number, 'customerName', c.name, 'class', c.class, 'creditStop', c.credit_stop,
      'value', sum((l.asked - l.cancelled)::bigint * i.value_minor) / 100.0, 'lines', count(*), 'units', sum(l.asked - l.cancelled),
      'item', jsonb_agg(distinct i.sku), 'itemName', jsonb_agg(distinct i.name),
      'temperature', jsonb_agg(distinct i.temperature), 'handling', jsonb_agg(distinct i.handling)
    ) as values
    from customer_order o join customer c on c.id = o.customer_id join order_line l on l.order_id = o.id join item i on i.id = l.item_id
    left join departure d on d.id = o.departure_id left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    where o.site_id = ${siteId} and o.status = 'open' and o.id = ${anyOf(orderIds)}
    group by o.id, c.id, d.id, v.id, k.id`,
  );
}

/** Lays on and takes off the holds of the site's rules for orders that are new or have changed. */
export async function judgeOrders(change: Change, orderIds: string[], siteId = change.actor.siteId): Promise<void> {
  const { tx, now } = change;
  if (orderIds.length === 0) return;
  const rules = await rows<Rule>(
    tx,
    sql`select id, name, text, conditions, stops, lifters from hold_rule where site_id = ${siteId} and not retired`,
  );
  const laid = await rows<LaidHold & { order: string; text: string }>(
    tx,
    sql`select id, order_id as "order", rule_id as rule, lifted_at is not null as lifted, text from order_hold
        where rule_id is not null and order_id = ${anyOf(orderIds)}`,
  );
  if (rules.length === 0 && laid.length === 0) return;
  const byId = new Map(rules.map((r) => [r.id, r]));
  const of = new Map<string, typeof laid>();
  for (const hold of laid) of.set(hold.order, [...(of.get(hold.order) ?? []), hold]);
  const found = (await factsOf(tx, siteId, orderIds)).map(({ order, values }) => {
    const there = of.get(order) ?? [];
    return { order, there, ...judgeHolds(rules, values, there) };
  });
  const gone = found.flatMap((f) => f.gone);
  await tx.execute(sql`delete from order_hold where id = ${anyOf(gone)}`);
  const added = found.flatMap(({ order, add }) =>
    add.map((id) => {
      const { name: _, conditions: __, ...rule } = byId.get(id)!;
      return { ...rule, id: change.newId(), rule: id, order };
    }),
  );
  await tx.execute(sql`
    insert into order_hold (id, site_id, order_id, rule_id, text, stops, lifters, held_at)
    select r.id, ${siteId}, r."order", r.rule, r.text, array(select jsonb_array_elements_text(r.stops)),
           array(select jsonb_array_elements_text(r.lifters)), ${now.toISOString()}
    from jsonb_to_recordset(${recordset(added)}) as r(id text, "order" text, rule text, text text, stops jsonb, lifters jsonb)`);
  change.journal(
    ...added.map((h) => ({
      kind: 'hold-laid',
      orderId: h.order,
      facts: { text: h.text, name: byId.get(h.rule)!.name },
    })),
    ...found.flatMap(({ order, there, gone: ids }) =>
      there
        .filter((h) => ids.includes(h.id))
        .map((h) => ({ kind: 'hold-gone', orderId: order, facts: { text: h.text } })),
    ),
  );
  const touched = [
    ...new Set([...added.map((h) => h.order), ...found.filter((f) => f.gone.length > 0).map((f) => f.order)]),
  ];
  if (touched.length > 0) await notesOf(change, touched);
}

/** Tells everybody who has one of the orders in hand: lists, devices, benches, docks. */
export async function notesOf(change: Change, orders: string[]): Promise<void> {
  const runs = await rows<{ run: string }>(
    change.tx,
    sql`select distinct q.run_id as run from run_position q join run r on r.id = q.run_id
        where r.state in ('planned', 'waiting', 'picking', 'left') and q.order_id = ${anyOf(orders)}`,
  );
  change.publish('orders', orders);
  if (runs.length > 0)
    change.publish(
      'runs',
      runs.map((r) => r.run),
    );
  change.publish('bench', orders);
  change.publish('shipments', []);
}

/** @throws Refusal 409 `order-held` where a hold stops this stage of an order */
export async function mustNotBeHeld(tx: Tx, orderId: string, stage: Stage): Promise<void> {
  const [hold] = await rows<{ text: string; order: string }>(
    tx,
    sql`select h.text, o.number as "order" from order_hold h join customer_order o on o.id = h.order_id
        where h.order_id = ${orderId} and h.lifted_at is null and ${stage} = any(h.stops) order by h.held_at limit 1`,
  );
  if (hold) throw new Refusal('order-held', { order: hold.order, why: hold.text });
}
