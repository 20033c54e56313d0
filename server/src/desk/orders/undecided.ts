import { sql } from 'drizzle-orm';
import { recordset, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { closeIfDone } from './cancel.ts';

/** Goods that were picked for an order, are not wanted any more, and about which nobody has decided. */
export interface Undecided {
  item: string;
  name: string;
  units: number;
}

/** Surplus of an order that waits for a decision, by item. */
export function undecidedOf(on: Db | Tx, orderId: string): Promise<Undecided[]> {
  return rows<Undecided>(
    on,
    sql`select i.id as item, i.name, sum(t.units)::int as units from desk_task t join order_line l on l.id = t.line_id
        join item i on i.id = l.item_id where l.order_id = ${orderId} and t.decision is null group by i.id order by i.name`,
  );
}

/**
 * Stops an order of which nothing is wanted any more while goods of it are in somebody's hands: they wait for Desk.
 *
 * @throws Refusal 409 `order-cancelled`
 */
export async function mustBeWanted(tx: Tx, orderId: string): Promise<void> {
  const [order] = await rows<{ number: string; wanted: number; surplus: number }>(
    tx,
    sql`select o.number, sum(l.asked - l.cancelled - l.shipped)::int as wanted, sum(coalesce(t.units, 0))::int as surplus
        from customer_order o join order_line l on l.order_id = o.id
        left join (select line_id, sum(units) as units from desk_task where decision is null group by line_id) t on t.line_id = l.id
        where o.id = ${orderId} group by o.number`,
  );
  if (order && order.surplus > 0 && order.wanted <= order.surplus)
    throw new Refusal('order-cancelled', { order: order.number, units: order.surplus });
}

/**
 * Lets nothing leave while surplus of the order waits for a decision.
 *
 * @throws Refusal 409 `surplus-undecided` with the goods that it is about
 */
export async function mustBeDecided(tx: Tx, orderId: string): Promise<void> {
  const [first] = await undecidedOf(tx, orderId);
  if (first) throw new Refusal('surplus-undecided', { item: first.name, units: first.units });
}

/**
 * How much of picked units that go back into bins is surplus that waits for a decision: that goes first.
 *
 * @param returned units by line
 * @returns units by line, of those lines that have any
 */
export async function surplusAmong(tx: Tx, returned: ReadonlyMap<string, number>): Promise<Map<string, number>> {
  const back = [...returned].map(([line, units]) => ({ line, units }));
  const surplus = await rows<{ line: string; units: number }>(
    tx,
    sql`select t.line_id as line, least(t.units, b.units) as units
        from jsonb_to_recordset(${recordset(back)}) as b(line text, units int)
        join desk_task t on t.line_id = b.line and t.decision is null where b.units > 0 for update of t`,
  );
  return new Map(surplus.map(({ line, units }) => [line, units]));
}

/**
 * Settles surplus that went back though nobody decided so: its picker undid it, or its order left the run. Nobody asks
 * for it any more.
 *
 * @param surplus units by line, as `surplusAmong` found them
 */
export async function settleReturned(
  change: Change,
  orderId: string,
  surplus: ReadonlyMap<string, number>,
): Promise<void> {
  if (surplus.size === 0) return;
  const gone = await rows<{ number: number; units: number; item: string }>(
    change.tx,
    sql`
    with gone as (
      select t.id, t.line_id as line, g.units, t.units - g.units as rest
      from jsonb_to_recordset(${recordset([...surplus].map(([line, units]) => ({ line, units })))}) as g(line text, units int)
      join desk_task t on t.line_id = g.line and t.decision is null
    ), less as (
      update desk_task t set units = g.rest from gone g where t.id = g.id and g.rest > 0
    ), settled as (
      update desk_task t set decision = 'put-back', decided_at = ${change.now.toISOString()}, decided_by = ${change.actor.personId}
      from gone g where t.id = g.id and g.rest = 0
    )
    update order_line l set cancelled = l.cancelled + g.units from gone g, item i
    where l.id = g.line and i.id = l.item_id returning l.line as number, g.units, i.name as item`,
  );
  for (const { number, units, item } of gone)
    change.journal({ kind: 'surplus-put-back', orderId, facts: { line: number, units, item } });
  change.publish('exceptions', []);
  await closeIfDone(change, orderId);
}
