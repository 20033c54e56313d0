import { floorHouse, type Pick } from './floorHouse.ts';
import { pickOne, startWave, takeIn } from './steps.ts';

const house = floorHouse();

describe('a code of any form', () => {
  it('is called what it is where another one is awaited', async () => {
    await house.relay.query(
      `insert into cart (site_id, code, type_id) select 'larkmoor', 'TROLLEY 4', id from cart_type limit 1`,
    );
    await house.relay.query(
      `insert into place (id, site_id, kind, code) values ('h7', 'larkmoor', 'bin', 'H7'), ('s1', 'larkmoor', 'lane', 'South 1')`,
    );
    await house.relay.query(`update person set badge = 'B-2' where id = 'suri'`);
    const { sku } = await house.inBins(12);
    const { picks, input } = await house.taken([[sku, 2]]);
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
    const { sku } = await house.inBins(12);
    const { picks, input } = await house.taken([[sku, 2]], [[sku, 3]]);
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
    const { settings } = await house.desk.get('siteSettings');
    await house.desk.get('changeSiteSettings', { body: { ...settings, otherBins: true } });
    try {
      const { sku } = await house.inBins(12);
      const { ids, cart, picks, run, input } = await house.taken([[sku, 3]]);
      const [pick] = await picks();
      const other = pick!.step.elsewhere.find((o) => o.units >= 3)!;
      const before = [await house.inBin(pick!.step.bin, sku), await house.inBin(other.bin, sku)];
      expect(await input(pick!, { kind: 'scan', text: other.bin })).toMatchObject({ verdict: 'done', units: 0 });
      const [moved] = await picks();
      expect(moved).toMatchObject({ state: 'open', step: { bin: other.bin, units: 3 }, progress: { bin: true } });
      await input(moved!, { kind: 'count', units: 3 });
      await input(moved!, { kind: 'scan', text: `${cart}-${moved!.step.position.number}` });
      expect([await house.inBin(pick!.step.bin, sku), await house.inBin(other.bin, sku)]).toEqual([
        before[0],
        before[1]! - 3,
      ]);
      const { counts } = await house.suri.get('counts');
      expect(counts.filter((c) => c.bin === pick!.step.bin)).toEqual([]);
      const { entries } = await house.desk.get('trail', { id: ids[0]! });
      expect(entries.find((e) => e.kind === 'bin-changed')!.facts).toMatchObject({
        from: pick!.step.bin,
        bin: other.bin,
      });
      expect(entries.find((e) => e.kind === 'picked')!.facts).toMatchObject({ bin: other.bin, units: 3 });
      expect(entries.some((e) => e.kind === 'scan-refused')).toBe(false);
      await house.pico.get('undoPick', { id: run });
      expect((await picks())[0]).toMatchObject({ state: 'open', step: { bin: other.bin } });
    } finally {
      await house.desk.get('changeSiteSettings', { body: settings });
    }
  });
});

describe('what is not in its bin', () => {
  it('is taken from another bin of the item: a pick of its own, which undoing joins again', async () => {
    const { sku } = await house.inBins(12);
    const { run, picks, input, cart } = await house.taken([[sku, 5]]);
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
    const asked = async () => (await house.suri.get('counts')).counts.filter((c) => c.bin === pick!.step.bin);
    expect(await asked()).toMatchObject([{ reason: 'not-enough', note: 'behind the beam', booked: null }]);
    await house.pico.get('undoPick', { id: run });
    expect(await picks()).toMatchObject([{ state: 'open', picked: 0, step: { units: 5 } }]);
    expect(await asked()).toEqual([]);
    // And all of it from the other bin.
    await input(pick!, { kind: 'short', units: 0, reason: 'not-found', rest });
    const [moved] = await picks();
    expect(moved).toMatchObject({ state: 'open', step: { bin: other!.bin, units: 5 } });
    await pickOne(house.pico, run, moved!, cart);
    expect(await picks()).toMatchObject([{ state: 'done', picked: 5 }]);
    const trail = await house.desk.get('trail', { id: moved!.order.id });
    expect(trail.entries.map((t) => t.kind)).toEqual(expect.arrayContaining(['elsewhere', 'undone', 'picked']));
  });

  it('sends others who have not begun to a bin that has it, and is put off to the end of a run where the picker says so', async () => {
    const { sku } = await house.inBins(14);
    const mine = await house.taken([[sku, 3]]);
    const theirs = await takeIn(house.desk, { number: 'F-other', lines: [[sku, 2]] });
    const wave = await startWave(house.desk, [theirs]);
    const { runs } = await house.desk.get('wave', { id: wave });
    const sentTo = async () => (await house.desk.get('run', { id: runs[0]!.id })).picks[0]!.step.bin;
    const [pick] = await mine.picks();
    expect(await sentTo()).toBe(pick!.step.bin);
    await mine.input(pick!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await sentTo()).not.toBe(pick!.step.bin);

    const three = await house.taken([
      ['JR-004', 2],
      ['HT-003', 1],
      ['WK-004', 1],
    ]);
    const before = await three.picks();
    const ids = (list: Pick[]) => list.map((p) => p.step.id);
    const [a, b, c] = ids(before);
    await house.pico.get('walkFrom', { id: three.run, body: { pick: b!, last: a! } });
    expect(ids(await three.picks())).toEqual([b, c, a]);
    await house.pico.get('walkFrom', { id: three.run, body: { pick: c! } });
    expect(ids(await three.picks())[0]).toBe(c);
  });
});

