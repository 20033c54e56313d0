import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { allocateManuallyBody } from '@hand-relay/contract';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';

/**
 * Sets by hand what lines get of what they still ask, or leaves it to the policy again.
 *
 * @throws Refusal 409 `allocated-too-much` where a line would get more than it asks
 */
export async function allocateManually(
  change: Change,
  { lines }: z.output<typeof allocateManuallyBody>,
): Promise<{ lines: z.output<typeof allocateManuallyBody>['lines'] }> {
  const { tx, actor } = change;
  const before = await rows<{ line: string; number: number; order: string; open: number; manual: number | null }>(
    tx,
    sql`select l.id as line, l.line as number, o.id as "order", l.asked - l.cancelled - l.released as open, l.manually_allocated as manual
        from order_line l join customer_order o on o.id = l.order_id
        where o.site_id = ${actor.siteId} and l.id = ${anyOf(lines.map((l) => l.line))}
        order by l.id for update of l`,
  );
  const there = new Map(before.map((l) => [l.line, l]));
  for (const { line, units } of lines) {
    const found = there.get(line);
    if (!found) throw notFound('line', line);
    if (units !== null && units > found.open)
      throw new Refusal('allocated-too-much', { line: found.number, open: found.open, units });
  }
  await tx.execute(sql`
    update order_line l set manually_allocated = r.units from jsonb_to_recordset(${recordset(lines)}) as r(line text, units int) where l.id = r.line`);
  change.journal(
    ...lines.map(({ line, units }) => {
      const { order, number, manual } = there.get(line)!;
      const facts = { line: number, before: manual, units };
      return units === null
        ? { kind: 'line-loosened', orderId: order, facts }
        : { kind: 'line-allocated', orderId: order, facts };
    }),
  );
  change.publish('orders', [...new Set(before.map((l) => l.order))]);
  return { lines: before.map((l) => ({ line: l.line, units: l.manual })) };
}
