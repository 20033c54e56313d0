import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { PackInput, WeightReason } from '@hand-relay/core/handling/packing';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickedOrder } from './steps.ts';

let relay: TestRelay;
let [desk, picker, packer] = [] as unknown as [Person, Person, Person];
beforeAll(async () => {
  relay = await openTest();
  [desk, picker, packer] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('ada')]);
});
afterAll(() => relay.close());
afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

/** An order at the bench, packed with the carton in hand that is named. */
async function atBench(cart: string, number: string, lines: [string, number][]) {
  const id = await pickedOrder(desk, picker, cart, { number, lines });
  const input = (what: PackInput, carton?: string) =>
    packer.get('packInput', { id, body: { bench: 'BENCH-1', input: what, ...(carton ? { carton } : {}) } });
  return {
    id,
    scan: (text: string, carton?: string) => input({ kind: 'scan', text }, carton),
    put: (
      item: string,
      units: number,
      { lot = null as string | null, carton = undefined as string | undefined } = {},
    ) => input({ kind: 'put', item, lot, units }, carton),
    weigh: (grams: number) => input({ kind: 'weigh', grams }),
    close: (reason: WeightReason) => input({ kind: 'close', reason }),
    state: () => packer.get('benchOrder', { id }),
  };
}

const weighing = (how: 'never' | 'optional' | 'always') =>
  desk.get('changeSiteSettings', { body: { ...usualSettings, weighing: how } });

describe('several open cartons of one order', () => {
  it('are filled by turns, goods go from one into another, and each closes under its own number', async () => {
    const bench = await atBench('CART-01', 'W-1', [
      ['JR-003', 6],
      ['HT-001', 2],
    ]);
    const first = (await bench.scan('BOX-M')).carton!;
    await bench.put('item-jr-003', 4);
    const second = await bench.scan('BOX-S');
    expect(second).toMatchObject({ verdict: 'open', number: 2 });
    // Without a carton that is named, the one that was opened last is in hand.
    expect(await bench.put('item-ht-001', 1)).toMatchObject({ carton: second.carton });
    expect(await bench.put('item-jr-003', 2, { carton: first })).toMatchObject({ carton: first });
    expect(await bench.scan('DO-OTHER', second.carton)).toMatchObject({ verdict: 'take', carton: first, number: 1 });
    const inside = async () =>
      (await bench.state()).cartons.map((c) => c.contents.map(({ sku, units }) => `${units} ${sku}`).join(', '));
    expect(await inside()).toEqual(['6 JR-003', '1 HT-001']);
    const goods = { item: 'item-jr-003', lot: '', serial: '' };
    const move = (units: number, from: string, to: string) => ({ id: from, body: { ...goods, units, to } }) as const;
    await packer.get('moveGoods', move(5, first, second.carton!));
    expect(await inside()).toEqual(['1 JR-003', '1 HT-001, 5 JR-003']);
    expect((await packer.refused('moveGoods', move(2, first, second.carton!))).facts).toEqual({ units: 1 });
    expect((await packer.refused('moveGoods', move(1, first, first))).status).toBe(404);
    // Packed twice in the journal, moved once: the line knows six.
    expect((await bench.state()).lines.find((l) => l.sku === 'JR-003')).toMatchObject({ picked: 6, packed: 6 });
    const closed = [await bench.scan('DO-CLOSE', first), await bench.scan('DO-CLOSE', second.carton)];
    expect(new Set(closed.map((c) => c.sscc)).size).toBe(2);
    expect((await packer.refused('moveGoods', move(1, first, second.carton!))).code).toBe('carton-closed');
    const { entries } = await desk.get('trail', { id: bench.id });
    expect(entries.find((e) => e.kind === 'repacked')?.facts).toMatchObject({ carton: 1, into: 2, units: 5 });
    // Both are opened again side by side; their labels are void, and say so.
    for (const { carton } of closed) await packer.get('reopenCarton', { id: carton!, body: { bench: 'BENCH-1' } });
    const state = await bench.state();
    expect([state.bench.carton!.number, ...state.bench.others.map((c) => c.number)]).toEqual([2, 1]);
    expect(await packer.get('find', { query: { code: closed[0]!.sscc! } })).toMatchObject({
      kind: 'void',
      name: '1 · W-1',
      orders: [bench.id],
    });
    expect(await picker.get('lookUp', { query: { code: closed[1]!.sscc! } })).toEqual({
      kind: 'void',
      name: '2 · W-1',
    });
    const again = await bench.scan('DO-CLOSE', first);
    expect(closed.map((c) => c.sscc)).not.toContain(again.sscc);
  });

  it('keep acid from food when goods are moved', async () => {
    const bench = await atBench('CART-02', 'W-2', [
      ['AC-001', 1],
      ['PP-002', 2],
    ]);
    const { loose } = (await bench.state()).bench;
    const [acid, paste] = ['AC-001', 'PP-002'].map((sku) => loose.find((l) => l.item.sku === sku)!);
    const first = (await bench.scan('BOX-M')).carton!;
    await bench.put(acid!.item.id, 1, { lot: acid!.lot });
    const second = (await bench.scan('BOX-M')).carton!;
    await bench.put(paste!.item.id, 2, { lot: paste!.lot });
    const refused = await packer.refused('moveGoods', {
      id: first,
      body: { item: acid!.item.id, lot: acid!.lot!, serial: '', units: 1, to: second },
    });
    expect(refused).toMatchObject({ code: 'keep-apart', facts: { expected: paste!.item.name, got: acid!.item.name } });
    for (const carton of [first, second]) await bench.scan('DO-CLOSE', carton);
  });
});