describe('an order out of the run', () => {
  it('goes back to the Desk, and what lies on the cart back into its bin by a trip of its own', async () => {
    const { run, ids, picks, cart } = await house.taken(
      [
        ['JR-004', 3],
        ['HT-003', 1],
      ],
      [['WK-004', 2]],
    );
    const own = (await picks()).filter((p) => p.order.id === ids[0]);
    await pickOne(house.pico, run, own[0]!, cart);
    const { bin, item, units, position } = own[0]!.step;
    const before = await house.inBin(bin, item.sku);
    expect((await house.suri.refused('takeOut', { id: run, body: { order: ids[0]! } })).code).toBe('run-of-another');
    await house.pico.get('takeOut', { id: run, body: { order: ids[0]! } });
    expect((await picks()).every((p) => p.order.id === ids[1])).toBe(true);
    const order = await house.desk.get('order', { id: ids[0]! });
    expect(order.lines.map((l) => [l.released, l.picked])).toEqual([
      [0, 0],
      [0, 0],
    ]);
    const { trips } = await house.suri.get('putAways');
    const trip = trips.find((t) => t.run === run)!;
    expect(trip).toMatchObject({
      cart,
      goods: [{ bin, units, position: position.number, done: false, item: { sku: item.sku } }],
    });
    const goods = trip.goods[0]!.id;
    const put = (body: { item: string; bin: string }) =>
      house.suri.refused('putBackOne', { id: run, body: { goods, ...body } });
    expect((await put({ item: item.sku, bin: 'Z-99-9' })).code).toBe('wrong-bin');
    expect((await put({ item: '9521234001010', bin })).code).toBe('wrong-item');
    expect(await house.inBin(bin, item.sku)).toBe(before);
    // What the device refuses by itself changes nothing, and is counted where it was scanned.
    const facts = { got: 'Z-99-9', expected: bin };
    await house.suri.get('countRefused', { id: run, body: { of: goods, code: 'wrong-bin', facts } });
    expect((await house.desk.get('trail', { id: ids[0]! })).entries.at(-1)).toMatchObject({
      kind: 'scan-refused',
      person: 'Suri Okell',
      facts: { ...facts, code: 'wrong-bin', bin, item: item.name },
    });
    // With goods to put away on it the cart is nobody else's, and not free.
    const free = async () => (await house.desk.get('crew')).carts.reduce((n, c) => n + c.free, 0);
    const busy = await free();
    await house.pico.get('takeOut', { id: run, body: { order: ids[1]! } });
    const next = await startWave(house.desk, [await takeIn(house.desk, { number: 'F-next', lines: [['BR-001', 1]] })]);
    const other = (await house.desk.get('wave', { id: next })).runs[0]!.id;
    expect(await house.pico.refused('takeRun', { id: other, body: { cart } })).toMatchObject({ code: 'cart-carries' });
    await house.suri.get('putBackOne', { id: run, body: { goods, item: item.packs[0]!.gtin, bin } });
    expect(await free()).toBe(busy + 1);
    await house.pico.get('takeRun', { id: other, body: { cart } });
    await house.pico.get('returnRun', { id: other });
    expect(await house.inBin(bin, item.sku)).toBe(before + units);
    expect((await put({ item: '*', bin: '*' })).code).toBe('not-found');
    expect((await house.suri.get('putAways')).trips.filter((t) => t.run === run)).toEqual([]);
    // It can be released again at once.
    await startWave(house.desk, [ids[0]!]);
  });
});

