import { sql } from 'drizzle-orm';
import type { Change } from '../platform/index.ts';

/** Units of a pick that its line does not get after all: they are nobody's from now on, and the line asks that much less. */
export async function notPicked(
  { tx }: Change,
  { pick, wave, line, lot }: { pick: string; wave: string; line: string; lot: string },
  units: number,
): Promise<void> {
  await tx.execute(sql`
    with less as (update pick set picked = picked - ${units}, units = units - ${units} where id = ${pick}),
    freed as (
      update reservation set units = units - ${units}, firm = greatest(0, firm - ${units})
      where wave_id = ${wave} and line_id = ${line} and lot = ${lot}
    ), kept as (update wave_line set units = units - ${units} where wave_id = ${wave} and line_id = ${line})
    update order_line set picked = picked - ${units}, released = released - ${units}, cancelled = cancelled + ${units} where id = ${line}`);
}
