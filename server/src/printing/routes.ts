import { endpoints, printNeeds } from '@hand-relay/contract';
import { Refusal, serve, type Doors } from '../platform/index.ts';
import { conclude, fileOf, jobs, makeDocument, printNumbers, queue } from './jobs.ts';

export function printingRoutes(doors: Doors): void {
  serve(doors, endpoints.print, async ({ platform, actor, body, change }) => {
    const needs = printNeeds[body.kind];
    if (!needs.some((right) => actor.rights.has(right))) throw new Refusal(403, 'not-allowed', { needs });
    if (body.kind === 'carton-numbers') return printNumbers(platform, actor.siteId, body, change);
    const made = await makeDocument(platform, actor.siteId, { ...body, kind: body.kind });
    return change((current) => queue(current, body, made));
  });
  serve(doors, endpoints.printJobs, async ({ platform, actor, query }) => ({
    jobs: await jobs(platform.db, actor, query),
  }));
  serve(doors, endpoints.printJobPdf, async ({ platform, actor, id, res }) => {
    res
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="print.pdf"')
      .send(await fileOf(platform.db, actor, id));
  });
  serve(doors, endpoints.printJobPng, async ({ platform, actor, id, query, res }) => {
    const png = await platform.compute.drawPage({ pdf: await fileOf(platform.db, actor, id), page: query.page });
    if (!png) throw new Refusal(404, 'not-found', { what: `page ${query.page}` });
    res.type('image/png').send(Buffer.from(png));
  });
  serve(doors, endpoints.printJobDone, ({ id, body, change }) => change((current) => conclude(current, id, body)));
}