describe('a run that passes on', () => {
  it('goes on in the hands of another, or waits with its cart for whoever takes that one', async () => {
    const { run, cart, picks, ids } = await house.taken([
      ['JR-004', 2],
      ['HT-003', 1],
    ]);
    const [first, second] = await picks();
    await pickOne(house.pico, run, first!, cart);
    expect((await house.suri.refused('transferRun', { id: run, body: { person: null } })).code).toBe('run-of-another');
    expect((await house.pico.refused('transferRun', { id: run, body: { person: 'ada' } })).code).toBe('no-picker');
    await house.pico.get('transferRun', { id: run, body: { person: 'suri' } });
    expect((await house.suri.get('myRuns')).mine.map((r) => r.id)).toContain(run);
    await house.suri.get('transferRun', { id: run, body: { person: null } });
    expect(await house.pico.refused('takeRun', { id: run, body: { cart: 'CART-20' } })).toMatchObject({
      code: 'other-cart',
      facts: { cart },
    });
    const another = await takeIn(house.desk, { number: 'F-cart', lines: [['JR-004', 1]] });
    const { runs } = await house.desk.get('wave', { id: await startWave(house.desk, [another]) });
    expect((await house.suri.refused('takeRun', { id: runs[0]!.id, body: { cart } })).code).toBe('cart-busy');
    await house.pico.get('takeRun', { id: run, body: { cart } });
    // A supervisor takes anybody's back.
    await house.desk.get('transferRun', { id: run, body: { person: null } });
    await house.pico.get('takeRun', { id: run, body: { cart } });
    await pickOne(house.pico, run, second!, cart);
    await house.pico.get('noteForBench', { id: run, body: { order: ids[0]!, note: 'lid is loose' } });
    await house.pico.get('leaveRun', { id: run, body: { lane: 'LANE-2' } });
    const packer = await house.relay.as('ada');
    expect((await packer.get('benchOrder', { id: ids[0]! })).forBench).toBe('lid is loose');
    // The label on the cart opens it at the bench.
    const printed = await house.pico.get('print', { body: { kind: 'handoff-label', of: run } });
    expect(printed.printer).not.toBe('');
    const { number } = (await house.desk.get('run', { id: run })).run;
    expect((await packer.get('find', { query: { code: `RUN-${number}` } })).orders).toEqual(ids);
  });

  it('shows who works beside, and goes to the express lane where it is urgent', async () => {
    const { settings } = await house.desk.get('siteSettings');
    await house.desk.get('changeSiteSettings', { body: { ...settings, expressLane: 'LANE-5' } });
    const orders = await Promise.all(
      ['F-x1', 'F-x2'].map((number) => takeIn(house.desk, { number, lines: [['JR-004', 1]] })),
    );
    const { wave } = await house.desk.get('release', { body: { orders } });
    await house.desk.get('changeWave', { id: wave, body: { picking: 'single' } });
    await house.desk.get('planWave', { id: wave });
    await house.desk.get('startWave', { id: wave });
    const { runs } = await house.desk.get('wave', { id: wave });
    const [a, b] = runs.map((r) => r.id);
    await house.suri.get('takeRun', { id: b!, body: { cart: 'CART-24' } });
    const seen = await house.pico.get('run', { id: a! });
    expect((await house.pico.get('runsBeside', { id: a! })).beside).toMatchObject([
      { picker: 'Suri Okell', done: 0, picks: 1, orders: [] },
    ]);
    expect(seen.people.map((p) => p.name)).toEqual(expect.arrayContaining(['Pico Lund', 'Suri Okell']));
    expect(seen.proposedLane).not.toBe('LANE-5');
    await house.desk.get('assignRuns', { body: { runs: [a!], priority: 2 } });
    expect((await house.pico.get('run', { id: a! })).proposedLane).toBe('LANE-5');
    // An urgent order makes its run urgent, by itself.
    const urgent = await takeIn(house.desk, { number: 'F-x3', priority: 2, lines: [['JR-004', 1]] });
    const next = await house.desk.get('wave', { id: await startWave(house.desk, [urgent]) });
    expect(next.runs).toMatchObject([{ priority: 3 }]);
    expect((await house.pico.get('run', { id: next.runs[0]!.id })).proposedLane).toBe('LANE-5');
    expect((await house.pico.get('myRuns')).waiting[0]!.id).toBe(next.runs[0]!.id);
  });
});