describe('the weight of a carton', () => {
  it('that is not expected keeps it open until somebody says why; what was learnt and shipped follows the reason', async () => {
    const bench = await atBench('CART-03', 'W-3', [['JR-001', 12]]);
    await bench.scan('BOX-M');
    await bench.put('item-jr-001', 6);
    const { weight } = (await bench.state()).bench.carton!;
    expect(await bench.weigh(weight.expectedG + weight.toleranceG + 1)).toMatchObject({ asExpected: false });
    const off = await bench.scan('DO-CLOSE');
    expect(off).toMatchObject({ code: 'weight-off', expected: String(weight.expectedG), units: weight.toleranceG });
    // What is changed in it is weighed again.
    await bench.put('item-jr-001', 1);
    expect((await bench.state()).bench.carton!.weight.measuredG).toBeNull();
    const more = (await bench.state()).bench.carton!.weight;
    expect(more.expectedG).toBeGreaterThan(weight.expectedG);
    await bench.weigh(40);
    expect(await bench.close('scale')).toMatchObject({ verdict: 'close' });
    const [lying] = (await bench.state()).cartons;
    // The scale is wrong: what the goods are entered with is what it weighs, and nothing is learnt.
    expect(lying).toMatchObject({ state: 'closed', weightG: more.expectedG });
    expect(await relay.query('select * from item_weight')).toEqual([]);
    await bench.scan('BOX-M');
    await bench.put('item-jr-001', 5);
    const right = (await bench.state()).bench.carton!.weight.expectedG + 3;
    await bench.weigh(right);
    await bench.scan('DO-CLOSE');
    expect((await bench.state()).cartons.at(-1)).toMatchObject({ state: 'closed', weightG: right });
    expect(await relay.query('select cartons from item_weight')).toEqual([{ cartons: 1 }]);
    const { entries } = await desk.get('trail', { id: bench.id });
    const told = entries.filter((e) => e.kind === 'carton-closed').map((e) => e.facts['weightReason'] ?? null);
    expect(told.sort()).toEqual(['scale', null].sort());
  });

  it('is measured first where the site wants it always', async () => {
    await weighing('always');
    const bench = await atBench('CART-04', 'W-4', [['JR-002', 2]]);
    await bench.scan('BOX-S');
    await bench.put('item-jr-002', 2);
    expect(await bench.scan('DO-CLOSE')).toMatchObject({ verdict: 'refused', code: 'weigh-first' });
    await bench.weigh((await bench.state()).bench.carton!.weight.expectedG);
    expect(await bench.scan('DO-CLOSE')).toMatchObject({ verdict: 'close' });
    await weighing('optional');
  });

  it('of an item that is always off is proposed, entered by one key, and learnt from the beginning', async () => {
    const [item] = await relay.query<{ id: string; weight: number }>(
      "select id, weight_g as weight from item where sku = 'JR-003'",
    );
    const bench = await atBench('CART-05', 'W-5', [['JR-003', 24]]);
    const heavier = Math.round(item!.weight * 1.2);
    for (let n = 0; n < 12; n++) {
      await bench.scan('BOX-S');
      await bench.put(item!.id, 2);
      const [{ tare } = { tare: 0 }] = await relay.query<{ tare: number }>(
        "select tare_g as tare from carton_type where code = 'BOX-S'",
      );
      await bench.weigh(tare + 2 * heavier);
      if ((await bench.scan('DO-CLOSE')).verdict === 'refused') await bench.close('counted');
    }
    const { items } = await desk.get('itemWeights');
    expect(items).toMatchObject([{ id: item!.id, enteredG: item!.weight, cartons: 12 }]);
    // Twelve cartons of two bring it most of the way.
    expect(Math.abs(items[0]!.properG - heavier)).toBeLessThan((heavier - item!.weight) / 5);
    const body = { weightG: items[0]!.properG, before: item!.weight + 1 };
    const late = await desk.refused('correctItemWeight', { id: item!.id, body });
    expect(late).toMatchObject({ code: 'item-changed', facts: { weight: item!.weight } });
    await desk.get('correctItemWeight', { id: item!.id, body: { ...body, before: item!.weight } });
    expect((await desk.get('itemWeights')).items).toEqual([]);
    expect((await packer.refused('itemWeights')).status).toBe(403);
  });
});

