import { sql } from 'drizzle-orm';
import { isRefusalCode, type JobKind, type Right, type Topic } from '@hand-relay/contract';
import { untilNoDeadlock, type Actor, type Change } from './change.ts';
import type { Tx } from './database/index.ts';
import type { Foundation } from './foundation.ts';
import { notFound, Refusal, refusalOf } from './refusal.ts';
import { recordset, rows } from './rows.ts';

/** What kept a job from its end: a refusal, or the word for something unexpected. */
export interface JobProblem {
  code: string;
  facts: Record<string, unknown>;
}

export interface JobState {
  id: string;
  state: 'running' | 'done' | 'cancelled' | 'failed';
  done: number;
  all: number;
  problem: JobProblem | null;
  /** What is told of it beside its progress. */
  facts: Record<string, unknown>;
}

/** A job under way, as its work sees it. */
export interface JobRun<I> {
  id: string;
  /** Whoever began it, with the rights of that moment. */
  actor: Actor;
  ofId: string;
  input: I;
  /** Parts done already: more than none where another server began it and ended. */
  done: number;
  /** Fires when somebody cancels it, when this server closes, and when another server has taken it over: then throw. */
  signal: AbortSignal;
  /**
   * Writes progress in the transaction that makes it.
   *
   * @throws Error where the job is not this server's any more: the transaction is undone
   */
  advance: (tx: Tx, done: number) => Promise<void>;
  /** Notes progress that nothing hangs on; written at the next heartbeat. */
  note: (done: number) => void;
}

interface Work {
  work: (run: JobRun<unknown>) => Promise<void>;
  topic: Topic;
}

interface Running {
  stop: AbortController;
  /** Why it stops: only what a person cancelled is over. */
  reason: 'cancelled' | 'closing' | 'lost' | null;
  noted: number | null;
  ended: Promise<void>;
}

interface Claimed {
  id: string;
  kind: JobKind;
  ofId: string;
  actor: Omit<Actor, 'rights'> & { rights: Right[] };
  input: unknown;
  done: number;
  attempts: number;
}

/** How long a job stays a server's own without a heartbeat. */
const LEASE_SECONDS = 15;
const HEARTBEAT_MS = 1_000;
/** Servers that may end in the middle of a job before it counts as failed: it may be what ends them. */
const MOST_ATTEMPTS = 5;
/** How often a server looks for jobs that nobody works at. */
const LOOK_MS = 4_000;
/** How often whoever waits for a job on another server asks for it. */
const WAIT_MS = 250;

class LeaseLost extends Error {}

/**
 * Durable jobs: a row in the database, worked at by one server at a time. A server says every second that it is still
 * at it; one that ends is followed by another, which goes on after the last part that was committed. Anybody on any
 * server can read the progress and cancel.
 */
export class Jobs {
  /** What this server calls itself. */
  private readonly owner: string;
  private readonly works = new Map<JobKind, Work>();
  private readonly running = new Map<string, Running>();
  private readonly platform: Pick<Foundation, 'db' | 'newId' | 'log'>;
  private readonly timers: NodeJS.Timeout[] = [];
  private claiming: Promise<void> | null = null;
  private wanted = false;
  private closed = false;

  constructor(platform: Pick<Foundation, 'db' | 'newId' | 'log'>) {
    this.platform = platform;
    this.owner = platform.newId();
  }

  /**
   * Says what is done for a kind of job. What it throws is the job's problem.
   *
   * @param topic what is announced when it ends, with what it was about
   */
  define<I>(kind: JobKind, topic: Topic, work: (run: JobRun<I>) => Promise<void>): void {
    this.works.set(kind, { work: work as Work['work'], topic });
  }

  /**
   * Takes up what no server works at, now and from time to time.
   *
   * @param sole whether no other server can be at work on this database: then no lease is waited for
   */
  async start(sole: boolean): Promise<void> {
    if (sole) await this.platform.db.execute(sql`update job set owner = null, lease = null where state = 'running'`);
    await this.wake();
    const every = (ms: number, work: () => Promise<void>) => {
      const timer = setInterval(() => void work().catch((error: unknown) => this.failed(error)), ms);
      timer.unref();
      this.timers.push(timer);
    };
    every(HEARTBEAT_MS, () => this.beat());
    every(LOOK_MS, () => this.wake());
  }

