import { sql } from 'drizzle-orm';
import type { PackagingList } from '@hand-relay/contract';
import { freeOf, mustLook, proposeOrder, type Accounting } from '@hand-relay/core/handling/packaging';
import { iso, rows, type Db, type Tx } from '../../platform/index.ts';
import { accounted, palletsWith } from './kinds.ts';

const DAY_MS = 86_400_000;
/** Movements that a list shows. */
const NEWEST = 100;

/** A type of packaging with how it stands. */
export interface TypeState {
  id: string;
  kind: 'carton' | 'pallet';
  name: string;
  accounting: Accounting;
  onHand: number;
  onOrder: number;
  reorderPoint: number | null;
  lot: number;
  lookAfterUsed: number | null;
  lookAfterDays: number | null;
  lookedAt: string | null;
  ownLine: boolean;
  countWanted: boolean;
  /** Closed and not shipped, whose order is of a kind that is accounted for. */
  closedOpen: number;
  /** Closed and not posted yet, where it is posted by the day. */
  toPost: number;
  usedSince: number;
}

/** All types of cartons and pallets of the house, each as it stands at a site. */
async function typeStates(on: Db | Tx, siteId: string): Promise<TypeState[]> {
  const counted = await accounted(on, siteId);
  return rows<TypeState>(
    on,
    sql`
    with types as (
      select id, 'carton' as kind, name from carton_type where not retired union all select id, 'pallet', name from pallet_type where not retired
    ), looked as (
      select p.type_id as id, p.looked_at as since from packaging p where p.site_id = ${siteId} and p.accounting = 'expense'
    ), earliest as (
      select coalesce((select min(since) from looked), 'infinity') as since
    ), closed as (
      select c.type_id as id, c.id as unit, c.state, c.closed_at from carton c join customer_order o on o.id = c.order_id
      where c.site_id = ${siteId} and c.state = 'closed' and ${counted} and c.closed_at < (select since from earliest)
        -- What is closed and has not left belongs to an open shipment: a year of shipped cartons is not read for it.
        and c.shipment_id in (select id from shipment where site_id = ${siteId} and state = 'open')
      union all
      select c.type_id, c.id, c.state, c.closed_at from carton c join customer_order o on o.id = c.order_id
      where c.site_id = ${siteId} and c.closed_at >= (select since from earliest) and c.state in ('closed', 'shipped') and ${counted}
      union all
      select p.type_id, p.id, p.state, p.closed_at from pallet p where p.id in (${palletsWith(
        sql`p.site_id = ${siteId} and (p.state = 'closed' or p.state = 'shipped' and p.closed_at >= (select since from earliest))`,
        counted,
      )})
    )
    select t.id, t.kind, t.name, coalesce(p.accounting, 'none') as accounting, coalesce(p.on_hand, 0) as "onHand", coalesce(p.on_order, 0) as "onOrder",
           p.reorder_point as "reorderPoint", coalesce(p.lot, 1) as lot, p.look_after_used as "lookAfterUsed", p.look_after_days as "lookAfterDays",
           ${iso(sql`p.looked_at`)} as "lookedAt", coalesce(p.own_line, false) as "ownLine", coalesce(p.count_wanted, false) as "countWanted",
           (select count(*)::int from closed c where c.id = t.id and c.state = 'closed') as "closedOpen",
           (select count(*)::int from packaging_due d where d.site_id = ${siteId} and d.type_id = t.id and d.posted_at is null) as "toPost",
           (select count(*)::int from closed c join looked l on l.id = c.id where c.id = t.id and c.closed_at > l.since) as "usedSince"
    from types t left join packaging p on p.site_id = ${siteId} and p.type_id = t.id order by t.kind, t.name`,
  );
}

export async function packagingList(on: Db | Tx, siteId: string, now: Date): Promise<PackagingList> {
  const types = (await typeStates(on, siteId)).map(({ closedOpen, ...type }) => {
    const stock = {
      onHand: type.onHand,
      onOrder: type.onOrder,
      reserved: type.accounting === 'with-unit' ? closedOpen : 0,
    };
    const accounted = type.accounting === 'daily' || type.accounting === 'with-unit';
    const days = type.lookedAt === null ? Infinity : (now.getTime() - Date.parse(type.lookedAt)) / DAY_MS;
    return {
      ...type,
      reserved: stock.reserved,
      free: freeOf(stock),
      propose: accounted ? proposeOrder(stock, { point: type.reorderPoint, lot: type.lot }) : 0,
      look:
        type.accounting === 'expense' &&
        mustLook({ used: type.usedSince, days }, { afterUsed: type.lookAfterUsed, afterDays: type.lookAfterDays }),
    };
  });
  const movements = await rows<PackagingList['movements'][number]>(
    on,
    sql`select ${iso(sql`m.at`)} as at, coalesce(c.name, q.name, m.type_id) as type, m.reason, m.units, m.missing, coalesce(s.number, m.document) as document,
               p.name as person
        from packaging_movement m join person p on p.id = m.person_id left join carton_type c on c.id = m.type_id
        left join pallet_type q on q.id = m.type_id left join shipment s on s.id = m.document
        where m.site_id = ${siteId} order by m.id desc limit ${NEWEST}`,
  );
  return { types, movements };
}

/** Carton types of which none is left to pack into, by what is accounted for. */
export async function outOfStock(on: Db | Tx, siteId: string): Promise<Set<string>> {
  const [any] = await rows(
    on,
    sql`select 1 from packaging where site_id = ${siteId} and accounting in ('daily', 'with-unit') limit 1`,
  );
  if (!any) return new Set();
  const states = await typeStates(on, siteId);
  return new Set(
    states
      .filter((t) =>
        t.accounting === 'with-unit' ? t.onHand <= t.closedOpen : t.accounting === 'daily' && t.onHand <= t.toPost,
      )
      .map((t) => t.id),
  );
}
