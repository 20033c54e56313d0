import { sql } from 'drizzle-orm';
import type { BinStock } from '@hand-relay/core/walking/bins';
import { dueIn, workforce, type Worker } from '@hand-relay/core/walking/labour';
import type { Picking, WaveBin, WaveNeed, WaveProblem } from '@hand-relay/core/walking/waves';
import { present, shiftsAt } from '../../setup/people/index.ts';
import { anyOf, Refusal, rows, type Db, type Tx } from '../../platform/index.ts';
import { standards, settingsOf } from '../../setup/settings/index.ts';
import { floorOf } from '../../floor/plan/index.ts';
import { placesHere } from './means.ts';

/** A cart that runs are made for. */
export interface CartChoice {
  typeId: string;
  positions: number;
  maxWeightG: number;
  maxVolumeCm3: number;
}

/** How a wave is picked, and by whom. */
export interface WaveSettings {
  picking: Picking;
  /** The site's largest cart where null, so that few trips serve many orders. */
  cartTypeId: string | null;
  team: string;
  people: number | null;
}

export const usualWaveWay: WaveSettings = { picking: 'sort', cartTypeId: null, team: '', people: null };

export async function cartForPlanning(on: Db | Tx, siteId: string, typeId: string | null = null): Promise<CartChoice> {
  const [cart] = await rows<CartChoice>(
    on,
    sql`select t.id as "typeId", t.positions, t.max_weight_g as "maxWeightG", t.max_volume_cm3 as "maxVolumeCm3"
        from cart_type t where exists (select 1 from cart c where c.type_id = t.id and c.site_id = ${siteId} and not c.retired)
        order by t.id = ${typeId ?? ''} desc, t.positions desc limit 1`,
  );
  if (!cart) throw new Refusal('no-cart');
  return cart;
}

/** Seconds of staging and loading after the last carton of a departure is packed. */
export const LOADING = 600;

export interface PlanOrder {
  id: string;
  priority: number;
  /** ISO instant of its departure; null where nothing leaves at a time. */
  leavesAt: string | null;
}

/**
 * People who may do something here and are there to work, or on shift; of one team where it is named. No more than there
 * are carts or benches for.
 */
export async function peopleHere(on: Db | Tx, siteId: string, right: string, now: Date, team = ''): Promise<number> {
  const workers = await rows<Worker>(
    on,
    sql`
    select m.person_id as id, m.team, ${present(sql`m`, now)} as here from membership m
    where m.site_id = ${siteId} and m.active
      and exists (select 1 from role r where r.site_id = m.site_id and r.name = any(m.roles) and ${right} = any(r.rights))`,
  );
  const { shifts, at } = await shiftsAt(on, siteId, now);
  return Math.min(workforce(workers, shifts, at, team), await placesHere(on, siteId, right));
}

/** Everything that planning needs of a site: floor, bins, what lies free in them for these needs, who is there. */
export async function waveProblem(
  on: Db | Tx,
  siteId: string,
  {
    orders,
    needs,
    settings,
    now,
    besides = null,
  }: {
    orders: PlanOrder[];
    needs: WaveNeed[];
    settings: WaveSettings;
    now: Date;
    /** A wave whose runs that nobody has begun do not count as taking anything. */ besides?: string | null;
  },
): Promise<WaveProblem> {
  const { floor, start, finish } = await floorOf(on, siteId);
  const { bins: rules, carry, walking, stages } = await settingsOf(on, siteId);
  const stock = await binStock(on, siteId, [...new Set(needs.map((n) => n.item))], {
    aged: rules.includes('age'),
    besides,
  });
  const cart = await cartForPlanning(on, siteId, settings.cartTypeId);
  const people = settings.people ?? Math.max(1, await peopleHere(on, siteId, 'runs.pick', now, settings.team));
  const packers = await peopleHere(on, siteId, 'orders.pack', now);
  const unitsOf = new Map<string, number>();
  for (const n of needs) unitsOf.set(n.order, (unitsOf.get(n.order) ?? 0) + n.units);
  const packed = new Map<string, number>();
  for (const { id, leavesAt } of orders)
    if (leavesAt) packed.set(leavesAt, (packed.get(leavesAt) ?? 0) + (unitsOf.get(id) ?? 0));
  const due = (leavesAt: string | null) => {
    if (leavesAt === null) return null;
    const packing = stages === 'pick-pack-ship' ? packed.get(leavesAt)! * standards.perPacked : 0;
    const left = dueIn(Date.parse(leavesAt), now.getTime(), { packing, packers, loading: LOADING });
    // What can hardly be made any more comes before all that can; what has left already shapes no run.
    return Date.parse(leavesAt) > now.getTime() ? Math.max(0, left) : null;
  };
  return {
    floor,
    start,
    finish: finish ?? start,
    cart: { positions: cart.positions, maxWeightG: cart.maxWeightG, maxVolumeCm3: cart.maxVolumeCm3 },
    bins: [
      ...new Map(
        stock.map(({ bin, aisle, y, level, sequence, area }) => [bin, { bin, aisle, y, level, sequence, area }]),
      ).values(),
    ],
    stock: stock.map(({ bin, item, lot, units, bestBefore, since, home, level }) => ({
      bin,
      item,
      lot,
      units,
      bestBefore,
      since,
      home,
      level,
    })),
    orders: orders.map(({ id, priority, leavesAt }) => ({ id, priority, due: due(leavesAt) })),
    needs,
    rules,
    picking: settings.picking,
    carry,
    walking,
    crew: { people, standards },
  };
}

/** What lies in bins and is nobody's to pick yet, of some items. */
export function binStock(
  on: Db | Tx,
  siteId: string,
  items: string[],
  { aged = false, besides = null }: { aged?: boolean; besides?: string | null } = {},
): Promise<(BinStock & WaveBin)[]> {
  // Since when goods lie in a bin is read from the movements, and only where a site goes by it.
  const since = sql`(select max(v.at) from movement v where v.item_id = b.item_id and v.lot = b.lot and v.to_place = p.id and v.reason <> 'undo')`;
  return rows<BinStock & WaveBin>(
    on,
    sql`
    select p.code as bin, p.aisle, p.y, p.level, p.sequence, coalesce(nullif(z.area, ''), z.code) as area, b.item_id as item, nullif(b.lot, '') as lot,
           (sum(b.units) - coalesce(k.units, 0))::int as units, min(t.best_before)::text as "bestBefore",
           ${aged ? since : sql`null::timestamptz`}::text as since, coalesce(p.home_item_id = b.item_id, false) as home
    from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = ${siteId} and p.blocked is null
    left join zone z on z.id = p.zone_id left join lot t on t.item_id = b.item_id and t.lot = b.lot
    left join (
      select bin_id, item_id, lot, sum(units - picked) as units from pick where state = 'open' and not exists (
        select 1 from run r where r.id = pick.run_id and r.wave_id = ${besides ?? ''} and r.state in ('planned', 'waiting')) group by 1, 2, 3
    ) k on k.bin_id = b.place_id and k.item_id = b.item_id and k.lot = b.lot
    where b.item_id = ${anyOf(items)}
    group by p.id, z.area, z.code, b.item_id, b.lot, k.units having sum(b.units) > coalesce(k.units, 0)`,
  );
}
