import { sql, type SQL } from 'drizzle-orm';
import type { FoundKind, Right } from '@hand-relay/contract';
import { match } from '../../platform/index.ts';

/** What a search is asked: by whom, at which site, for what. */
export interface Asked {
  siteId: string;
  text: string;
}

/** One kind of thing that is found, and who may find it. */
export interface Source {
  kind: FoundKind;
  /** One of these rights is needed; none where everybody may find it. */
  needs: readonly Right[];
  /** Where there are too many to look through for one or two characters. */
  many?: boolean;
  /** Selects `id`, `within`, `title`, `about` (texts as json), `state`, `day`, `rank` (the lower the better), `open`, `at`. */
  select(asked: Asked): SQL;
}

/** Candidates that are ranked. Of more than these it takes the open ones, those that match exactly, and any others. */
const CANDIDATES = 400;

const about = (...texts: SQL[]) => sql`to_jsonb(array_remove(array[${sql.join(texts, sql`, `)}]::text[], '')) as about`;
const none = sql`null::text as state, null::text as day`;

const orders: Source = {
  kind: 'order',
  needs: ['orders.see', 'orders.pack'],
  many: true,
  select({ siteId, text }) {
    const m = match(text, ['o.number', 'o.reference']);
    const some = (where: SQL) =>
      sql`(select o.id from customer_order o where o.site_id = ${siteId} and ${where} limit ${CANDIDATES})`;
    return sql`
      select o.id, null as within, o.number as title, ${about(sql`o.reference`, sql`c.name`, sql`o.ship_city`)}, o.status as state,
             o.due::text as day, ${m.rank} as rank, o.status = 'open' as open, o.created_at as at
      from customer_order o join customer c on c.id = o.customer_id
      where o.id in (${some(m.same)} union ${some(sql`o.status = 'open' and ${m.is}`)} union ${some(m.is)})`;
  },
};

/** The day at the site of an instant. */
const dayOf = (instant: SQL, siteId: string) =>
  sql`(${instant} at time zone (select time_zone from site where id = ${siteId}))::date::text as day`;

const shipments: Source = {
  kind: 'shipment',
  needs: ['orders.see', 'shipments.confirm'],
  many: true,
  select({ siteId, text }) {
    const m = match(text, ['s.number', 's.tracking']);
    const some = (where: SQL) =>
      sql`(select s.id from shipment s where s.site_id = ${siteId} and ${where} limit ${CANDIDATES})`;
    return sql`
      select s.id, s.order_id as within, s.number as title, ${about(sql`coalesce(s.tracking, '')`, sql`o.number`, sql`c.name`)}, s.state,
             ${dayOf(sql`s.confirmed_at`, siteId)}, ${m.rank} as rank, s.state = 'open' as open, s.confirmed_at as at
      from shipment s join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
      where s.id in (${some(m.same)} union ${some(sql`s.state = 'open' and ${m.is}`)} union ${some(m.is)})`;
  },
};

const cartons: Source = {
  kind: 'carton',
  needs: ['orders.see', 'shipments.confirm', 'orders.pack'],
  many: true,
  select({ siteId, text }) {
    const m = match(text, ['k.sscc']);
    const some = (where: SQL) =>
      sql`(select k.id from carton k where k.site_id = ${siteId} and ${where} limit ${CANDIDATES})`;
    return sql`
      select k.shipment_id as id, k.order_id as within, k.sscc as title, ${about(sql`o.number`, sql`c.name`)}, k.state, ${dayOf(sql`k.closed_at`, siteId)},
             ${m.rank} as rank, k.state <> 'shipped' as open, k.closed_at as at
      from carton k join customer_order o on o.id = k.order_id join customer c on c.id = o.customer_id
      where k.id in (${some(m.same)} union ${some(m.is)})`;
  },
};

/** Waves and loads have plain numbers: they are found by the whole of it, with their word or without. */
const numbered = (text: string, word: RegExp) => {
  const [, named, digits] = new RegExp(`^(${word.source})?\\s*(\\d{1,9})$`, 'i').exec(text.trim()) ?? [];
  // Numbers that begin with zeros are those of runs.
  return digits === undefined || (!named && digits.startsWith('0')) ? sql`false` : sql`n.number = ${Number(digits)}`;
};

const waves: Source = {
  kind: 'wave',
  needs: ['orders.see', 'waves.run'],
  select: ({ siteId, text }) => sql`
    select n.id, null as within, n.number::text as title, ${about(sql`coalesce(d.name, '')`)}, n.state, ${dayOf(sql`n.created_at`, siteId)},
           0 as rank, n.state not in ('done', 'cancelled') as open, n.created_at as at
    from wave n left join timetable e on e.id = n.entry_id left join departure d on d.id = e.departure_id
    where n.site_id = ${siteId} and ${numbered(text, /wave|welle|w/)}`,
};

const loads: Source = {
  kind: 'load',
  needs: ['orders.see', 'shipments.confirm'],
  select: ({ siteId, text }) => sql`
    select n.id, null as within, n.number::text as title, ${about(sql`v.name`, sql`coalesce(d.name, '')`)}, n.state, ${dayOf(sql`n.leaves_at`, siteId)},
           0 as rank, n.state = 'planned' as open, n.created_at as at
    from load n join vehicle_type v on v.id = n.vehicle_id left join departure d on d.id = n.departure_id
    where n.site_id = ${siteId} and ${numbered(text, /load|ladung|l/)}`,
};

