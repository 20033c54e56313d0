import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { siteBody } from '@hand-relay/contract';
import { extensionFor } from './createSite.ts';
import { rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { changeSsccRange, ssccRange } from '../../stock/index.ts';

type Site = z.output<typeof siteBody>;

export async function readSite(on: Db | Tx, siteId: string): Promise<Site> {
  const [site] = await rows<Site>(
    on,
    sql`select name, street, city, country, time_zone as "timeZone", currency, gs1_prefix as "gs1Prefix" from site where id = ${siteId}`,
  );
  return site!;
}

/** Changes what a site is told by. Numbers given under an earlier prefix stay as they are. */
export async function changeSite(change: Change, site: Site): Promise<void> {
  const { tx, actor } = change;
  const before = await readSite(tx, actor.siteId);
  const range = await ssccRange(tx, actor.siteId);
  await tx.execute(sql`
    update site set name = ${site.name}, street = ${site.street}, city = ${site.city}, country = ${site.country}, time_zone = ${site.timeZone},
      currency = ${site.currency}, gs1_prefix = ${site.gs1Prefix},
      sscc_extension = ${await extensionFor(tx, site.gs1Prefix, actor.siteId)} where id = ${actor.siteId}`);
  await changeSsccRange(change, range, await ssccRange(tx, actor.siteId));
  change.journal({ kind: 'site-changed', facts: { before, after: site } });
  change.publish('setup', []);
  change.publish('me', []);
}
