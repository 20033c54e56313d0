import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { endpoints, type waveDetail, type WaveSummary } from '@hand-relay/contract';
import { notFound, rows, serve, type Doors, type Platform } from '../platform/index.ts';
import { planWave } from './plan.ts';
import { previewRelease } from './preview.ts';
import { release } from './release.ts';
import { cancelWave, startWave } from './state.ts';
import { runSummaries, waveSummaries } from './summary.ts';

async function oneWave({ db }: Platform, siteId: string, id: string): Promise<WaveSummary> {
  const [wave] = await waveSummaries(db, siteId, sql`w.id = ${id}`);
  if (!wave) throw notFound('wave', id);
  return wave;
}

export function waveRoutes(doors: Doors): void {
  serve(doors, endpoints.previewRelease, ({ platform, actor, body }) => previewRelease(platform, actor, body));
  serve(doors, endpoints.release, ({ body, change }) => change((current) => release(current, body)));
  serve(doors, endpoints.waves, async ({ platform, actor }) => ({
    waves: await waveSummaries(platform.db, actor.siteId),
  }));
  serve(doors, endpoints.wave, async ({ platform, actor, id }) => ({
    wave: await oneWave(platform, actor.siteId, id),
    runs: await runSummaries(platform.db, actor.siteId, sql`r.wave_id = ${id}`),
    orders: await rows<z.input<typeof waveDetail>['orders'][number]>(
      platform.db,
      sql`select o.id, o.number, c.name as customer, sum(x.units)::int as units,
                 coalesce(sum((select sum(k.picked) from pick k join run r on r.id = k.run_id where k.line_id = x.line_id and r.wave_id = x.wave_id)), 0)::int as picked
          from wave_line x join order_line l on l.id = x.line_id join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
          where x.wave_id = ${id} and o.site_id = ${actor.siteId} group by o.id, c.name order by o.number`,
    ),
  }));
  serve(doors, endpoints.planWave, async ({ platform, actor, id, req }) => {
    const hash = createHash('sha256').update(req.path).digest('base64url');
    await planWave(platform, actor, { key: req.get('idempotency-key')!, request: `plan ${hash}` }, id);
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
}
