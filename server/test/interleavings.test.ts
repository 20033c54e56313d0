import fc from 'fast-check';
import { checkBooks } from './books.ts';
import type { Relay } from '../src/index.ts';
import { startPooler, type Pooler } from './pooler.ts';
import { byTurns, openEmpty, openTest, signedIn, type Person, type TestRelay } from './relay.ts';
import { seeded } from '@hand-relay/core/random';
import { postgresServer } from './postgres.ts';
import { endTheDay, toldOtherwise } from './endOfDay.ts';
import { pickOne } from './steps.ts';

/** People who work at once, and what each of them does. */
const HANDS = 12;
const TURNS = 70;

/** What people may do in any order, each with a number that chooses among what there is at that moment. */
const deeds = [
  'release',
  'plan',
  'start',
  'cancelWave',
  'take',
  'pick',
  'pick',
  'pick',
  'pick',
  'short',
  'undo',
  'takeOut',
  'returnRun',
  'leave',
  'finishRun',
  'open',
  'put',
  'put',
  'unpack',
  'close',
  'packAll',
  'packAll',
  'confirm',
  'confirm',
  'cancelRest',
  'change',
  'change',
  'change',
  'settle',
  'settle',
  'hold',
  'lift',
  'unrelease',
  'split',
  'join',
] as const;
const step = fc.record({ deed: fc.constantFrom(...deeds), n: fc.nat(9999) });
/** Every walk begins with one pass along the job, so that later deeds find something to do. */
const pass = [
  'release',
  'plan',
  'start',
  'take',
  'pick',
  'short',
  'undo',
  'finishRun',
  'open',
  'put',
  'close',
  'packAll',
  'confirm',
] as const;

