import type { Person, TestRelay } from './relay.ts';

export type Crew = Record<'desk' | 'pico' | 'suri' | 'packer' | 'dock', Person>;

/** What is left over when a day ends, in a line each: work under way, goods without an owner, decisions that are owed. */
const leftovers = `
  select 'wave ' || number || ' ' || state as what from wave where state not in ('done', 'cancelled')
  union all select 'run ' || number || ' ' || state from run where state not in ('done', 'cancelled')
  union all select 'order ' || number || ' open: ' || (
      select jsonb_agg(jsonb_build_array(l.line, l.asked, l.cancelled, l.released, l.picked, l.packed, l.shipped) order by l.line)::text
      from order_line l where l.order_id = o.id) from customer_order o where status = 'open' and site_id = 'larkmoor'
  union all select 'carton ' || id || ' ' || state from carton where state <> 'shipped'
  union all select 'shipment ' || number from shipment where state = 'open'
  union all select 'reservation of ' || line_id from reservation where units > 0
  union all select 'surplus of ' || t.line_id || ': ' || t.units || ' beside picks ' || coalesce((
      select jsonb_agg(jsonb_build_array(k.run_id, k.state, k.lot, k.units, k.picked))::text from pick k where k.line_id = t.line_id), '')
    || ', in cartons ' || coalesce((select jsonb_agg(jsonb_build_array(c.state, l.lot, l.serial, l.units, s.state, r.state))::text from carton_line l join carton c on c.id = l.carton_id
      join shipment s on s.id = c.shipment_id left join run r on r.id = c.run_id where l.line_id = t.line_id), '')
    || ', on carts ' || coalesce((select jsonb_agg(jsonb_build_array(p.code, b.lot, b.serial, b.units))::text from run_position q join place p on p.id = q.place_id
      join balance b on b.place_id = q.place_id join order_line l on l.order_id = q.order_id and l.item_id = b.item_id where l.id = t.line_id), '')
    || ', line ' || (select jsonb_build_array(l.asked, l.cancelled, l.released, l.picked, l.packed, l.shipped)::text from order_line l where l.id = t.line_id) from desk_task t where decision is null
  union all select 'to put away ' || id from put_away where done_at is null
  union all select 'count ' || id || ' ' || state from bin_count where state in ('asked', 'counted')
  union all select 'goods in ' || p.kind || ' ' || p.code from balance b join place p on p.id = b.place_id where b.units > 0 and p.kind not in ('bin', 'outside')
  union all select 'exception ' || kind from exception where settled_at is null
  union all select 'hold on ' || order_id from order_hold where lifted_at is null
  order by 1`;

/**
 * Brings everything of a day to its end by what the screens offer to the people there are: holds are lifted, runs
 * finished or given up, goods packed or put away, shipments confirmed, what stays open cancelled. Refusals are answers;
 * what remains after ten rounds has no way out.
 *
 * @returns what is left over, and the last refusals met
 */
