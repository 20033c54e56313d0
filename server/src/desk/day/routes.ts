import { sql } from 'drizzle-orm';
import { endpoints } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { mountEndpoint, rows, type Db, type Routes } from '../../platform/index.ts';
import { dayReport } from '../../setup/documents/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { leftOver, openOn } from './open.ts';
import { reportOf } from './report.ts';

const siteOf = async (db: Db, siteId: string) =>
  (
    await rows<{ name: string; timeZone: string }>(
      db,
      sql`select name, time_zone as "timeZone" from site where id = ${siteId}`,
    )
  )[0]!;

export function dayRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.day, async ({ platform: { db, clock }, actor, query }) => {
    const now = clock();
    const date = query.date ?? localDate(now.getTime(), (await siteOf(db, actor.siteId)).timeZone);
    const report = await reportOf(db, actor.siteId, date);
    return {
      date,
      open: await openOn(db, actor.siteId, date),
      left: await leftOver(db, actor.siteId, now),
      // Who did what is for those who may see the trail.
      report: actor.rights.has('trail.see') ? report : { ...report, people: [] },
    };
  });
  mountEndpoint(routes, endpoints.dayPaper, async ({ platform: { db, clock }, actor, query, res }) => {
    const site = await siteOf(db, actor.siteId);
    const day = query.date ?? localDate(clock().getTime(), site.timeZone);
    const { paper } = await settingsOf(db, actor.siteId);
    const pdf = await dayReport(await reportOf(db, actor.siteId, day), {
      site: site.name,
      day,
      timeZone: site.timeZone,
      paper,
    });
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="day-${day}.pdf"`).send(pdf);
  });
}