describe('whoever wants to know', () => {
  it('scans item, bin, order, place or carton and reads what it is', async () => {
    const look = (code: string) => house.pico.get('lookUp', { query: { code } });
    const { cart, picks, ids, run } = await house.taken([['JR-004', 2]]);
    const [pick] = await picks();
    const { bin, item } = pick!.step;
    const byGtin = await look(item.packs[0]!.gtin);
    expect(byGtin).toMatchObject({ kind: 'item', item: { sku: 'JR-004' } });
    if (byGtin.kind !== 'item') throw new Error(byGtin.kind);
    expect(byGtin.bins.find((b) => b.bin === bin)).toMatchObject({ units: await house.inBin(bin, 'JR-004') });
    expect(byGtin.bins.find((b) => b.bin === bin)!.sent).toBeGreaterThanOrEqual(2);
    expect(await look('jr-004')).toMatchObject({ kind: 'item' });
    expect(await look(bin)).toMatchObject({ kind: 'bin', bin, goods: [{ sku: 'JR-004' }] });
    await pickOne(house.pico, run, pick!, cart);
    const order = { kind: 'order', lines: [{ sku: 'JR-004', asked: 2, picked: 2 }], where: [`${cart}, 1`] };
    expect(await look(`${cart}-1`)).toMatchObject(order);
    const { number } = await house.desk.get('order', { id: ids[0]! });
    expect(await look(`ORDER-${number}`)).toMatchObject(order);
    expect(await look('nothing of the kind')).toEqual({ kind: 'nothing', code: 'nothing of the kind' });
  });

  it('says what is done beside picking, one thing at a time', async () => {
    const now = async () => (await house.suri.get('activities')).now?.kind ?? null;
    expect(await now()).toBeNull();
    expect((await house.suri.refused('changeActivity', { body: { kind: 'Juggling' } })).code).toBe('no-such-work');
    await house.suri.get('changeActivity', { body: { kind: 'Tidying' } });
    const { now: resting } = await house.suri.get('changeActivity', { body: { kind: 'Resting' } });
    expect(resting!.kind).toBe('Resting');
    expect(await house.pico.get('activities')).toMatchObject({ now: null });
    await house.suri.get('changeActivity', { body: { kind: null } });
    expect(await now()).toBeNull();
    const told = await house.relay.query<{ kind: string; work: string }>(
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
  const { run, ids, picks, cart } = await house.taken(
    [
      ['JR-004', 2],
      ['HT-003', 1],
    ],
    [['WK-004', 1]],
  );
  const out = (order: string) => house.pico.get('takeOut', { id: run, body: { order } });
  const back = { id: run, body: { orders: [ids[0]!] } };
  const before = await picks();
  const released = async () => (await house.desk.get('order', { id: ids[0]! })).lines.map((l) => l.released);
  const promised = await released();
  await out(ids[0]!);
  expect([(await picks()).length, await released()]).toEqual([1, [0, 0]]);
  await house.pico.get('putIn', back);
  const again = await picks();
  const open = (list: Pick[]) => list.map((p) => [p.step.id, p.step.units, p.state]).sort();
  expect([open(again), await released()]).toEqual([open(before), promised]);
  expect(await house.pico.refused('putIn', back)).toMatchObject({ code: 'not-found' });
  // Once goods of it lie on the cart, they go back into their bins instead.
  await pickOne(
    house.pico,
    run,
    again.find((p) => p.order.id === ids[0])!,
    cart,
  );
  await out(ids[0]!);
  expect(await house.pico.refused('putIn', back)).toMatchObject({ code: 'undo-begun' });
});
