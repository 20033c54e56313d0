import { sql } from 'drizzle-orm';
import type { Change } from '../../platform/index.ts';

/** What becomes of the demand for goods that go back into bins: nobody asks for them any more, or they are picked again. */
export type Asked = 'no-more' | 'again';

/** Units of a pick that its line does not get after all: they are nobody's from now on. */
export async function notPicked(
  { tx }: Change,
  { pick, wave, line, lot }: { pick: string; wave: string; line: string; lot: string },
  units: number,
  asked: Asked,
): Promise<void> {
  // Goods that leave as they were picked, in no carton, count as packed on the cart.
  await tx.execute(sql`
    with less as (update pick set picked = picked - ${units}, units = units - ${units} where id = ${pick}),
    freed as (
      update reservation set units = units - ${units}, hard_allocated = greatest(0, hard_allocated - ${units})
      where wave_id = ${wave} and line_id = ${line} and lot = ${lot}
    ), kept as (update wave_line set units = units - ${units} where wave_id = ${wave} and line_id = ${line})
    update order_line set picked = picked - ${units}, packed = least(packed, picked - ${units}), released = released - ${units},
      cancelled = cancelled + ${asked === 'no-more' ? units : 0} where id = ${line}`);
}
