import type { RunDetail } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickOne, startWave, takeIn, type Wanted } from './steps.ts';

let relay: TestRelay;
let [desk, pico, suri] = [] as unknown as [Person, Person, Person];
let made = 0;
beforeAll(async () => {
  relay = await openTest();
  [desk, pico, suri] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('suri')]);
});
afterAll(() => relay.close());
afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

type Pick = RunDetail['picks'][number];

/** A run of these orders, taken by Pico with a cart of its own. */
async function taken(...orders: Wanted['lines'][]) {
  const cart = `CART-${String(++made).padStart(2, '0')}`;
  const ids: string[] = [];
  for (const [i, lines] of orders.entries()) ids.push(await takeIn(desk, { number: `F-${made}-${i}`, lines }));
  const wave = await startWave(desk, ids);
  const { runs } = await desk.get('wave', { id: wave });
  const run = runs[0]!.id;
  await pico.get('takeRun', { id: run, body: { cart } });
  const picks = async () => (await pico.get('run', { id: run })).picks;
  const input = (pick: Pick, what: object) =>
    pico.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
  return { cart, ids, run, wave, picks, input };
}
/** An item without lot or serial number that lies in several bins, and how much in each. */
async function inBins(least: number): Promise<{ sku: string; id: string; bins: { code: string; units: number }[] }> {
  const [found] = await relay.query<{ sku: string; id: string; bins: { code: string; units: number }[] }>(`
    select i.sku, i.id, jsonb_agg(jsonb_build_object('code', p.code, 'units', b.units) order by p.code) as bins from item i
    join balance b on b.item_id = i.id join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
    join stock_total t on t.item_id = i.id and t.site_id = 'larkmoor'
    where not i.tracks_lot and not i.tracks_serial and t.on_hand - t.reserved >= ${least} and i.temperature = 'ambient'
      and not exists (select 1 from pick k where k.item_id = i.id) and not exists (select 1 from order_line l where l.item_id = i.id and l.released > 0)
    group by i.sku, i.id having count(*) >= 2 and min(b.units) >= 6 order by i.sku limit 1`);
  return found!;
}
const inBin = async (bin: string, sku: string) =>
  (
    await relay.query<{ units: number }>(
      `select coalesce(sum(b.units), 0)::int as units from balance b join place p on p.id = b.place_id join item i on i.id = b.item_id where p.code = '${bin}' and i.sku = '${sku}'`,
    )
  )[0]!.units;

describe('a code of any form', () => {
  it('is called what it is where another one is awaited', async () => {
    await relay.query(
      `insert into cart (site_id, code, type_id) select 'larkmoor', 'TROLLEY 4', id from cart_type limit 1`,
    );
    await relay.query(
      `insert into place (id, site_id, kind, code) values ('h7', 'larkmoor', 'bin', 'H7'), ('s1', 'larkmoor', 'lane', 'South 1')`,
    );
    await relay.query(`update person set badge = 'B-2' where id = 'suri'`);
    const { sku } = await inBins(12);
    const { picks, input } = await taken([[sku, 2]]);
    const [pick] = await picks();
    const got = async (text: string) => {
      const { verdict, gotKind, gotName } = await input(pick!, { kind: 'scan', text });
      return [verdict, gotKind, gotName];
    };
    expect(await got('h7')).toEqual(['refused', 'bin', 'H7']);
    expect(await got('South 1')).toEqual(['refused', 'lane', 'South 1']);
    expect(await got('trolley 4')).toEqual(['refused', 'cart', 'TROLLEY 4']);
    expect(await got('TROLLEY 4-6')).toEqual(['refused', 'position', 'TROLLEY 4-6']);
    expect((await got('B-2')).slice(0, 2)).toEqual(['refused', 'badge']);
    expect(await got('BOX-XL')).toEqual(['refused', 'box', 'BOX-XL']);
    expect(await got('nobody knows')).toEqual(['refused', undefined, undefined]);
  });
});

