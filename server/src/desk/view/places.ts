import { sql } from 'drizzle-orm';
import type { Ranked } from '@hand-relay/contract';
import { rows, type Db } from '../../platform/index.ts';

/** What a view can name, and where orders can be sent. */
export async function placesOf(db: Db, siteId: string) {
  const names = async (statement: ReturnType<typeof sql>) =>
    (await rows<{ name: string }>(db, statement)).map((r) => r.name);
  const places = (kind: string) =>
    names(
      sql`select code as name from place where site_id = ${siteId} and kind = ${kind} and not retired order by code`,
    );
  const ranked = (table: string) =>
    rows<Ranked[number]>(
      db,
      sql`select code, name, retired from ${sql.identifier(table)} order by retired, rank, code`,
    );
  return {
    channels: await ranked('channel'),
    classes: await ranked('customer_class'),
    lanes: await places('lane'),
    doors: await places('door'),
    zones: await names(sql`select code as name from zone where site_id = ${siteId} and not retired order by code`),
    carriers: await names(sql`
      select distinct k.name from carrier k join service v on v.carrier_id = k.id join departure d on d.service_id = v.id
      where d.site_id = ${siteId} and not d.retired order by k.name`),
    services: await names(sql`
      select distinct v.name from service v join departure d on d.service_id = v.id
      where d.site_id = ${siteId} and not d.retired order by v.name`),
    departures: await names(
      sql`select name from departure where site_id = ${siteId} and not retired order by cut_off, name`,
    ),
  };
}