export async function endTheDay(relay: TestRelay, crew: Crew): Promise<{ left: string[]; refused: string[] }> {
  const { desk, packer, dock } = crew;
  let refused: string[] = [];
  const ask = async (person: Person, ...[name, asked]: Parameters<Person['ask']>) => {
    const { status, body } = await person.ask(name, asked);
    if (status >= 500) throw new Error(`${name} ${JSON.stringify(asked)}: ${JSON.stringify(body)}`);
    if (status >= 400) refused.push(`${name}: ${(body as { code?: string }).code}`);
    return body as Record<string, unknown>;
  };
  const each = async <T>(statement: string, work: (row: T) => Promise<unknown>) => {
    for (const row of await relay.query<T>(statement)) await work(row);
  };
  const left = async () => (await relay.query<{ what: string }>(leftovers)).map((l) => l.what);
  for (let round = 0; round < 10; round++) {
    refused = [];
    if ((await left()).length === 0) break;
    // Of some held orders the goods go back, by the packer who has them in the way; the others wait for the hold's end.
    await each<{ id: string }>(
      `select distinct order_id as id from order_hold where lifted_at is null and ascii(right(order_id, 1)) % 2 = 0`,
      ({ id }) => ask(packer, 'returnGoods', { id, body: { reason: 'end of day' } }),
    );
    await each<{ id: string }>(`select id from order_hold where lifted_at is null`, ({ id }) =>
      ask(desk, 'liftHold', { id, body: { reason: 'end of day' } }),
    );
    await each<{ id: string }>(`select id from wave where state not in ('done', 'cancelled')`, ({ id }) =>
      ask(desk, 'cancelWave', { id }),
    );
    // A run that waits with its cart goes on in somebody's hands.
    await each<{ id: string; cart: string | null }>(
      `select id, cart_code as cart from run where state = 'waiting'`,
      ({ id, cart }) => ask(crew.pico, 'takeRun', { id, body: { cart: cart ?? 'CART-19' } }),
    );
    await each<{ id: string; picker: string; cart: string }>(
      `select id, picker_id as picker, cart_code as cart from run where state = 'picking'`,
      async ({ id, picker, cart }) => {
        const person = picker === 'suri' ? crew.suri : crew.pico;
        if (picker !== 'suri' && picker !== 'pico') await ask(desk, 'transferRun', { id, body: { person: 'pico' } });
        const { picks } = await person.get('run', { id });
        for (const { step, progress } of picks.filter((p) => p.state === 'open')) {
          const input = (what: object) => ask(person, 'runInput', { id, body: { pick: step.id, input: what } });
          if (!progress.bin) await input({ kind: 'touch', what: 'bin' });
          const wanted = progress.found ?? step.units;
          if (progress.counted < wanted) await input({ kind: 'short', units: progress.counted, reason: 'not-found' });
          if (progress.counted === 0) continue;
          if (step.item.tracksLot && !progress.lot) await input({ kind: 'scan', text: step.lot! });
          await input({ kind: 'scan', text: `${cart}-${step.position.number}` });
        }
        await ask(person, 'leaveRun', { id, body: { lane: 'LANE-1' } });
      },
    );
    await each<{ id: string }>(`select id from desk_task where decision is null`, ({ id }) =>
      ask(desk, 'settleTask', { id, body: { decision: 'put-back' } }),
    );
    for (const { run, goods } of (await crew.pico.get('putAways')).trips)
      for (const g of goods.filter((x) => !x.done))
        await ask(crew.pico, 'putBackOne', { id: run, body: { goods: g.id, item: '*', bin: g.bin } });
    await each<{ id: string }>(
      `select distinct q.order_id as id from run_position q join run r on r.id = q.run_id where r.state = 'left'
       union select order_id from carton where state = 'open'`,
      async ({ id }) => {
        const input = (what: object) => ask(packer, 'packInput', { id, body: { bench: 'BENCH-1', input: what } });
        for (let n = 0; n < 6; n++) {
          const { bench } = await packer.get('benchOrder', { id });
          const open = bench.carton !== null;
          if (bench.loose.length === 0 && !open) return;
          if (!open) await input({ kind: 'scan', text: 'BOX-XL' });
          for (const l of bench.loose)
            await input(
              l.serial
                ? { kind: 'scan', text: l.serial }
                : { kind: 'put', item: l.item.id, lot: l.lot, units: l.units },
            );
          // Closing one in which nothing is discards it.
          await input({ kind: 'scan', text: 'DO-CLOSE' });
        }
      },
    );
    await each<{ id: string }>(`select id from shipment where state = 'open'`, async ({ id }) => {
      await ask(dock, 'tracking', { id, body: { from: 'carrier' } });
      await ask(dock, 'confirm', { id, body: { rest: 'cancel' } });
    });
    await each<{ id: string; units: number; serials: string[] }>(
      `select c.id, coalesce(sum(b.units), 0)::int as units, coalesce(jsonb_agg(b.serial) filter (where b.serial <> ''), '[]') as serials
       from bin_count c left join balance b on b.place_id = c.bin_id and b.item_id = c.item_id and b.lot = c.lot
       where c.state = 'asked' group by c.id`,
      ({ id, units, serials }) => ask(crew.suri, 'takeCount', { id, body: { units, serials } }),
    );
    await each<{ id: string }>(`select id from bin_count where state = 'counted'`, ({ id }) =>
      ask(desk, 'settleCount', { id, body: { decision: 'agree' } }),
    );
    await each<{ id: string }>(
      `select id from customer_order where status = 'open' and site_id = 'larkmoor'`,
      ({ id }) => ask(desk, 'cancelRest', { id, body: { reason: 'end of day' } }),
    );
    await each<{ id: string }>(`select id from exception where settled_at is null`, ({ id }) =>
      ask(desk, 'actOnException', { id, body: { act: 'dismiss', note: 'end of day' } }),
    );
  }
  return { left: await left(), refused };
}

/** What left the bins for orders, less what came back, beside what the host was told has left, by item, lot and serial number. */
const told = `
  with out as (
    select i.sku, m.lot, m.serial, sum(case when f.kind = 'bin' then m.units else -m.units end)::int as units
    from movement m join place f on f.id = m.from_place join place t on t.id = m.to_place join item i on i.id = m.item_id
    where m.site_id = 'larkmoor' and (f.kind = 'bin') <> (t.kind = 'bin') and f.kind not in ('outside', 'discrepancy') and t.kind not in ('outside', 'discrepancy')
    group by 1, 2, 3
  ), host as (
    select g->>'sku' as sku, coalesce(g->>'lot', '') as lot, coalesce(g->>'serial', '') as serial, sum((g->>'units')::int)::int as units
    from host_message h cross join jsonb_array_elements(h.facts->'goods') g where h.kind = 'confirmation' group by 1, 2, 3
  )
  select coalesce(o.sku, h.sku) as sku, coalesce(o.lot, h.lot) as lot, coalesce(o.units, 0) as picked, coalesce(h.units, 0) as told
  from out o full join host h on h.sku = o.sku and h.lot = o.lot and h.serial = o.serial where coalesce(o.units, 0) <> coalesce(h.units, 0)`;

/** Where picks less put-aways and what the host was told differ; nothing does once all is shipped. */
export const toldOtherwise = (relay: TestRelay) => relay.query<Record<string, unknown>>(told);
