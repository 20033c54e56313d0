import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { channelCodes, classCodes } from './demand.ts';
import { faultsOf, nothing, type Kind } from './kind.ts';

/** What gathers for which departure, how it is picked, and what happens by itself. */
export const timetable: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select t.name as entry, coalesce(d.name, '') as departure, coalesce(t.channel, '') as channel, coalesce(t.customer_class, '') as class, coalesce(t.zone, '') as zone, t.kind,
                 t.max_lines, t.max_units, t.wave_orders, t.wave_units, t.picking, coalesce(c.name, '') as cart, t.team, t.people,
                 t.gather, t.gather_at, t.gather_level, t.plan, t.plan_at, t.start, t.start_at, t.retired
          from timetable t left join departure d on d.id = t.departure_id left join cart_type c on c.id = t.cart_type_id
          where t.site_id = ${site} order by t.name`,
    ),
  async faults(on, site, list) {
    const names = async (statement: ReturnType<typeof sql>) =>
      new Set((await rows<{ name: string }>(on, statement)).map((r) => r.name));
    const departures = await names(sql`select name from departure where site_id = ${site} and not retired`);
    const zones = await names(sql`select code as name from zone where site_id = ${site} and not retired`);
    const carts = await names(
      sql`select t.name from cart_type t where exists (select 1 from cart c where c.type_id = t.id and c.site_id = ${site} and not c.retired)`,
    );
    const [channels, classes] = [await channelCodes(on), await classCodes(on)];
    return faultsOf(list, (r, fail) => {
      if (r['channel'] && !channels.has(String(r['channel']))) fail('channel', 'a-known', { what: 'channels' });
      if (r['class'] && !classes.has(String(r['class']))) fail('class', 'a-known', { what: 'classes' });
      if (r['departure'] && !departures.has(String(r['departure'])))
        fail('departure', 'a-known', { what: 'departures' });
      if (r['zone'] && !zones.has(String(r['zone']))) fail('zone', 'a-known', { what: 'zones' });
      if (r['cart'] && !carts.has(String(r['cart']))) fail('cart', 'a-known', { what: 'carts' });
      if (r['gather'] === 'level' && !r['gather_level']) fail('gather_level', 'a-value');
      for (const step of ['gather', 'plan', 'start'])
        if (r[step] === 'time' && !r[`${step}_at`]) fail(`${step}_at`, 'a-value');
    });
  },
  refusesRetiring: nothing,
  async write({ tx, actor, newId }, list) {
    await tx.execute(sql`
      insert into timetable (id, site_id, name, departure_id, channel, customer_class, zone, kind, max_lines, max_units, wave_orders, wave_units,
        picking, cart_type_id, team, people, gather, gather_at, gather_level, plan, plan_at, start, start_at, retired)
      select r.id, ${actor.siteId}, r.entry, d.id, nullif(r.channel, ''), nullif(r.class, ''), nullif(r.zone, ''), nullif(r.kind, ''), r.max_lines, r.max_units,
             r.wave_orders, r.wave_units, r.picking, c.id, r.team, r.people, r.gather, nullif(r.gather_at, ''), r.gather_level, r.plan,
             nullif(r.plan_at, ''), r.start, nullif(r.start_at, ''), r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })))})
        as r(id text, entry text, departure text, channel text, class text, zone text, kind text, max_lines int, max_units int, wave_orders int,
          wave_units int, picking text, cart text, team text, people int, gather text, gather_at text, gather_level int, plan text, plan_at text,
          start text, start_at text, retired boolean)
      left join departure d on d.site_id = ${actor.siteId} and d.name = r.departure left join cart_type c on c.name = r.cart
      on conflict (site_id, name) do update set departure_id = excluded.departure_id, channel = excluded.channel, customer_class = excluded.customer_class,
        zone = excluded.zone, kind = excluded.kind, max_lines = excluded.max_lines, max_units = excluded.max_units, wave_orders = excluded.wave_orders,
        wave_units = excluded.wave_units, picking = excluded.picking, cart_type_id = excluded.cart_type_id, team = excluded.team, people = excluded.people,
        gather = excluded.gather, gather_at = excluded.gather_at, gather_level = excluded.gather_level, plan = excluded.plan, plan_at = excluded.plan_at,
        start = excluded.start, start_at = excluded.start_at, retired = excluded.retired`);
  },
};