  /**
   * Puts a job into the database, within a change: it begins when that commits and `wake` is called, here or, should
   * this server end, elsewhere.
   *
   * @returns its id; null where one of its kind and subject runs already
   */
  async put(current: Change, { kind, ofId, input, all = 1, facts: facts = {} }: PutJob): Promise<string | null> {
    const id = current.newId();
    const { actor } = current;
    current.started.push(kind);
    const actorText = JSON.stringify({ ...actor, rights: [...actor.rights] });
    const made = await rows(
      current.tx,
      sql`insert into job (id, site_id, kind, of_id, person_id, state, at, actor, input, done, "all", facts)
          values (${id}, ${actor.siteId}, ${kind}, ${ofId ?? id}, ${actor.personId}, 'running', ${current.now.toISOString()},
                  ${actorText}::jsonb, ${JSON.stringify(input)}::jsonb, 0, ${all}, ${JSON.stringify(facts)}::jsonb)
          on conflict do nothing returning id`,
    );
    return made.length > 0 ? id : null;
  }

  /** Begins what was put, as far as no other server has. */
  async wake(): Promise<void> {
    if (this.closed) return;
    this.wanted = true;
    // One look at a time; whoever asks during one is served by the next.
    while (this.wanted) {
      this.claiming ??= this.claim().finally(() => (this.claiming = null));
      await this.claiming.catch((error: unknown) => this.failed(error));
    }
  }

  private async claim(): Promise<void> {
    this.wanted = false;
    if (this.closed) return;
    const kinds = recordset([...this.works.keys()]);
    const mine = await untilNoDeadlock(() =>
      rows<Claimed>(
        this.platform.db,
        sql`update job set owner = ${this.owner}, attempts = attempts + 1, lease = clock_timestamp() + make_interval(secs => ${LEASE_SECONDS})
            where id in (
              select id from job where state = 'running' and (lease is null or lease < clock_timestamp())
                and kind in (select jsonb_array_elements_text(${kinds}::jsonb))
              order by id for update skip locked)
            returning id, kind, of_id as "ofId", actor, input, done, attempts`,
      ),
    );
    for (const job of mine) this.begin(job);
  }

  private begin({ id, kind, ofId, actor, input, done, attempts }: Claimed): void {
    // A server that stood still for longer than its lease may get its own job back.
    if (this.running.has(id)) return;
    const running: Running = { stop: new AbortController(), reason: null, noted: null, ended: Promise.resolve() };
    this.running.set(id, running);
    const run: JobRun<unknown> = {
      id,
      actor: { ...actor, rights: new Set(actor.rights) },
      ofId,
      input,
      done,
      signal: running.stop.signal,
      advance: (tx, parts) => this.advance(tx, id, parts),
      note: (parts) => (running.noted = parts),
    };
    const { work, topic } = this.works.get(kind)!;
    const attempt =
      attempts > MOST_ATTEMPTS ? Promise.reject(new Error(`${attempts - 1} servers ended in it.`)) : work(run);
    running.ended = attempt
      .then(
        () => this.finish(id, topic, 'done', null),
        (error: unknown) => this.broken(id, topic, running, error),
      )
      .catch((error: unknown) => this.failed(error))
      .finally(() => this.running.delete(id));
  }

  private async advance(tx: Tx, id: string, done: number): Promise<void> {
    const still = await rows(
      tx,
      sql`update job set done = ${done} where id = ${id} and owner = ${this.owner} and state = 'running' returning id`,
    );
    if (still.length === 0) throw new LeaseLost(`Job ${id} went to another server.`);
  }

  private async broken(id: string, topic: Topic, running: Running, error: unknown): Promise<void> {
    if (error instanceof LeaseLost || running.reason === 'lost') return;
    if (running.reason === 'closing') return this.release(id);
    if (running.reason === 'cancelled') return this.finish(id, topic, 'cancelled', null);
    const { cause } = error as { cause?: { constraint?: string } };
    const problem: JobProblem =
      error instanceof Refusal
        ? { code: (error as Refusal).code, facts: (error as Refusal).facts }
        : { code: cause?.constraint ?? 'unexpected', facts: {} };
    if (!(error instanceof Refusal)) this.platform.log.error({ err: error, job: id }, 'job failed');
    await this.finish(id, topic, 'failed', problem);
  }

