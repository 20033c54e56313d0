import { sql, type SQL } from 'drizzle-orm';
import type { RowOutcome } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Db, type Tx } from '../../../platform/index.ts';

/** Names of a column that a list of the house has. */
export async function known(on: Db | Tx, from: SQL, column: string, list: readonly RowOutcome[]): Promise<Set<string>> {
  const wanted = recordset([...new Set(list.map((r) => r.values[column]))]);
  const found = await rows<{ name: string }>(
    on,
    sql`select x.name from (${from}) x where x.name in (select jsonb_array_elements_text(${wanted}))`,
  );
  return new Set(found.map((r) => r.name));
}

/** Items that are in use, by their numbers. */
export const items = sql`select sku as name from item where not retired`;
/** Customers that are in use, by their numbers. */
export const customers = sql`select number as name from customer where not retired`;
