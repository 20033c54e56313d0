import { sql } from 'drizzle-orm';
import type { ChangeEvent, JobKind, Right } from '@hand-relay/contract';
import type { Carrier } from './carrier.ts';
import type { Tx } from './database/index.ts';
import type { Foundation } from './foundation.ts';
import type { JournalEntry } from './journalEntry.ts';
import { Refusal } from './refusal.ts';
import type { WalkAsked, WalkFound } from './search.ts';
import { recordset, rows } from './rows.ts';

/** Who asks, from where. */
export interface Actor {
  personId: string;
  name: string;
  siteId: string;
  sessionId: string;
  rights: ReadonlySet<Right>;
  device: string;
  requestId: string;
  /** The page that asks, where it named itself. */
  tab?: string;
}

/** A repeat of a request: what was asked and by which key. */
export interface Repeat {
  key: string;
  request: string;
}

/** One change under way: its transaction, and what it will journal and tell when it commits. */
export class Change {
  readonly tx: Tx;
  readonly actor: Actor;
  readonly now: Date;
  readonly newId: () => string;
  /** The link to carriers; null where none of them can be asked. */
  readonly carrier: Carrier | null;
  /** The page that asked, where it is told what changed with its answer. */
  readonly by: string | undefined;
  /** Walks that were searched for this change so far, by what was asked. */
  readonly walks: Map<string, WalkFound> | null;
  readonly entries: JournalEntry[] = [];
  readonly events: ChangeEvent[] = [];
  readonly elsewhere: { site: string; event: ChangeEvent }[] = [];
  /** Jobs that begin when it commits. */
  readonly started: JobKind[] = [];
  /** What is done in this process once it has committed; a change that is undone does none of it. */
  readonly afterCommit: (() => void)[] = [];

  private readonly compute: Foundation['compute'];

  constructor(
    tx: Tx,
    actor: Actor,
    platform: Foundation,
    { by, walks = null }: { by?: string | undefined; walks?: Map<string, WalkFound> | null } = {},
  ) {
    this.tx = tx;
    this.actor = actor;
    this.now = platform.clock();
    this.newId = platform.newId;
    this.carrier = platform.carrier;
    this.by = by;
    this.walks = walks;
    this.compute = platform.compute;
  }

  /**
   * The walk of a run, as its stops are in this transaction. A search takes up to seconds where aisles are one-way: it
   * is done with no lock held. The change is undone for it and begun again, and finds the answer there, unless
   * somebody else changed the run in between.
   */
  async walk(asked: WalkAsked): Promise<WalkFound> {
    if (this.walks === null) return this.compute.walk(asked);
    const found = this.walks.get(JSON.stringify(asked));
    if (found) return found;
    throw new WalkWanted(asked);
  }

  journal(...entries: JournalEntry[]): void {
    this.entries.push(...entries);
  }

  /** Announces what changed. More than fifty ids are told as "more than can be named". */
  publish(topic: ChangeEvent['topic'], ids: string[], news?: ChangeEvent['news']): void {
    this.events.push({ topic, ids: ids.length > 50 ? [] : ids, ...(news ? { news } : {}) });
  }

  /** Announces at another site that something of a topic changed there. */
  publishAt(site: string, topic: ChangeEvent['topic']): void {
    this.elsewhere.push({ site, event: { topic, ids: [] } });
  }
}

/** A change cannot go on without a walk that is not searched yet. */
class WalkWanted extends Error {
  readonly asked: WalkAsked;

  constructor(asked: WalkAsked) {
    super('a walk is to be searched');
    this.asked = asked;
  }
}

/** Walks that are searched with no lock held; a run that others change again and again is searched under its lock. */
const WALKS = 12;

/**
 * Runs a transaction again and again until it has all walks that it needs.
 *
 * @param transaction is given the walks that are known; null where it must search by itself
 */
async function withWalks<T>(
  { compute }: Foundation,
  transaction: (walks: Map<string, WalkFound> | null) => Promise<T>,
): Promise<T> {
  const walks = new Map<string, WalkFound>();
  for (let searched = 0; searched < WALKS; searched++)
    try {
      return await transaction(walks);
    } catch (error) {
      if (!(error instanceof WalkWanted)) throw error;
      walks.set(JSON.stringify(error.asked), await compute.walk(error.asked));
    }
  return transaction(null);
}

/**
 * The one path of every change: a transaction, the work, the journal and the first answer written with it, events
 * after commit. A repeat of a request gets the first answer and changes nothing.
 *
 * @param onCommitted called with what the change published; not where it is a repeat
 *
 * @throws Refusal 422 `key-reused` when the key was used for another request; 507 `disk-full` before anything is begun
 */
