import { sql } from 'drizzle-orm';
import type { GotKind } from '@hand-relay/contract';
import { rows, type Tx } from '../../platform/index.ts';

/**
 * What a text is that has no form of its own, among the codes of the house: a site may name its bins, carts and badges as
 * it likes. Null where nothing is called so.
 */
export async function kindOfCode(
  tx: Tx,
  siteId: string,
  scanned: string,
): Promise<{ kind: GotKind; name: string } | null> {
  const text = scanned.trim().toUpperCase();
  const [found] = await rows<{ kind: GotKind; name: string }>(
    tx,
    sql`
    select kind, code as name from place where site_id = ${siteId} and kind in ('bin', 'lane', 'bench', 'door') and upper(code) = ${text}
    union all select 'cart', code from cart where site_id = ${siteId} and upper(code) = ${text}
    union all select 'position', ${scanned.trim()} from cart
      where site_id = ${siteId} and ${text} like upper(code) || '-%' and substr(${text}, length(code) + 2) ~ '^[0-9]{1,2}$'
    union all select 'badge', p.name from person p join membership m on m.person_id = p.id and m.site_id = ${siteId} where upper(p.badge) = ${text}
    union all select 'order', number from customer_order where site_id = ${siteId} and upper(number) = ${text}
    union all select 'box', code from carton_type where upper(code) = ${text}
    union all select 'gs1', name from item where upper(sku) = ${text}
    limit 1`,
  );
  return found ?? null;
}
