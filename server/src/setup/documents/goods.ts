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
