import { sql } from 'drizzle-orm';
import type { ItemWeights } from '@hand-relay/contract';
import { properWeight, type ItemWeight } from '@hand-relay/core/handling/weighing';
import { notFound, Refusal, rows, type Change, type Db } from '../../platform/index.ts';

/** Items whose cartons weigh otherwise than entered, the most weighed first. */
export async function itemWeights(db: Db): Promise<ItemWeights> {
  const known = await rows<ItemWeight & Omit<ItemWeights['items'][number], 'properG'>>(
    db,
    sql`select i.id, i.sku, i.name, i.picture, i.weight_g as "enteredG", w.mean_g as "meanG", w.variance, w.spread, w.cartons
        from item_weight w join item i on i.id = w.item_id and i.weight_g = w.entered_g where not i.retired
        order by w.cartons desc, i.sku`,
  );
  return {
    items: known.flatMap(({ meanG, variance, spread, ...item }) => {
      const properG = properWeight(item.enteredG, { meanG, variance, spread, cartons: item.cartons });
      return properG === null ? [] : [{ ...item, properG }];
    }),
  };
}

/**
 * Enters another weight of an item; what its cartons taught ends with it.
 *
 * @throws Refusal 404 for no item, 409 `item-changed` where somebody entered another weight meanwhile
 */
export async function correctItemWeight(
  change: Change,
  itemId: string,
  { weightG, before }: { weightG: number; before: number },
): Promise<void> {
  const [item] = await rows<{ sku: string; weight: number }>(
    change.tx,
    sql`select sku, weight_g as weight from item where id = ${itemId} for update`,
  );
  if (!item) throw notFound('item', itemId);
  if (item.weight !== before) throw new Refusal('item-changed', { item: item.sku, weight: item.weight });
  await change.tx.execute(sql`update item set weight_g = ${weightG} where id = ${itemId}`);
  change.journal({ kind: 'item-weight', facts: { item: item.sku, beforeG: before, weightG } });
  change.publish('setup', []);
  change.publish('bench', []);
}
