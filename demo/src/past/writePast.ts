/** What the days behind a site are like, and how its things are numbered. Each name is SQL over `d`, `n` and `k`. */
export interface Past {
  siteId: string;
  timeZone: string;
  /** Days back, the last one yesterday. */
  days: number;
  ordersADay: number;
  /** Whether Sundays are free, Mondays full and Saturdays half. */
  week: boolean;
  /** Orders of a wave, and of a run. */
  wave: number;
  run: number;
  names: { order: string; wave: string; run: string; shipment: string; tracking: string; serial: string };
  /** The site's company prefix behind its extension digit, by which cartons are numbered. */
  ssccBase: string;
}

/** Pickers of the past, and how long each takes beside the standard. */
const PICKERS = `(values (0, 'pico', 0.94), (1, 'suri', 1.08), (2, 'bram', 1.21)) as h(seq, id, pace)`;
/** Standard seconds of a pick with its walk. */
const PICK_S = 26;

/** A serial number as an SSCC with its check digit (GS1 General Specifications, 7.9): digits from the right weigh 3, 1, 3 … */
const sscc = (
  serial: string,
  base: string,
) => `(select b || (10 - sum(substr(b, i, 1)::int * case when i % 2 = 1 then 3 else 1 end) % 10) % 10
  from (select '${base}' || lpad((${serial})::text, ${17 - base.length}, '0') as b) s, generate_series(1, 17) i group by b)`;

/**
 * Writes what is left of days that are over: confirmed orders with their waves, runs, picks, cartons, shipments,
 * movements, journal and messages, as the product itself leaves them; some late, some short, some scans refused. It goes
 * past the triggers, which would keep the balance of each movement: what came in and left again adds up to nothing.
 *
 * @param run runs one statement; all of them on one connection
 */
