import { sql, type SQL } from 'drizzle-orm';
import { notFound, Refusal, rows, type Platform } from '../../platform/index.ts';
import { contentDrawing } from './contentLabel.ts';
import { labelPdf, type LabelDrawing } from './labelDrawing.ts';
import { logisticLabel, type LabelFacts, type labelSizes } from './logisticLabel.ts';
import { words } from './words.ts';

type Size = keyof typeof labelSizes;

const from = sql`jsonb_build_object('name', s.name, 'street', s.street, 'city', s.city, 'country', s.country)`;
const shipTo = sql`jsonb_build_object('name', o.ship_name, 'street', o.ship_street, 'postcode', o.ship_postcode, 'city', o.ship_city, 'country', o.ship_country)`;

/** Where all units of cartons are one item in one lot: the GTIN of its unit, and how many. */
const contentOf = (cartons: SQL) => sql`(
  select case when count(distinct x.item_id) = 1 and count(distinct x.lot) = 1 and min(g.gtin) ~ '^[0-9]{14}$'
         then jsonb_build_object('gtin', min(g.gtin), 'count', sum(x.units)::int) end
  from (select l.item_id, k.lot, sum(k.units) as units from carton_line k join order_line l on l.id = k.line_id
        where k.carton_id in (${cartons}) and k.units > 0 group by 1, 2) x
  left join item_pack g on g.item_id = x.item_id and g.level = 'unit')`;

/** Whether it is known how many cartons a shipment has: none is open, and nothing that was released waits. */
export const allPacked = (shipment: SQL, order: SQL): SQL => sql`(
  not exists (select 1 from carton x where x.shipment_id = ${shipment} and x.state = 'open')
  and not exists (select 1 from order_line l where l.order_id = ${order} and l.released > l.packed))`;

/** What the label of a closed carton says, drawn. */
async function cartonDrawing({ db }: Platform, siteId: string, id: string, size: Size): Promise<LabelDrawing> {
  const [found] = await rows<
    Omit<LabelFacts, 'unit' | 'several' | 'sscc'> & {
      sscc: string | null;
      number: number;
      of: number;
      complete: boolean;
    }
  >(
    db,
    sql`
    select c.sscc, ${from} as "from", ${shipTo} as "shipTo", o.number as "order", o.reference, c.weight_g::float8 as "weightG", c.number,
           (select count(*)::int from carton x where x.shipment_id = c.shipment_id) as of,
           ${allPacked(sql`c.shipment_id`, sql`o.id`)} as complete,
           concat_ws(', ', k.name, v.name) as carrier, coalesce(lane.code, '') as lane, ${contentOf(sql`c.id`)} as content
    from carton c join site s on s.id = c.site_id join customer_order o on o.id = c.order_id left join departure d on d.id = o.departure_id
    left join place lane on lane.id = coalesce(o.lane_id, d.lane_id) left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    where c.id = ${id} and c.site_id = ${siteId}`,
  );
  if (!found) throw notFound('carton', id);
  const { number, of, complete, sscc, ...facts } = found;
  if (sscc === null) throw new Refusal('carton-open', { carton: number });
  // How many there are is said once it is known: while goods wait, the number stands alone.
  const value = complete ? `${number} ${words.of} ${of}` : String(number);
  return logisticLabel({ ...facts, sscc, several: '', unit: { name: words.carton, value } }, size);
}

/** What the label of a closed pallet says, drawn. */
export async function palletDrawing({ db }: Platform, siteId: string, id: string, size: Size): Promise<LabelDrawing> {
  const [found] = await rows<
    Omit<LabelFacts, 'unit' | 'several' | 'sscc' | 'order' | 'reference'> & {
      sscc: string | null;
      number: string;
      orders: string[];
      references: string[];
      customers: string[];
    }
  >(
    db,
    sql`
    with recursive inside as (
      select id from pallet where id = ${id} union all select q.id from inside i join pallet q on q.outer_id = i.id
    ), boxes as (
      select c.id, c.order_id from carton c where c.pallet_id in (select id from inside)
    ), goods as (
      select jsonb_agg(distinct o.number) as orders, jsonb_agg(distinct o.reference) filter (where o.reference <> '') as refs,
             jsonb_agg(distinct m.name) as customers, jsonb_agg(distinct ${shipTo}) as addresses,
             min(concat_ws(', ', k.name, v.name)) as carrier, min(lane.code) as lane
      from boxes b join customer_order o on o.id = b.order_id join customer m on m.id = o.customer_id left join departure d on d.id = o.departure_id
      left join place lane on lane.id = coalesce(o.lane_id, d.lane_id) left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    )
    select p.sscc, p.number, ${from} as "from", case when jsonb_array_length(g.addresses) = 1 then g.addresses->0 end as "shipTo",
           coalesce(g.orders, '[]') as orders, coalesce(g.refs, '[]') as references, coalesce(g.customers, '[]') as customers,
           p.weight_g::float8 as "weightG", coalesce(g.carrier, '') as carrier, coalesce(g.lane, '') as lane, ${contentOf(sql`select id from boxes`)} as content
    from pallet p join site s on s.id = p.site_id cross join goods g where p.id = ${id} and p.site_id = ${siteId}`,
  );
  if (!found) throw notFound('pallet', id);
  const { number, orders, references, customers, sscc, ...facts } = found;
  if (sscc === null) throw new Refusal('pallet-open', { pallet: number });
  return logisticLabel(
    {
      ...facts,
      sscc,
      order: orders.length === 1 ? orders[0]! : `${orders.length} ${words.orders.toLowerCase()}`,
      reference: orders.length === 1 ? (references[0] ?? '') : '',
      several: customers.join(', '),
      unit: { name: words.pallet, value: number },
    },
    size,
  );
}

/** The labels of a closed carton: its logistic label, and that of its content where that is chilled or dangerous. */
export async function cartonDrawings(
  platform: Platform,
  siteId: string,
  id: string,
  size: Size,
): Promise<[LabelDrawing, ...LabelDrawing[]]> {
  const content = await contentDrawing(platform, siteId, id, size);
  return [await cartonDrawing(platform, siteId, id, size), ...(content ? [content] : [])];
}

export const cartonLabel = async (platform: Platform, siteId: string, id: string, size: Size): Promise<Buffer> =>
  labelPdf(await cartonDrawings(platform, siteId, id, size));

export const palletLabel = async (platform: Platform, siteId: string, id: string, size: Size): Promise<Buffer> =>
  labelPdf([await palletDrawing(platform, siteId, id, size)]);
