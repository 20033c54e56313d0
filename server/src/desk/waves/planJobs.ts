import { change, Refusal, type Actor, type JobRun, type Platform, type Repeat } from '../../platform/index.ts';
import { waveHead, type WaveHead } from './needs.ts';

interface PlanInput {
  /** A new plan of what is not begun, to be looked at, in place of the first. */
  replan: boolean;
}

/** The job of a plan at work. */
export interface PlanRun {
  actor: Actor;
  waveId: string;
  job: JobRun<PlanInput>;
  signal: AbortSignal;
  onProgress: (far: number) => void;
}

/** Says what the job of a plan does, for a wave that gathers and for one that is planned already. */
export function definePlanJobs(
  platform: Platform,
  makers: { plan: (run: PlanRun) => Promise<void>; replan: (run: PlanRun) => Promise<void> },
): void {
  platform.jobs.define<PlanInput>('plan-wave', 'waves', async (job) => {
    const { actor, ofId: waveId, signal } = job;
    let reported = 0;
    const onProgress = (far: number) => {
      job.note(far);
      // Those who look at the wave are told of each tenth.
      if (far - reported < 0.1) return;
      reported = far;
      void change(platform, actor, null, async (current) => {
        await job.advance(current.tx, far);
        current.publish('waves', [waveId]);
        // What is told is progress only: the plan itself checks whether the job is still this server's.
      }).catch((error: unknown) => platform.log.debug({ err: error }, 'progress of a plan'));
    };
    await makers[job.input.replan ? 'replan' : 'plan']({ actor, waveId, job, signal, onProgress });
  });
}

/**
 * Begins the plan of a wave as a job and waits for its end.
 *
 * @param mayBegin refuses where the wave is not in a state for it
 * @throws Refusal 409 `plan-running` when the wave is being planned already, `plan-stopped` when somebody stopped it
 */
export async function planJob(
  platform: Platform,
  { actor, repeat, waveId, replan }: { actor: Actor; repeat: Repeat | null; waveId: string; replan: boolean },
  mayBegin: (head: WaveHead) => void,
): Promise<void> {
  const job = await change(platform, actor, repeat, async (current) => {
    mayBegin(await waveHead(current.tx, actor.siteId, waveId));
    const id = await platform.jobs.put(current, { kind: 'plan-wave', ofId: waveId, input: { replan } });
    if (!id) throw new Refusal('plan-running');
    return id;
  });
  await platform.jobs.wake();
  const { state } = await platform.jobs.over(actor.siteId, job);
  if (state === 'cancelled') throw new Refusal('plan-stopped');
}
