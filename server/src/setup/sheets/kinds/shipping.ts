import { sql } from 'drizzle-orm';
import type { TrackingForm } from '@hand-relay/core/reading/tracking';
import type { Row } from '@hand-relay/core/reading/sheets';
import { judgeOrders } from '../../../desk/holds/index.ts';
import { recordset, rows } from '../../../platform/index.ts';
import { channelCodes, classCodes } from './demand.ts';
import { faultsOf, nothing, only, type Kind } from './kind.ts';

const withIds = (list: readonly Row[], newId: () => string, more: (row: Row) => object = () => ({})) =>
  recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false, ...more(r) })));

export const customers: Kind = {
  read: (on, _site, list) =>
    rows<Row>(
      on,
      only(
        sql`select number as customer, name, class, min_shelf_days, street, postcode, city, country, wishes, credit_stop, packing, retired from customer order by number`,
        'customer',
        list,
      ),
    ),
  async faults(on, _site, list) {
    const known = await classCodes(on);
    return faultsOf(list, (r, fail) => {
      if (r['class'] && !known.has(String(r['class']))) fail('class', 'a-known', { what: 'classes' });
    });
  },
  refusesRetiring: nothing,
  async write(change, list) {
    const { tx, newId } = change;
    await tx.execute(sql`
      insert into customer (id, number, name, class, min_shelf_days, street, postcode, city, country, wishes, credit_stop, packing, retired)
      select id, customer, name, class, min_shelf_days, street, postcode, city, country, wishes, credit_stop, packing, retired
      from jsonb_to_recordset(${withIds(list, newId)}) as r(id text, customer text, name text, class text, min_shelf_days int,
        street text, postcode text, city text, country text, wishes text, credit_stop boolean, packing text, retired boolean)
      on conflict (number) do update set name = excluded.name, class = excluded.class, min_shelf_days = excluded.min_shelf_days,
        street = excluded.street, postcode = excluded.postcode, city = excluded.city, country = excluded.country,
        wishes = excluded.wishes, credit_stop = excluded.credit_stop, packing = excluded.packing, retired = excluded.retired`);
    // What is known of a customer can hold orders, or let them go, at every site.
    const open = await rows<{ site: string; orders: string[] }>(
      tx,
      sql`select o.site_id as site, jsonb_agg(o.id) as orders from customer_order o join customer c on c.id = o.customer_id
          where o.status = 'open' and c.number in (select jsonb_array_elements_text(${recordset(list.map((r) => r['customer']))})) group by 1`,
    );
    for (const { site, orders } of open) await judgeOrders(change, orders, site);
  },
};

function trackingOf(row: Row): TrackingForm {
  const kind = row['tracking'];
  if (kind === 'prefix') return { kind, prefix: String(row['prefix']), digits: Number(row['digits']) };
  return { kind: kind === 's10' || kind === 'sscc' ? kind : 'none' };
}

