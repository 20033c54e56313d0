import { sql } from 'drizzle-orm';
import type { BinStock } from '@hand-relay/core/bins';
import type { Floor, Place } from '@hand-relay/core/floor';
import type { WaveNeed, WaveProblem } from '@hand-relay/core/waves';
import { recordset, Refusal, rows, type Db, type Tx } from '../platform/index.ts';

/** A cart that runs are made for: the site's largest type, so that few trips serve many orders. */
export interface CartChoice {
  typeId: string;
  positions: number;
  maxWeightG: number;
  maxVolumeCm3: number;
}

export async function cartForPlanning(on: Db | Tx, siteId: string): Promise<CartChoice> {
  const [cart] = await rows<CartChoice>(
    on,
    sql`select t.id as "typeId", t.positions, t.max_weight_g as "maxWeightG", t.max_volume_cm3 as "maxVolumeCm3"
        from cart_type t where exists (select 1 from cart c where c.type_id = t.id and c.site_id = ${siteId} and not c.retired)
        order by t.positions desc limit 1`,
  );
  if (!cart) throw new Refusal(409, 'no-cart');
  return cart;
}

/** Everything that planning needs of a site: floor, bins, and what lies free in them for these needs. */
export async function waveProblem(
  on: Db | Tx,
  siteId: string,
  orders: { id: string; priority: number }[],
  needs: WaveNeed[],
): Promise<WaveProblem> {
  const [site] = await rows<{ floor: Floor; start: Place }>(
    on,
    sql`select floor, start from site where id = ${siteId}`,
  );
  const stock = await binStock(on, siteId, [...new Set(needs.map((n) => n.item))]);
  const cart = await cartForPlanning(on, siteId);
  return {
    floor: site!.floor,
    start: site!.start,
    finish: site!.start,
    cart: { positions: cart.positions, maxWeightG: cart.maxWeightG, maxVolumeCm3: cart.maxVolumeCm3 },
    bins: [...new Map(stock.map((s) => [s.bin, { bin: s.bin, aisle: s.aisle, y: s.y }])).values()],
    stock: stock.map(({ bin, item, lot, units }) => ({ bin, item, lot, units })),
    orders,
    needs,
  };
}

/** What lies in bins and is nobody's to pick yet, of some items. */
export function binStock(
  on: Db | Tx,
  siteId: string,
  items: string[],
): Promise<(BinStock & { aisle: string; y: number })[]> {
  return rows<BinStock & { aisle: string; y: number }>(
    on,
    sql`
    select p.code as bin, p.aisle, p.y, b.item_id as item, nullif(b.lot, '') as lot,
           (sum(b.units) - coalesce(k.units, 0))::int as units
    from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = ${siteId} and p.blocked is null
    left join (
      select bin_id, item_id, lot, sum(units - picked) as units from pick where state = 'open' group by 1, 2, 3
    ) k on k.bin_id = b.place_id and k.item_id = b.item_id and k.lot = b.lot
    where b.item_id in (select jsonb_array_elements_text(${recordset(items)}))
    group by p.id, b.item_id, b.lot, k.units having sum(b.units) > coalesce(k.units, 0)`,
  );
}
