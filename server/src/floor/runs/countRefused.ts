import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { refusedBody } from '@hand-relay/contract';
import { rows, type Change } from '../../platform/index.ts';
import { lockRun } from './lock.ts';

/**
 * Journals a scan that a device refused by itself where no pick awaits one: while a cart is set up, left or put back, in
 * the run of another, for what is on hold. The device's own account of it: nothing else follows from it.
 */
export async function countRefused(
  change: Change,
  runId: string,
  { of, code, facts }: z.output<typeof refusedBody>,
): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  const [at] = await rows<{ order: string; bin: string; item: string }>(
    tx,
    sql`select g.order_id as "order", b.code as bin, i.name as item from (
          select id, run_id, order_id, bin_id, item_id from pick union all
          select id, run_id, order_id, bin_id, item_id from put_away) g
        join place b on b.id = g.bin_id join item i on i.id = g.item_id
        where g.id = ${of} and g.run_id = ${runId}`,
  );
  change.journal({
    kind: 'scan-refused',
    orderId: at?.order ?? null,
    runId,
    waveId: run.waveId,
    facts: { bin: at?.bin ?? run.cart, item: at?.item ?? '', ...facts, run: run.number, pick: of, code },
  });
}
