import { usualSettings, type SiteSettings } from '@hand-relay/core/deciding/settings';
import { checkBooks } from './books.ts';
import { readPdf } from './pdf.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickedOrder } from './steps.ts';

describe('a carton that is closed', () => {
  let relay: TestRelay;
  let [desk, picker, packer] = [] as unknown as [Person, Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('ada')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const at = (order: string) => ({
    scan: (text: string) =>
      packer.get('packInput', { id: order, body: { bench: 'BENCH-1', input: { kind: 'scan', text } } }),
    put: (item: string, units: number) =>
      packer.get('packInput', {
        id: order,
        body: { bench: 'BENCH-1', input: { kind: 'put', item, lot: null, units } },
      }),
    state: () => packer.get('benchOrder', { id: order }),
  });

  describe('what a closed carton prints by itself', () => {
    const by = (settings: Partial<SiteSettings>) =>
      desk.get('changeSiteSettings', { body: { ...usualSettings, ...settings } });
    afterAll(() => by({}));
    const printed = async (number: string) =>
      (await desk.get('printJobs', { query: {} })).jobs
        .filter((j) => j.title.endsWith(number))
        .map((j) => j.title)
        .reverse();
    /** A carton with units of the order, closed twice under one key. */
    const close = async (order: string, key: string, units = 1) => {
      await at(order).scan('BOX-S');
      await at(order).put('item-ht-001', units);
      const asked = { id: order, body: { bench: 'BENCH-1', input: { kind: 'scan' as const, text: 'DO-CLOSE' } }, key };
      const [first, again] = [await packer.get('packInput', asked), await packer.get('packInput', asked)];
      expect(again).toEqual(first);
      return first;
    };
    const order = (cart: string, number: string, more = {}) =>
      pickedOrder(desk, picker, cart, { number, lines: [['HT-001', 3]], ...more });
    const wordsOf = async (job: string) => {
      const jobs = (await desk.get('printJobs', { query: {} })).jobs;
      const { body } = await desk.ask('printJobPdf', { id: jobs.find((j) => j.title === job)!.id });
      return (await readPdf(body as Buffer)).texts.join('\n');
    };

    it('is its label, once, where its bench has a printer and the site wants it', async () => {
      const id = await order('CART-21', 'B-PRINT');
      expect(await close(id, 'close-1')).toMatchObject({ verdict: 'close', printer: 'LABEL-1', slipPrinter: null });
      expect(await printed('B-PRINT')).toEqual(['Label, carton 1 of B-PRINT']);
      await by({ labels: 'hand' });
      expect(await close(id, 'close-2')).toMatchObject({ verdict: 'close', printer: null });
      await by({});
      expect(await printed('B-PRINT')).toHaveLength(1);
      expect(await wordsOf('Label, carton 1 of B-PRINT')).not.toContain('1 of');
    });

    it('is all labels together with the last carton, each with how many there are, and the slip', async () => {
      await by({ labels: 'all', slips: 'last' });
      const id = await order('CART-19', 'B-ALL');
      expect(await close(id, 'all-1')).toMatchObject({ printer: null, slipPrinter: null });
      expect(await printed('B-ALL')).toEqual([]);
      const last = await close(id, 'all-2', 2);
      expect(last.printer).toBe('LABEL-1');
      expect(last.slipPrinter).toEqual(expect.any(String));
      expect(await printed('B-ALL')).toEqual(['Label, carton 1 of B-ALL', 'Label, carton 2 of B-ALL']);
      for (const n of [1, 2]) expect(await wordsOf(`Label, carton ${n} of B-ALL`)).toContain(`${n} of 2`);
      const [shipment] = await relay.query<{ number: string }>(
        `select s.number from shipment s join customer_order o on o.id = s.order_id where o.number = 'B-ALL'`,
      );
      const slip = await wordsOf(`Packing slip ${shipment!.number}`);
      for (const { sscc } of (await at(id).state()).cartons) expect(slip).toContain(sscc);
    });

    it('is a slip in the first carton that lists what is still to come', async () => {
      await by({ labels: 'hand', slips: 'first' });
      const id = await order('CART-17', 'B-AHEAD', { note: 'Careful, rang twice' });
      expect((await close(id, 'ahead-1')).slipPrinter).toEqual(expect.any(String));
      const [shipment] = await relay.query<{ number: string }>(
        `select s.number from shipment s join customer_order o on o.id = s.order_id where o.number = 'B-AHEAD'`,
      );
      const slip = await wordsOf(`Packing slip ${shipment!.number}`);
      expect(slip).toMatch(/HT-001.*3 piece +3 /s);
      // Notes are for those who pick and pack; the country is written out.
      expect(slip).not.toContain('Careful');
      expect(slip).toContain('Dunmere United Kingdom');
      expect(slip).not.toContain((await at(id).state()).cartons[0]!.sscc);
      expect((await close(id, 'ahead-2', 2)).slipPrinter).toBeNull();
      expect(await printed(shipment!.number)).toHaveLength(1);
    });
  });

  it('with chilled or dangerous goods has a second label that says so, with goods and lots', async () => {
    const { rows } = await desk.get('sheetRows', { id: 'items', query: {} });
    const item = (sku: string) => rows.find((r) => r['item'] === sku)!;
    const hazard = 'UN 3261 Corrosive solid, acidic, organic, n.o.s., 8';
    const changed = [
      { ...item('AC-002'), hazard },
      { ...item('HT-003'), temperature: 'chilled' },
    ];
    await desk.get('changeSheet', { id: 'items', body: { rows: changed as never[] } });
    const pagesOf = async (number: string, lines: [string, number][]) => {
      const id = await pickedOrder(desk, picker, 'CART-15', { number, lines });
      const { cartons } = await packAll(packer, id);
      const { job } = await packer.get('print', {
        body: { kind: 'carton-label', of: cartons[0]!.id, station: 'BENCH-1' },
      });
      const { texts } = await readPdf((await packer.ask('printJobPdf', { id: job })).body as Buffer);
      const zpl = String((await packer.ask('printJobZpl', { id: job })).text);
      expect(zpl.match(/\^XA/g)).toHaveLength(texts.length);
      return { texts, lots: cartons[0]!.contents.map((c) => c.lot), sscc: cartons[0]!.sscc! };
    };
    expect((await pagesOf('B-PLAIN', [['HT-001', 1]])).texts).toHaveLength(1);
    const acid = await pagesOf('B-ACID', [['AC-002', 2]]);
    expect(acid.texts).toHaveLength(2);
    for (const word of ['UN 3261', 'AC-002', '2 bottle', acid.lots[0]!, acid.sscc])
      expect(acid.texts[1]).toContain(word);
    expect(acid.texts[1]).not.toContain('Keep cold');
    const cold = await pagesOf('B-COLD', [
      ['HT-003', 1],
      ['HT-001', 1],
    ]);
    expect(cold.texts[1]).toContain('Keep cold');
    expect(cold.texts[1]).not.toContain('HT-001');
  });

  it('confirms a closed carton in its lane by a scan of the lane, where the site wants it', async () => {
    const id = await pickedOrder(desk, picker, 'CART-16', { number: 'B-LANE', lines: [['HT-001', 2]] });
    const bench = at(id);
    await bench.scan('BOX-S');
    await bench.put('item-ht-001', 2);
    await bench.scan('DO-CLOSE');
    // Nothing to confirm where nobody asks for it.
    expect(await bench.state()).toMatchObject({ bench: { toLane: null } });
    expect(await bench.scan('LANE-2')).toMatchObject({ verdict: 'refused', code: 'nothing-for-lane' });
    await desk.get('changeSiteSettings', { body: { ...usualSettings, confirmLane: true } });
    const { lane } = await bench.state();
    const wrong = lane === 'LANE-1' ? 'LANE-2' : 'LANE-1';
    expect((await bench.state()).bench.toLane).toMatchObject({ lane, cartons: [{ number: 1 }] });
    expect(await bench.scan(wrong)).toMatchObject({
      verdict: 'refused',
      code: 'other-lane',
      expected: lane,
      got: wrong,
    });
    expect(await bench.scan(lane!.toLowerCase())).toMatchObject({ verdict: 'stand', lane });
    const stands = await bench.state();
    expect([stands.bench.toLane, stands.cartons[0]!.inLane]).toEqual([null, lane]);
    const { entries } = await desk.get('trail', { id });
    expect(entries.find((e) => e.kind === 'carton-in-lane')!.facts).toMatchObject({ cartons: [1], lane });
    // Opened again it stands on the bench.
    await packer.get('reopenCarton', { id: stands.cartons[0]!.id, body: { bench: 'BENCH-1' } });
    await bench.scan('DO-CLOSE');
    expect((await bench.state()).bench.toLane).toMatchObject({ lane });
    await desk.get('changeSiteSettings', { body: usualSettings });
  });
});
