import { sql } from 'drizzle-orm';
import { iso, notFound, rows, type Platform } from '../../platform/index.ts';

/** What documents say of a shipment. */
export interface ShipmentFacts {
  number: string;
  confirmedAt: string | null;
  tracking: string | null;
  orderId: string;
  order: string;
  reference: string;
  customer: string;
  name: string;
  street: string;
  postcode: string;
  city: string;
  country: string;
  site: string;
  siteStreet: string;
  siteCity: string;
  siteCountry: string;
  carrier: string | null;
  service: string | null;
  cartons: { number: number; type: string; sscc: string | null; weightG: number | null }[];
}

export async function shipmentFacts({ db }: Platform, siteId: string, id: string): Promise<ShipmentFacts> {
  const [facts] = await rows<ShipmentFacts>(
    db,
    sql`
    select s.number, ${iso(sql`s.confirmed_at`)} as "confirmedAt", s.tracking, o.id as "orderId", o.number as "order", o.reference, c.number as customer,
           o.ship_name as name, o.ship_street as street, o.ship_postcode as postcode, o.ship_city as city, o.ship_country as country,
           site.name as site, site.street as "siteStreet", site.city as "siteCity", site.country as "siteCountry", k.name as carrier, v.name as service,
           coalesce((select jsonb_agg(jsonb_build_object('number', u.number, 'type', t.name, 'sscc', u.sscc, 'weightG', u.weight_g) order by u.number)
             from carton u join carton_type t on t.id = u.type_id where u.shipment_id = s.id), '[]') as cartons
    from shipment s join site on site.id = s.site_id join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
    left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id where s.id = ${id} and s.site_id = ${siteId}`,
  );
  if (!facts) throw notFound('shipment', id);
  return facts;
}