const runs: Source = {
  kind: 'run',
  needs: ['orders.see', 'waves.run', 'runs.pick'],
  select({ siteId, text }) {
    const m = match(text, ['r.number', 'r.call_sign']);
    const open = sql`r.state in ('planned', 'waiting', 'picking', 'left')`;
    const some = (where: SQL) =>
      sql`(select r.id from run r where r.site_id = ${siteId} and r.state <> 'cancelled' and ${where} limit ${CANDIDATES})`;
    return sql`
      select r.id, r.wave_id as within, r.number as title, ${about(sql`r.call_sign`, sql`coalesce(p.name, '')`, sql`coalesce(r.cart_code, '')`)}, r.state,
             ${dayOf(sql`coalesce(r.left_at, r.started_at)`, siteId)}, ${m.rank} as rank, ${open} as open,
             coalesce(r.left_at, r.started_at) as at
      from run r left join person p on p.id = r.picker_id
      where r.id in (${some(m.same)} union ${some(sql`${open} and ${m.is}`)} union ${some(m.is)})`;
  },
};

const items: Source = {
  kind: 'item',
  needs: [],
  select({ text }) {
    const m = match(text, ['i.sku', 'i.name']);
    const pack = match(text, ['k.gtin']);
    return sql`
      select i.id, null as within, i.name as title, ${about(sql`i.sku`)}, ${none},
             least(${m.rank}, case when exists (select 1 from item_pack k where k.item_id = i.id and ${pack.same}) then 0 else 2 end) as rank,
             not i.retired as open, null::timestamptz as at
      from item i
      where i.id in (
        (select i.id from item i where ${m.same} limit ${CANDIDATES}) union (select i.id from item i where ${m.is} limit ${CANDIDATES})
        union (select k.item_id from item_pack k where ${pack.is} limit ${CANDIDATES}))`;
  },
};

const lots: Source = {
  kind: 'lot',
  needs: [],
  many: true,
  select({ text }) {
    const m = match(text, ['l.lot']);
    return sql`
      select l.item_id as id, null as within, l.lot as title, ${about(sql`i.name`, sql`i.sku`)}, null::text as state, l.best_before::text as day,
             ${m.rank} as rank, not i.retired as open, l.best_before::timestamptz as at
      from (select * from lot l where ${m.is} limit ${CANDIDATES}) l join item i on i.id = l.item_id`;
  },
};

const serials: Source = {
  kind: 'serial',
  needs: [],
  many: true,
  select({ siteId, text }) {
    const m = match(text, ['v.serial']);
    return sql`
      select distinct on (v.item_id, v.serial) v.item_id as id, null as within, v.serial as title, ${about(sql`i.name`, sql`i.sku`)}, ${none},
             ${m.rank} as rank, true as open, v.at
      from (select * from movement v where v.serial <> '' and v.site_id = ${siteId} and ${m.is} limit ${CANDIDATES}) v
      join item i on i.id = v.item_id order by v.item_id, v.serial, v.at desc`;
  },
};

const place = (kind: 'bin' | 'place', where: SQL): Source => ({
  kind,
  needs: [],
  select({ siteId, text }) {
    const m = match(text, ['p.code']);
    return sql`
      select p.id, null as within, p.code as title, ${about(sql`coalesce(z.name, '')`, sql`p.name`)}, coalesce(p.blocked, '') as state, null::text as day,
             ${m.rank} as rank, not p.retired as open, null::timestamptz as at
      from place p left join zone z on z.id = p.zone_id
      where p.site_id = ${siteId} and p.kind in ('bin', 'lane', 'bench', 'door') and ${where} and ${m.is}`;
  },
});

const carts: Source = {
  kind: 'cart',
  needs: [],
  select({ siteId, text }) {
    const m = match(text, ['k.code']);
    return sql`
      select k.code as id, r.wave_id as within, k.code as title, ${about(sql`coalesce(r.number || ' · ' || r.call_sign, '')`)}, r.state, null::text as day,
             ${m.rank} as rank, not k.retired as open, null::timestamptz as at
      from cart k left join run r on r.site_id = k.site_id and r.cart_code = k.code and r.state in ('picking', 'left')
      where k.site_id = ${siteId} and ${m.is}`;
  },
};

const customers: Source = {
  kind: 'customer',
  needs: ['orders.see'],
  many: true,
  select({ text }) {
    const m = match(text, ['c.number', 'c.name', 'c.city']);
    return sql`
      select c.id, null as within, c.name as title, ${about(sql`c.number`, sql`c.postcode || ' ' || c.city`)}, ${none}, ${m.rank} as rank,
             not c.retired as open, null::timestamptz as at
      from (select * from customer c where ${m.is} limit ${CANDIDATES}) c`;
  },
};

const people: Source = {
  kind: 'person',
  needs: ['runs.arrange', 'setup.change'],
  select({ siteId, text }) {
    const m = match(text, ['p.name']);
    return sql`
      select p.id, null as within, p.name as title, ${about(sql`m.team`, sql`array_to_string(m.roles, ', ')`)}, ${none}, ${m.rank} as rank,
             m.active as open, null::timestamptz as at
      from person p join membership m on m.person_id = p.id and m.site_id = ${siteId} where ${m.is}`;
  },
};

/** Everything that can be found. */
export const sources: readonly Source[] = [
  orders,
  shipments,
  cartons,
  waves,
  runs,
  loads,
  items,
  lots,
  serials,
  place('bin', sql`p.kind = 'bin'`),
  place('place', sql`p.kind <> 'bin'`),
  carts,
  customers,
  people,
];
