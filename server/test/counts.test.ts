import { floorHouse } from './floorHouse.ts';
import type { Person } from './relay.ts';
import { pickOne, startWave, takeIn } from './steps.ts';

const house = floorHouse();

describe('a count', () => {
  it('that two pickers wait for stays when one of them undoes what they reported: nothing is left in limbo', async () => {
    const { sku } = await house.inBins(14);
    const [one, two] = [await house.taken([[sku, 3]]), await house.taken([[sku, 2]])];
    const [first] = await one.picks();
    const [second] = await two.picks();
    await one.input(first!, { kind: 'scan', text: first!.step.bin });
    await two.input(second!, { kind: 'scan', text: second!.step.bin });
    expect(second!.step.bin).toBe(first!.step.bin);
    await one.input(first!, { kind: 'short', units: 0, reason: 'damaged' });
    await two.input(second!, { kind: 'short', units: 0, reason: 'damaged' });
    await house.pico.get('undoPick', { id: two.run });
    const { counts } = await house.suri.get('counts');
    expect(counts.filter((c) => c.bin === first!.step.bin && c.item.sku === sku)).toHaveLength(1);
    await house.pico.get('undoPick', { id: one.run });
    expect(
      (await house.suri.get('counts')).counts.filter((c) => c.bin === first!.step.bin && c.item.sku === sku),
    ).toEqual([]);
    expect((await house.desk.get('stuck')).stuck.filter((x) => x.kind === 'stock-doubted')).toEqual([]);
  });
});

describe('a reason', () => {
  const freeOf = async (sku: string) =>
    (
      await house.relay.query<{ free: number }>(
        `select (t.on_hand - t.reserved)::int as free from stock_total t join item i on i.id = t.item_id where i.sku = '${sku}' and t.site_id = 'larkmoor'`,
      )
    )[0]!.free;
  const asked = async (bin: string) => (await house.suri.get('counts')).counts.find((c) => c.bin === bin);

  it('decides what is in doubt: in a bin that nobody gets at nothing is, and it is not proposed until somebody was there', async () => {
    const { sku } = await house.inBins(20);
    const { ids, picks, input } = await house.taken([[sku, 3]]);
    const [pick] = await picks();
    const { bin } = pick!.step;
    const [there, free] = [await house.inBin(bin, sku), await freeOf(sku)];
    await input(pick!, { kind: 'short', units: 0, reason: 'bin-blocked', note: 'pallet in front' });
    expect(await house.inBin(bin, sku)).toBe(there);
    // What the order did not get is free again, and nothing else changed.
    expect(await freeOf(sku)).toBe(free + 3);
    const order = await house.desk.get('order', { id: ids[0]! });
    expect(order.lines[0]!.free).toBeGreaterThanOrEqual(there);
    const binOf = async (units: number) => {
      const again = await house.taken([[sku, units]]);
      const found = (await again.picks()).map((p) => p.step.bin);
      return found;
    };
    expect(await binOf(1)).not.toContain(bin);
    const count = await asked(bin);
    expect(count).toMatchObject({ reason: 'bin-blocked', note: 'pallet in front' });
    expect(await house.suri.get('takeCount', { id: count!.id, body: { units: there } })).toEqual({ state: 'settled' });
    const [place] = await house.relay.query<{ blocked: string | null }>(
      `select blocked from place where code = '${bin}'`,
    );
    expect(place!.blocked).toBeNull();
  });

  it('is taken back with its short: the bin is proposed again', async () => {
    const { sku } = await house.inBins(20);
    const { run, picks, input } = await house.taken([[sku, 2]]);
    const { bin } = (await picks())[0]!.step;
    const blocked = async () =>
      (await house.relay.query<{ blocked: string | null }>(`select blocked from place where code = '${bin}'`))[0]!
        .blocked;
    await input((await picks())[0]!, { kind: 'short', units: 0, reason: 'bin-blocked' });
    expect(await blocked()).toBe('access');
    await house.pico.get('undoPick', { id: run });
    expect(await blocked()).toBeNull();
  });

  it('of a count that is dropped leaves nothing in limbo: what was in doubt lies in its bin again', async () => {
    const { sku } = await house.inBins(20);
    const { picks, input } = await house.taken([[sku, 2]]);
    const { bin } = (await picks())[0]!.step;
    const there = await house.inBin(bin, sku);
    await input((await picks())[0]!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await house.inBin(bin, sku)).toBeLessThan(there);
    await house.desk.get('settleCount', { id: (await asked(bin))!.id, body: { decision: 'drop' } });
    expect(await house.inBin(bin, sku)).toBe(there);
  });
});

