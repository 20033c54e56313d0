import { sql } from 'drizzle-orm';
import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, rows, type Routes } from '../../platform/index.ts';
import { tracePaper } from '../../setup/documents/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { picksOf } from './picks.ts';
import { trace } from './trace.ts';

export function traceRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.tracePaper, async ({ platform: { db, clock }, actor, query, res }) => {
    const found = await trace(db, actor.siteId, query);
    const [site] = await rows<{ name: string; timeZone: string }>(
      db,
      sql`select name, time_zone as "timeZone" from site where id = ${actor.siteId}`,
    );
    const of = [found.item?.name, found.item?.sku, query.lot, query.serial, found.place?.code].filter(
      (part) => part !== undefined,
    );
    const { paper } = await settingsOf(db, actor.siteId);
    const pdf = await tracePaper(found, { of, site: site!.name, timeZone: site!.timeZone, now: clock(), paper });
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="trace.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.picks, ({ platform, actor, query }) => picksOf(platform, actor.siteId, query));
  mountEndpoint(routes, endpoints.trace, ({ platform, actor, query }) => trace(platform.db, actor.siteId, query));
}