describe('a stop', () => {
  it('asks its bin once, also when the next pick there is for another order', async () => {
    const { sku } = await inBins(12);
    const { picks, input } = await taken([[sku, 2]], [[sku, 3]]);
    const [first, second] = await picks();
    expect(second!.step.bin).toBe(first!.step.bin);
    expect(await input(first!, { kind: 'count', units: 2 })).toMatchObject({ code: 'bin-first' });
    await input(first!, { kind: 'scan', text: first!.step.bin });
    await input(first!, { kind: 'scan', text: `COUNT-${first!.step.units}` });
    expect((await picks())[1]!.progress.bin).toBe(false);
    await input(first!, { kind: 'touch', what: 'position' });
    expect((await picks())[1]!.progress.bin).toBe(true);
    expect(await input(second!, { kind: 'scan', text: 'COUNT-ALL' })).toMatchObject({ verdict: 'accepted' });
    // The item, the lot and the place are checked for each order all the same.
    expect(
      await input(second!, { kind: 'scan', text: `${first!.step.position.cart}-${first!.step.position.number}` }),
    ).toMatchObject({ verdict: 'refused', code: 'wrong-position' });
  });
});

describe('another bin', () => {
  it('is a choice where the site leaves it to the picker: nothing is in doubt, and the books have the real one', async () => {
    const { way } = await desk.get('way');
    await desk.get('changeWay', { body: { ...way, otherBins: true } });
    try {
      const { sku } = await inBins(12);
      const { ids, cart, picks, run, input } = await taken([[sku, 3]]);
      const [pick] = await picks();
      const other = pick!.step.elsewhere.find((o) => o.units >= 3)!;
      const before = [await inBin(pick!.step.bin, sku), await inBin(other.bin, sku)];
      expect(await input(pick!, { kind: 'scan', text: other.bin })).toMatchObject({ verdict: 'done', units: 0 });
      const [moved] = await picks();
      expect(moved).toMatchObject({ state: 'open', step: { bin: other.bin, units: 3 }, progress: { bin: true } });
      await input(moved!, { kind: 'count', units: 3 });
      await input(moved!, { kind: 'scan', text: `${cart}-${moved!.step.position.number}` });
      expect([await inBin(pick!.step.bin, sku), await inBin(other.bin, sku)]).toEqual([before[0], before[1]! - 3]);
      const { counts } = await suri.get('counts');
      expect(counts.filter((c) => c.bin === pick!.step.bin)).toEqual([]);
      const { entries } = await desk.get('trail', { id: ids[0]! });
      expect(entries.find((e) => e.kind === 'bin-changed')!.facts).toMatchObject({
        from: pick!.step.bin,
        bin: other.bin,
      });
      expect(entries.find((e) => e.kind === 'picked')!.facts).toMatchObject({ bin: other.bin, units: 3 });
      expect(entries.some((e) => e.kind === 'scan-refused')).toBe(false);
      await pico.get('undoPick', { id: run });
      expect((await picks())[0]).toMatchObject({ state: 'open', step: { bin: other.bin } });
    } finally {
      await desk.get('changeWay', { body: way });
    }
  });
});

