import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { SERVICE_TAG, type actOnBody, type ExceptionAct, type Right } from '@hand-relay/contract';
import { cancelRest, tagOrders } from '../orders/index.ts';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { requestCount } from '../../stock/index.ts';
import { release } from '../waves/index.ts';

/** The right that each act takes; dismissing takes any that leads here. */
const rights: Partial<Record<ExceptionAct, Right>> = {
  release: 'orders.release',
  'ship-short': 'orders.cancel',
  count: 'runs.arrange',
};

interface Open {
  id: string;
  kind: string;
  order: string | null;
  line: string | null;
  bin: string | null;
  isBin: boolean;
  item: string | null;
  lot: string;
  settled: boolean;
}

/**
 * Deals with one thing on the list. Releasing and shipping short settle it once nothing of it is open any more; asking
 * for a count leaves it open.
 *
 * @throws Refusal 409 `already-settled`, `not-for-this` where the act makes no sense for it, and as the act itself
 */
export async function actOnException(
  change: Change,
  id: string,
  { act, note }: z.output<typeof actOnBody>,
): Promise<void> {
  const { tx, actor, now } = change;
  const right = rights[act];
  if (right && !actor.rights.has(right)) throw new Refusal('not-allowed', { needs: [right] });
  const [one] = await rows<Open>(
    tx,
    sql`select e.id, e.kind, e.order_id as "order", e.line_id as line, e.place_id as bin, p.kind = 'bin' as "isBin", e.item_id as item, e.lot,
               e.settled_at is not null as settled
        from exception e left join place p on p.id = e.place_id where e.id = ${id} and e.site_id = ${actor.siteId} for update of e`,
  );
  if (!one) throw notFound('exception', id);
  if (one.settled) throw new Refusal('already-settled');
  if (act === 'count') {
    if (!one.bin || !one.isBin || !one.item) throw new Refusal('not-for-this');
    await requestCount(change, { bin: one.bin, item: one.item, lot: one.lot, reason: 'wanted', note });
    return change.publish('exceptions', [id]);
  }
  if (act === 'dismiss' && note.length < 3) throw new Refusal('why-dismissed');
  if (act !== 'dismiss') {
    if (!one.order) throw new Refusal('not-for-this');
    if (act === 'release') await releaseMissing(change, one.order, one.line);
    else if (act === 'ship-short') await cancelRest(change, one.order, note || 'short', one.line ? [one.line] : []);
    else await tagOrders(change, { orders: [one.order], add: [SERVICE_TAG], remove: [] });
  }
  if (act === 'service' || act === 'dismiss') {
    await tx.execute(sql`
      update exception set settled_at = ${now.toISOString()}, settled_by = ${actor.personId}, settled_how = ${act}, settled_note = ${note} where id = ${id}`);
  }
  change.journal({ kind: 'exception-settled', orderId: one.order, facts: { what: one.kind, act, note } });
  change.publish('exceptions', [id]);
}

/** Releases what is open of one line, or of the whole order, into a wave of its own; nothing else of the order. */
async function releaseMissing(change: Change, order: string, line: string | null): Promise<void> {
  const lines = await rows<{ line: string; units: number }>(
    change.tx,
    sql`select id as line, case when ${line}::text is null or id = ${line} then asked - cancelled - released else 0 end as units
        from order_line where order_id = ${order}`,
  );
  await release(change, { orders: [order], lines, wave: null });
}
