import { sql, type SQL } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Db, type Tx } from '../../../platform/index.ts';
import { nothing, type Kind } from './kind.ts';

/** Codes of a list that are in use. */
const codes = async (on: Db | Tx, table: string) =>
  new Set(
    (await rows<{ code: string }>(on, sql`select code from ${sql.identifier(table)} where not retired`)).map(
      (r) => r.code,
    ),
  );

/** Codes of the channels that are in use. */
export const channelCodes = (on: Db | Tx) => codes(on, 'channel');
/** Codes of the customer classes that are in use. */
export const classCodes = (on: Db | Tx) => codes(on, 'customer_class');

/** A short list of the house: codes with a name, ranked. */
function ranked(table: 'channel' | 'customer_class', column: 'channel' | 'class', uses: (code: SQL) => SQL): Kind {
  const name = sql.identifier(table);
  // Channels say besides whether their orders are packed.
  const packs = table === 'channel';
  const more = packs ? sql`, packing` : sql``;
  return {
    read: (on) =>
      rows<Row>(
        on,
        sql`select code as ${sql.identifier(column)}, name, rank${more}, retired from ${name} order by rank, code`,
      ),
    faults: nothing,
    async refusesRetiring(on, _site, list) {
      const used = new Set(
        (
          await rows<{ code: string }>(
            on,
            sql`select k.code from jsonb_array_elements_text(${recordset(list.map((r) => r[column]))}) as k(code) where ${uses(sql`k.code`)}`,
          )
        ).map((r) => r.code),
      );
      return list.flatMap((r, i) =>
        used.has(String(r[column]))
          ? [{ row: i + 1, column, value: String(r[column]), expected: 'nothing-there' as const }]
          : [],
      );
    },
    async write({ tx }, list) {
      await tx.execute(sql`
        insert into ${name} (code, name, rank, retired${more})
        select r.code, r.name, r.rank, coalesce(r.retired, false)${more}
        from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, code: r[column] })))}) as r(code text, name text, rank int, retired boolean, packing text)
        on conflict (code) do update set name = excluded.name, rank = excluded.rank, retired = excluded.retired${packs ? sql`, packing = excluded.packing` : sql``}`);
    },
  };
}

export const channels = ranked(
  'channel',
  'channel',
  (code) => sql`exists (select 1 from customer_order o where o.channel = ${code} and o.status = 'open')
    or exists (select 1 from departure d where d.channel = ${code} and not d.retired)
    or exists (select 1 from timetable t where t.channel = ${code} and not t.retired)`,
);

export const classes = ranked(
  'customer_class',
  'class',
  (code) => sql`exists (select 1 from customer c where c.class = ${code} and not c.retired)
    or exists (select 1 from timetable t where t.customer_class = ${code} and not t.retired)`,
);
