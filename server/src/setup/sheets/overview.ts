import { sql, type SQL } from 'drizzle-orm';
import type { SetupOverview } from '@hand-relay/contract';
import { rows, type Platform } from '../../platform/index.ts';
import { settingsOf } from '../settings/index.ts';

/** How many people of a site hold a right. */
const able = (right: SQL) => sql`(
  select count(*) from membership m where m.site_id = s.id and m.active and exists (
    select 1 from role r where r.site_id = s.id and r.name = any(m.roles) and not r.retired and ${right} = any(r.rights)))`;

/** What a house has of each kind, and what it lacks to ship an order, in the order of the work. */
export async function overview({ db, clock }: Platform, siteId: string): Promise<SetupOverview> {
  const [found] = await rows<
    Record<string, number> & {
      prefix: string;
      lanes: number;
      benches: number;
      pickers: number;
      packers: number;
      loaders: number;
      unread: number;
    }
  >(
    db,
    sql`
    select (select count(*) from zone where site_id = s.id and not retired)::int as zones,
           (select count(*) from place where site_id = s.id and kind = 'bin' and not retired)::int as bins,
           (select count(*) from item where not retired)::int as items,
           (select count(*) from balance b join place p on p.id = b.place_id where p.site_id = s.id and p.kind = 'bin')::int as stock,
           (select count(*) from channel where not retired)::int as channels,
           (select count(*) from customer_class where not retired)::int as classes,
           (select count(*) from customer where not retired)::int as customers,
           (select count(*) from place where site_id = s.id and kind in ('lane', 'bench', 'door') and not retired)::int as places,
           (select count(*) from place where site_id = s.id and kind = 'lane' and not retired)::int as lanes,
           (select count(*) from place where site_id = s.id and kind = 'bench' and not retired)::int as benches,
           (select count(*) from service where not retired)::int as carriers,
           (select count(*) from departure where site_id = s.id and not retired)::int as departures,
           (select count(*) from timetable where site_id = s.id and not retired)::int as timetable,
           (select count(*) from carton_type where not retired)::int as cartons,
           (select count(*) from pack_rule where site_id = s.id and not retired)::int as packrules,
           (select count(*) from pallet_type where not retired)::int as pallets,
           (select count(*) from vehicle_type where not retired)::int as vehicles,
           (select count(*) from cart where site_id = s.id and not retired)::int as carts,
           (select count(*) from membership where site_id = s.id and active)::int as people,
           (select count(*) from role where site_id = s.id and not retired)::int as roles,
           (select count(*) from roster where site_id = s.id and not retired and day >= (${clock().toISOString()}::timestamptz at time zone s.time_zone)::date)::int as roster,
           (select count(*) from minimum_shelf_life where not retired)::int as shelf,
           (select count(*) from expected_supply where site_id = s.id and not retired)::int as supply,
           (select count(*) from printer where site_id = s.id and not retired)::int as printers,
           ${able(sql`'runs.pick'`)}::int as pickers,
           ${able(sql`'orders.pack'`)}::int as packers,
           ${able(sql`'shipments.confirm'`)}::int as loaders,
           s.gs1_prefix as prefix
    from site s where s.id = ${siteId}`,
  );
  const { stages } = await settingsOf(db, siteId);
  const packs = stages === 'pick-pack-ship';
  const { prefix, lanes, benches, pickers, packers, loaders, ...counts } = found!;
  const needs: [what: string, there: boolean, why: string][] = [
    ['zones', counts['zones']! > 0, 'zones'],
    ['bins', counts['bins']! > 0, 'bins'],
    ['items', counts['items']! > 0, 'items'],
    ['stock', counts['stock']! > 0, 'stock'],
    ['customers', counts['customers']! > 0, 'customers'],
    ['places', lanes > 0, 'lanes'],
    ['places', !packs || benches > 0, 'benches'],
    ['cartons', !packs || counts['cartons']! > 0, 'cartons'],
    ['carts', counts['carts']! > 0, 'carts'],
    ['carriers', counts['carriers']! > 0, 'carriers'],
    ['departures', counts['departures']! > 0, 'departures'],
    ['people', pickers > 0, 'pickers'],
    ['people', !packs || packers > 0, 'packers'],
    ['people', stages === 'pick-and-ship' || loaders > 0, 'loaders'],
    ['site', prefix !== '', 'prefix'],
  ];
  return {
    counts: counts,
    missing: needs.filter(([, there]) => !there).map(([what, , why]) => ({ what, why })),
  };
}
