import { sql, type SQL } from 'drizzle-orm';
import { recordset, type Db, type Tx } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/** Whether an order `o` is of a kind whose packaging the site accounts for. */
export async function accounted(on: Db | Tx, siteId: string): Promise<SQL> {
  const { packagingFor } = await settingsOf(on, siteId);
  return sql`o.kind in (select jsonb_array_elements_text(${recordset(packagingFor)}))`;
}

/**
 * Pallets with an order on them that meets a condition, on whatever level it lies.
 *
 * @param which condition on pallets `p` @param wanted condition on orders `o`
 * @returns a query of their `id`s
 */
export const palletsWith = (which: SQL, wanted: SQL): SQL => sql`
  with recursive inside as (
    select p.id as top, p.id from pallet p where ${which}
    union select i.top, q.id from inside i join pallet q on q.outer_id = i.id
  ) select distinct i.top as id from inside i join carton c on c.pallet_id = i.id join customer_order o on o.id = c.order_id where ${wanted}`;