describe('what is not in its bin', () => {
  it('is taken from another bin of the item: a pick of its own, which undoing joins again', async () => {
    const { sku } = await inBins(12);
    const { run, picks, input, cart } = await taken([[sku, 5]]);
    const [pick] = await picks();
    expect(pick!.step.elsewhere.length).toBeGreaterThan(0);
    const [other] = pick!.step.elsewhere;
    const rest = { bin: other!.bin, lot: other!.lot };
    const nowhere = { bin: 'Z-99-9', lot: null };
    expect(await input(pick!, { kind: 'short', units: 2, reason: 'not-enough', rest: nowhere })).toMatchObject({
      code: 'not-there',
    });
    await input(pick!, { kind: 'short', units: 2, reason: 'not-enough', note: 'behind the beam', rest });
    await input(pick!, { kind: 'count', units: 2 });
    await input(pick!, { kind: 'touch', what: 'position' });
    const [first, second] = await picks();
    expect(first).toMatchObject({ state: 'done', picked: 2, step: { units: 2 } });
    expect(second).toMatchObject({ state: 'open', step: { id: `${pick!.step.id}.r`, bin: other!.bin, units: 3 } });
    // The bin is put up for a count, with what was written.
    const asked = async () => (await suri.get('counts')).counts.filter((c) => c.bin === pick!.step.bin);
    expect(await asked()).toMatchObject([{ reason: 'not-enough', note: 'behind the beam', booked: null }]);
    await pico.get('undoPick', { id: run });
    expect(await picks()).toMatchObject([{ state: 'open', picked: 0, step: { units: 5 } }]);
    expect(await asked()).toEqual([]);
    // And all of it from the other bin.
    await input(pick!, { kind: 'short', units: 0, reason: 'not-found', rest });
    const [moved] = await picks();
    expect(moved).toMatchObject({ state: 'open', step: { bin: other!.bin, units: 5 } });
    await pickOne(pico, run, moved!, cart);
    expect(await picks()).toMatchObject([{ state: 'done', picked: 5 }]);
    const trail = await desk.get('trail', { id: moved!.order.id });
    expect(trail.entries.map((t) => t.kind)).toEqual(expect.arrayContaining(['elsewhere', 'undone', 'picked']));
  });

  it('sends others who have not begun to a bin that has it, and is put off to the end of a run where the picker says so', async () => {
    const { sku } = await inBins(14);
    const mine = await taken([[sku, 3]]);
    const theirs = await takeIn(desk, { number: 'F-other', lines: [[sku, 2]] });
    const wave = await startWave(desk, [theirs]);
    const { runs } = await desk.get('wave', { id: wave });
    const sentTo = async () => (await desk.get('run', { id: runs[0]!.id })).picks[0]!.step.bin;
    const [pick] = await mine.picks();
    expect(await sentTo()).toBe(pick!.step.bin);
    await mine.input(pick!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await sentTo()).not.toBe(pick!.step.bin);

    const three = await taken([
      ['JR-004', 2],
      ['HT-003', 1],
      ['WK-004', 1],
    ]);
    const before = await three.picks();
    const ids = (list: Pick[]) => list.map((p) => p.step.id);
    const [a, b, c] = ids(before);
    await pico.get('walkFrom', { id: three.run, body: { pick: b!, last: a! } });
    expect(ids(await three.picks())).toEqual([b, c, a]);
    await pico.get('walkFrom', { id: three.run, body: { pick: c! } });
    expect(ids(await three.picks())[0]).toBe(c);
  });
});