export async function writePast(run: (statement: string) => Promise<unknown>, past: Past): Promise<void> {
  const { siteId, timeZone, days, ordersADay, week, names } = past;
  const share = `case extract(isodow from day)::int when 1 then 1.0 when 6 then 0.5 when 7 then 0 else 0.8 end`;
  await run('set session_replication_role = replica');
  for (const statement of [
    `create temp table known_customer as select row_number() over (order by id) - 1 as n, id, name, street, postcode, city, country from customer`,
    `create temp table known_item as select row_number() over (order by id) - 1 as n, id, name, sku from item where not tracks_serial and not tracks_lot`,
    `create temp table known_bin as select row_number() over (order by id) - 1 as n, id, code from place where kind = 'bin' and site_id = '${siteId}'`,
    `create temp table known_departure as select row_number() over (order by id) - 1 as seq, id as departure, cut_off, channel, service_id as service, lane_id as lane
     from departure where site_id = '${siteId}' and not retired`,
    `create temp table past_order as
     select o.*, p.departure, p.channel, p.service, p.lane, h.id as picker, h.pace,
            (day + p.cut_off::time) at time zone '${timeZone}' as leaves,
            'yw' || wave_key as wave, 'yr' || run_key as run, 'y' || d || '-' || n as id,
            ${names.order} as number, 1 + (n * 7 + d) % 5 as lines
     from (select d, n, d * ${ordersADay} + n as k, (now() at time zone '${timeZone}')::date - d as day, d || '-' || n / ${past.wave} as wave_key,
                  d || '-' || n / ${past.run} as run_key, n % ${past.run} + 1 as position, n / ${past.run} as turn
           from generate_series(1, ${days}) d, generate_series(0, ${ordersADay - 1}) n) o
     join known_departure p on p.seq = (o.n / ${past.wave}) % (select count(*) from known_departure)
     join ${PICKERS} on h.seq = o.turn % 3
     where ${week ? `o.n < ${ordersADay} * ${share}` : 'true'}`,
    // Released an hour and a half ahead; the runs of a wave begin one after the other, and each order is one in turn.
    `create temp table past_line as
     select o.*, o.id || '-' || l as line, l, i.id as item, i.name as item_name, i.sku, b.id as bin, b.code as bin_code, 1 + (o.k + l) % 6 as units,
            case when (o.k * 5 + l) % 97 = 0 and (o.k + l) % 6 > 0 then 1 else 0 end as missing,
            (array['not-found', 'damaged', 'not-enough'])[1 + (o.k / 7) % 3] as why,
            o.leaves - interval '85 minutes' + make_interval(mins => o.turn % 4 * 9)
              + make_interval(secs => ((row_number() over (partition by o.run order by o.position, l)) * ${PICK_S} * o.pace)::float8) as picked_at
     from past_order o cross join lateral generate_series(1, o.lines) l
     join known_item i on i.n = (o.k * 31 + l * 17) % (select count(*) from known_item)
     join known_bin b on b.n = (o.k * 13 + l * 101) % (select count(*) from known_bin)`,
    `create temp table past_ship as
     select o.*, o.leaves - interval '25 minutes' + make_interval(secs => o.position * 40) as packed_at,
            case when o.k % 29 = 0 then o.leaves + make_interval(mins => 9 + (o.k % 25)::int) else o.leaves - make_interval(mins => 4 + o.position % 5) end as shipped_at
     from past_order o`,
    'analyze past_order',
    'analyze past_line',
    `insert into customer_order (id, site_id, number, channel, customer_id, reference, due, leaves_at, departure_id, priority, ship_complete, ship_name, ship_street,
       ship_postcode, ship_city, ship_country, note, document, status, created_at)
     select o.id, '${siteId}', o.number, coalesce(o.channel, 'web'), c.id, 'PO ' || o.k, o.day, o.leaves, o.departure, 3, false, c.name, c.street, c.postcode, c.city,
            c.country, '', 'past', 'closed', o.leaves - make_interval(mins => (100 + o.k * 37 % 240)::int)
     from past_order o join known_customer c on c.n = o.k % (select count(*) from known_customer)`,
    `insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked, released, picked, packed, shipped, cancelled)
     select line, id, l, item, units, 'unit', '', units, units - missing, units - missing, units - missing, units - missing, missing from past_line`,
    `insert into wave (id, site_id, number, state, created_at, created_by, day)
     select wave, '${siteId}', min(${names.wave}), 'done', min(leaves) - interval '95 minutes', 'maren', min(day) from past_order group by wave`,
    `insert into wave_line (wave_id, line_id, units) select wave, line, units - missing from past_line`,
    `insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated) select wave, line, '${siteId}', item, '', 0, 0 from past_line`,
    `insert into run (id, site_id, wave_id, number, call_sign, state, positions, cart_code, lane_id, picker_id, metres, path, stops, started_at, left_at, seconds)
     select run, '${siteId}', min(wave), min(${names.run}), (array['amber', 'birch', 'cobalt', 'dune', 'ember', 'fern'])[1 + (min(k) % 6)::int], 'done', ${past.run}, null,
            min(lane), min(picker), 40 * count(*), '[]', count(*), min(picked_at) - interval '40 seconds', max(picked_at) + interval '1 minute', ${PICK_S} * count(*)
     from past_line group by run`,
    `insert into place (id, site_id, kind, code) select 'yp' || run || '-' || position, '${siteId}', 'position', run || '-' || position from past_order
     union all select 'carton-yc' || id, '${siteId}', 'carton', 'yc' || id from past_order`,
    `insert into run_position (run_id, number, order_id, place_id) select run, position, id, 'yp' || run || '-' || position from past_order`,
    `insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, picked, state, progress, confirmed_at, confirmed_by)
     select 'yk' || line, run, position * 10 + l, id, line, item, '', bin, position, units, units - missing, case when missing > 0 then 'short' else 'done' end,
            '{"bin": true, "counted": 1, "seen": true, "touched": [], "serials": []}', picked_at, picker from past_line`,
    `insert into shipment (id, site_id, number, order_id, service_id, tracking, tracking_from, state, confirmed_at, confirmed_by)
     select 'ys' || id, '${siteId}', ${names.shipment}, id, service, ${names.tracking}, 'carrier', 'confirmed', shipped_at, 'len' from past_ship`,
    `insert into shipment_line (shipment_id, line_id, units) select 'ys' || id, line, units - missing from past_line`,
    `insert into carton (id, site_id, order_id, shipment_id, type_id, place_id, number, sscc, state, weight_g, bench, closed_at, closed_by)
     select 'yc' || id, '${siteId}', id, 'ys' || id, (select id from carton_type order by id limit 1), 'carton-yc' || id, 1, ${sscc(names.serial, past.ssccBase)}, 'shipped', 2400,
            'BENCH-1', packed_at, 'ada' from past_ship`,
    `insert into carton_line (carton_id, line_id, lot, serial, units) select 'yc' || id, line, '', '', units - missing from past_line`,
    ...movements(siteId),
    ...journal(siteId),
    `insert into host_message (site_id, at, direction, kind, order_number, facts, received_at)
     select '${siteId}', shipped_at, 'to-host', 'confirmation', number, jsonb_build_object('shipment', ${names.shipment}), shipped_at + interval '1 minute' from past_ship`,
    `insert into exception (id, site_id, kind, at, person_id, order_id, line_id, run_id, place_id, item_id, units, reason, settled_at, settled_by, settled_how)
     select 'ye' || line, '${siteId}', 'short', picked_at, picker, id, line, run, bin, item, missing, why, picked_at + interval '10 minutes', 'maren', 'ship-short'
     from past_line where missing > 0`,
    `insert into bin_count (id, site_id, bin_id, item_id, state, reason, run_id, pick_id, asked_at, asked_by, counted_at, counted_by, settled_at, settled_by)
     select 'yb' || line, '${siteId}', bin, item, 'settled', why, run, 'yk' || line, picked_at, picker, picked_at + interval '30 minutes', 'suri', picked_at + interval '1 hour', 'maren'
     from past_line where missing > 0`,
  ])
    await run(statement);
  for (const table of [
    'known_customer',
    'known_item',
    'known_bin',
    'known_departure',
    'past_ship',
    'past_line',
    'past_order',
  ])
    await run(`drop table ${table}`);
  await run('set session_replication_role = origin');
}

