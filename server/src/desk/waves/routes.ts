import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { endpoints, type waveDetail, type WaveSummary } from '@hand-relay/contract';
import type { Request } from 'express';
import {
  notFound,
  Refusal,
  rows,
  mountEndpoint,
  type Routes,
  type Platform,
  type Repeat,
} from '../../platform/index.ts';
import { wavePaper, waveSlips } from '../../setup/documents/index.ts';
import { printAtStart } from '../../setup/printing/index.ts';
import { paperFor } from '../../setup/settings/index.ts';
import { changeWave, mergeWaves, placeWave, reopenWave, splitWave } from './arrange.ts';
import { makePlan, planWave } from './plan.ts';
import { definePlanJobs, planAndStart } from './planJobs.ts';
import { previewRelease } from './preview.ts';
import { release } from './release.ts';
import { previewReplan, makeDraft, replan } from './replan.ts';
import { cancelWave, startWave } from './state.ts';
import { runSummaries, waveSummaries } from './summary.ts';
import { gatherEntry, timetableOf } from './timetable.ts';
import { trackOf } from './track.ts';

async function oneWave(platform: Platform, siteId: string, id: string): Promise<WaveSummary> {
  const [wave] = await waveSummaries(platform, siteId, sql`w.id = ${id}`);
  if (!wave) throw notFound('wave', id);
  return wave;
}

export function waveRoutes(routes: Routes): void {
  definePlanJobs(routes.platform, {
    plan: (run) => makePlan(routes.platform, run),
    replan: (run) => makeDraft(routes.platform, run),
  });
  mountEndpoint(routes, endpoints.previewRelease, ({ platform, actor, body }) => previewRelease(platform, actor, body));
  mountEndpoint(routes, endpoints.release, ({ platform, actor, body, change }) => {
    if (body.start && !actor.rights.has('waves.run')) throw new Refusal('not-allowed', { needs: ['waves.run'] });
    return change(async (current) => {
      const released = await release(current, body);
      if (body.start) await planAndStart(platform, current, released.wave);
      return released;
    });
  });
  mountEndpoint(routes, endpoints.track, ({ platform, actor }) => trackOf(platform, actor.siteId));
  mountEndpoint(routes, endpoints.waves, async ({ platform, actor }) => ({
    waves: await waveSummaries(platform, actor.siteId),
  }));
  mountEndpoint(routes, endpoints.wave, async ({ platform, actor, id }) => ({
    wave: await oneWave(platform, actor.siteId, id),
    runs: await runSummaries(platform.db, actor.siteId, sql`r.wave_id = ${id}`),
    orders: await rows<z.input<typeof waveDetail>['orders'][number]>(
      platform.db,
      sql`
      with mine as (select id, area, state from run where wave_id = ${id}),
      picked as (select k.line_id, sum(k.picked)::int as units from pick k join mine r on r.id = k.run_id group by k.line_id),
      trips as (
        select order_id, max(n) as n from (
          select q.order_id, count(distinct q.run_id)::int as n from run_position q join mine r on r.id = q.run_id
          where r.state <> 'cancelled' group by q.order_id, r.area
        ) parts group by order_id
      )
      select o.id, o.number, c.name as customer, sum(x.units)::int as units, coalesce(sum(p.units), 0)::int as picked,
             greatest(1, max(t.n)) as trips
      from wave_line x join order_line l on l.id = x.line_id join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
      left join picked p on p.line_id = x.line_id left join trips t on t.order_id = o.id
      where x.wave_id = ${id} and x.units > 0 and o.site_id = ${actor.siteId} group by o.id, c.name order by o.number`,
    ),
  }));
  mountEndpoint(routes, endpoints.planWave, async ({ platform, actor, id, req }) => {
    await planWave(platform, actor, repeatOf(req), id);
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.startWave, async ({ platform, actor, id, change }) => {
    await change((current) => startWave(current, id));
    await printAtStart(platform, actor, id);
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.cancelWave, async ({ platform, actor, id, change }) => {
    await change((current) => cancelWave(current, id));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.stopPlan, async ({ platform, actor, id, change }) => {
    const wave = await oneWave(platform, actor.siteId, id);
    await change(async (current) => {
      await platform.jobs.cancel(current, { kind: 'plan-wave', ofId: id });
      current.publish('waves', [id]);
    });
    return { wave };
  });
  mountEndpoint(routes, endpoints.changeWave, async ({ platform, actor, id, body, change }) => {
    await change((current) => changeWave(current, id, body));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.reopenWave, async ({ platform, actor, id, change }) => {
    await change((current) => reopenWave(current, id));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.mergeWaves, async ({ platform, actor, id, body, change }) => {
    await change((current) => mergeWaves(current, id, body.waves));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  mountEndpoint(routes, endpoints.splitWave, ({ id, body, change }) =>
    change((current) => splitWave(current, id, body)),
  );
  mountEndpoint(routes, endpoints.placeWave, async ({ platform, actor, id, body, change }) => {
    await change((current) => placeWave(current, id, body.before));
    return { waves: await waveSummaries(platform, actor.siteId) };
  });
  mountEndpoint(routes, endpoints.timetable, async ({ platform, actor }) => ({
    entries: await timetableOf(platform, actor.siteId),
  }));
  mountEndpoint(routes, endpoints.gatherEntry, ({ id, change }) => change((current) => gatherEntry(current, id)));
  mountEndpoint(routes, endpoints.wavePaths, async ({ platform, actor, id }) => ({
    paths: (
      await rows<{ path: [number, number][] }>(
        platform.db,
        sql`select path from run where wave_id = ${id} and site_id = ${actor.siteId} and state <> 'cancelled' order by rank`,
      )
    ).map((r) => r.path),
  }));
  mountEndpoint(routes, endpoints.wavePaper, async ({ platform, actor, id, res }) => {
    const paper = await paperFor(platform.db, actor.siteId, actor.personId);
    const pdf = await wavePaper(platform, actor.siteId, id, paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pick-lists.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.waveSlips, async ({ platform, actor, id, res }) => {
    const paper = await paperFor(platform.db, actor.siteId, actor.personId);
    const pdf = await waveSlips(platform, actor.siteId, id, paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="order-slips.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.previewReplan, ({ platform, actor, id, req }) =>
    previewReplan(platform, actor, repeatOf(req), id),
  );
  mountEndpoint(routes, endpoints.replan, async ({ platform, actor, id, req }) => {
    await replan(platform, actor, repeatOf(req), id);
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
}

/** A repeat of a request whose work begins outside its transaction. */
function repeatOf(req: Request): Repeat {
  const hash = createHash('sha256').update(req.path).digest('base64url');
  return { key: req.get('idempotency-key')!, request: `plan ${hash}` };
}