describe('an order out of the run', () => {
  it('goes back to the Desk, and what lies on the cart back into its bin by a trip of its own', async () => {
    const { run, ids, picks, cart } = await taken(
      [
        ['JR-004', 3],
        ['HT-003', 1],
      ],
      [['WK-004', 2]],
    );
    const own = (await picks()).filter((p) => p.order.id === ids[0]);
    await pickOne(pico, run, own[0]!, cart);
    const { bin, item, units, position } = own[0]!.step;
    const before = await inBin(bin, item.sku);
    expect((await suri.refused('takeOut', { id: run, body: { order: ids[0]! } })).code).toBe('run-of-another');
    await pico.get('takeOut', { id: run, body: { order: ids[0]! } });
    expect((await picks()).every((p) => p.order.id === ids[1])).toBe(true);
    const order = await desk.get('order', { id: ids[0]! });
    expect(order.lines.map((l) => [l.released, l.picked])).toEqual([
      [0, 0],
      [0, 0],
    ]);
    const { trips } = await suri.get('putBacks');
    const trip = trips.find((t) => t.run === run)!;
    expect(trip).toMatchObject({
      cart,
      goods: [{ bin, units, position: position.number, done: false, item: { sku: item.sku } }],
    });
    const goods = trip.goods[0]!.id;
    const put = (body: { item: string; bin: string }) =>
      suri.refused('putBackOne', { id: run, body: { goods, ...body } });
    expect((await put({ item: item.sku, bin: 'Z-99-9' })).code).toBe('wrong-bin');
    expect((await put({ item: '9521234001010', bin })).code).toBe('wrong-item');
    expect(await inBin(bin, item.sku)).toBe(before);
    // What the device refuses by itself changes nothing, and is counted where it was scanned.
    const facts = { got: 'Z-99-9', expected: bin };
    await suri.get('countRefused', { id: run, body: { of: goods, code: 'wrong-bin', facts } });
    expect((await desk.get('trail', { id: ids[0]! })).entries.at(-1)).toMatchObject({
      kind: 'scan-refused',
      person: 'Suri Okell',
      facts: { ...facts, code: 'wrong-bin', bin, item: item.name },
    });
    // With goods to put away on it the cart is nobody else's, and not free.
    const free = async () => (await desk.get('crew')).carts.reduce((n, c) => n + c.free, 0);
    const busy = await free();
    await pico.get('takeOut', { id: run, body: { order: ids[1]! } });
    const next = await startWave(desk, [await takeIn(desk, { number: `F-${made}-next`, lines: [['BR-001', 1]] })]);
    const other = (await desk.get('wave', { id: next })).runs[0]!.id;
    expect(await pico.refused('takeRun', { id: other, body: { cart } })).toMatchObject({ code: 'cart-carries' });
    await suri.get('putBackOne', { id: run, body: { goods, item: item.packs[0]!.gtin, bin } });
    expect(await free()).toBe(busy + 1);
    await pico.get('takeRun', { id: other, body: { cart } });
    await pico.get('giveBack', { id: other });
    expect(await inBin(bin, item.sku)).toBe(before + units);
    expect((await put({ item: '*', bin: '*' })).code).toBe('not-found');
    expect((await suri.get('putBacks')).trips.filter((t) => t.run === run)).toEqual([]);
    // It can be released again at once.
    await startWave(desk, [ids[0]!]);
  });
});

describe('a count', () => {
  it('that two pickers wait for stays when one of them undoes what they reported: nothing is left in limbo', async () => {
    const { sku } = await inBins(14);
    const [one, two] = [await taken([[sku, 3]]), await taken([[sku, 2]])];
    const [first] = await one.picks();
    const [second] = await two.picks();
    await one.input(first!, { kind: 'scan', text: first!.step.bin });
    await two.input(second!, { kind: 'scan', text: second!.step.bin });
    expect(second!.step.bin).toBe(first!.step.bin);
    await one.input(first!, { kind: 'short', units: 0, reason: 'damaged' });
    await two.input(second!, { kind: 'short', units: 0, reason: 'damaged' });
    await pico.get('undoPick', { id: two.run });
    const { counts } = await suri.get('counts');
    expect(counts.filter((c) => c.bin === first!.step.bin && c.item.sku === sku)).toHaveLength(1);
    await pico.get('undoPick', { id: one.run });
    expect((await suri.get('counts')).counts.filter((c) => c.bin === first!.step.bin && c.item.sku === sku)).toEqual(
      [],
    );
    expect((await desk.get('stuck')).stuck.filter((x) => x.kind === 'stock-doubted')).toEqual([]);
  });
});

