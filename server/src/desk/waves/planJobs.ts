import {
  change,
  Refusal,
  type Actor,
  type Change,
  type JobRun,
  type Platform,
  type Repeat,
} from '../../platform/index.ts';
import { printAtStart } from '../../setup/printing/index.ts';
import { waveHead, type WaveHead } from './needs.ts';
import { startWave } from './state.ts';

interface PlanInput {
  /** A new plan of what is not begun, to be looked at, in place of the first. */
  replan: boolean;
  /** The wave starts once it is planned. */
  start?: boolean;
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
    const { replan, start } = job.input;
    // A server may have ended after it had planned the wave and before it started it.
    const planned = start && (await waveHead(platform.db, actor.siteId, waveId)).state === 'planned';
    if (!planned) await makers[replan ? 'replan' : 'plan']({ actor, waveId, job, signal, onProgress });
    if (!start) return;
    await change(platform, actor, null, (current) => startWave(current, waveId));
    await printAtStart(platform, actor, waveId);
  });
}

/**
 * Has a wave that gathers planned and started, within the change that filled it.
 *
 * @throws Refusal 409 `plan-running` when it is being planned already
 */
export async function planAndStart({ jobs }: Platform, current: Change, waveId: string): Promise<void> {
  const input: PlanInput = { replan: false, start: true };
  if (!(await jobs.put(current, { kind: 'plan-wave', ofId: waveId, input }))) throw new Refusal('plan-running');
  current.afterCommit.push(() => void jobs.wake());
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
