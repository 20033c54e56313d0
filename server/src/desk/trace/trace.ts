import { sql, type SQL } from 'drizzle-orm';
import type { z } from 'zod';
import type { TraceAnswer, traceQuery } from '@hand-relay/contract';
import { iso, notFound, rows, type Db } from '../../platform/index.ts';

/** Most rows of what left, and of movements: a lot in a recall stays below, an item of years does not. */
const MOST_SHIPPED = 5_000;
const MOST_MOVES = 1_000;

type Of = z.output<typeof traceQuery>;

/**
 * Follows goods through the site: what is there now, what left to whom, and each movement, the newest first.
 *
 * @param of an item, a lot or serial number of it, or a place; with both an item and a place, that item there
 * @throws Refusal 404 where the item or the place is none
 */
export async function trace(db: Db, siteId: string, of: Of): Promise<TraceAnswer> {
  const [named] = await rows<Pick<TraceAnswer, 'item' | 'place'>>(
    db,
    sql`select (select jsonb_build_object('id', id, 'name', name, 'sku', sku) from item where id = ${of.item ?? null}) as item,
               (select jsonb_build_object('id', id, 'code', code, 'kind', kind) from place
                where id = ${of.place ?? null} and site_id = ${siteId}) as place`,
  );
  if (of.item !== undefined && !named!.item) throw notFound('item', of.item);
  if (of.place !== undefined && !named!.place) throw notFound('place', of.place);
  const [now, shipped, moves, shippedUnits] = await Promise.all([
    nowAt(db, siteId, of),
    shippedOf(db, siteId, of),
    movesOf(db, siteId, of),
    unitsShipped(db, siteId, of),
  ]);
  return {
    ...named!,
    onHand: now.reduce((n, r) => n + r.units, 0),
    shippedUnits,
    now,
    shipped: shipped.slice(0, MOST_SHIPPED),
    moves: moves.slice(0, MOST_MOVES),
    more: shipped.length > MOST_SHIPPED || moves.length > MOST_MOVES,
  };
}

const theseGoods = (table: 'b' | 'm', { item, lot, serial }: Of): SQL =>
  sql.join(
    [
      ...(item === undefined ? [] : [sql`${sql.raw(table)}.item_id = ${item}`]),
      ...(lot === undefined ? [] : [sql`${sql.raw(table)}.lot = ${lot}`]),
      ...(serial === undefined ? [] : [sql`${sql.raw(table)}.serial = ${serial}`]),
      sql`true`,
    ],
    sql` and `,
  );

const numbered = (id: SQL, number: SQL) =>
  sql`case when ${id} is null then null else jsonb_build_object('id', ${id}, 'number', ${number}) end as "order"`;

/** What lies where. A place on a cart is named by its cart, a carton by its number. */
const nowAt = (db: Db, siteId: string, of: Of) =>
  rows<TraceAnswer['now'][number]>(
    db,
    sql`select i.name as item, i.sku, b.lot, b.serial, b.units, coalesce(k.sscc, p.code) as place, p.kind,
               l.best_before::text as "bestBefore", p.blocked, ${numbered(sql`o.id`, sql`o.number`)}
        from balance b join place p on p.id = b.place_id join item i on i.id = b.item_id
        left join lot l on l.item_id = b.item_id and l.lot = b.lot
        left join carton k on k.place_id = p.id left join run_position q on q.place_id = p.id
        left join customer_order o on o.id = coalesce(k.order_id, q.order_id)
        where p.site_id = ${siteId} and p.kind <> 'outside' and b.units > 0 and ${theseGoods('b', of)}
          and ${of.place === undefined ? sql`true` : sql`b.place_id = ${of.place}`}
        order by p.kind, p.code, b.lot, b.serial`,
  );

/** What left on shipments; of a place, what was picked there for them. */
const shippedOf = (db: Db, siteId: string, of: Of) =>
  of.item === undefined
    ? Promise.resolve([])
    : rows<TraceAnswer['shipped'][number]>(
        db,
        sql`select i.name as item, i.sku, m.lot, m.serial, sum(m.units)::int as units, ${iso(sql`max(m.at)`)} as at,
                   jsonb_build_object('id', s.id, 'number', s.number) as shipment,
                   jsonb_build_object('id', o.id, 'number', o.number) as "order", o.reference, c.name as customer,
                   c.number as "customerNumber", concat_ws(', ', o.ship_name, o.ship_street, o.ship_postcode || ' ' || o.ship_city, o.ship_country) as address,
                   s.tracking
            from movement m join item i on i.id = m.item_id join shipment s on s.id = m.document
            join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
            where m.site_id = ${siteId} and m.reason = 'ship' and ${theseGoods('m', of)}
            group by i.id, m.lot, m.serial, s.id, o.id, c.id order by max(m.at) desc, s.number limit ${MOST_SHIPPED + 1}`,
      );

/** Of all that left, also where more of it left than is listed. */
async function unitsShipped(db: Db, siteId: string, of: Of): Promise<number> {
  if (of.item === undefined) return 0;
  const [sum] = await rows<{ units: number }>(
    db,
    sql`select coalesce(sum(m.units), 0)::int as units from movement m
        where m.site_id = ${siteId} and m.reason = 'ship' and ${theseGoods('m', of)}`,
  );
  return sum!.units;
}

/** Movements; which order one was for is known by its pick, its carton or its shipment. */
const movesOf = (db: Db, siteId: string, of: Of) =>
  rows<TraceAnswer['moves'][number]>(
    db,
    sql`select m.id, ${iso(sql`m.at`)} as at, i.name as item, i.sku, m.lot, m.serial, m.units, m.reason, p.name as person,
               coalesce(kf.sscc, f.code) as "from", coalesce(kt.sscc, t.code) as "to", ${numbered(sql`o.id`, sql`o.number`)}
        from (select * from movement m where m.site_id = ${siteId} and ${theseGoods('m', of)}
                and ${of.place === undefined ? sql`true` : sql`(m.from_place = ${of.place} or m.to_place = ${of.place})`}
              order by m.at desc, m.id desc limit ${MOST_MOVES + 1}) m
        join item i on i.id = m.item_id join place f on f.id = m.from_place join place t on t.id = m.to_place
        left join carton kf on kf.place_id = f.id left join carton kt on kt.place_id = t.id
        left join person p on p.id = m.person_id left join pick k on k.id = m.document
        left join shipment s on s.id = m.document left join run_position q on q.place_id = t.id
        left join customer_order o on o.id = coalesce(k.order_id, kt.order_id, kf.order_id, s.order_id, q.order_id)
        order by m.at desc, m.id desc`,
  );
