import { sql } from 'drizzle-orm';
import type {
  DeskView,
  ItemAvailability,
  OrderAvailability,
  OutlookAnswer,
  PolicyComparison,
  ShortItem,
} from '@hand-relay/contract';
import type { DeskPolicy } from '@hand-relay/core/deciding/allocation';
import { anyOf, notFound, rows, type Platform } from '../../platform/index.ts';
import { freeStock } from '../../stock/index.ts';
import { readDesk } from './read.ts';

/** Seconds that the search for most orders may take while somebody waits for it. */
const SEARCH_SECONDS = 5;

/** What of the orders in view can leave, and which items fall short. */
export async function outlookOf(platform: Platform, siteId: string, view: DeskView): Promise<OutlookAnswer> {
  const at = platform.clock().toISOString();
  const { orders, short } = await platform.compute.outlook(await readDesk(platform, siteId, view));
  const names = await rows<Pick<ShortItem, 'id' | 'sku' | 'name' | 'unit' | 'picture'>>(
    platform.db,
    sql`select id, sku, name, unit, picture from item where id = ${anyOf(short.map((s) => s.item))}`,
  );
  const nameOf = new Map(names.map((n) => [n.id, n]));
  return { at, orders, short: short.map(({ item, ...rest }) => ({ ...nameOf.get(item)!, ...rest })) };
}

export async function availabilityOf(
  platform: Platform,
  siteId: string,
  order: string,
  view: DeskView,
): Promise<OrderAvailability | null> {
  const [there] = await rows(
    platform.db,
    sql`select 1 from customer_order where id = ${order} and site_id = ${siteId}`,
  );
  if (!there) throw notFound('order', order);
  return platform.compute.orderPromise({ problem: await readDesk(platform, siteId, view), order });
}

/** An item, what there is of it and what comes, and all who ask. */
export async function itemOf(
  platform: Platform,
  siteId: string,
  id: string,
  { policy, ...view }: DeskView & { policy: DeskPolicy },
): Promise<ItemAvailability> {
  const { db } = platform;
  const [item] = await rows<Omit<ItemAvailability, 'lots' | 'expected' | 'askers'>>(
    db,
    sql`
    select i.id, i.sku, i.name, i.unit, i.picture,
           coalesce((select sum(on_hand) from stock_total t where t.site_id = ${siteId} and t.item_id = i.id), 0)::int as "onHand",
           coalesce((select sum(reserved) from stock_total t where t.site_id = ${siteId} and t.item_id = i.id), 0)::int as reserved,
           coalesce((
             select sum(b.units) from balance b join place p on p.id = b.place_id
             where b.item_id = i.id and p.site_id = ${siteId} and p.blocked <> 'access'
           ), 0)::int as blocked
    from item i where i.id = ${id}`,
  );
  if (!item) throw notFound('item', id);
  const lots = await rows<ItemAvailability['lots'][number]>(
    db,
    sql`select f.lot, f.best_before::text as "bestBefore", f.units as free from (${freeStock(siteId, false)}) f
        where f.item_id = ${id} order by f.best_before nulls last, f.lot`,
  );
  const expected = await rows<ItemAvailability['expected'][number]>(
    db,
    sql`select due::text as date, units, source, reference from expected_supply
        where site_id = ${siteId} and item_id = ${id} and not retired order by due, reference`,
  );
  const askers = await platform.compute.askers({ problem: await readDesk(platform, siteId, view), item: id, policy });
  return { ...item, lots, expected, askers };
}

export async function comparisonOf(platform: Platform, siteId: string, view: DeskView): Promise<PolicyComparison> {
  const at = platform.clock().toISOString();
  const problem = await readDesk(platform, siteId, view);
  return { at, ...(await platform.compute.comparePolicies({ problem, seconds: SEARCH_SECONDS })) };
}
