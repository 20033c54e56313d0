import { endpoints, printNeeds } from '@hand-relay/contract';
import { Refusal, mountEndpoint, type Routes } from '../../platform/index.ts';
import { conclude, fileOf, jobs, makeDocument, printNumbers, queue, zplOf } from './jobs.ts';

export function printingRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.print, async ({ platform, actor, body, change }) => {
    const needs = printNeeds[body.kind];
    if (!needs.some((right) => actor.rights.has(right))) throw new Refusal('not-allowed', { needs });
    if (body.kind === 'carton-numbers') return printNumbers(platform, actor.siteId, body, change);
    const made = await makeDocument(platform, actor, { ...body, kind: body.kind });
    return change((current) => queue(current, body, made));
  });
  mountEndpoint(routes, endpoints.printJobs, async ({ platform, actor, query }) => ({
    jobs: await jobs(platform.db, actor, query),
  }));
  mountEndpoint(routes, endpoints.printJobPdf, async ({ platform, actor, id, res }) => {
    res
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="print.pdf"')
      .send(await fileOf(platform.db, actor, id));
  });
  mountEndpoint(routes, endpoints.printJobPng, async ({ platform, actor, id, query, res }) => {
    const png = await platform.compute.drawPage({ pdf: await fileOf(platform.db, actor, id), page: query.page });
    if (!png) throw new Refusal('not-found', { what: `page ${query.page}` });
    res.type('image/png').send(Buffer.from(png));
  });
  mountEndpoint(routes, endpoints.printJobZpl, async ({ platform, actor, id, res }) => {
    res.type('text/plain').send(await zplOf(platform.db, actor, id));
  });
  mountEndpoint(routes, endpoints.printJobDone, ({ id, body, change }) =>
    change((current) => conclude(current, id, body)),
  );
}