describe('a scale', () => {
  let scale: Server;
  const shows = { answer: '' };
  beforeAll(async () => {
    scale = createServer((_, res) => (shows.answer === 'nothing' ? undefined : res.end(shows.answer)));
    await new Promise<void>((resolve) => scale.listen(0, '127.0.0.1', resolve));
  });
  afterAll(() => {
    scale.closeAllConnections();
    scale.close();
  });

  const at = (address: string) =>
    desk.get('changeSheet', {
      id: 'places',
      body: { rows: [{ place: 'BENCH-2', kind: 'bench', name: 'Bench 2', scale: address }] },
    });
  const refusal = async () => (await packer.refused('scale', { query: { bench: 'BENCH-2' } })).code;

  it('is asked at its address; one that is unsteady, wrong or silent says what to do', async () => {
    await at('');
    expect(await refusal()).toBe('no-scale');
    await at(`http://127.0.0.1:${(scale.address() as AddressInfo).port}/weight`);
    shows.answer = '{"grams": 1234.4, "steady": true}';
    expect(await packer.get('scale', { query: { bench: 'BENCH-2' } })).toEqual({ grams: 1234 });
    shows.answer = '{"grams": 1234, "steady": false}';
    expect(await refusal()).toBe('scale-unsteady');
    for (const answer of ['{"weight": 3}', '<html>', 'nothing']) {
      shows.answer = answer;
      expect(await refusal()).toBe('scale-silent');
    }
    expect((await packer.refused('scale', { query: { bench: 'BENCH-77' } })).code).toBe('unknown-bench');
  });

  it('that ships with the product shows what was put on it, and fails as real ones do', async () => {
    await at('stand-in');
    const set = (grams: number, mode: 'steady' | 'unsteady' | 'silent') =>
      desk.get('setStandinScale', { body: { bench: 'BENCH-2', grams, mode } });
    await set(5230, 'steady');
    expect(await packer.get('scale', { query: { bench: 'BENCH-2' } })).toEqual({ grams: 5230 });
    await set(5230, 'unsteady');
    expect(await refusal()).toBe('scale-unsteady');
    await set(5230, 'silent');
    expect(await refusal()).toBe('scale-silent');
    const { scales } = await desk.get('standinScales');
    expect(scales.find((s) => s.bench === 'BENCH-2')).toEqual({
      bench: 'BENCH-2',
      grams: 5230,
      mode: 'silent',
      used: true,
    });
  });
});
