import { sql } from 'drizzle-orm';
import { warnOfCode, type CodeUse } from '@hand-relay/core/reading/codes';
import type { SheetError, SheetName } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Db, type Tx } from '../../platform/index.ts';
import type { Previewed } from './previewRows.ts';

/** Sheets whose rows are scanned, by the column that has the code. */
const coded: Partial<Record<SheetName, { column: string; use: CodeUse }>> = {
  bins: { column: 'bin', use: 'bin' },
  items: { column: 'item', use: 'item' },
  carts: { column: 'cart', use: 'cart' },
  places: { column: 'place', use: 'place' },
  people: { column: 'badge', use: 'badge' },
  cartons: { column: 'carton', use: 'box' },
};
/** Most that are told; a file with more has one cause. */
const MOST = 200;

/** Codes of new rows that would be mistaken for something else when scanned, or that a scanner cannot send. */
export async function codeWarnings(
  on: Db | Tx,
  siteId: string,
  name: SheetName,
  good: Previewed['good'],
  thisYear: number,
): Promise<SheetError[]> {
  const code = coded[name];
  if (!code) return [];
  const { column, use } = code;
  const fresh = good.flatMap((r) =>
    r.outcome === 'new' && typeof r.values[column] === 'string' ? [{ row: r.row, code: r.values[column] }] : [],
  );
  const warned = fresh.flatMap(({ row, code }): SheetError[] => {
    const warning = warnOfCode(use, code, thisYear);
    if (!warning) return [];
    return warning.kind === 'not-typed'
      ? [{ row, column, value: code, expected: 'typed-by-scanner', facts: { signs: warning.signs } }]
      : [{ row, column, value: code, expected: 'no-other-kind', facts: { kind: warning.as } }];
  });
  const twice = await rows<{ code: string; kind: string }>(
    on,
    sql`
    with asked as (select upper(value) as code from jsonb_array_elements_text(${recordset(fresh.map((f) => f.code))})),
    all_codes as (
      select case when kind = 'bin' then 'bin' else 'place' end as use, kind, upper(code) as code from place
        where site_id = ${siteId} and kind in ('bin', 'lane', 'bench', 'door')
      union all select 'cart', 'cart', upper(code) from cart where site_id = ${siteId}
      union all select 'badge', 'badge', upper(p.badge) from person p join membership m on m.person_id = p.id and m.site_id = ${siteId}
      union all select 'box', 'box', upper(code) from carton_type
      union all select 'item', 'gs1', upper(sku) from item
    )
    select distinct a.code, c.kind from asked a join all_codes c on c.code = a.code where c.use <> ${use}`,
  );
  const kindOf = new Map(twice.map((t) => [t.code, t.kind]));
  for (const { row, code } of fresh) {
    const kind = kindOf.get(code.toUpperCase());
    if (kind) warned.push({ row, column, value: code, expected: 'no-other-code', facts: { kind } });
  }
  return warned.sort((a, b) => a.row - b.row).slice(0, MOST);
}
