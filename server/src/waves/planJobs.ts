import { sql } from 'drizzle-orm';
import { change, Refusal, rows, untilNoDeadlock, type Actor, type Platform } from '../platform/index.ts';

interface Running {
  stop: AbortController;
  far: number;
}

/** Plans that this server computes now, by wave. What is running stands in the database too, so that it goes on after a restart. */
const running = new WeakMap<Platform, Map<string, Running>>();

function runningOn(platform: Platform): Map<string, Running> {
  const known = running.get(platform);
  if (known) return known;
  const made = new Map<string, Running>();
  running.set(platform, made);
  return made;
}

/** How far the plan of a wave is, from 0 to 1; null where none is made. */
export const planFar = (platform: Platform, waveId: string): number | null =>
  runningOn(platform).get(waveId)?.far ?? null;

/** Stops the making of a wave's plan: the wave stays as it was. */
export function stopPlan(platform: Platform, waveId: string): boolean {
  const job = runningOn(platform).get(waveId);
  job?.stop.abort();
  return job !== undefined;
}

/**
 * Does the work of a plan as a job: it reports progress, can be cancelled, and starts again after a restart.
 *
 * @throws Refusal 409 `plan-running` when the wave is being planned already, `plan-stopped` when somebody stopped it
 */
export async function asPlanJob(
  platform: Platform,
  actor: Actor,
  waveId: string,
  work: (options: { signal: AbortSignal; onProgress: (far: number) => void }) => Promise<void>,
  resumed: string | null = null,
): Promise<void> {
  const jobs = runningOn(platform);
  if (jobs.has(waveId)) throw new Refusal(409, 'plan-running');
  const stop = new AbortController();
  const job: Running = { stop, far: 0 };
  jobs.set(waveId, job);
  const id = resumed ?? platform.newId();
  try {
    if (resumed === null) {
      const begun = await untilNoDeadlock(() =>
        rows<{ id: string }>(
          platform.db,
          sql`insert into job (id, site_id, kind, of_id, person_id, state, at)
              values (${id}, ${actor.siteId}, 'plan-wave', ${waveId}, ${actor.personId}, 'running', ${platform.clock().toISOString()})
              on conflict do nothing returning id`,
        ),
      );
      if (begun.length === 0) throw new Refusal(409, 'plan-running');
    }
    let told = 0;
    await work({
      signal: stop.signal,
      onProgress(far) {
        job.far = far;
        // Those who look at the wave are told of each tenth.
        if (far - told < 0.1) return;
        told = far;
        void change(platform, actor, null, (current) => Promise.resolve(current.tell('waves', [waveId]))).catch(
          () => undefined,
        );
      },
    });
    await ended(platform, id, 'done');
  } catch (error) {
    const stopped = stop.signal.aborted;
    await ended(platform, id, stopped ? 'stopped' : 'failed', error instanceof Refusal ? error.code : null);
    if (stopped) throw new Refusal(409, 'plan-stopped');
    throw error;
  } finally {
    jobs.delete(waveId);
  }
}

async function ended(
  { db }: Platform,
  id: string,
  state: 'done' | 'stopped' | 'failed',
  problem: string | null = null,
): Promise<void> {
  await db.execute(
    sql`update job set state = ${state}, problem = ${problem}, far = case when ${state} = 'done' then 1 else far end where id = ${id}`,
  );
}

/** Starts plans again that a restart of the server interrupted. */
export async function resumePlans(
  platform: Platform,
  plan: (actor: Actor, waveId: string, job: string) => Promise<void>,
): Promise<void> {
  const open = await rows<{ id: string; wave: string; person: string; name: string; site: string }>(
    platform.db,
    sql`select j.id, j.of_id as wave, p.id as person, p.name, j.site_id as site from job j join person p on p.id = j.person_id
        where j.kind = 'plan-wave' and j.state = 'running' order by j.at`,
  );
  for (const { id, wave, person, name, site } of open) {
    const actor: Actor = {
      personId: person,
      name,
      siteId: site,
      sessionId: '',
      rights: new Set(),
      device: 'server',
      requestId: id,
    };
    await plan(actor, wave, id).catch(async (error: unknown) => {
      if (!(error instanceof Refusal)) platform.log.error({ err: error, job: id }, 'plan failed');
      await ended(platform, id, 'failed', error instanceof Refusal ? error.code : null);
    });
  }
}