/** What moved: it came in the day before, and left by way of a cart and a carton. */
function movements(siteId: string): string[] {
  const outside = `(select id from place where kind = 'outside' and site_id = '${siteId}')`;
  const position = `'yp' || run || '-' || position`;
  const carton = `'carton-yc' || id`;
  const movement = (from: string, to: string, reason: string, document: string, at: string, person: string) => `
    insert into movement (at, site_id, from_place, to_place, item_id, lot, serial, units, reason, document, person_id)
    select ${at}, '${siteId}', ${from}, ${to}, item, '', '', units - missing, '${reason}', ${document}, ${person} from past_line order by picked_at`;
  return [
    movement(outside, 'bin', 'stock told', `'past'`, `picked_at - interval '1 day'`, `'maren'`),
    movement('bin', position, 'pick', `'yk' || line`, 'picked_at', 'picker'),
    movement(position, carton, 'pack', `'yc' || id`, `leaves - interval '25 minutes'`, `'ada'`),
    movement(carton, outside, 'ship', `'ys' || id`, `leaves - interval '5 minutes'`, `'len'`),
  ];
}

/** What happened, in the words of the journal. */
function journal(siteId: string): string[] {
  const entry = (kind: string, from: string, facts: string, at: string, person: string, device: string) => `
    insert into journal (at, site_id, person_id, device, request_id, kind, order_id, wave_id, run_id, facts)
    select ${at}, '${siteId}', ${person}, '${device}', 'past' || k, '${kind}', id, wave, run, ${facts} from ${from}`;
  const scan = (what: string) =>
    entry(
      'scan-accepted',
      'past_line',
      `jsonb_build_object('run', run, 'pick', 'yk' || line, 'item', item_name, 'bin', bin_code, 'what', '${what}', 'input', jsonb_build_object('kind', 'scan', 'text', bin_code))`,
      'picked_at',
      'picker',
      'phone',
    );
  return [
    entry(
      'order-taken',
      'past_order',
      `jsonb_build_object('document', 'past')`,
      `leaves - interval '100 minutes'`,
      'null',
      'import',
    ),
    entry(
      'released',
      'past_order',
      `jsonb_build_object('units', lines, 'lines', lines, 'wave', 0)`,
      `leaves - interval '95 minutes'`,
      `'maren'`,
      'browser',
    ),
    entry(
      'scan-refused',
      'past_line where (k + l * 5) % 61 = 0',
      `jsonb_build_object('bin', bin_code, 'got', 'A-31-1', 'run', run, 'code', 'wrong-bin', 'item', item_name, 'pick', 'yk' || line, 'input', jsonb_build_object('kind', 'scan', 'text', 'A-31-1'), 'expected', bin_code)`,
      `picked_at - interval '5 seconds'`,
      'picker',
      'phone',
    ),
    ...['bin', 'item', 'position'].map(scan),
    entry(
      'picked',
      'past_line',
      `jsonb_build_object('run', run, 'item', item_name, 'sku', sku, 'bin', bin_code, 'lot', '', 'units', units - missing, 'asked', units, 'position', position, 'pick', 'yk' || line)`,
      'picked_at',
      'picker',
      'phone',
    ),
    entry(
      'short',
      'past_line where missing > 0',
      `jsonb_build_object('run', run, 'item', item_name, 'sku', sku, 'bin', bin_code, 'missing', missing, 'toCount', missing, 'reason', why, 'note', '', 'other', '')`,
      'picked_at',
      'picker',
      'phone',
    ),
    entry(
      'packed',
      'past_line',
      `jsonb_build_object('carton', 1, 'item', item_name, 'parts', jsonb_build_array(jsonb_build_object('lot', null, 'units', units - missing, 'serial', null)))`,
      `leaves - interval '26 minutes'`,
      `'ada'`,
      'browser',
    ),
    entry(
      'carton-closed',
      'past_ship',
      `jsonb_build_object('carton', 1, 'weightG', 2400, 'sscc', (select sscc from carton where id = 'yc' || past_ship.id))`,
      'packed_at',
      `'ada'`,
      'browser',
    ),
    entry(
      'shipped',
      'past_ship',
      `jsonb_build_object('cartons', 1, 'units', (select sum(p.units - p.missing) from past_line p where p.id = past_ship.id))`,
      'shipped_at',
      `'len'`,
      'phone',
    ),
  ];
}
