import { sql } from 'drizzle-orm';
import { rows, type Change } from '../../platform/index.ts';
import { dropEmptyShipment } from './open.ts';

/**
 * An empty open carton is none any more: its number is given again, and a shipment that was opened for it alone goes
 * with it.
 */
export async function discardCarton(change: Change, cartonId: string): Promise<void> {
  const [gone] = await rows<{ number: number; order: string; shipment: string }>(
    change.tx,
    sql`with emptied as (delete from carton_line where carton_id = ${cartonId})
        delete from carton where id = ${cartonId} returning number, order_id as "order", shipment_id as shipment`,
  );
  await dropEmptyShipment(change, gone!.order);
  change.journal({ kind: 'carton-discarded', orderId: gone!.order, facts: { carton: gone!.number } });
  change.publish('bench', [gone!.order]);
  change.publish('orders', [gone!.order]);
  change.publish('shipments', [gone!.shipment]);
}

/**
 * Discards every open carton of an order in which nothing is, once nothing waits to be put into it; one in a picker's
 * hands stays.
 */
export async function discardEmptyCartons(change: Change, orderId: string): Promise<void> {
  const empty = await rows<{ id: string }>(
    change.tx,
    sql`select c.id from carton c left join run r on r.id = c.run_id
        where c.order_id = ${orderId} and c.state = 'open' and coalesce(r.state, 'left') <> 'picking'
          and not exists (select 1 from carton_line k where k.carton_id = c.id and k.units > 0)
          and not exists (select 1 from order_line l where l.order_id = c.order_id and l.picked > l.packed) for update of c`,
  );
  for (const { id } of empty) await discardCarton(change, id);
}
