import pg from 'pg';

export interface YearSize {
  days: number;
  ordersADay: number;
}

/** A serial number as an SSCC with its check digit (GS1 General Specifications, 7.9): digits from the right weigh 3, 1, 3 … */
const sscc = (
  serial: string,
) => `(select d || (10 - sum(substr(d, n, 1)::int * case when n % 2 = 1 then 3 else 1 end) % 10) % 10
  from (select '9' || lpad((${serial})::text, 16, '0') as d) s, generate_series(1, 17) n group by d)`;

/** Orders of a wave, and of a run. */
const WAVE = 100;
const RUN = 10;

/**
 * Writes what is left of days that are over: confirmed orders with their waves, runs, picks, cartons, shipments,
 * movements, journal and messages, as the product itself leaves them. It goes past the triggers, which would keep the
 * balance of each movement: what came in and left again adds up to nothing.
 *
 * @param url of a database that holds the demo
 */
export async function writeYear(url: string, { days, ordersADay }: YearSize): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`set session_replication_role = replica`);
  await client.query(`
    create temp table known_customer as select row_number() over (order by id) - 1 as n, id, name, street, postcode, city, country from customer;
    create temp table known_item as select row_number() over (order by id) - 1 as n, id, name, sku from item where not tracks_serial and not tracks_lot;
    create temp table known_bin as select row_number() over (order by id) - 1 as n, id, code from place where kind = 'bin' and site_id = 'larkmoor';
    create temp table old_order as
      select 'y' || d || '-' || n as id, d, n, 'YR-' || d || '-' || n as number, (d * ${ordersADay} + n) as k,
             date_trunc('day', now()) - make_interval(days => d) + interval '7 hours' + make_interval(secs => n * 30) as at,
             1 + (n * 7 + d) % 5 as lines, d || '-' || (n / ${WAVE}) as wave, d || '-' || (n / ${RUN}) as run, n % ${RUN} + 1 as position
      from generate_series(1, ${days}) d, generate_series(0, ${ordersADay - 1}) n;
    create temp table old_line as
      select o.*, o.id || '-' || l as line, l, i.id as item, i.name, i.sku, b.id as bin, b.code as bin_code, 1 + (o.k + l) % 6 as units,
             o.at + interval '1 hour' + make_interval(secs => l * 20) as picked_at
      from old_order o cross join lateral generate_series(1, o.lines) l
      join known_item i on i.n = (o.k * 31 + l * 17) % (select count(*) from known_item)
      join known_bin b on b.n = (o.k * 13 + l * 101) % (select count(*) from known_bin);
    analyze old_order; analyze old_line;`);
  const insert = async (what: string) => void (await client.query(what));
  await insert(`
    insert into customer_order (id, site_id, number, channel, customer_id, reference, due, leaves_at, departure_id, priority, ship_complete, ship_name, ship_street,
      ship_postcode, ship_city, ship_country, note, document, status, created_at)
    select o.id, 'larkmoor', o.number, (array['web', 'edi', 'field'])[1 + o.n % 3], c.id, 'PO ' || o.k, o.at::date, date_trunc('day', o.at) + interval '15 hours',
           (select id from departure where site_id = 'larkmoor' order by id limit 1), 3, false, c.name, c.street, c.postcode, c.city, c.country, '', 'year', 'closed', o.at
    from old_order o join known_customer c on c.n = o.k % (select count(*) from known_customer)`);
  await insert(`
    insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked, released, picked, packed, shipped)
    select line, id, l, item, units, 'unit', '', units, units, units, units, units from old_line`);
  await insert(`
    insert into wave (id, site_id, number, state, created_at, created_by, day)
    select 'yw' || wave, 'larkmoor', 1000000 + min(k), 'done', min(at), 'maren', min(at)::date from old_order group by wave`);
  await insert(`insert into wave_line (wave_id, line_id, units) select 'yw' || wave, line, units from old_line`);
  await insert(`
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated) select 'yw' || wave, line, 'larkmoor', item, '', 0, 0 from old_line`);
  await insert(`
    insert into run (id, site_id, wave_id, number, call_sign, state, positions, cart_code, picker_id, metres, path, stops, started_at, left_at, seconds)
    select 'yr' || run, 'larkmoor', 'yw' || min(wave), 'Y' || run, 'amber', 'done', ${RUN}, null, (array['pico', 'suri'])[1 + (min(k) % 2)::int], 180, '[]', 30,
           min(at) + interval '1 hour', min(at) + interval '90 minutes', 900 from old_order group by run`);
  await insert(`
    insert into place (id, site_id, kind, code) select 'yp' || run || '-' || position, 'larkmoor', 'position', 'Y' || run || '-' || position from old_order
    union all select 'carton-yc' || id, 'larkmoor', 'carton', 'yc' || id from old_order`);
  await insert(`
    insert into run_position (run_id, number, order_id, place_id) select 'yr' || run, position, id, 'yp' || run || '-' || position from old_order`);
  await insert(`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, picked, state, progress, confirmed_at, confirmed_by)
    select 'yk' || line, 'yr' || run, position * 10 + l, id, line, item, '', bin, position, units, units, 'done',
           '{"bin": true, "counted": 1, "seen": true, "touched": [], "serials": []}', picked_at, (array['pico', 'suri'])[1 + (k % 2)::int] from old_line`);
  await insert(`
    insert into shipment (id, site_id, number, order_id, service_id, tracking, tracking_from, state, confirmed_at, confirmed_by)
    select 'ys' || id, 'larkmoor', 'YS' || k, id, (select id from service order by id limit 1), 'YT' || lpad(k::text, 10, '0'), 'carrier', 'confirmed',
           date_trunc('day', at) + interval '15 hours', 'len' from old_order`);
  await insert(`insert into shipment_line (shipment_id, line_id, units) select 'ys' || id, line, units from old_line`);
  await insert(`
    insert into carton (id, site_id, order_id, shipment_id, type_id, place_id, number, sscc, state, weight_g, bench, closed_at, closed_by)
    select 'yc' || id, 'larkmoor', id, 'ys' || id, (select id from carton_type order by id limit 1), 'carton-yc' || id, 1, ${sscc('k')}, 'shipped', 2400,
           'BENCH-1', at + interval '2 hours', 'ada' from old_order`);
  await insert(
    `insert into carton_line (carton_id, line_id, lot, serial, units) select 'yc' || id, line, '', '', units from old_line`,
  );
  const movement = (from: string, to: string, reason: string, document: string, at: string) => `
    insert into movement (at, site_id, from_place, to_place, item_id, lot, serial, units, reason, document, person_id)
    select ${at}, 'larkmoor', ${from}, ${to}, item, '', '', units, '${reason}', ${document}, 'pico' from old_line order by at`;
  const position = `'yp' || run || '-' || position`;
  await insert(movement('bin', position, 'pick', `'yk' || line`, 'picked_at'));
  await insert(movement(position, `'carton-yc' || id`, 'pack', `'yc' || id`, `at + interval '2 hours'`));
  await insert(
    movement(
      `'carton-yc' || id`,
      `(select id from place where kind = 'outside' and site_id = 'larkmoor')`,
      'ship',
      `'ys' || id`,
      `at + interval '3 hours'`,
    ),
  );
  const journal = (kind: string, from: 'old_line' | 'old_order', facts: string, at: string) => `
    insert into journal (at, site_id, person_id, device, request_id, kind, order_id, wave_id, run_id, facts)
    select ${at}, 'larkmoor', 'pico', 'Phone 4', 'req' || k, '${kind}', id, 'yw' || wave, 'yr' || run, ${facts} from ${from}`;
  await insert(journal('imported', 'old_order', `jsonb_build_object('document', 'year')`, 'at'));
  await insert(journal('released', 'old_order', `jsonb_build_object('units', lines)`, `at + interval '5 minutes'`));
  for (const what of ['bin', 'goods', 'position'])
    await insert(
      journal(
        'scan-accepted',
        'old_line',
        `jsonb_build_object('run', run, 'pick', line, 'item', name, 'bin', bin_code, 'what', '${what}', 'input', jsonb_build_object('kind', 'scan', 'text', bin_code))`,
        'picked_at',
      ),
    );
  await insert(
    journal(
      'picked',
      'old_line',
      `jsonb_build_object('run', run, 'item', name, 'sku', sku, 'bin', bin_code, 'lot', '', 'units', units, 'asked', units, 'position', position, 'pick', line)`,
      'picked_at',
    ),
  );
  await insert(
    journal(
      'packed',
      'old_line',
      `jsonb_build_object('carton', 1, 'item', name, 'parts', '[]'::jsonb)`,
      `at + interval '2 hours'`,
    ),
  );
  await insert(
    journal('carton-closed', 'old_order', `jsonb_build_object('carton', 1, 'sscc', k)`, `at + interval '2 hours'`),
  );
  await insert(
    journal(
      'shipped',
      'old_order',
      `jsonb_build_object('shipment', k, 'units', lines, 'cartons', 1)`,
      `at + interval '3 hours'`,
    ),
  );
  await insert(`
    insert into host_message (site_id, at, direction, kind, order_number, facts, received_at)
    select 'larkmoor', at + interval '3 hours', 'to-host', 'confirmation', number, jsonb_build_object('shipment', k), at + interval '4 hours' from old_order`);
  await insert(`
    insert into exception (id, site_id, kind, at, person_id, order_id, line_id, run_id, place_id, item_id, units, reason, settled_at, settled_by, settled_how)
    select 'ye' || line, 'larkmoor', 'short', picked_at, 'pico', id, line, 'yr' || run, bin, item, 1, 'not-found', picked_at + interval '10 minutes', 'maren', 'ship-short'
    from old_line where k % 100 = 0 and l = 1`);
  await insert(`
    insert into bin_count (id, site_id, bin_id, item_id, state, reason, run_id, pick_id, asked_at, asked_by, counted_at, counted_by, settled_at, settled_by)
    select 'yb' || line, 'larkmoor', bin, item, 'settled', 'not-found', 'yr' || run, 'yk' || line, picked_at, 'pico', picked_at, 'suri', picked_at, 'maren'
    from old_line where k % 100 = 0 and l = 1`);
  await insert(`
    insert into idempotency (person_id, key, request, status, answer, at)
    select 'pico', 'y' || line || w, 'runInput', 200, '{"verdict": "accepted"}', picked_at from old_line, generate_series(1, 4) w where d <= 7`);
  await client.query('set session_replication_role = origin');
  await client.query('vacuum analyze');
  await client.end();
}