describe('random interleavings of everything that people do', () => {
  let relay: TestRelay;
  let arrived = 0;
  /** What was done, in order. */
  let walk: string[] = [];
  let people: Record<'desk' | 'pico' | 'suri' | 'packer' | 'dock', Person>;
  let second: Relay | undefined;
  let pooler: Pooler | undefined;
  afterEach(async () => {
    await second?.close();
    await relay.close();
    await pooler?.stop();
  });

  /** A site where everybody wants the same goods: few orders over few items, many of them on two lines of one order. */
  async function crowd(more: Parameters<typeof openTest>[1] = {}): Promise<void> {
    relay = await openTest({}, more);
    people = await peopleAt((id) => relay.as(id));
    await relay.query(`update customer_order set ship_complete = false`);
    await relay.query('delete from reservation');
    await relay.query(
      `delete from order_line where order_id not in (select id from customer_order where site_id = 'larkmoor' order by id limit 14)`,
    );
    await relay.query('delete from order_hold');
    await relay.query(`delete from customer_order where id not in (select order_id from order_line)`);
    await relay.query(
      `update order_line set item_id = (select id from item order by sku offset (line / 2 * 37) % 60 limit 1) where item_id not in (select id from item where tracks_serial)`,
    );
  }

  async function peopleAt(as: TestRelay['as']): Promise<typeof people> {
    const [desk, pico, suri, packer, dock] = await Promise.all([
      as('maren'),
      as('pico'),
      as('suri'),
      as('ada'),
      as('len'),
    ]);
    return { desk, pico, suri, packer, dock };
  }

  const one = async <T>(statement: string, n: number): Promise<T | undefined> => {
    const rows = await relay.query<T>(statement);
    return rows[n % Math.max(1, rows.length)];
  };

  /** An order as its channel would send it again, one of its lines asked for more, less, or gone. */
  async function changed(id: string, n: number) {
    const { number, channel, customer, reference, due, priority, note, shipTo, lines } = await people.desk.get(
      'order',
      { id },
    );
    const drafted = lines
      .filter((l) => l.quantity > 0)
      .map(({ line, sku, quantity, pack, note: said }) => ({ line, sku, quantity, pack, note: said }));
    const at = n % drafted.length;
    if (drafted[at]) drafted[at].quantity = n % 7 === 0 ? drafted[at].quantity + 2 : 1 + (n % drafted[at].quantity);
    const kept = n % 11 === 0 && drafted.length > 1 ? drafted.filter((_, i) => i !== at) : drafted;
    return { number, channel, customer: customer.number, reference, due, priority, note, shipTo, lines: kept };
  }

  /** Does a deed where there is something to do it to. Refusals are fine; anything unexpected is not. */
  async function act(deed: (typeof deeds)[number], n: number): Promise<string> {
    const { desk, packer, dock } = people;
    const said: number[] = [];
    const ask = async (person: Person, ...[name, asked]: Parameters<Person['ask']>) => {
      const response = await person.ask(name, asked);
      said.push(response.status);
      const { code } = response.body as { code?: string };
      if (response.status >= 500 || code === 'constraint')
        throw new Error(`${deed} ${JSON.stringify(asked)}: ${JSON.stringify(response.body)}`);
      return response.body as never;
    };
    const picking = await one<{ id: string; picker: 'pico' | 'suri'; cart: string }>(
      `select id, picker_id as picker, cart_code as cart from run where state = 'picking' order by id`,
      n,
    );
    const waves = (state: string) => one<{ id: string }>(`select id from wave where state = '${state}' order by id`, n);
    switch (deed) {
      case 'release': {
        const orders = (
          await relay.query<{ id: string }>(`select id from customer_order where status = 'open' order by id`)
        ).filter((_, i) => (n >> (i % 13)) & 1);
        if (orders.length > 0) await ask(desk, 'release', { body: { orders: orders.slice(0, 5).map((o) => o.id) } });
        break;
      }
      case 'plan': {
        const wave = await waves('gathering');
        if (wave) await ask(desk, 'planWave', { id: wave.id });
        break;
      }
      case 'start': {
        const wave = await waves('planned');
        if (wave) await ask(desk, 'startWave', { id: wave.id });
        break;
      }
      case 'cancelWave': {
        const wave = await one<{ id: string }>(
          `select id from wave where state not in ('done', 'cancelled') order by id`,
          n,
        );
        if (wave && n % 4 === 0) await ask(desk, 'cancelWave', { id: wave.id });
        break;
      }
      case 'take': {
        const run = await one<{ id: string }>(`select id from run where state = 'waiting' order by id`, n);
        if (run)
          await ask(people[n % 2 ? 'pico' : 'suri'], 'takeRun', { id: run.id, body: { cart: `CART-0${1 + (n % 7)}` } });
        break;
      }
      case 'pick':
      case 'short': {
        if (!picking) break;
        const run = await people[picking.picker].get('run', { id: picking.id });
        const open = run.picks.filter((p) => p.state === 'open');
        const pick = open[n % Math.max(1, open.length)];
        if (!pick) break;
        const input = (what: object) =>
          ask(people[picking.picker], 'runInput', { id: picking.id, body: { pick: pick.step.id, input: what } });
        if (deed === 'short') {
          await input({ kind: 'short', units: pick.progress.counted, reason: n % 2 ? 'damaged' : 'not-enough' });
          break;
        }
        await input({ kind: 'touch', what: 'bin' });
        const all = pick.progress.found ?? pick.step.units;
        if (pick.step.item.tracksSerial)
          for (const serial of pick.step.serialsInBin
            .filter((x) => !pick.progress.serials.includes(x))
            .slice(0, all - pick.progress.counted))
            await input({ kind: 'scan', text: serial });
        else await input({ kind: 'count', units: all });
        if (n % 7 === 0) break;
        await input({ kind: 'touch', what: 'lot' });
        await input({ kind: 'scan', text: `${picking.cart}-${pick.step.position.number}` });
        break;
      }
      case 'finishRun': {
        if (!picking) break;
        const { picks } = await people[picking.picker].get('run', { id: picking.id });
        const held = await relay.query<{ id: string }>(
          `select order_id as id from order_hold where lifted_at is null and 'picking' = any(stops)`,
        );
        // What is on hold stays in its bin: leaving the cart gives it back.
        const goes = picks.filter((p) => p.state === 'open' && !held.some((h) => h.id === p.order.id));
        for (const pick of goes)
          if (pick.progress.counted === 0 && pick.progress.found === null)
            await pickOne(people[picking.picker], picking.id, pick, picking.cart);
        await ask(people[picking.picker], 'leaveRun', { id: picking.id, body: { lane: 'LANE-1' } });
        break;
      }
      case 'packAll': {
        const order = await one<{ id: string }>(
          `select distinct q.order_id as id from run_position q join run r on r.id = q.run_id where r.state = 'left' order by 1`,
          n,
        );
        if (!order) break;
        const input = (what: object) =>
          ask(packer, 'packInput', { id: order.id, body: { bench: 'BENCH-3', input: what } });
        await input({ kind: 'scan', text: 'BOX-XL' });
        const { bench } = await packer.get('benchOrder', { id: order.id });
        for (const l of bench.loose)
          await input(
            l.serial ? { kind: 'scan', text: l.serial } : { kind: 'put', item: l.item.id, lot: l.lot, units: l.units },
          );
        await input({ kind: 'scan', text: 'DO-CLOSE' });
        break;
      }
      case 'undo':
        if (picking) await ask(people[picking.picker], 'undoPick', { id: picking.id });
        break;
      case 'returnRun':
        if (picking && n % 3 === 0) await ask(people[picking.picker], 'returnRun', { id: picking.id });
        break;
      case 'takeOut': {
        const position = await one<{ run: string; order: string }>(
          `select q.run_id as run, q.order_id as "order" from run_position q join run r on r.id = q.run_id where r.state in ('planned', 'waiting', 'picking') order by 1, 2`,
          n,
        );
        if (position && n % 3 === 0) await ask(desk, 'takeOut', { id: position.run, body: { order: position.order } });
        break;
      }
      case 'leave':
        if (picking)
          await ask(people[picking.picker], 'leaveRun', { id: picking.id, body: { lane: `LANE-${1 + (n % 5)}` } });
        break;
      case 'open':
      case 'put':
      case 'close': {
        const order = await one<{ id: string }>(
          `select distinct q.order_id as id from run_position q join run r on r.id = q.run_id where r.state = 'left' union select order_id from carton where state = 'open' order by 1`,
          n,
        );
        if (!order) break;
        const input = (what: object) =>
          ask(packer, 'packInput', { id: order.id, body: { bench: 'BENCH-2', input: what } });
        const { bench } = await packer.get('benchOrder', { id: order.id });
        const loose = bench.loose[n % Math.max(1, bench.loose.length)];
        if (deed === 'open') await input({ kind: 'scan', text: 'BOX-L' });
        else if (deed === 'close') await input({ kind: 'scan', text: 'DO-CLOSE' });
        else if (loose)
          await input(
            loose.serial
              ? { kind: 'scan', text: loose.serial }
              : {
                  kind: 'put',
                  item: loose.item.id,
                  lot: loose.lot,
                  units: n % 3 ? loose.units : Math.max(1, loose.units >> 1),
                },
          );
        break;
      }
      case 'unpack': {
        const inside = await one<{ carton: string; item: string; lot: string; serial: string; units: number }>(
          `select c.id as carton, b.item_id as item, b.lot, b.serial, b.units from carton c join balance b on b.place_id = c.place_id where c.state = 'open' order by 1, 2, 3, 4`,
          n,
        );
        if (inside && n % 2)
          await ask(packer, 'unpack', {
            id: inside.carton,
            body: { item: inside.item, lot: inside.lot, serial: inside.serial, units: inside.units },
          });
        break;
      }
      case 'confirm': {
        const shipment = await one<{ id: string }>(`select id from shipment where state = 'open' order by id`, n);
        if (!shipment) break;
        await ask(dock, 'tracking', { id: shipment.id, body: { from: 'carrier' } });
        await ask(dock, 'confirm', { id: shipment.id, body: { rest: n % 2 ? 'keep-open' : 'cancel' } });
        break;
      }
      case 'cancelRest': {
        const order = await one<{ id: string }>(`select id from customer_order where status = 'open' order by id`, n);
        if (order && n % 5 === 0) await ask(desk, 'cancelRest', { id: order.id, body: { reason: 'test' } });
        break;
      }
      case 'change': {
        const order = await one<{ id: string }>(`select id from customer_order where status = 'open' order by id`, n);
        // A day does not run out of orders.
        if (!order || n % 13 === 0) {
          const like = await one<{ id: string }>(`select id from customer_order where split_of is null order by id`, n);
          const number = `NEW-${(arrived += 1)}`;
          await ask(desk, 'intake', { body: { mode: 'take', orders: [{ ...(await changed(like!.id, n)), number }] } });
          break;
        }
        if (n % 29 === 0) await ask(desk, 'cancelOrder', { id: order.id, body: { reason: 'test' } });
        else await ask(desk, 'intake', { body: { mode: 'take', orders: [await changed(order.id, n)] } });
        break;
      }
      case 'settle': {
        const open = `select id from desk_task where decision is null order by id`;
        // A task comes of an order that is called off with goods on a cart: where chance made none, one is made.
        const carried = await one<{ id: string }>(
          `select distinct o.id from customer_order o join order_line l on l.order_id = o.id where o.status = 'open' and l.picked > l.shipped order by o.id`,
          n,
        );
        if (carried && !(await one<{ id: string }>(open, n)))
          await ask(desk, 'cancelOrder', { id: carried.id, body: { reason: 'test' } });
        const task = await one<{ id: string }>(open, n);
        const decision = n % 3 === 0 ? 'ship-anyway' : 'put-back';
        if (task) await ask(desk, 'settleTask', { id: task.id, body: { decision } });
        break;
      }
      case 'hold': {
        const order = await one<{ id: string }>(`select id from customer_order where status = 'open' order by id`, n);
        const stops = ['release', 'picking', 'packing', 'shipping'].filter((_, i) => (n >> i) & 1);
        if (order && n % 3 === 0) await ask(desk, 'holdOrder', { id: order.id, body: { reason: 'test', stops } });
        break;
      }
      case 'lift': {
        const hold = await one<{ id: string }>(`select id from order_hold where lifted_at is null order by id`, n);
        if (hold) await ask(desk, 'liftHold', { id: hold.id, body: { reason: 'test' } });
        break;
      }
      case 'unrelease': {
        const line = await one<{ id: string }>(`select id from order_line where released > picked order by id`, n);
        const units = n % 2 ? 1 + (n % 5) : null;
        if (line) await ask(desk, 'unrelease', { body: { lines: [{ line: line.id, units }] } });
        break;
      }
      case 'split': {
        const line = await one<{ id: string; order: string; open: number }>(
          `select l.id, l.order_id as "order", l.asked - l.cancelled - l.released as open from order_line l join customer_order o on o.id = l.order_id
           where o.status = 'open' and l.asked - l.cancelled - l.released > 0 order by l.id`,
          n,
        );
        if (!line) break;
        const lines = [{ line: line.id, units: 1 + (n % line.open) }];
        await ask(desk, 'splitOrder', { id: line.order, body: { lines, due: '2031-03-03' } });
        break;
      }
      case 'join': {
        const part = await one<{ id: string }>(
          `select id from customer_order where split_of is not null and status = 'open' order by id`,
          n,
        );
        if (part) await ask(desk, 'joinOrder', { id: part.id });
      }
    }
    return `${deed} ${n} (${said.join(', ')})`;
  }

  /** Nothing is left over, nothing is stuck, the host was told what left, and the books hold. */
  async function endsWell(): Promise<void> {
    const { left, refused } = await endTheDay(relay, people);
    const why = left.length > 0 ? [...refused, 'after', ...walk] : [];
    expect({ left, why }).toEqual({ left: [], why: [] });
    expect((await people.desk.get('stuck')).stuck).toEqual([]);
    expect(await toldOtherwise(relay)).toEqual([]);
    expect(await relay.query(`select 1 from host_message where kind = 'confirmation' limit 1`)).toHaveLength(1);
    await checkBooks(relay, 'the end of the day');
  }

  it('leave every unit in exactly one place and never more reserved than there is', async () => {
    await crowd();
    const done: Record<string, number> = {};
    walk = [];
    const go = async (deed: Parameters<typeof act>[0], n: number) => {
      const what = await act(deed, n);
      walk.push(what);
      if (what.endsWith('200)')) done[deed] = (done[deed] ?? 0) + 1;
      await checkBooks(relay, what);
    };
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.nat(9999), { minLength: pass.length, maxLength: pass.length }),
        fc.array(step, { minLength: 35, maxLength: 50 }),
        async (first, steps) => {
          for (const { deed, n } of [...pass.map((deed, i) => ({ deed, n: first[i]! })), ...steps]) await go(deed, n);
        },
      ),
      { numRuns: 6, endOnFailure: true },
    );
    // The walk must have come to everything, or it has shown nothing: where chance left a deed out, it goes on.
    const missing = () =>
      [
        'unrelease',
        'split',
        'change',
        'settle',
        'release',
        'plan',
        'start',
        'take',
        'pick',
        'short',
        'undo',
        'finishRun',
        'put',
        'packAll',
        'confirm',
      ].filter((d) => !done[d]);
    for (let more = 0; more < 12 * pass.length && missing().length > 0; more++)
      await go(pass[more % pass.length]!, 31 * more);
    expect(missing()).toEqual([]);
    await endsWell();
  }, 240_000);

  it('at the same moment too, on two servers with many connections each: nobody meets a fault, and the books hold', async () => {
    const url = await postgresServer('crowd');
    await crowd({ database: { url }, filled: false });
    // The second one is behind a pooler that hands out transactions: it keeps nothing in a connection.
    pooler = await startPooler(url);
    second = await openEmpty({ database: { url: pooler.url, server: { pool: 10, pooler: true, listenUrl: url } } });
    const there = await peopleAt((id) => signedIn(second!, id));
    for (const name of Object.keys(people) as (keyof typeof people)[])
      people[name] = byTurns(people[name], there[name]);
    const done = new Map<string, number>();
    const faults: string[] = [];
    const missing = () =>
      ['release', 'plan', 'start', 'take', 'pick', 'put', 'change', 'confirm'].filter((deed) => !done.has(deed));
    const hands = Array.from({ length: HANDS }, async (_, hand) => {
      const random = seeded(71 + hand);
      // Where chance left a deed out, or others were always quicker, everybody goes on.
      for (let turn = 0; turn < TURNS || (turn < 5 * TURNS && missing().length > 0); turn++) {
        const deed = turn < pass.length || turn >= TURNS ? pass[turn % pass.length]! : random.pick(deeds);
        // What somebody else just took or ended is refused; that is no fault.
        const what = await act(deed, random.int(0, 9999)).catch((error: Error) => error.message);
        if (what.endsWith('200)')) done.set(deed, (done.get(deed) ?? 0) + 1);
        if (!/^\w+ \d+ \(|^\w+: 4\d\d |The pick is not done/.test(what)) faults.push(what);
      }
    });
    await Promise.all(hands);
    expect(faults).toEqual([]);
    await checkBooks(relay, 'many at once');
    expect(missing()).toEqual([]);
    await endsWell();
  }, 240_000);
});
