import { sql } from 'drizzle-orm';
import { rows, type Db, type Tx } from '../../platform/index.ts';

/**
 * How many can work at once by what there is to work with, however many are there: pickers by the carts that are free or
 * picked with, packers by the benches. A site that has none of them works without.
 *
 * @returns Infinity where nothing limits it
 */
export async function placesToWork(on: Db | Tx, siteId: string, right: string): Promise<number> {
  if (right === 'runs.pick') {
    const [carts] = await rows<{ all: number; waiting: number }>(
      on,
      sql`select count(*)::int as all, (count(*) filter (where exists (
            select 1 from run r where r.site_id = c.site_id and r.cart_code = c.code and (r.state = 'left'
              or exists (select 1 from put_away g where g.run_id = r.id and g.done_at is null)))))::int as waiting
          from cart c where c.site_id = ${siteId} and not c.retired`,
    );
    return carts!.all === 0 ? Infinity : carts!.all - carts!.waiting;
  }
  if (right !== 'orders.pack') return Infinity;
  const [benches] = await rows<{ all: number }>(
    on,
    sql`select count(*)::int as all from place where site_id = ${siteId} and kind = 'bench' and not retired`,
  );
  return benches!.all || Infinity;
}
