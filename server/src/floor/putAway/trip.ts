import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { putAwayBody, PutAwayTrip } from '@hand-relay/contract';
import { mapFloor } from '@hand-relay/core/walking/floor';
import { judgePutAway, TOUCHED, type PutAwayProgress } from '@hand-relay/core/handling/picking';
import { route, UnreachableStop } from '@hand-relay/core/walking/routing';
import { notFound, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { floorOf } from '../plan/index.ts';
import { move } from '../../stock/index.ts';

type Goods = PutAwayTrip['goods'][number] & {
  run: string;
  number: string;
  callSign: string;
  cart: string;
  aisle: string;
  y: number;
};

/** What goes back into bins, cart by cart, each on the shortest walk past its bins. */
export async function putAwaysOf(on: Db | Tx, siteId: string): Promise<{ trips: PutAwayTrip[] }> {
  const goods = await rows<Goods>(
    on,
    sql`
    select g.id, r.id as run, r.number, r.call_sign as "callSign", coalesce(r.cart_code, r.call_sign) as cart, o.number as "order",
           coalesce((select q.number from run_position q where q.place_id = g.place_id), 0) as position, g.carton, b.code as bin, b.aisle, b.y,
           jsonb_build_object('sku', i.sku, 'name', i.name, 'picture', i.picture, 'unit', i.unit, 'packs', (
             select jsonb_agg(jsonb_build_object('gtin', p.gtin, 'level', p.level, 'units', p.units) order by p.units) from item_pack p where p.item_id = i.id
           )) as item, g.lot, g.serials, g.units, g.done_at is not null as done
    from put_away g join run r on r.id = g.run_id join place b on b.id = g.bin_id join item i on i.id = g.item_id
    join customer_order o on o.id = g.order_id
    where g.site_id = ${siteId} and exists (
      select 1 from put_away open where open.run_id = g.run_id and open.site_id = ${siteId} and open.done_at is null)
      and (g.done_at is null or g.asked_at > now() - interval '1 day')
    order by r.number, b.code`,
  );
  if (goods.length === 0) return { trips: [] };
  const { floor, start, finish } = await floorOf(on, siteId);
  const map = mapFloor(floor);
  const inOrder = (of: Goods[]) => {
    const stops = of.map(({ id, aisle, y }) => ({ id, aisle, y }));
    try {
      const { sequence } = route({ floor, start, finish: finish ?? start, stops }, { seed: 1 }, map);
      return sequence.map((id) => of.find((g) => g.id === id)!);
    } catch (error) {
      if (error instanceof UnreachableStop) return of;
      throw error;
    }
  };
  const trips = [...new Set(goods.map((g) => g.run))].map((run): PutAwayTrip => {
    const own = goods.filter((g) => g.run === run);
    const { number, callSign, cart } = own[0]!;
    return {
      run,
      number,
      callSign,
      cart,
      goods: inOrder(own).map(({ id, order, position, carton, bin, item, lot, serials, units, done }) => ({
        id,
        order,
        position,
        carton,
        bin,
        item,
        lot,
        serials,
        units,
        done,
      })),
    };
  });
  return { trips };
}

/** Goods lie in their bin again, as goods and bin were scanned. */
export async function putAwayOne(
  change: Change,
  runId: string,
  { goods, item, bin }: z.output<typeof putAwayBody>,
): Promise<void> {
  const { tx, actor, now } = change;
  const { trips } = await putAwaysOf(tx, actor.siteId);
  const at = trips.find((t) => t.run === runId)?.goods.find((g) => g.id === goods);
  if (!at) throw notFound('goods', goods);
  if (at.done) throw new Refusal('put-back-done', { bin: at.bin, item: at.item.name });
  let progress: PutAwayProgress = { item: null, bin: null };
  for (const [what, text] of [['item', item] as const, ['bin', bin] as const]) {
    const input = text === TOUCHED ? { kind: 'touch' as const, what } : { kind: 'scan' as const, text };
    const verdict = judgePutAway(at, progress, input, now.getUTCFullYear());
    if (verdict.verdict === 'refused')
      throw new Refusal(verdict.code, { got: verdict.got, expected: what === 'bin' ? at.bin : at.item.name });
    progress = verdict.progress;
  }
  const [row] = await rows<{ bin: string; item: string; order: string }>(
    tx,
    sql`update put_away set done_at = ${now.toISOString()}, done_by = ${actor.personId} where id = ${goods} and done_at is null
        returning bin_id as bin, item_id as item, order_id as "order"`,
  );
  const one = { from: `back-${runId}`, to: row!.bin, item: row!.item, lot: at.lot };
  await move(
    change,
    at.serials.length > 0
      ? at.serials.map((serial) => ({ ...one, serial, units: 1 }))
      : [{ ...one, serial: '', units: at.units }],
    'put back',
    goods,
  );
  change.journal({
    kind: 'put-back',
    orderId: row!.order,
    runId,
    facts: { bin: at.bin, item: at.item.name, sku: at.item.sku, lot: at.lot, units: at.units },
  });
  change.publish('exceptions', []);
  change.publish('runs', [runId]);
  change.publish('stock', []);
}
