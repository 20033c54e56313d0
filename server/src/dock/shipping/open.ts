import { sql } from 'drizzle-orm';
import { rows, type Change } from '../../platform/index.ts';
import { nextNumbers } from '../../stock/index.ts';

/** Drops the open shipment of an order of which no carton is left and which nobody announced: it would ship nothing. */
export async function dropEmptyShipment({ tx }: Change, orderId: string): Promise<void> {
  await tx.execute(sql`
    delete from shipment s where s.order_id = ${orderId} and s.state = 'open' and not s.loose
      -- A number that the carrier gave serves the next carton, as long as there may be one.
      and (s.tracking is null or exists (select 1 from customer_order o where o.id = s.order_id and o.status <> 'open'))
      and not exists (select 1 from carton c where c.shipment_id = s.id)
      and not exists (select 1 from shipment_line l where l.shipment_id = s.id)`);
}

/**
 * The order's open shipment, made where there is none.
 *
 * @param loose whether it leaves as it was picked, without a bench
 */
export async function openShipment(
  change: Change,
  order: { id: string; service: string | null },
  loose = false,
): Promise<string> {
  const { tx, actor } = change;
  const [open] = await rows<{ id: string }>(
    tx,
    sql`select id from shipment where order_id = ${order.id} and state = 'open'`,
  );
  if (open) return open.id;
  const id = change.newId();
  const [number] = await nextNumbers(change, 'shipment', 1);
  await tx.execute(sql`
    insert into shipment (id, site_id, number, order_id, service_id, state, loose)
    values (${id}, ${actor.siteId}, ${`S${String(number).padStart(5, '0')}`}, ${order.id}, ${order.service}, 'open', ${loose})`);
  return id;
}
