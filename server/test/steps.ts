import type { BenchOrder, RunDetail } from '@hand-relay/contract';
import type { Person } from './relay.ts';

/** Releases, plans and starts a wave of these orders. */
export async function startWave(desk: Person, orders: string[]): Promise<string> {
  const { wave } = await desk.get('release', { body: { orders } });
  await desk.get('planWave', { id: wave });
  await desk.get('startWave', { id: wave });
  return wave;
}

/** Confirms a pick by scans, as a picker does: bin, goods, lot, place. */
export async function pickOne(
  picker: Person,
  run: string,
  pick: RunDetail['picks'][number],
  cart: string,
): Promise<void> {
  const input = (what: object) => picker.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
  await input({ kind: 'scan', text: pick.step.bin });
  if (pick.step.item.tracksSerial)
    for (const serial of pick.step.serialsInBin.slice(0, pick.step.units)) await input({ kind: 'scan', text: serial });
  else await input({ kind: 'count', units: pick.step.units });
  if (pick.step.item.tracksLot) await input({ kind: 'scan', text: pick.step.lot! });
  const done = await input({ kind: 'scan', text: `${cart}-${pick.step.position.number}` });
  if (done.verdict !== 'done') throw new Error(`The pick is not done: ${JSON.stringify(done)}`);
}

/** Takes a run, picks all of it and leaves it in a lane. */
export async function pickAll(picker: Person, run: string, cart: string): Promise<RunDetail> {
  const taken = await picker.get('takeRun', { id: run, body: { cart } });
  for (const pick of taken.picks) await pickOne(picker, run, pick, cart);
  await picker.get('leaveRun', { id: run, body: { lane: 'LANE-2' } });
  return taken;
}

/** Packs all that waits of an order into one carton and closes it; goods that must not travel together get a second. */
export async function packAll(packer: Person, order: string): Promise<BenchOrder> {
  const input = (what: object) => packer.get('packInput', { id: order, body: { bench: 'BENCH-1', input: what } });
  for (;;) {
    const { bench } = await packer.get('benchOrder', { id: order });
    if (bench.loose.length === 0) break;
    await input({ kind: 'scan', text: 'BOX-XL' });
    for (const l of bench.loose)
      await input(
        l.serial ? { kind: 'scan', text: l.serial } : { kind: 'put', item: l.item.id, lot: l.lot, units: l.units },
      );
    await input({ kind: 'scan', text: 'DO-CLOSE' });
  }
  return packer.get('benchOrder', { id: order });
}

export interface Wanted {
  number: string;
  /** SKU, units, what they are counted in, and the number of the line. */
  lines: [sku: string, quantity: number, pack?: 'unit' | 'inner' | 'outer', line?: number][];
  customer?: string;
  reference?: string;
  channel?: string;
  kind?: string;
  priority?: number;
  shipComplete?: boolean;
  link?: string;
  tags?: string[];
  /** Tomorrow, without it. */
  due?: string;
}

/** Takes in one order and answers with its id. */
export async function takeIn(desk: Person, { number, lines, ...more }: Wanted): Promise<string> {
  const order = {
    number,
    channel: 'web',
    customer: 'C1030',
    due: new Date(Date.now() + 86_400_000).toISOString().slice(0, 10),
    shipTo: { name: 'Juniper Orchards', street: '5 Weir Street', postcode: 'ZA1 2BC', city: 'Dunmere', country: 'GB' },
    lines: lines.map(([sku, quantity, pack = 'unit', line], i) => ({ line: line ?? i + 1, sku, quantity, pack })),
    ...more,
  };
  await desk.get('intake', { body: { mode: 'take', orders: [order] } });
  return (await desk.get('find', { query: { code: `ORDER-${number}` } })).id!;
}

/** From a released order to goods that stand on a cart at the bench. */
export async function pickedOrder(desk: Person, picker: Person, cart: string, wanted: Wanted): Promise<string> {
  const order = await takeIn(desk, wanted);
  const wave = await startWave(desk, [order]);
  const { runs } = await desk.get('wave', { id: wave });
  for (const run of runs) await pickAll(picker, run.id, cart);
  return order;
}