describe('a reason', () => {
  const freeOf = async (sku: string) =>
    (
      await relay.query<{ free: number }>(
        `select (t.on_hand - t.reserved)::int as free from stock_total t join item i on i.id = t.item_id where i.sku = '${sku}' and t.site_id = 'larkmoor'`,
      )
    )[0]!.free;
  const asked = async (bin: string) => (await suri.get('counts')).counts.find((c) => c.bin === bin);

  it('decides what is in doubt: in a bin that nobody gets at nothing is, and it is not proposed until somebody was there', async () => {
    const { sku } = await inBins(20);
    const { ids, picks, input } = await taken([[sku, 3]]);
    const [pick] = await picks();
    const { bin } = pick!.step;
    const [there, free] = [await inBin(bin, sku), await freeOf(sku)];
    await input(pick!, { kind: 'short', units: 0, reason: 'bin-blocked', note: 'pallet in front' });
    expect(await inBin(bin, sku)).toBe(there);
    // What the order did not get is free again, and nothing else changed.
    expect(await freeOf(sku)).toBe(free + 3);
    const order = await desk.get('order', { id: ids[0]! });
    expect(order.lines[0]!.free).toBeGreaterThanOrEqual(there);
    const binOf = async (units: number) => {
      const again = await taken([[sku, units]]);
      const found = (await again.picks()).map((p) => p.step.bin);
      return found;
    };
    expect(await binOf(1)).not.toContain(bin);
    const count = await asked(bin);
    expect(count).toMatchObject({ reason: 'bin-blocked', note: 'pallet in front' });
    expect(await suri.get('takeCount', { id: count!.id, body: { units: there } })).toEqual({ state: 'settled' });
    const [place] = await relay.query<{ blocked: string | null }>(`select blocked from place where code = '${bin}'`);
    expect(place!.blocked).toBeNull();
  });

  it('is taken back with its short: the bin is proposed again', async () => {
    const { sku } = await inBins(20);
    const { run, picks, input } = await taken([[sku, 2]]);
    const { bin } = (await picks())[0]!.step;
    const blocked = async () =>
      (await relay.query<{ blocked: string | null }>(`select blocked from place where code = '${bin}'`))[0]!.blocked;
    await input((await picks())[0]!, { kind: 'short', units: 0, reason: 'bin-blocked' });
    expect(await blocked()).toBe('access');
    await pico.get('undoPick', { id: run });
    expect(await blocked()).toBeNull();
  });

  it('of a count that is dropped leaves nothing in limbo: what was in doubt lies in its bin again', async () => {
    const { sku } = await inBins(20);
    const { picks, input } = await taken([[sku, 2]]);
    const { bin } = (await picks())[0]!.step;
    const there = await inBin(bin, sku);
    await input((await picks())[0]!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await inBin(bin, sku)).toBeLessThan(there);
    await desk.get('settleCount', { id: (await asked(bin))!.id, body: { decision: 'drop' } });
    expect(await inBin(bin, sku)).toBe(there);
  });
});

