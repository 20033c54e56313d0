import { sql, type SQL } from 'drizzle-orm';
import type { Db, Tx } from './database/index.ts';

/** Rows of a statement whose columns the caller names and types. */
export async function rows<T>(on: Db | Tx, statement: SQL): Promise<T[]> {
  return (await on.execute(statement)).rows as T[];
}

/** An instant as the API writes it. */
export function iso(column: SQL): SQL<string> {
  return sql<string>`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
}

/**
 * Texts to compare a column with, `where o.id = ${anyOf(ids)}`: each is looked up in the column's index. The rows of
 * `in (select …)` would be joined with the whole table, as nobody tells the planner how few they are.
 */
export function anyOf(list: readonly string[]): SQL {
  return sql`any(array(select jsonb_array_elements_text(${recordset(list)})))`;
}

/** Values for a set-based statement: `from jsonb_to_recordset(${recordset(list)}) as r(a text, b int)`. */
export function recordset(list: readonly unknown[]): SQL {
  return sql`${JSON.stringify(list)}::jsonb`;
}
