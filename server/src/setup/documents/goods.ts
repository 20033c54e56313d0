import { sql, type SQL } from 'drizzle-orm';

/**
 * What a shipment holds, by line, lot and serial number, with the carton's SSCC: out of its cartons, or where it
 * leaves as picked off the carts. Columns: line_id, lot, serial, units, sscc, number (of the carton, 0 without).
 *
 * @param shipment an expression that gives the shipment's id
 */
export function shipmentGoods(shipment: SQL): SQL {
  // A position holds one order; where two of its lines ask for one item and lot, the earlier pick names the line.
  const line = sql`(
    select k.line_id from pick k where k.run_id = q.run_id and k.position = q.number and k.item_id = g.item_id and k.lot = g.lot
    order by k.sequence limit 1)`;
  return sql`
    select c.line_id, c.lot, c.serial, c.units, u.sscc, u.number from carton_line c join carton u on u.id = c.carton_id
    where u.shipment_id = ${shipment} and c.units > 0
    union all
    select ${line}, g.lot, g.serial, g.units, '', 0 from movement g join run_position q on q.place_id = g.from_place
    where g.document = ${shipment} and g.reason = 'ship'
    union all
    select ${line}, g.lot, g.serial, g.units, '', 0 from shipment s
    join run_position q on q.order_id = s.order_id join run r on r.id = q.run_id and r.state = 'left'
    join balance g on g.place_id = q.place_id
    where s.id = ${shipment} and s.state = 'open' and s.loose`;
}

/**
 * What was picked of an order and has not left, by line and lot: what its next shipment will hold. Columns as above, without
 * serial numbers and cartons.
 *
 * @param order an expression that gives the order's id
 */
export const pickedGoods = (order: SQL): SQL => sql`
    select k.line_id, k.lot, '' as serial, (sum(k.picked) - coalesce((
      select sum(c.units) from carton_line c join carton u on u.id = c.carton_id and u.state = 'shipped'
      where c.line_id = k.line_id and c.lot = k.lot), 0))::int as units, '' as sscc, 0 as number
    from pick k where k.order_id = ${order} and k.picked > 0 group by k.line_id, k.lot`;
