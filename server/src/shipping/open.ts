import { sql } from 'drizzle-orm';
import { rows, type Change } from '../platform/index.ts';
import { nextNumbers } from '../stock/index.ts';

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