export const carriers: Kind = {
  read: (on) =>
    rows<Row>(
      on,
      sql`select c.name as carrier, s.name as service, c.tracking->>'kind' as tracking, coalesce(c.tracking->>'prefix', '') as prefix,
                 (c.tracking->>'digits')::int as digits, s.retired
          from service s join carrier c on c.id = s.carrier_id order by c.name, s.name`,
    ),
  async faults(on, _site, list) {
    const forms = new Map(
      (await rows<{ name: string; tracking: TrackingForm }>(on, sql`select name, tracking from carrier`)).map((c) => [
        c.name,
        JSON.stringify(trackingOf({ ...c.tracking, tracking: c.tracking.kind })),
      ]),
    );
    const inFile = new Map<string, string>();
    return faultsOf(list, (r, fail, row) => {
      if (r['tracking'] === 'prefix' && !r['prefix']) fail('prefix', 'a-value');
      if (r['tracking'] === 'prefix' && !r['digits']) fail('digits', 'a-value');
      const form = JSON.stringify(trackingOf(r));
      const carrier = String(r['carrier']);
      const other = inFile.get(carrier) ?? (row.outcome === 'new' ? forms.get(carrier) : undefined);
      if (other !== undefined && other !== form)
        fail('tracking', 'together', { before: (JSON.parse(other) as TrackingForm).kind });
      inFile.set(carrier, form);
    });
  },
  refusesRetiring: async (on, _site, list) => {
    const used = new Set(
      (
        await rows<{ key: string }>(
          on,
          sql`select c.name || ' ' || s.name as key from service s join carrier c on c.id = s.carrier_id
              where exists (select 1 from departure d where d.service_id = s.id and not d.retired)`,
        )
      ).map((u) => u.key),
    );
    return list.flatMap((r, i) =>
      used.has(`${String(r['carrier'])} ${String(r['service'])}`)
        ? [{ row: i + 1, column: 'service', value: String(r['service']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  async write({ tx, newId }, list) {
    const data = withIds(list, newId, (r) => ({ form: trackingOf(r), service_id: newId() }));
    await tx.execute(sql`
      insert into carrier (id, name, tracking)
      select distinct on (carrier) id, carrier, form from jsonb_to_recordset(${data}) as r(id text, carrier text, form jsonb)
      on conflict (name) do update set tracking = excluded.tracking`);
    await tx.execute(sql`
      insert into service (id, carrier_id, name, retired)
      select r.service_id, c.id, r.service, r.retired
      from jsonb_to_recordset(${data}) as r(service_id text, carrier text, service text, retired boolean) join carrier c on c.name = r.carrier
      on conflict (carrier_id, name) do update set retired = excluded.retired`);
  },
};

const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

export const departures: Kind = {
  read: async (on, site) =>
    (
      await rows<Row & { days: number[] }>(
        on,
        sql`select d.name as departure, c.name as carrier, s.name as service, d.cut_off, d.days, coalesce(d.channel, '') as channel,
                   coalesce(l.code, '') as lane, coalesce(o.code, '') as door, d.retired
            from departure d join service s on s.id = d.service_id join carrier c on c.id = s.carrier_id
            left join place l on l.id = d.lane_id left join place o on o.id = d.door_id where d.site_id = ${site} order by d.cut_off, d.name`,
      )
    ).map((d) => ({ ...d, days: weekdays.filter((_, i) => d.days.includes(i + 1)).join(' ') })),
  async faults(on, site, list) {
    const services = new Set(
      (
        await rows<{ key: string }>(
          on,
          sql`select c.name || ' ' || s.name as key from service s join carrier c on c.id = s.carrier_id where not s.retired`,
        )
      ).map((s) => s.key),
    );
    const signs = new Set(
      (
        await rows<{ key: string }>(
          on,
          sql`select kind || ' ' || code as key from place where site_id = ${site} and kind in ('lane', 'door') and not retired`,
        )
      ).map((p) => p.key),
    );
    const channels = await channelCodes(on);
    return faultsOf(list, (r, fail) => {
      if (r['channel'] && !channels.has(String(r['channel']))) fail('channel', 'a-known', { what: 'channels' });
      if (!services.has(`${String(r['carrier'])} ${String(r['service'])}`))
        fail('service', 'a-known', { what: 'carriers' });
      for (const sign of ['lane', 'door'] as const)
        if (r[sign] && !signs.has(`${sign} ${String(r[sign])}`)) fail(sign, 'a-known', { what: 'places' });
    });
  },
  refusesRetiring: nothing,
  async write({ tx, actor, newId }, list) {
    await tx.execute(sql`
      insert into departure (id, site_id, name, service_id, cut_off, days, lane_id, door_id, channel, retired)
      select r.id, ${actor.siteId}, r.departure, s.id, r.cut_off,
             array(select d.value::text::smallint from jsonb_array_elements(r.on_days) d), l.id, o.id, nullif(r.channel, ''), r.retired
      from jsonb_to_recordset(${withIds(list, newId, (r) => ({
        on_days: String(r['days'])
          .split(' ')
          .filter(Boolean)
          .map((d) => weekdays.indexOf(d) + 1),
      }))})
        as r(id text, departure text, carrier text, service text, cut_off text, on_days jsonb, lane text, door text, channel text, retired boolean)
      join carrier c on c.name = r.carrier join service s on s.carrier_id = c.id and s.name = r.service
      left join place l on l.site_id = ${actor.siteId} and l.kind = 'lane' and l.code = r.lane
      left join place o on o.site_id = ${actor.siteId} and o.kind = 'door' and o.code = r.door
      on conflict (site_id, name) do update set service_id = excluded.service_id, cut_off = excluded.cut_off, days = excluded.days,
        lane_id = excluded.lane_id, door_id = excluded.door_id, channel = excluded.channel, retired = excluded.retired`);
  },
};

export const cartons: Kind = {
  read: (on) =>
    rows<Row>(
      on,
      sql`select code as carton, name, inner_mm[1] as inner_length_mm, inner_mm[2] as inner_width_mm, inner_mm[3] as inner_height_mm,
                 tare_g, max_weight_g, cost_minor as cost, retired from carton_type order by code`,
    ),
  faults: nothing,
  refusesRetiring: nothing,
  async write({ tx, newId }, list) {
    await tx.execute(sql`
      insert into carton_type (id, code, name, inner_mm, tare_g, max_weight_g, cost_minor, retired)
      select id, carton, name, array[inner_length_mm, inner_width_mm, inner_height_mm], tare_g, max_weight_g, cost, retired
      from jsonb_to_recordset(${withIds(list, newId)}) as r(id text, carton text, name text, inner_length_mm int, inner_width_mm int,
        inner_height_mm int, tare_g int, max_weight_g int, cost bigint, retired boolean)
      on conflict (code) do update set name = excluded.name, inner_mm = excluded.inner_mm, tare_g = excluded.tare_g,
        max_weight_g = excluded.max_weight_g, cost_minor = excluded.cost_minor, retired = excluded.retired`);
  },
};

export const vehicles: Kind = {
  read: (on) =>
    rows<Row>(
      on,
      sql`select name as vehicle, length_mm, width_mm, height_mm, floor_places, max_load_g, retired from vehicle_type order by name`,
    ),
  faults: nothing,
  refusesRetiring: nothing,
  async write({ tx, newId }, list) {
    await tx.execute(sql`
      insert into vehicle_type (id, name, length_mm, width_mm, height_mm, floor_places, max_load_g, retired)
      select id, vehicle, length_mm, width_mm, height_mm, floor_places, max_load_g, retired
      from jsonb_to_recordset(${withIds(list, newId)}) as r(id text, vehicle text, length_mm int, width_mm int, height_mm int,
        floor_places int, max_load_g int, retired boolean)
      on conflict (name) do update set length_mm = excluded.length_mm, width_mm = excluded.width_mm, height_mm = excluded.height_mm,
        floor_places = excluded.floor_places, max_load_g = excluded.max_load_g, retired = excluded.retired`);
  },
};

export const pallets: Kind = {
  read: (on) =>
    rows<Row>(
      on,
      sql`select name as pallet, length_mm, width_mm, height_mm, tare_g, max_height_mm, max_load_g, retired from pallet_type order by name`,
    ),
  faults: nothing,
  refusesRetiring: nothing,
  async write({ tx, newId }, list) {
    await tx.execute(sql`
      insert into pallet_type (id, name, length_mm, width_mm, height_mm, tare_g, max_height_mm, max_load_g, retired)
      select id, pallet, length_mm, width_mm, height_mm, tare_g, max_height_mm, max_load_g, retired
      from jsonb_to_recordset(${withIds(list, newId)}) as r(id text, pallet text, length_mm int, width_mm int, height_mm int,
        tare_g int, max_height_mm int, max_load_g int, retired boolean)
      on conflict (name) do update set length_mm = excluded.length_mm, width_mm = excluded.width_mm, height_mm = excluded.height_mm,
        tare_g = excluded.tare_g, max_height_mm = excluded.max_height_mm, max_load_g = excluded.max_load_g, retired = excluded.retired`);
  },
};
