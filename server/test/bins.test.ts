import type { BinRule } from '@hand-relay/core/walking/bins';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { takeIn } from './steps.ts';

let relay: TestRelay;
let desk: Person;
beforeAll(async () => {
  relay = await openTest();
  desk = await relay.as('maren');
  // One item alone in three bins: far and low with much, near and high with little, its home between.
  await relay.query(
    `update place set blocked = 'blocked' where id in (select place_id from balance b join item i on i.id = b.item_id where i.sku = 'BR-001')`,
  );
  for (const [bin, units] of [
    ['M-31-1', 60],
    ['F-01-4', 8],
    ['F-15-2', 30],
  ] as const)
    await desk.get('changeSheet', {
      id: 'stock',
      body: { rows: [{ bin, item: 'BR-001', units, lot: '', serial: '', best_before: null }] },
    });
  expect((await homeOf('BR-001')).errors).toEqual([]);
});
afterEach(() => checkBooks(relay, expect.getState().currentTestName ?? ''));
afterAll(() => relay.close());

/** Makes the bin between the others an item's home; lengths are told as a form tells them. */
async function homeOf(home: string) {
  const [row] = (await desk.get('sheetRows', { id: 'bins' })).rows.filter((r) => r['bin'] === 'F-15-2');
  const metres = (name: string) => String(Number(row![name]) / 100);
  const told = { ...row, aisle_x_m: metres('aisle_x_m'), y_m: metres('y_m'), home };
  return desk.get('changeSheet', { id: 'bins', body: { rows: [told] } });
}

let orders = 0;
/** Where five units of the item are taken from, and why, at a site that goes by these rules. */
async function taken(bins: BinRule[], quantity = 5): Promise<string[]> {
  await desk.get('changeSiteSettings', { body: { ...usualSettings, bins } });
  const order = await takeIn(desk, { number: `BINS-${++orders}`, lines: [['BR-001', quantity]] });
  const { wave } = await desk.get('release', { body: { orders: [order] } });
  await desk.get('planWave', { id: wave });
  const [run] = (await desk.get('wave', { id: wave })).runs;
  const { picks } = await desk.get('run', { id: run!.id });
  await desk.get('cancelWave', { id: wave });
  return picks.map((p) => `${p.step.units} ${p.step.bin} ${p.why}`).sort();
}

describe("bins by the site's own order of rules", () => {
  it.each<[BinRule[], string[]]>([
    [['home'], ['5 F-15-2 home']],
    [['reach'], ['5 M-31-1 reach']],
    [['remainder'], ['5 F-01-4 remainder']],
    [['walk'], ['5 F-01-4 walk']],
    [['whole', 'home', 'walk'], ['5 F-15-2 home']],
    [['age', 'reach'], ['5 M-31-1 age']],
    [[], ['5 F-01-4 code']],
  ])('%j takes %j', async (rules, expected) => expect(await taken(rules)).toEqual(expected));

  it('go on to the next bin where one does not hold all, and to one that does where the site wants it whole', async () => {
    expect(await taken(['remainder'], 12)).toEqual(['4 F-15-2 remainder', '8 F-01-4 remainder']);
    expect(await taken(['whole', 'remainder'], 12)).toEqual(['12 F-15-2 remainder']);
    expect(await taken(['whole', 'walk'], 35)).toEqual(['35 M-31-1 whole']);
  });

  it('say what the walk saves beside the bin that the other rules would take', async () => {
    await desk.get('changeSiteSettings', { body: { ...usualSettings, bins: ['walk', 'reach'] } });
    const order = await takeIn(desk, { number: 'BINS-SAVE', lines: [['BR-001', 5]] });
    const { wave } = await desk.get('release', { body: { orders: [order] } });
    await desk.get('planWave', { id: wave });
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const { picks } = await desk.get('run', { id: run!.id });
    // By its other rule the lowest level, far off in aisle M.
    expect(picks[0]).toMatchObject({ why: 'walk', step: { bin: 'F-01-4' } });
    expect(picks[0]!.saves).toBeGreaterThan(40);
    await desk.get('cancelWave', { id: wave });
  });

  it('refuse a rule that is there twice, and a home that is no item', async () => {
    expect(
      (await desk.refused('changeSiteSettings', { body: { ...usualSettings, bins: ['walk', 'walk'] } })).status,
    ).toBe(400);
    const { errors } = await homeOf('NO-SUCH');
    expect(errors).toMatchObject([{ column: 'home', value: 'NO-SUCH' }]);
  });
});

describe('what a site minds on the cart', () => {
  it('puts heavy goods first and chilled ones last, or goes the shortest way', async () => {
    const one = async (where: string) =>
      (
        await relay.query<{ sku: string }>(`select i.sku from item i where ${where} and not i.tracks_serial and exists (
        select 1 from stock_total t where t.item_id = i.id and t.site_id = 'larkmoor' and t.on_hand - t.reserved > 3) order by i.sku limit 1`)
      )[0]!.sku;
    const [heavy, chilled, easy] = [
      await one(`i.handling = 'heavy' and i.temperature = 'ambient'`),
      await one(`i.temperature = 'chilled' and i.handling = 'easy'`),
      await one(`i.handling = 'easy' and i.temperature = 'ambient' and i.sku <> 'BR-001'`),
    ];
    const walk = async (carry: typeof usualSettings.carry) => {
      await desk.get('changeSiteSettings', { body: { ...usualSettings, carry } });
      const order = await takeIn(desk, {
        number: `CARRY-${++orders}`,
        lines: [
          [chilled, 1],
          [easy, 1],
          [heavy, 1],
        ],
      });
      const { wave } = await desk.get('release', { body: { orders: [order] } });
      await desk.get('planWave', { id: wave });
      const [run] = (await desk.get('wave', { id: wave })).runs;
      const { picks } = await desk.get('run', { id: run!.id });
      await desk.get('cancelWave', { id: wave });
      return { skus: picks.map((p) => p.step.item.sku), metres: run!.metres, proven: run!.proven };
    };
    const minded = await walk({ heavyFirst: true, chilledLast: true, highTogether: false });
    expect(minded).toMatchObject({ skus: [heavy, easy, chilled], proven: true });
    const shortest = await walk(usualSettings.carry);
    expect(shortest.metres).toBeLessThanOrEqual(minded.metres);
  });
});