export async function change<T>(
  platform: Foundation,
  actor: Actor,
  repeat: Repeat | null,
  work: (change: Change) => Promise<T>,
  onCommitted?: (events: readonly ChangeEvent[]) => void,
): Promise<T> {
  if (platform.disk.full()) throw diskFull(platform);
  let committed: Change | null = null as Change | null;
  const answer = await withWalks(platform, (walks) =>
    untilNoDeadlock(() =>
      platform.db.transaction(async (tx) => {
        if (repeat && !(await isFirst(platform, tx, actor, repeat))) return firstAnswer<T>(tx, actor, repeat);
        const current = new Change(tx, actor, platform, { by: onCommitted && actor.tab, walks });
        const answer = await work(current);
        await conclude(current, repeat, answer);
        committed = current;
        return answer;
      }),
    ),
  ).catch(async (error: unknown) => {
    if (error instanceof Refusal && error.caught) await journalCaught(platform, actor, repeat, error.caught);
    throw error;
  });
  if (committed) {
    for (const then of committed.afterCommit) then();
    platform.bus.committed(actor.siteId, committed.events);
    onCommitted?.(committed.events);
  }
  return answer;
}

/** Times that a transaction is begun again which the database ended because others stood in its way. */
const ATTEMPTS = 5;
const PAUSE_MS = 20;
/** PostgreSQL's codes of a deadlock and of a serialisation failure: nothing was done, and the same may be done again. */
const IN_THE_WAY = new Set(['40P01', '40001']);

/** Does a statement or transaction again while the database undoes it for the sake of another one, after a random pause. What it did is undone by then. */
export async function untilNoDeadlock<T>(transaction: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++)
    try {
      return await transaction();
    } catch (error) {
      const { cause } = error as { cause?: { code?: string } };
      if (attempt === ATTEMPTS || !IN_THE_WAY.has(cause?.code ?? '')) throw error;
      await new Promise((resolve) => setTimeout(resolve, Math.random() * PAUSE_MS * 2 ** attempt));
    }
}

/** Nothing is begun that could not be finished: half a statement on a full disk ends the database. */
function diskFull(platform: Foundation): Refusal {
  return new Refusal('disk-full', { freeMb: platform.disk.freeMb() });
}

/** Whether a request is heard for the first time: its key is taken. */
async function isFirst(platform: Foundation, tx: Tx, actor: Actor, { key, request }: Repeat): Promise<boolean> {
  const taken = await rows<{ key: string }>(
    tx,
    sql`insert into idempotency (person_id, key, request, status, at)
        values (${actor.personId}, ${key}, ${request}, 0, ${platform.clock().toISOString()})
        on conflict do nothing returning key`,
  );
  return taken.length > 0;
}

/** An error that a refusal caught is counted once, though the refused change is undone and may be asked for again. */
async function journalCaught(
  platform: Foundation,
  actor: Actor,
  repeat: Repeat | null,
  caught: JournalEntry,
): Promise<void> {
  await platform.db.transaction(async (tx) => {
    if (repeat && !(await isFirst(platform, tx, actor, { ...repeat, key: `caught ${repeat.key}` }))) return;
    const current = new Change(tx, actor, platform);
    current.journal(caught);
    await conclude(current, null, null);
  });
}

async function firstAnswer<T>(tx: Tx, actor: Actor, repeat: Repeat): Promise<T> {
  const [stored] = await rows<{ request: string; answer: T }>(
    tx,
    sql`select request, answer from idempotency where person_id = ${actor.personId} and key = ${repeat.key}`,
  );
  if (stored?.request !== repeat.request) throw new Refusal('key-reused', { key: repeat.key });
  return stored.answer;
}

/** Journal, first answer and notifications in one statement: a scan pays for one round trip. */
async function conclude(current: Change, repeat: Repeat | null, answer: unknown): Promise<void> {
  const { actor, tx } = current;
  const own = current.events.map((event) => ({ site: actor.siteId, event: { ...event, by: current.by } }));
  const notes = [...own, ...current.elsewhere].map((note) => JSON.stringify(note));
  await tx.execute(sql`
    with j as (
      insert into journal (at, site_id, person_id, device, request_id, kind, order_id, wave_id, run_id, facts)
      select ${current.now.toISOString()}::timestamptz, ${actor.siteId}, ${actor.personId}, ${actor.device}, ${actor.requestId},
             e->>'kind', e->>'orderId', e->>'waveId', e->>'runId', coalesce(e->'facts', '{}')
      from jsonb_array_elements(${recordset(current.entries)}) with ordinality as t(e, n) order by n
    ), i as (
      update idempotency set status = 200, answer = ${JSON.stringify(answer ?? null)}::jsonb
      where person_id = ${actor.personId} and key = ${repeat?.key ?? ''}
    )
    select pg_notify('relay', n) from jsonb_array_elements_text(${recordset(notes)}) as n`);
}
