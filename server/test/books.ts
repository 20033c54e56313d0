import type { TestRelay } from './relay.ts';

/** Whether an order's goods went through a bench, and did not leave as they were picked. */
const PACKS = `not exists (select 1 from shipment s where s.order_id = o.id and s.loose)`;

/**
 * Every way in which the books could be wrong, worked out again from the movements and the work: each query lists
 * what contradicts itself, and must find nothing.
 */
const contradictions: Record<string, string> = {
  'a balance is not the sum of its movements': `
    select coalesce(b.place_id, m.place) as place, coalesce(b.item_id, m.item_id) as item from (
      select place, item_id, lot, serial, sum(units) as units from (
        select to_place as place, item_id, lot, serial, units from movement
        union all select from_place, item_id, lot, serial, -units from movement) d
      join place p on p.id = d.place where p.kind <> 'outside' group by 1, 2, 3, 4 having sum(units) <> 0) m
    full join balance b on b.place_id = m.place and b.item_id = m.item_id and b.lot = m.lot and b.serial = m.serial
    where b.units is distinct from m.units`,
  'units came from nowhere or went there': `
    select item_id from movement m join place f on f.id = m.from_place join place t on t.id = m.to_place
    group by item_id having sum(case when f.kind = 'outside' then m.units else 0 end) - sum(case when t.kind = 'outside' then m.units else 0 end)
      <> coalesce((select sum(units) from balance b where b.item_id = m.item_id), 0)`,
  'a serial number is in two places': `select item_id, serial from balance where serial <> '' group by 1, 2 having sum(units) <> 1`,
  'on hand is not what lies here': `
    select t.item_id, t.lot from stock_total t left join (
      select p.site_id, b.item_id, b.lot, sum(b.units) as units from balance b join place p on p.id = b.place_id
      where p.kind not in ('outside', 'discrepancy') group by 1, 2, 3) b on b.site_id = t.site_id and b.item_id = t.item_id and b.lot = t.lot
    where t.on_hand <> coalesce(b.units, 0)`,
  'reserved is not what is promised, or more than there is': `
    select t.item_id, t.lot from stock_total t left join (
      select site_id, item_id, lot, sum(hard_allocated) as units from reservation group by 1, 2, 3) r using (site_id, item_id, lot)
    where t.reserved <> coalesce(r.units, 0) or t.reserved > t.on_hand`,
  'a line says other than its picks': `
    select l.id from order_line l left join (select line_id, sum(picked) as units from pick group by 1) k on k.line_id = l.id where l.picked <> coalesce(k.units, 0)`,
  'a line says other than its cartons': `
    select l.id from order_line l left join (select line_id, sum(units) as units from carton_line group by 1) k on k.line_id = l.id
    join customer_order o on o.id = l.order_id where l.packed <> coalesce(k.units, 0) and ${PACKS}`,
  'a line says other than its shipments': `
    select l.id from order_line l left join (select line_id, sum(units) as units from shipment_line group by 1) k on k.line_id = l.id where l.shipped <> coalesce(k.units, 0)`,
  'a pick or a promise is of another order, item or site than its line': `
    select k.id from pick k join order_line l on l.id = k.line_id where k.order_id <> l.order_id or k.item_id <> l.item_id
    union all select r.line_id from reservation r join order_line l on l.id = r.line_id join customer_order o on o.id = l.order_id
    where r.item_id <> l.item_id or r.site_id <> o.site_id`,
  'a line is released without its promise': `
    select l.id from order_line l left join (select line_id, sum(units) as units from reservation where wave_id is not null group by 1) r on r.line_id = l.id
    where l.released - l.shipped <> coalesce(r.units, 0)`,
  'a carton holds other than it says': `
    select c.id from carton c where c.state <> 'shipped' and coalesce((select sum(units) from carton_line where carton_id = c.id), 0)
      <> coalesce((select sum(units) from balance where place_id = c.place_id), 0)`,
  'a pick is sent to a bin that does not hold it': `
    select k.bin_id, k.item_id, k.lot from pick k where k.state = 'open' group by 1, 2, 3
    having sum(k.units) > coalesce((select sum(b.units) from balance b where b.place_id = k.bin_id and b.item_id = k.item_id and b.lot = k.lot), 0)`,
  'picked goods are on no cart and in no carton': `
    select l.order_id from order_line l join customer_order o on o.id = l.order_id group by 1, o.id
    having sum(l.picked - case when ${PACKS} then l.packed else l.shipped end) <> coalesce((
      select sum(b.units) from run_position q join balance b on b.place_id = q.place_id where q.order_id = l.order_id), 0)`,
};

/** Throws what contradicts itself in the books, if anything does. */
export async function checkBooks(relay: Pick<TestRelay, 'query'>, after: string): Promise<void> {
  for (const [what, statement] of Object.entries(contradictions)) {
    const found = await relay.query(statement);
    if (found.length > 0) throw new Error(`After ${after}: ${what}: ${JSON.stringify(found.slice(0, 3))}`);
  }
}
