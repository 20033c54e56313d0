import type { RunDetail } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave, takeIn, type Wanted } from './steps.ts';

export type Pick = RunDetail['picks'][number];

/** A house with a supervisor and two pickers, opened before a file's tests; its books are checked after each. */
export function floorHouse() {
  const house = {} as { relay: TestRelay; desk: Person; pico: Person; suri: Person };
  let made = 0;
  beforeAll(async () => {
    const relay = await openTest();
    const [desk, pico, suri] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('suri')]);
    Object.assign(house, { relay, desk, pico, suri });
  });
  afterAll(() => house.relay.close());
  afterEach(() => checkBooks(house.relay, expect.getState().currentTestName!));

  /** A run of these orders, taken by Pico with a cart of its own. */
  async function taken(...orders: Wanted['lines'][]) {
    const cart = `CART-${String(++made).padStart(2, '0')}`;
    const ids: string[] = [];
    for (const [i, lines] of orders.entries()) ids.push(await takeIn(house.desk, { number: `F-${made}-${i}`, lines }));
    const wave = await startWave(house.desk, ids);
    const { runs } = await house.desk.get('wave', { id: wave });
    const run = runs[0]!.id;
    await house.pico.get('takeRun', { id: run, body: { cart } });
    const picks = async () => (await house.pico.get('run', { id: run })).picks;
    const input = (pick: Pick, what: object) =>
      house.pico.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
    return { cart, ids, run, wave, picks, input };
  }

  /** An item without lot or serial number that lies in several bins, and how much in each. */
  async function inBins(least: number): Promise<{ sku: string; id: string; bins: { code: string; units: number }[] }> {
    const [found] = await house.relay.query<{ sku: string; id: string; bins: { code: string; units: number }[] }>(`
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
      await house.relay.query<{ units: number }>(
        `select coalesce(sum(b.units), 0)::int as units from balance b join place p on p.id = b.place_id join item i on i.id = b.item_id where p.code = '${bin}' and i.sku = '${sku}'`,
      )
    )[0]!.units;

  return Object.assign(house, { taken, inBins, inBin });
}
