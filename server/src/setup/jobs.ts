import type { JobAnswer } from '@hand-relay/contract';
import type { Row, SheetError, SheetName } from '@hand-relay/core/sheets';
import { change, notFound, Refusal, type Actor, type Change, type Platform } from '../platform/index.ts';
import { keepRows } from './keep.ts';

/** Rows written in one transaction: small, so that a scan waits for no import. */
const CHUNK = 400;
/** Jobs remembered after their end, so that whoever asks late is answered. */
const REMEMBERED = 50;

interface Job extends JobAnswer {
  siteId: string;
  stop: boolean;
}

/**
 * Imports that run beside the other work, chunk by chunk. A job that is stopped or fails leaves whole chunks behind
 * and says how many rows they were; taking the same file again goes on where it stopped.
 */
export class Jobs {
  private readonly jobs = new Map<string, Job>();
  private readonly platform: Platform;

  constructor(platform: Platform) {
    this.platform = platform;
  }

  /**
   * Starts writing rows, and answers with the job's id, by which all of it is undone as one.
   *
   * @param told what is known of it: its file, the rows that have errors, and what is done before its first rows
   */
  start(
    actor: Actor,
    name: SheetName,
    list: readonly Row[],
    there: ReadonlyMap<string, Row>,
    told: { file?: string; errors: SheetError[]; first?: (current: Change) => Promise<void> },
  ): string {
    const job: Job = {
      id: this.platform.newId(),
      siteId: actor.siteId,
      state: 'running',
      done: 0,
      all: list.length,
      problem: null,
      errors: told.errors,
      stop: false,
    };
    this.jobs.set(job.id, job);
    for (const id of [...this.jobs.keys()].slice(0, -REMEMBERED)) this.jobs.delete(id);
    void this.run(job, actor, name, list, there, told);
    return job.id;
  }

  private async run(
    job: Job,
    actor: Actor,
    name: SheetName,
    list: readonly Row[],
    there: ReadonlyMap<string, Row>,
    { file, first }: { file?: string; first?: (current: Change) => Promise<void> },
  ): Promise<void> {
    try {
      for (let at = 0; at < list.length; at += CHUNK) {
        if (job.stop) {
          job.state = 'cancelled';
          return;
        }
        const chunk = list.slice(at, at + CHUNK);
        await change(this.platform, actor, null, async (current) => {
          if (at === 0) await first?.(current);
          await keepRows(current, name, chunk, there, { entry: job.id, ...(file === undefined ? {} : { file }) });
          current.tell('setup', []);
        });
        job.done += chunk.length;
        // Others get their turn between two chunks.
        await new Promise((resolve) => setImmediate(resolve));
      }
      job.state = 'done';
    } catch (error) {
      job.state = 'failed';
      const { cause } = error as { cause?: { constraint?: string } };
      job.problem = error instanceof Refusal ? error.code : (cause?.constraint ?? 'unexpected');
      this.platform.log.error({ requestId: actor.requestId, err: error, job: job.id }, 'job failed');
    }
  }

  find(siteId: string, id: string): JobAnswer {
    const job = this.jobs.get(id);
    if (!job || job.siteId !== siteId) throw notFound('job', id);
    const { siteId: _, stop: __, ...answer } = job;
    return answer;
  }

  cancel(siteId: string, id: string): JobAnswer {
    const answer = this.find(siteId, id);
    this.jobs.get(id)!.stop = true;
    return answer;
  }
}
