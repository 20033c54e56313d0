import { sql } from 'drizzle-orm';
import type { Right } from '@hand-relay/contract';
import { forgotten, keyOf, sheets, type Row, type Sheet, type SheetName } from '@hand-relay/core/reading/sheets';
import { notFound, Refusal, rows, type Actor, type Change } from '../../platform/index.ts';
import { kinds } from './kinds/index.ts';

/** A change of master data as the journal keeps it: enough to undo it by. */
interface Kept {
  sheet: SheetName;
  rows: number;
  file?: string;
  /** Rows as they were; of a new row only what it cannot be without, with `retired` set. */
  before: Row[];
  /** By what it is undone; entries of one import or generated floor share it, and are undone as one. */
  entry: string;
  /** The entry that it undoes. */
  undoes?: string;
  [fact: string]: unknown;
}

const secretsOf = (name: SheetName) =>
  new Set<string>(sheets[name].columns.filter((c) => 'secret' in c).map((c) => c.name));

/** What changes rows that all sites share. */
const SHARED_NEEDS: Right = 'house.items';

/**
 * Lets an actor write rows of a sheet at all: those that all sites share need a right of the house.
 *
 * @throws Refusal 403 `not-allowed`
 */
export function mustWrite({ rights }: Actor, name: SheetName): void {
  if ((sheets[name] as Sheet).shared && !rights.has(SHARED_NEEDS))
    throw new Refusal('not-allowed', { needs: [SHARED_NEEDS] });
}

/**
 * Writes rows and keeps in the journal what they were before; secrets are not kept.
 *
 * @returns the entry to undo it by
 * @throws Refusal 403 `not-allowed` where all sites share the rows; `beyond-rights` where they are beyond the actor's own rights
 */
export async function writeRows(
  change: Change,
  name: SheetName,
  list: readonly Row[],
  there: ReadonlyMap<string, Row>,
  more: { entry?: string; file?: string; undoes?: string } = {},
): Promise<string> {
  mustWrite(change.actor, name);
  const beyond = await kinds[name].beyond?.(
    change.tx,
    change.actor,
    list.map((values, i) => ({ row: i + 1, values })),
  );
  if (beyond && beyond.length > 0) throw new Refusal('beyond-rights', { what: beyond.map((e) => e.value).join(', ') });
  const secrets = secretsOf(name);
  const open = (row: Row): Row => Object.fromEntries(Object.entries(row).filter(([column]) => !secrets.has(column)));
  const before = list.map((row) => open(there.get(keyOf(sheets[name], row)) ?? forgotten(sheets[name], row)));
  await kinds[name].write(change, list);
  const facts: Kept = { entry: change.newId(), sheet: name, rows: list.length, before, ...more };
  change.journal({ kind: 'setup-changed', facts });
  return facts.entry;
}

/**
 * Undoes a change: its rows are again as they were, new ones are retired.
 *
 * @returns the entry that brings it back, and how many rows it touched
 * @throws Refusal 409 when it was undone already, or a row was changed since
 */
export async function undoEntry(change: Change, entry: string): Promise<{ entry: string; changed: number }> {
  const parts = await rows<{ id: number; facts: Kept }>(
    change.tx,
    sql`select id::int as id, facts from journal
        where site_id = ${change.actor.siteId} and kind = 'setup-changed' and facts->>'entry' = ${entry} order by id`,
  );
  const [last] = parts;
  if (!last) throw notFound('entry', entry);
  const { sheet } = last.facts;
  const before = parts.flatMap((part) => part.facts.before);
  const later = await rows<{ facts: Kept }>(
    change.tx,
    sql`select facts from journal where id > ${last.id} and facts->>'entry' <> ${entry} and site_id = ${change.actor.siteId} and kind = 'setup-changed' and facts->>'sheet' = ${sheet}`,
  );
  if (later.some((l) => l.facts.undoes === entry)) throw new Refusal('undone-already');
  const keys = new Set(before.map((row) => keyOf(sheets[sheet], row)));
  if (later.some((l) => l.facts.before.some((row) => keys.has(keyOf(sheets[sheet], row)))))
    throw new Refusal('changed-since');
  const gone = before.filter((row) => row['retired'] === true);
  const needed = await kinds[sheet].refusesRetiring(change.tx, change.actor.siteId, gone);
  if (needed.length > 0) throw new Refusal('still-used', { what: needed.map((k) => k.value).join(', ') });
  const there = new Map(
    (await kinds[sheet].read(change.tx, change.actor.siteId, before)).map((r) => [keyOf(sheets[sheet], r), r]),
  );
  return { entry: await writeRows(change, sheet, before, there, { undoes: entry }), changed: before.length };
}