describe('a count', () => {
  it('within the limit puts the books right at once; beyond it somebody has to agree, who alone sees what the books have', async () => {
    const { sku, bins } = await inBins(20);
    const [{ code: bin, units }] = bins as [{ code: string; units: number }];
    const ask = async () => {
      const { counts } = await desk.get('wantCount', { body: { bin: bin.toLowerCase(), item: sku } });
      return counts.find((c) => c.bin === bin)!.id;
    };
    let id = await ask();
    expect((await suri.refused('wantCount', { body: { bin, item: sku } })).status).toBe(403);
    expect(await suri.get('takeCount', { id, body: { units: units + 2 } })).toEqual({ state: 'settled' });
    expect(await inBin(bin, sku)).toBe(units + 2);
    id = await ask();
    expect(await suri.get('takeCount', { id, body: { units: units + 20 } })).toEqual({ state: 'counted' });
    expect(await inBin(bin, sku)).toBe(units + 2);
    expect((await suri.refused('takeCount', { id, body: { units: 1 } })).code).toBe('count-state');
    const seen = async (by: Person) => (await by.get('counts')).counts.find((c) => c.id === id);
    expect(await seen(suri)).toBeUndefined();
    expect(await seen(desk)).toMatchObject({ booked: units + 2, counted: units + 20, countedBy: 'Suri Okell' });
    expect((await suri.refused('settleCount', { id, body: { decision: 'agree' } })).status).toBe(403);
    await desk.get('settleCount', { id, body: { decision: 'again' } });
    expect(await seen(suri)).toMatchObject({ state: 'asked', booked: null });
    await suri.get('takeCount', { id, body: { units: units + 12 } });
    await desk.get('settleCount', { id, body: { decision: 'agree' } });
    expect(await inBin(bin, sku)).toBe(units + 12);
    expect(await seen(desk)).toBeUndefined();
    id = await ask();
    await desk.get('settleCount', { id, body: { decision: 'drop' } });
    expect(await seen(desk)).toBeUndefined();
  });

  it('finds again what a short had put in doubt, and never takes away what is promised', async () => {
    const { sku } = await inBins(12);
    const { picks, input } = await taken([[sku, 4]]);
    const [pick] = await picks();
    const { bin } = pick!.step;
    const before = await inBin(bin, sku);
    await input(pick!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await inBin(bin, sku)).toBe(0);
    const open = async () => (await suri.get('counts')).counts.find((c) => c.bin === bin)!.id;
    expect(await suri.get('takeCount', { id: await open(), body: { units: before } })).toEqual({ state: 'settled' });
    expect(await inBin(bin, sku)).toBe(before);

    const one = await relay.query<{ sku: string; bin: string; units: number }>(`
      select i.sku, min(p.code) as bin, sum(b.units)::int as units from item i join balance b on b.item_id = i.id
      join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
      where not i.tracks_lot and not i.tracks_serial and not exists (select 1 from order_line l where l.item_id = i.id and l.released > 0)
      group by i.sku having count(*) = 1 and sum(b.units) between 4 and 400 order by i.sku limit 1`);
    await startWave(desk, [await takeIn(desk, { number: 'F-all', lines: [[one[0]!.sku, one[0]!.units]] })]);
    const { counts } = await desk.get('wantCount', { body: { bin: one[0]!.bin, item: one[0]!.sku } });
    const id = counts.find((c) => c.item.sku === one[0]!.sku)!.id;
    expect(await suri.get('takeCount', { id, body: { units: one[0]!.units - 1 } })).toEqual({ state: 'counted' });
    expect(await desk.refused('settleCount', { id, body: { decision: 'agree' } })).toMatchObject({
      code: 'count-promised',
      facts: { units: 1 },
    });
  });

  it('costs one touch after a pick that leaves nearly nothing, and a photo shows what was wrong', async () => {
    const { sku } = await inBins(12);
    const { run, picks, input, cart } = await taken([[sku, 2]], [[sku, 1]]);
    const [pick, next] = await picks();
    await pickOne(pico, run, pick!, cart);
    const { bin } = pick!.step;
    const left = await inBin(bin, sku);
    const say = (units: number) =>
      pico.get('binLeft', { id: run, body: { pick: pick!.step.id, expected: left, units } });
    await say(left);
    expect(await inBin(bin, sku)).toBe(left);
    await say(left + 1);
    expect(await inBin(bin, sku)).toBe(left + 1);
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    const photo = (of: string) => ({ id: run, body: { pick: of, data: png } });
    expect((await pico.refused('keepPhoto', photo(next!.step.id))).code).toBe('not-found');
    await input(next!, { kind: 'short', units: 0, reason: 'damaged' });
    await pico.get('keepPhoto', photo(next!.step.id));
    const { counts } = await desk.get('counts');
    const name = counts.find((c) => c.bin === next!.step.bin)!.pictures[0]!.replace('own:', '');
    expect(name).toMatch(/^[0-9a-f]{24}$/);
  });
});

