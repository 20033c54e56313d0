import { sql, type SQL } from 'drizzle-orm';
import type { Tx } from '../platform/index.ts';

/**
 * What a site can still promise, as `(item_id, lot, best_before, units)`: on hand, less what is reserved and what lies
 * in blocked bins. Where a bin is only not within reach (`access`) its goods are as good as any.
 *
 * @param released whether what is released and not reserved counts as taken too
 */
export function freeStock(siteId: string, released: boolean): SQL {
  return sql`
    select t.item_id, t.lot, l.best_before,
           (t.on_hand - t.reserved - coalesce(b.units, 0) - ${released ? sql`coalesce(w.units, 0)` : sql`0`})::int as units
    from stock_total t left join lot l on l.item_id = t.item_id and l.lot = t.lot
    left join (
      select b.item_id, b.lot, sum(b.units) as units from place p join balance b on b.place_id = p.id
      where p.site_id = ${siteId} and p.blocked <> 'access' group by 1, 2
    ) b on b.item_id = t.item_id and b.lot = t.lot
    ${
      released
        ? sql`left join (select item_id, lot, sum(units - hard_allocated) as units from reservation where site_id = ${siteId} group by 1, 2) w
              on w.item_id = t.item_id and w.lot = t.lot`
        : sql``
    }
    where t.site_id = ${siteId} and t.on_hand > t.reserved`;
}

/**
 * Keeps what a site has of items, and what is reserved of it, as it is until the transaction ends: who reads what is free
 * and then takes of it locks first. A scan that moves goods within the site does not wait for it.
 *
 * @param items ids of the items: a value, or a query of them
 */
export async function lockTotals(tx: Tx, siteId: string, items: SQL): Promise<void> {
  await tx.execute(
    sql`select 1 from stock_total where site_id = ${siteId} and item_id in (${items}) order by item_id, lot for update`,
  );
}

/** Days that goods for customer `c` must keep of item `column`: the wish for the item, else the customer's usual. */
export function shelfDays(column: SQL): SQL {
  return sql`coalesce((select w.days from minimum_shelf_life w where w.customer_id = c.id and w.item_id = ${column} and not w.retired), c.min_shelf_days)`;
}

/** The day of the site's own calendar at an instant. */
export const localDay = (siteId: string, now: Date): SQL =>
  sql`(${now.toISOString()}::timestamptz at time zone (select time_zone from site where id = ${siteId}))::date`;

/**
 * The day until which goods of item `column` must keep for order `o` of customer `c`: the customer's days from its ship
 * date on, or from today where that has passed; by the site's own calendar.
 */
export function mustKeepUntil(siteId: string, column: SQL, now: Date): SQL {
  return sql`(greatest(o.due, ${localDay(siteId, now)}) + ${shelfDays(column)}::int)`;
}
