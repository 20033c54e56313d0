import { sql } from 'drizzle-orm';
import type { Change } from '../platform/index.ts';

/**
 * Nobody gets at a bin: it is not proposed until somebody was there. What lies in it is as good as before, so nothing
 * of it is written off or withheld from orders.
 */
export async function blockAccess({ tx }: Change, bin: string): Promise<void> {
  await tx.execute(sql`update place set blocked = 'access' where id = ${bin} and blocked is null`);
}

/** Somebody was at a bin, or took back that it is blocked: unless another report says so it is proposed again. */
export async function freeAccess({ tx }: Change, bin: string): Promise<void> {
  await tx.execute(sql`
    update place set blocked = null where id = ${bin} and blocked = 'access' and not exists (
      select 1 from bin_count c where c.bin_id = ${bin} and c.state = 'asked' and c.reason = 'bin-blocked')`);
}
