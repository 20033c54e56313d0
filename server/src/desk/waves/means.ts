import { sql } from 'drizzle-orm';
import { placesToWork } from '@hand-relay/core/walking/labour';
import { rows, type Db, type Tx } from '../../platform/index.ts';

const activities: Record<string, 'pick' | 'pack'> = { 'runs.pick': 'pick', 'orders.pack': 'pack' };

/** How many can work at once by the carts and benches of a site, Infinity where none are needed. */
export async function placesHere(on: Db | Tx, siteId: string, right: string): Promise<number> {
  const activity = activities[right];
  if (!activity) return Infinity;
  const [means] = await rows<{ carts: number; waiting: number; benches: number }>(
    on,
    sql`select count(*)::int as carts, (count(*) filter (where exists (
          select 1 from run r where r.site_id = c.site_id and r.cart_code = c.code and (r.state = 'left'
            or exists (select 1 from put_away g where g.run_id = r.id and g.done_at is null)))))::int as waiting,
          (select count(*) from place where site_id = ${siteId} and kind = 'bench' and not retired)::int as benches
        from cart c where c.site_id = ${siteId} and not c.retired`,
  );
  return placesToWork(activity, means!);
}