  private async finish(
    id: string,
    topic: Topic,
    state: 'done' | 'cancelled' | 'failed',
    problem: JobProblem | null,
  ): Promise<void> {
    const done = this.running.get(id)?.noted ?? null;
    await untilNoDeadlock(() =>
      this.platform.db.execute(sql`
        with ended as (
          update job set state = ${state}, problem = ${problem && JSON.stringify(problem)}::jsonb, input = null, owner = null, lease = null,
                 done = greatest(done, coalesce(${done}::float8, done))
          where id = ${id} and owner = ${this.owner} returning site_id, of_id
        ) select pg_notify('relay', json_build_object('site', site_id, 'event',
            json_build_object('topic', ${topic}::text, 'ids', json_build_array(of_id)))::text) from ended`),
    );
  }

  /** Gives a job back unfinished: the next server goes on. */
  private async release(id: string): Promise<void> {
    await this.platform.db.execute(
      sql`update job set owner = null, lease = null, attempts = attempts - 1
          where id = ${id} and owner = ${this.owner} and state = 'running'`,
    );
  }

  /** Says that this server is still at its jobs, notes how far they are, and learns what was cancelled elsewhere. */
  private async beat(): Promise<void> {
    if (this.running.size === 0) return;
    const noted = [...this.running].map(([id, { noted: done }]) => ({ id, done }));
    const still = await rows<{ id: string; cancel: boolean }>(
      this.platform.db,
      sql`update job j set lease = clock_timestamp() + make_interval(secs => ${LEASE_SECONDS}), done = coalesce(n.done, j.done)
          from jsonb_to_recordset(${recordset(noted)}) as n(id text, done float8)
          where j.id = n.id and j.owner = ${this.owner} and j.state = 'running' returning j.id, j.cancel`,
    );
    const known = new Map(still.map((job) => [job.id, job.cancel]));
    for (const { id } of noted) {
      if (!known.has(id)) this.stop(id, 'lost');
      else if (known.get(id)) this.stop(id, 'cancelled');
    }
  }

  private stop(id: string, reason: 'cancelled' | 'closing' | 'lost'): void {
    const running = this.running.get(id);
    if (!running || running.reason) return;
    running.reason = reason;
    running.stop.abort();
  }

  /**
   * How far a job is.
   *
   * @throws Refusal 404 where the site has none of that id
   */
  async find(siteId: string, id: string): Promise<JobState> {
    const [job] = await rows<JobState>(
      this.platform.db,
      sql`select id, state, done, "all", problem, facts from job where id = ${id} and site_id = ${siteId}`,
    );
    if (!job) throw notFound('job', id);
    const noted = this.running.get(id)?.noted;
    return noted === null || noted === undefined ? job : { ...job, done: noted };
  }

  /** Cancels a job within a change, wherever it runs: its work is told at the next heartbeat, here as soon as that commits. */
  async cancel(current: Change, where: { id: string } | { kind: JobKind; ofId: string }): Promise<void> {
    const which = 'id' in where ? sql`id = ${where.id}` : sql`kind = ${where.kind} and of_id = ${where.ofId}`;
    const found = await rows<{ id: string }>(
      current.tx,
      sql`update job set cancel = true where site_id = ${current.actor.siteId} and state = 'running' and ${which} returning id`,
    );
    current.afterCommit.push(() => found.forEach(({ id }) => this.stop(id, 'cancelled')));
  }

  /**
   * Waits until a job is over, wherever it runs.
   *
   * @throws Refusal what kept it from its end
   */
  async over(siteId: string, id: string): Promise<JobState> {
    for (;;) {
      await this.running.get(id)?.ended;
      const job = await this.find(siteId, id);
      if (job.state === 'failed' && job.problem)
        throw isRefusalCode(job.problem.code)
          ? refusalOf(job.problem.code, job.problem.facts)
          : new Error(`Job ${id} failed: ${job.problem.code}`);
      if (job.state !== 'running' || this.closed) return job;
      await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
    }
  }

  private failed(error: unknown): void {
    if (!this.closed) this.platform.log.error({ err: error }, 'jobs');
  }

  /** Lets go of what runs: what is not finished is another server's, or this one's when it starts again. */
  async close(): Promise<void> {
    this.closed = true;
    for (const timer of this.timers) clearInterval(timer);
    await this.claiming?.catch(() => undefined);
    const ended = [...this.running.values()].map((r) => r.ended);
    for (const id of [...this.running.keys()]) this.stop(id, 'closing');
    await Promise.all(ended);
  }
}

export interface PutJob {
  kind: JobKind;
  /** What it is about: one of a kind runs for each. Without it any number run at once. */
  ofId?: string;
  input: object;
  /** Parts that it has. */
  all?: number;
  facts?: Record<string, unknown>;
}
