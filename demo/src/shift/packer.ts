import type { BenchOrder } from '@hand-relay/contract';
import type { Random } from '@hand-relay/core/random';
import type { Work } from './clock.ts';
import type { Person } from './person.ts';

export interface PackerOptions {
  bench: string;
  random: Random;
  /** Orders that somebody has in hand, or for which a decision is owed: nobody else takes these. */
  taken: Set<string>;
}

/** Grams by which units weigh more than they are entered with: their maker fills more. */
const HEAVIER = new Map([['item-fd-005', 150]]);

/** Packs the carts that wait at a bench, the most urgent first, an order at a time into the cartons that the plan shows. */
export async function* packer(person: Person, options: PackerOptions): Work {
  const { random, taken } = options;
  for (;;) {
    const { runs } = await person.ask('bench');
    const order = runs.flatMap((r) => r.orders).find((o) => o.packed < o.units && !taken.has(o.id));
    if (order) taken.add(order.id);
    yield order ? random.int(10, 25) : 90;
    if (order && (yield* packOrder(person, options, order.id))) taken.delete(order.id);
  }
}

/** @returns whether anything was packed */
async function* packOrder(
  person: Person,
  { bench, random }: PackerOptions,
  id: string,
): AsyncGenerator<number, boolean> {
  const input = (what: object) => person.try('packInput', { id, body: { bench, input: what } });
  const read = (): Promise<BenchOrder> => person.ask('benchOrder', { id });
  /** Puts the carton in hand on the scale, and counts again where that shows another weight than expected. */
  const weigh = async () => {
    const { bench: there, cartons } = await read();
    const { carton } = there;
    if (!carton || carton.contents.length === 0) return;
    // What its goods are entered with, before anything was learnt.
    const entered = cartons.find((c) => c.id === carton.id)!.weightG;
    const more = carton.contents.reduce((n, c) => n + c.units * (HEAVIER.get(c.item) ?? 0), 0);
    const grams = entered + more + random.int(-8, 8);
    const done = await input({ kind: 'weigh', grams });
    if (done?.verdict === 'weigh' && !done.asExpected) await input({ kind: 'close', reason: 'counted' });
  };
  let packed = false;
  for (;;) {
    const { loose, carton } = (await read()).bench;
    if (loose.length === 0) return packed;
    const { cartons } = await person.ask('packPlan', { id });
    const next = cartons[0];
    if (!next) return packed;
    if (!carton) {
      await input({ kind: 'scan', text: next.code });
      yield 6;
    }
    // As the drawing shows it, less what is in there already.
    const wanted = new Map<string, number>();
    for (const { item } of next.places) wanted.set(item, (wanted.get(item) ?? 0) + 1);
    for (const { item, units } of carton?.contents ?? []) wanted.set(item, (wanted.get(item) ?? 0) - units);
    let some = false;
    for (const { item, lot, serial, units: there } of loose) {
      const units = Math.min(there, wanted.get(item.id) ?? 0);
      if (units <= 0) continue;
      const put = await input(serial ? { kind: 'scan', text: serial } : { kind: 'put', item: item.id, lot, units });
      yield 3 + Math.min(30, units * 0.8);
      if (put?.verdict !== 'put') continue;
      wanted.set(item.id, wanted.get(item.id)! - units);
      some = true;
    }
    await weigh();
    await input({ kind: 'scan', text: 'DO-CLOSE' });
    yield 14;
    if (!some) return packed;
    packed = true;
  }
}
