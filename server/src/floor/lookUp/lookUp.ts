import { sql, type SQL } from 'drizzle-orm';
import type { LookedUp } from '@hand-relay/contract';
import { readCode } from '@hand-relay/core/reading/codes';
import { rows, type Actor, type Platform } from '../../platform/index.ts';

const itemFields = sql`'sku', i.sku, 'name', i.name, 'picture', i.picture, 'unit', i.unit`;
/** Units that pickers are sent to a bin for. */
const sent = (bin: SQL, item: SQL, lot: SQL) =>
  sql`coalesce((select sum(k.units) from pick k where k.state = 'open' and k.bin_id = ${bin} and k.item_id = ${item} and k.lot = ${lot}), 0)::int`;

/** What a code names here: goods by their barcode or number, a bin, an order, a place of a cart, a carton by its SSCC. */
export async function lookUp({ db, clock }: Platform, { siteId }: Actor, scanned: string): Promise<LookedUp> {
  const code = readCode(scanned, clock().getUTCFullYear());
  const one = async <T extends LookedUp>(statement: SQL): Promise<T | undefined> => {
    const [row] = await rows<{ found: T }>(db, statement);
    return row?.found;
  };
  const text = scanned.trim();
  const found =
    code.kind === 'gs1' && code.sscc
      ? ((await one(cartonBy(siteId, code.sscc))) ?? (await one(voidBy(siteId, code.sscc))))
      : code.kind === 'gs1' && code.gtin
        ? await one(
            itemBy(siteId, sql`exists (select 1 from item_pack g where g.item_id = i.id and g.gtin = ${code.gtin})`),
          )
        : code.kind === 'position'
          ? await one(orderBy(siteId, atPosition(siteId, `${code.cart}-${code.number}`)))
          : code.kind === 'order'
            ? await one(orderBy(siteId, sql`upper(o.number) = upper(${code.number})`))
            : ((await one(binBy(siteId, text))) ??
              (await one(itemBy(siteId, sql`upper(i.sku) = upper(${text})`))) ??
              (await one(orderBy(siteId, sql`upper(o.number) = upper(${text})`))) ??
              (await one(orderBy(siteId, atPosition(siteId, text)))));
  return found ?? { kind: 'nothing', code: text };
}

const atPosition = (siteId: string, code: string) => sql`o.id = (
  select q.order_id from run r join run_position q on q.run_id = r.id
  where r.site_id = ${siteId} and r.state in ('picking', 'left') and upper(coalesce(r.cart_code, r.call_sign) || '-' || q.number) = upper(${code}) limit 1)`;

const itemBy = (siteId: string, where: SQL) => sql`
  select jsonb_build_object('kind', 'item', 'item', jsonb_build_object(${itemFields}),
    'packs', coalesce((select jsonb_agg(jsonb_build_object('level', p.level, 'units', p.units, 'gtin', p.gtin) order by p.units) from item_pack p where p.item_id = i.id), '[]'),
    'free', coalesce((select sum(t.on_hand - t.reserved) from stock_total t where t.site_id = ${siteId} and t.item_id = i.id), 0)::int,
    'bins', coalesce((
      select jsonb_agg(jsonb_build_object('bin', s.code, 'lot', s.lot, 'bestBefore', l.best_before::text, 'units', s.units, 'blocked', s.blocked,
                                          'sent', ${sent(sql`s.id`, sql`i.id`, sql`s.lot`)}) order by l.best_before nulls last, s.code, s.lot)
      from (select b.id, b.code, x.lot, sum(x.units)::int as units, b.blocked is not null as blocked from balance x
            join place b on b.id = x.place_id and b.kind = 'bin' and b.site_id = ${siteId} where x.item_id = i.id and x.units > 0 group by b.id, b.code, x.lot) s
      left join lot l on l.item_id = i.id and l.lot = s.lot), '[]')) as found
  from item i where ${where} limit 1`;

const binBy = (siteId: string, code: string) => sql`
  select jsonb_build_object('kind', 'bin', 'bin', b.code, 'zone', coalesce(z.name, ''), 'blocked', b.blocked is not null,
    'goods', coalesce((
      select jsonb_agg(jsonb_build_object(${itemFields}, 'lot', s.lot, 'units', s.units, 'sent', ${sent(sql`b.id`, sql`i.id`, sql`s.lot`)}) order by i.sku, s.lot)
      from (select x.item_id, x.lot, sum(x.units)::int as units from balance x where x.place_id = b.id and x.units > 0 group by 1, 2) s
      join item i on i.id = s.item_id), '[]')) as found
  from place b left join zone z on z.id = b.zone_id where b.site_id = ${siteId} and b.kind = 'bin' and upper(b.code) = upper(${code}) limit 1`;

const orderBy = (siteId: string, where: SQL) => sql`
  select jsonb_build_object('kind', 'order', 'id', o.id, 'number', o.number, 'customer', c.name, 'note', o.note,
    'hold', (select h.text from order_hold h where h.order_id = o.id and h.lifted_at is null order by h.held_at limit 1),
    'lines', coalesce((select jsonb_agg(jsonb_build_object(${itemFields}, 'asked', l.asked - l.cancelled, 'picked', l.picked, 'packed', l.packed, 'shipped', l.shipped) order by l.line)
                       from order_line l join item i on i.id = l.item_id where l.order_id = o.id), '[]'),
    'where', coalesce((select jsonb_agg(w.at order by w.at) from (
      select distinct coalesce(r.cart_code, r.call_sign) || ', ' || q.number || coalesce(' · ' || lane.code, '') as at from run_position q join run r on r.id = q.run_id
      left join place lane on lane.id = r.lane_id where q.order_id = o.id and r.state in ('picking', 'left')) w where w.at is not null), '[]')) as found
  from customer_order o join customer c on c.id = o.customer_id where o.site_id = ${siteId} and ${where} limit 1`;

const voidBy = (siteId: string, sscc: string) => sql`
  select jsonb_build_object('kind', 'void', 'name', v.name) as found from void_label v where v.site_id = ${siteId} and v.sscc = ${sscc}`;

const cartonBy = (siteId: string, sscc: string) => sql`
  select jsonb_build_object('kind', 'carton', 'sscc', c.sscc, 'order', o.number, 'customer', m.name, 'state', c.state, 'lane', lane.code,
    'goods', coalesce((select jsonb_agg(jsonb_build_object(${itemFields}, 'lot', g.lot, 'units', g.units) order by i.sku)
                       from (select line_id, lot, sum(units)::int as units from carton_line where carton_id = c.id and units > 0 group by 1, 2) g
                       join order_line l on l.id = g.line_id join item i on i.id = l.item_id), '[]')) as found
  from carton c join customer_order o on o.id = c.order_id join customer m on m.id = o.customer_id left join departure d on d.id = o.departure_id
  left join place lane on lane.id = coalesce(o.lane_id, d.lane_id) where c.site_id = ${siteId} and c.sscc = ${sscc} limit 1`;
