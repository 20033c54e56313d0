import { sql } from 'drizzle-orm';
import { anyOf, recordset, rows, type Change } from '../../platform/index.ts';
import { move } from '../../stock/index.ts';

/** Goods that lie at a place of a cart or in a carton and belong into a bin again. */
export interface Unwanted {
  order: string;
  run: string;
  /** Place of the cart, or the carton, in which they lie. */
  place: string;
  bin: string;
  item: string;
  lot: string;
  serial: string;
  units: number;
  /** Number of the order's carton in which they lie, where they are packed. */
  carton?: number;
}

/** Where what goes back lies in the meantime: on the cart still, and nobody's to pack. */
const backOf = (run: string) => `back-${run}`;

/** Has goods put back by a guided trip. From now on they are no order's; they can be promised again at once. */
export async function requestPutAway(change: Change, goods: readonly Unwanted[]): Promise<void> {
  if (goods.length === 0) return;
  const { tx, actor, now } = change;
  const runs = [...new Set(goods.map((g) => g.run))];
  await tx.execute(sql`
    insert into place (id, site_id, kind, code)
    select 'back-' || r.id, ${actor.siteId}, 'position', r.number || '-back' from run r where r.id = ${anyOf(runs)}
    on conflict do nothing`);
  await move(
    change,
    goods.map(({ place, run, item, lot, serial, units }) => ({
      from: place,
      to: backOf(run),
      item,
      lot,
      serial,
      units,
    })),
    'taken out',
    runs.join(' '),
  );
  const joined = new Map<string, Unwanted & { id: string; serials: string[] }>();
  for (const g of goods) {
    // By run too: a carton may hold what two runs brought from one bin, and each run has its own place for what goes back.
    const key = [g.order, g.run, g.place, g.bin, g.item, g.lot].join(' ');
    const known = joined.get(key);
    const serials = [...(known?.serials ?? []), ...(g.serial ? [g.serial] : [])];
    joined.set(key, { ...g, id: known?.id ?? change.newId(), units: (known?.units ?? 0) + g.units, serials });
  }
  await tx.execute(sql`
    insert into put_away (id, site_id, order_id, run_id, place_id, bin_id, item_id, lot, serials, units, carton, asked_at)
    select g.id, ${actor.siteId}, g."order", g.run, g.place, g.bin, g.item, g.lot, g.serials, g.units, g.carton, ${now.toISOString()}::timestamptz
    from jsonb_to_recordset(${recordset([...joined.values()])}) as g(id text, "order" text, run text, place text, bin text, item text, lot text, serials jsonb, units int, carton int)`);
  const named = await rows<{ order: string; number: string }>(
    tx,
    sql`select id as "order", number from customer_order where id = ${anyOf([...new Set(goods.map((g) => g.order))])}`,
  );
  change.publish('exceptions', []);
  change.publish('runs', runs, {
    kind: 'put-back-asked',
    for: 'runs.pick',
    facts: { order: named.map((o) => o.number).join(', '), units: goods.reduce((n, g) => n + g.units, 0) },
  });
}
