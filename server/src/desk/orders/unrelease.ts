import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { unreleaseBody } from '@hand-relay/contract';
import { anyOf, Refusal, rows, type Change } from '../../platform/index.ts';
import { reservesAtIntake, reserveOrders, unreleaseUnits } from '../waves/index.ts';

/**
 * Takes lines, or so many units of them, back to Desk, as far as no picker has begun them.
 *
 * @throws Refusal 409 `nothing-to-take-back` where nothing of them waits: it is being picked, or was never released
 */
export async function unreleaseLines(
  change: Change,
  { lines, orders, wave }: z.output<typeof unreleaseBody>,
): Promise<{ lines: { line: string; units: number }[] }> {
  const { tx, actor } = change;
  const reserves = await reservesAtIntake(change);
  const asked = new Map(lines.map((l) => [l.line, l.units]));
  const released = await rows<{ id: string; line: number; order: string; units: number }>(
    tx,
    sql`select l.id, l.line, l.order_id as "order", l.released - l.picked as units
        from order_line l join customer_order o on o.id = l.order_id
        where o.site_id = ${actor.siteId} and (l.id = ${anyOf([...asked.keys()])}
          or l.order_id = ${anyOf(orders)})
          and l.released > l.picked
        order by l.id for update of l`,
  );
  const wanted = new Map(released.map((l) => [l.id, Math.min(l.units, asked.get(l.id) ?? l.units)]));
  const taken = await unreleaseUnits(change, wanted, { begun: false, wave });
  if (taken.size === 0) throw new Refusal('nothing-to-take-back');
  const byOrder = new Map<string, { line: number; units: number }[]>();
  for (const { id, line, order } of released) {
    const units = taken.get(id);
    if (units !== undefined) byOrder.set(order, [...(byOrder.get(order) ?? []), { line, units }]);
  }
  change.journal(
    ...[...byOrder].map(([orderId, parts]) => ({
      kind: 'lines-taken-back',
      orderId,
      facts: { units: parts.reduce((n, p) => n + p.units, 0), lines: parts },
    })),
  );
  if (reserves) await reserveOrders(change, [...byOrder.keys()]);
  change.publish('orders', [...byOrder.keys()]);
  change.publish('stock', []);
  return { lines: [...taken].map(([line, units]) => ({ line, units })) };
}
