import { sql } from 'drizzle-orm';
import { Refusal, rows, type Db, type Tx } from '../platform/index.ts';

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
    throw new Refusal(409, 'order-cancelled', { order: order.number, units: order.surplus });
}

/**
 * Lets nothing leave while surplus of the order waits for a decision.
 *
 * @throws Refusal 409 `surplus-undecided` with the goods that it is about
 */
export async function mustBeDecided(tx: Tx, orderId: string): Promise<void> {
  const [first] = await undecidedOf(tx, orderId);
  if (first) throw new Refusal(409, 'surplus-undecided', { item: first.name, units: first.units });
}
