import { sql } from 'drizzle-orm';
import type { ChangeEvent, Right } from '@hand-relay/contract';
import type { Tx } from './database/index.ts';
import type { Platform } from './platform.ts';
import type { JournalEntry } from './journalEntry.ts';
import { Refusal } from './refusal.ts';
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
  /** Whether stand-ins for carriers answer. */
  readonly standins: boolean;
  readonly entries: JournalEntry[] = [];
  readonly events: ChangeEvent[] = [];

  constructor(tx: Tx, actor: Actor, platform: Platform) {
    this.tx = tx;
    this.actor = actor;
    this.now = platform.clock();
    this.newId = platform.newId;
    this.standins = platform.standins;
  }

  journal(...entries: JournalEntry[]): void {
    this.entries.push(...entries);
  }

  /** Announces what changed. More than fifty ids are told as "more than can be named". */
  tell(topic: ChangeEvent['topic'], ids: string[], news?: ChangeEvent['news']): void {
    this.events.push({ topic, ids: ids.length > 50 ? [] : ids, ...(news ? { news } : {}) });
  }
}

/**
 * The one path of every change: a transaction, the work, the journal and the first answer written with it, events
 * after commit. A repeat of a request gets the first answer and changes nothing.
 *
 * @throws Refusal 422 `key-reused` when the key was used for another request; 507 `disk-full` before anything is begun
 */
export async function change<T>(
  platform: Platform,
  actor: Actor,
  repeat: Repeat | null,
  work: (change: Change) => Promise<T>,
): Promise<T> {
  if (platform.disk.full()) throw diskFull(platform);
  let events: ChangeEvent[] = [];
  const answer = await untilNoDeadlock(() =>
    platform.db.transaction(async (tx) => {
      if (repeat && !(await isFirst(platform, tx, actor, repeat))) return firstAnswer<T>(tx, actor, repeat);
      const current = new Change(tx, actor, platform);
      const answer = await work(current);
      await conclude(current, repeat, answer);
      events = current.events;
      return answer;
    }),
  ).catch(async (error: unknown) => {
    if (error instanceof Refusal && error.caught) await keepCaught(platform, actor, repeat, error.caught);
    throw error;
  });
  platform.bus.committed(events);
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
function diskFull(platform: Platform): Refusal {
  return new Refusal(507, 'disk-full', { freeMb: platform.disk.freeMb() });
}

/** Whether a request is heard for the first time: its key is taken. */
async function isFirst(platform: Platform, tx: Tx, actor: Actor, { key, request }: Repeat): Promise<boolean> {
  const taken = await rows<{ key: string }>(
    tx,
    sql`insert into idempotency (person_id, key, request, status, at)
        values (${actor.personId}, ${key}, ${request}, 0, ${platform.clock().toISOString()})
        on conflict do nothing returning key`,
  );
  return taken.length > 0;
}

/** An error that a refusal caught is counted once, though the refused change is undone and may be asked for again. */
async function keepCaught(
  platform: Platform,
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
  const [kept] = await rows<{ request: string; answer: T }>(
    tx,
    sql`select request, answer from idempotency where person_id = ${actor.personId} and key = ${repeat.key}`,
  );
  if (kept?.request !== repeat.request) throw new Refusal(422, 'key-reused', { key: repeat.key });
  return kept.answer;
}

/** Journal, first answer and notifications in one statement: a scan pays for one round trip. */
async function conclude(current: Change, repeat: Repeat | null, answer: unknown): Promise<void> {
  const { actor, tx } = current;
  const notes = current.events.map((event) => JSON.stringify({ site: actor.siteId, event }));
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
