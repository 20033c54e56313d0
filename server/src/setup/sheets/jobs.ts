import type { JobAnswer } from '@hand-relay/contract';
import { keyOf, sheets, type Row, type SheetError, type SheetName } from '@hand-relay/core/reading/sheets';
import { addCrossAisles } from '../../floor/plan/index.ts';
import { change, type Change, type JobState, type Platform } from '../../platform/index.ts';
import { writeRows } from './writeRows.ts';
import { kinds } from './kinds/index.ts';

/** Rows written in one transaction: small, so that a scan waits for no import. */
const CHUNK = 400;

interface Import {
  name: SheetName;
  rows: readonly Row[];
  file?: string;
  /** What is done before the first rows, where a floor is generated. */
  crossAisles?: readonly number[];
}

/**
 * Says what an import does: it runs beside other work, chunk by chunk, each in a transaction with its progress. One
 * that is cancelled or fails leaves whole chunks behind and says how many rows they were; after a restart, or on
 * another server, it goes on behind the last chunk. All its rows are one entry of the history, of the job's id.
 */
export function defineImport(platform: Platform): void {
  platform.jobs.define<Import>('import', 'setup', async ({ id, actor, input, done, signal, advance }) => {
    const { name, rows, file, crossAisles } = input;
    const there = new Map(
      (await kinds[name].read(platform.db, actor.siteId)).map((row) => [keyOf(sheets[name], row), row]),
    );
    for (let at = done; at < rows.length; at += CHUNK) {
      signal.throwIfAborted();
      const chunk = rows.slice(at, at + CHUNK);
      await change(platform, actor, null, async (current) => {
        await advance(current.tx, at + chunk.length);
        if (at === 0 && crossAisles) await addCrossAisles(current, crossAisles);
        await writeRows(current, name, chunk, there, { entry: id, ...(file === undefined ? {} : { file }) });
        current.publish('setup', []);
      });
      // Others get their turn between two chunks.
      await new Promise((resolve) => setImmediate(resolve));
    }
  });
}

/** Begins an import when the change commits; answers with its id. */
export async function putImport(
  current: Change,
  { jobs }: Platform,
  input: Import,
  errors: readonly SheetError[],
): Promise<string> {
  return (await jobs.put(current, { kind: 'import', input, all: input.rows.length, facts: { errors } }))!;
}

/** An import as the app follows it. */
export function importAnswer({ id, state, done, all, problem, facts }: JobState): JobAnswer {
  return { id, state, done, all, problem: problem?.code ?? null, errors: (facts['errors'] ?? []) as SheetError[] };
}