describe('a count', () => {
  it('within the limit puts the books right at once; beyond it somebody has to agree, who alone sees what the books have', async () => {
    const { sku, bins } = await house.inBins(20);
    const [{ code: bin, units }] = bins as [{ code: string; units: number }];
    const ask = async () => {
      const { counts } = await house.desk.get('wantCount', { body: { bin: bin.toLowerCase(), item: sku } });
      return counts.find((c) => c.bin === bin)!.id;
    };
    let id = await ask();
    expect((await house.suri.refused('wantCount', { body: { bin, item: sku } })).status).toBe(403);
    expect(await house.suri.get('takeCount', { id, body: { units: units + 2 } })).toEqual({ state: 'settled' });
    expect(await house.inBin(bin, sku)).toBe(units + 2);
    id = await ask();
    expect(await house.suri.get('takeCount', { id, body: { units: units + 20 } })).toEqual({ state: 'counted' });
    expect(await house.inBin(bin, sku)).toBe(units + 2);
    expect((await house.suri.refused('takeCount', { id, body: { units: 1 } })).code).toBe('count-state');
    const seen = async (by: Person) => (await by.get('counts')).counts.find((c) => c.id === id);
    expect(await seen(house.suri)).toBeUndefined();
    expect(await seen(house.desk)).toMatchObject({ booked: units + 2, counted: units + 20, countedBy: 'Suri Okell' });
    expect((await house.suri.refused('settleCount', { id, body: { decision: 'agree' } })).status).toBe(403);
    await house.desk.get('settleCount', { id, body: { decision: 'again' } });
    expect(await seen(house.suri)).toMatchObject({ state: 'asked', booked: null });
    await house.suri.get('takeCount', { id, body: { units: units + 12 } });
    await house.desk.get('settleCount', { id, body: { decision: 'agree' } });
    expect(await house.inBin(bin, sku)).toBe(units + 12);
    expect(await seen(house.desk)).toBeUndefined();
    id = await ask();
    await house.desk.get('settleCount', { id, body: { decision: 'drop' } });
    expect(await seen(house.desk)).toBeUndefined();
  });

  it('finds again what a short had put in doubt, and never takes away what is promised', async () => {
    const { sku } = await house.inBins(12);
    const { picks, input } = await house.taken([[sku, 4]]);
    const [pick] = await picks();
    const { bin } = pick!.step;
    const before = await house.inBin(bin, sku);
    await input(pick!, { kind: 'short', units: 0, reason: 'not-found' });
    expect(await house.inBin(bin, sku)).toBe(0);
    const open = async () => (await house.suri.get('counts')).counts.find((c) => c.bin === bin)!.id;
    expect(await house.suri.get('takeCount', { id: await open(), body: { units: before } })).toEqual({
      state: 'settled',
    });
    expect(await house.inBin(bin, sku)).toBe(before);

    const one = await house.relay.query<{ sku: string; bin: string; units: number }>(`
      select i.sku, min(p.code) as bin, sum(b.units)::int as units from item i join balance b on b.item_id = i.id
      join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
      where not i.tracks_lot and not i.tracks_serial and not exists (select 1 from order_line l where l.item_id = i.id and l.released > 0)
      group by i.sku having count(*) = 1 and sum(b.units) between 4 and 400 order by i.sku limit 1`);
    await startWave(house.desk, [await takeIn(house.desk, { number: 'F-all', lines: [[one[0]!.sku, one[0]!.units]] })]);
    const { counts } = await house.desk.get('wantCount', { body: { bin: one[0]!.bin, item: one[0]!.sku } });
    const id = counts.find((c) => c.item.sku === one[0]!.sku)!.id;
    expect(await house.suri.get('takeCount', { id, body: { units: one[0]!.units - 1 } })).toEqual({ state: 'counted' });
    expect(await house.desk.refused('settleCount', { id, body: { decision: 'agree' } })).toMatchObject({
      code: 'count-promised',
      facts: { units: 1 },
    });
  });

  it('costs one touch after a pick that leaves nearly nothing, and a photo shows what was wrong', async () => {
    const { sku } = await house.inBins(12);
    const { run, picks, input, cart } = await house.taken([[sku, 2]], [[sku, 1]]);
    const [pick, next] = await picks();
    await pickOne(house.pico, run, pick!, cart);
    const { bin } = pick!.step;
    const left = await house.inBin(bin, sku);
    const say = (units: number) =>
      house.pico.get('binLeft', { id: run, body: { pick: pick!.step.id, expected: left, units } });
    await say(left);
    expect(await house.inBin(bin, sku)).toBe(left);
    await say(left + 1);
    expect(await house.inBin(bin, sku)).toBe(left + 1);
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    const photo = (of: string) => ({ id: run, body: { pick: of, data: png } });
    expect((await house.pico.refused('keepPhoto', photo(next!.step.id))).code).toBe('not-found');
    await input(next!, { kind: 'short', units: 0, reason: 'damaged' });
    await house.pico.get('keepPhoto', photo(next!.step.id));
    const { counts } = await house.desk.get('counts');
    const name = counts.find((c) => c.bin === next!.step.bin)!.pictures[0]!.replace('own:', '');
    expect(name).toMatch(/^[0-9a-f]{24}$/);
  });
});