describe('a run that passes on', () => {
  it('goes on in the hands of another, or waits with its cart for whoever takes that one', async () => {
    const { run, cart, picks, ids } = await taken([
      ['JR-004', 2],
      ['HT-003', 1],
    ]);
    const [first, second] = await picks();
    await pickOne(pico, run, first!, cart);
    expect((await suri.refused('handOver', { id: run, body: { person: null } })).code).toBe('run-of-another');
    expect((await pico.refused('handOver', { id: run, body: { person: 'ada' } })).code).toBe('no-picker');
    await pico.get('handOver', { id: run, body: { person: 'suri' } });
    expect((await suri.get('myRuns')).mine.map((r) => r.id)).toContain(run);
    await suri.get('handOver', { id: run, body: { person: null } });
    expect(await pico.refused('takeRun', { id: run, body: { cart: 'CART-20' } })).toMatchObject({
      code: 'other-cart',
      facts: { cart },
    });
    const another = await takeIn(desk, { number: 'F-cart', lines: [['JR-004', 1]] });
    const { runs } = await desk.get('wave', { id: await startWave(desk, [another]) });
    expect((await suri.refused('takeRun', { id: runs[0]!.id, body: { cart } })).code).toBe('cart-busy');
    await pico.get('takeRun', { id: run, body: { cart } });
    // A supervisor takes anybody's back.
    await desk.get('handOver', { id: run, body: { person: null } });
    await pico.get('takeRun', { id: run, body: { cart } });
    await pickOne(pico, run, second!, cart);
    await pico.get('tellBench', { id: run, body: { order: ids[0]!, note: 'lid is loose' } });
    await pico.get('leaveRun', { id: run, body: { lane: 'LANE-2' } });
    const packer = await relay.as('ada');
    expect((await packer.get('benchOrder', { id: ids[0]! })).forBench).toBe('lid is loose');
    // The label on the cart opens it at the bench.
    const printed = await pico.get('print', { body: { kind: 'handoff-label', of: run } });
    expect(printed.printer).not.toBe('');
    const { number } = (await desk.get('run', { id: run })).run;
    expect((await packer.get('find', { query: { code: `RUN-${number}` } })).orders).toEqual(ids);
  });

  it('shows who works beside, and goes to the express lane where it is urgent', async () => {
    const { way } = await desk.get('way');
    await desk.get('changeWay', { body: { ...way, expressLane: 'LANE-5' } });
    const orders = await Promise.all(
      ['F-x1', 'F-x2'].map((number) => takeIn(desk, { number, lines: [['JR-004', 1]] })),
    );
    const { wave } = await desk.get('release', { body: { orders } });
    await desk.get('changeWave', { id: wave, body: { picking: 'single' } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const { runs } = await desk.get('wave', { id: wave });
    const [a, b] = runs.map((r) => r.id);
    await suri.get('takeRun', { id: b!, body: { cart: 'CART-24' } });
    const seen = await pico.get('run', { id: a! });
    expect(seen.beside).toMatchObject([{ picker: 'Suri Okell', done: 0, picks: 1, orders: [] }]);
    expect(seen.people.map((p) => p.name)).toEqual(expect.arrayContaining(['Pico Lund', 'Suri Okell']));
    expect(seen.proposedLane).not.toBe('LANE-5');
    await desk.get('assignRuns', { body: { runs: [a!], priority: 2 } });
    expect((await pico.get('run', { id: a! })).proposedLane).toBe('LANE-5');
    // An urgent order makes its run urgent, by itself.
    const urgent = await takeIn(desk, { number: 'F-x3', priority: 2, lines: [['JR-004', 1]] });
    const next = await desk.get('wave', { id: await startWave(desk, [urgent]) });
    expect(next.runs).toMatchObject([{ priority: 3 }]);
    expect((await pico.get('run', { id: next.runs[0]!.id })).proposedLane).toBe('LANE-5');
    expect((await pico.get('myRuns')).waiting[0]!.id).toBe(next.runs[0]!.id);
  });
});

describe('whoever wants to know', () => {
  it('scans item, bin, order, place or carton and reads what it is', async () => {
    const look = (code: string) => pico.get('lookUp', { query: { code } });
    const { cart, picks, ids, run } = await taken([['JR-004', 2]]);
    const [pick] = await picks();
    const { bin, item } = pick!.step;
    const byGtin = await look(item.packs[0]!.gtin);
    expect(byGtin).toMatchObject({ kind: 'item', item: { sku: 'JR-004' } });
    if (byGtin.kind !== 'item') throw new Error(byGtin.kind);
    expect(byGtin.bins.find((b) => b.bin === bin)).toMatchObject({ units: await inBin(bin, 'JR-004') });
    expect(byGtin.bins.find((b) => b.bin === bin)!.sent).toBeGreaterThanOrEqual(2);
    expect(await look('jr-004')).toMatchObject({ kind: 'item' });
    expect(await look(bin)).toMatchObject({ kind: 'bin', bin, goods: [{ sku: 'JR-004' }] });
    await pickOne(pico, run, pick!, cart);
    const order = { kind: 'order', lines: [{ sku: 'JR-004', asked: 2, picked: 2 }], where: [`${cart}, 1`] };
    expect(await look(`${cart}-1`)).toMatchObject(order);
    const { number } = await desk.get('order', { id: ids[0]! });
    expect(await look(`ORDER-${number}`)).toMatchObject(order);
    expect(await look('nothing of the kind')).toEqual({ kind: 'nothing', code: 'nothing of the kind' });
  });

  it('says what is done beside picking, one thing at a time', async () => {
    const now = async () => (await suri.get('activities')).now?.kind ?? null;
    expect(await now()).toBeNull();
    expect((await suri.refused('changeActivity', { body: { kind: 'Juggling' } })).code).toBe('no-such-work');
    await suri.get('changeActivity', { body: { kind: 'Tidying' } });
    const { now: resting } = await suri.get('changeActivity', { body: { kind: 'Resting' } });
    expect(resting!.kind).toBe('Resting');
    expect(await pico.get('activities')).toMatchObject({ now: null });
    await suri.get('changeActivity', { body: { kind: null } });
    expect(await now()).toBeNull();
    const told = await relay.query<{ kind: string; work: string }>(
      `select kind, facts->>'work' as work from journal where kind like 'work-%' order by id`,
    );
    expect(told.map((t) => `${t.kind} ${t.work}`)).toEqual([
      'work-begun Tidying',
      'work-ended Tidying',
      'work-begun Resting',
      'work-ended Resting',
    ]);
  });
});

it('takes an order out of a run and back in, as long as nothing of it lay on the cart', async () => {
  const { run, ids, picks, cart } = await taken(
    [
      ['JR-004', 2],
      ['HT-003', 1],
    ],
    [['WK-004', 1]],
  );
  const out = (order: string) => pico.get('takeOut', { id: run, body: { order } });
  const back = { id: run, body: { orders: [ids[0]!] } };
  const before = await picks();
  const released = async () => (await desk.get('order', { id: ids[0]! })).lines.map((l) => l.released);
  const promised = await released();
  await out(ids[0]!);
  expect([(await picks()).length, await released()]).toEqual([1, [0, 0]]);
  await pico.get('putIn', back);
  const again = await picks();
  const open = (list: Pick[]) => list.map((p) => [p.step.id, p.step.units, p.state]).sort();
  expect([open(again), await released()]).toEqual([open(before), promised]);
  expect(await pico.refused('putIn', back)).toMatchObject({ code: 'not-found' });
  // Once goods of it lie on the cart, they go back into their bins instead.
  await pickOne(
    pico,
    run,
    again.find((p) => p.order.id === ids[0])!,
    cart,
  );
  await out(ids[0]!);
  expect(await pico.refused('putIn', back)).toMatchObject({ code: 'undo-begun' });
});
