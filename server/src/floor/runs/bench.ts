import { sql, type SQL } from 'drizzle-orm';
import { benchFor, type BenchNow, type CartLoad } from '@hand-relay/core/handling/picking';
import type { Staging } from '@hand-relay/core/deciding/settings';
import { rows, type Db } from '../../platform/index.ts';

/** Where a cart can be left: in a lane, and at a bench where the site packs. */
export const takesCarts = (stages: Staging): SQL =>
  stages === 'pick-pack-ship' ? sql`kind in ('lane', 'bench')` : sql`kind = 'lane'`;

/** The bench for a run's cart, by what the site's benches are for. */
export async function benchOf(on: Db, siteId: string, runId: string): Promise<string | null> {
  const benches = await rows<BenchNow>(
    on,
    sql`select p.code, p.for_carrier as carrier, p.for_zone as zone, p.from_litres as "fromLitres", p.fits,
               (select count(*)::int from run r where r.lane_id = p.id and r.state = 'left') as carts
        from place p where p.site_id = ${siteId} and p.kind = 'bench' and not p.retired
          and (p.for_carrier is not null or p.for_zone is not null or p.from_litres is not null)`,
  );
  if (benches.length === 0) return null;
  const [load] = await rows<CartLoad>(
    on,
    sql`
    select coalesce(jsonb_agg(distinct coalesce(c.name, '')), '[]') as carriers, coalesce(jsonb_agg(distinct coalesce(z.code, '')), '[]') as zones,
           coalesce(max(i.length_mm::float8 * i.width_mm * i.height_mm / 1e6), 0) as "largestLitres"
    from pick k join customer_order o on o.id = k.order_id join item i on i.id = k.item_id join place b on b.id = k.bin_id
    left join zone z on z.id = b.zone_id left join departure d on d.id = o.departure_id left join service v on v.id = d.service_id
    left join carrier c on c.id = v.carrier_id where k.run_id = ${runId} and k.state <> 'out'`,
  );
  return benchFor(benches, load!);
}
