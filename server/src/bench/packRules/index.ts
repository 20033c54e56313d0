import { sql, type SQL } from 'drizzle-orm';
import { ruleFor, type KeptRule } from '@hand-relay/core/handling/packing';
import { anyOf, rows, type Db, type Tx } from '../../platform/index.ts';

/**
 * The site's pack rules for items of orders: for each order and item the most exact one.
 *
 * @param orders condition on orders `o`
 * @returns answers undefined where none is kept
 */
export async function packRules(
  on: Db | Tx,
  siteId: string,
  orders: SQL,
  items: readonly string[],
): Promise<(order: string, item: string) => KeptRule | undefined> {
  const rules = await rows<KeptRule>(
    on,
    sql`select r.item_id as item, r.customer_id as customer, nullif(r.country, '') as country, t.code as carton, r.per_carton as "perCarton",
               r.per_pallet as "perPallet"
        from pack_rule r left join carton_type t on t.id = r.type_id
        where r.site_id = ${siteId} and not r.retired and r.item_id = ${anyOf([...new Set(items)])}`,
  );
  if (rules.length === 0) return () => undefined;
  const heads = await rows<{ id: string; customer: string; country: string }>(
    on,
    sql`select o.id, o.customer_id as customer, o.ship_country as country from customer_order o where ${orders}`,
  );
  const headOf = new Map(heads.map((h) => [h.id, h]));
  return (order, item) => {
    const head = headOf.get(order);
    return head && ruleFor(rules, { item, customer: head.customer, country: head.country });
  };
}
