import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { endpoints, type waveDetail, type WaveSummary } from '@hand-relay/contract';
import type { Request } from 'express';
import { notFound, rows, serve, type Doors, type Platform, type Repeat } from '../platform/index.ts';
import { wavePaper } from '../documents/index.ts';
import { wayOf } from '../ways/index.ts';
import { changeWave, mergeWaves, placeWave, sendBack, splitWave } from './arrange.ts';
import { planWave } from './plan.ts';
import { stopPlan } from './planJobs.ts';
import { previewRelease } from './preview.ts';
import { release } from './release.ts';
import { lookReplan, replan } from './replan.ts';
import { cancelWave, startWave } from './state.ts';
import { runSummaries, waveSummaries } from './summary.ts';
import { gatherEntry, timetableOf } from './timetable.ts';

async function oneWave(platform: Platform, siteId: string, id: string): Promise<WaveSummary> {
  const [wave] = await waveSummaries(platform, siteId, sql`w.id = ${id}`);
  if (!wave) throw notFound('wave', id);
  return wave;
}

export function waveRoutes(doors: Doors): void {
  serve(doors, endpoints.previewRelease, ({ platform, actor, body }) => previewRelease(platform, actor, body));
  serve(doors, endpoints.release, ({ body, change }) => change((current) => release(current, body)));
  serve(doors, endpoints.waves, async ({ platform, actor }) => ({
    waves: await waveSummaries(platform, actor.siteId),
  }));
  serve(doors, endpoints.wave, async ({ platform, actor, id }) => ({
    wave: await oneWave(platform, actor.siteId, id),
    runs: await runSummaries(platform.db, actor.siteId, sql`r.wave_id = ${id}`),
    orders: await rows<z.input<typeof waveDetail>['orders'][number]>(
      platform.db,
      sql`select o.id, o.number, c.name as customer, sum(x.units)::int as units,
                 coalesce(sum((select sum(k.picked) from pick k join run r on r.id = k.run_id where k.line_id = x.line_id and r.wave_id = x.wave_id)), 0)::int as picked,
                 greatest(1, (select max(p.n) from (select count(distinct q.run_id)::int as n from run_position q join run r on r.id = q.run_id
                   where q.order_id = o.id and r.wave_id = ${id} and r.state <> 'cancelled' group by r.area) p)) as trips
          from wave_line x join order_line l on l.id = x.line_id join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
          where x.wave_id = ${id} and o.site_id = ${actor.siteId} group by o.id, c.name order by o.number`,
    ),
  }));
  serve(doors, endpoints.planWave, async ({ platform, actor, id, req }) => {
    await planWave(platform, actor, repeatOf(req), id);
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.startWave, async ({ platform, actor, id, change }) => {
    await change((current) => startWave(current, id));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.cancelWave, async ({ platform, actor, id, change }) => {
    await change((current) => cancelWave(current, id));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.stopPlan, async ({ platform, actor, id }) => {
    const wave = await oneWave(platform, actor.siteId, id);
    stopPlan(platform, wave.id);
    return { wave };
  });
  serve(doors, endpoints.changeWave, async ({ platform, actor, id, body, change }) => {
    await change((current) => changeWave(current, id, body));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.sendBack, async ({ platform, actor, id, change }) => {
    await change((current) => sendBack(current, id));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.mergeWaves, async ({ platform, actor, id, body, change }) => {
    await change((current) => mergeWaves(current, id, body.waves));
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
  serve(doors, endpoints.splitWave, ({ id, body, change }) => change((current) => splitWave(current, id, body)));
  serve(doors, endpoints.placeWave, async ({ platform, actor, id, body, change }) => {
    await change((current) => placeWave(current, id, body.before));
    return { waves: await waveSummaries(platform, actor.siteId) };
  });
  serve(doors, endpoints.timetable, async ({ platform, actor }) => ({
    entries: await timetableOf(platform, actor.siteId),
  }));
  serve(doors, endpoints.gatherEntry, ({ id, change }) => change((current) => gatherEntry(current, id)));
  serve(doors, endpoints.wavePaths, async ({ platform, actor, id }) => ({
    paths: (
      await rows<{ path: [number, number][] }>(
        platform.db,
        sql`select path from run where wave_id = ${id} and site_id = ${actor.siteId} and state <> 'cancelled' order by rank`,
      )
    ).map((r) => r.path),
  }));
  serve(doors, endpoints.wavePaper, async ({ platform, actor, id, res }) => {
    const pdf = await wavePaper(platform, actor.siteId, id, (await wayOf(platform.db, actor.siteId)).paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pick-lists.pdf"').send(pdf);
  });
  serve(doors, endpoints.lookReplan, ({ platform, actor, id }) => lookReplan(platform, actor, id));
  serve(doors, endpoints.replan, async ({ platform, actor, id, req }) => {
    await replan(platform, actor, repeatOf(req), id);
    return { wave: await oneWave(platform, actor.siteId, id) };
  });
}

/** A repeat of a request whose work begins outside its transaction. */
function repeatOf(req: Request): Repeat {
  const hash = createHash('sha256').update(req.path).digest('base64url');
  return { key: req.get('idempotency-key')!, request: `plan ${hash}` };
}
