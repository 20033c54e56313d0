import type { BenchOrder } from '@hand-relay/contract';
import type { Random } from '@hand-relay/core/random';
import { cartonTypes } from '../house.ts';
import type { ScenarioItem } from '../scenario.ts';
import type { Work } from './clock.ts';
import type { Person } from './person.ts';

/** Share of a carton's inside that is filled with goods before the next is opened. */
const FULL = 0.8;

export interface PackerOptions {
  bench: string;
  random: Random;
  /** What a packer sees and feels of the goods: their size and weight. */
  items: readonly ScenarioItem[];
  /** Orders that somebody has in hand, or for which a decision is owed: nobody else takes these. */
  taken: Set<string>;
}

/** Packs the carts that wait at a bench, the most urgent first, an order at a time into as many cartons as it takes. */
export async function* packer(person: Person, { bench, random, items, taken }: PackerOptions): Work {
  for (;;) {
    const { runs } = await person.ask('bench');
    const order = runs.flatMap((r) => r.orders).find((o) => o.packed < o.units && !taken.has(o.id));
    if (order) taken.add(order.id);
    yield order ? random.int(10, 25) : 90;
    if (order && (yield* packOrder(person, { bench, items }, order.id))) taken.delete(order.id);
  }
}

/** @returns whether anything was packed */
async function* packOrder(
  person: Person,
  { bench, items }: Pick<PackerOptions, 'bench' | 'items'>,
  id: string,
): AsyncGenerator<number, boolean> {
  const input = (what: object) => person.try('packInput', { id, body: { bench, input: what } });
  const read = (): Promise<BenchOrder> => person.ask('benchOrder', { id });
  let packed = false;
  for (;;) {
    const order = await read();
    const { loose, carton } = order.bench;
    if (loose.length === 0) return packed;
    const box = carton?.typeCode ?? order.proposed ?? 'BOX-XL';
    if (!carton) {
      await input({ kind: 'scan', text: box });
      yield 6;
    }
    const space = spaceIn(box);
    let some = false;
    let group: string | null = null;
    for (const { item, lot, serial, units: there } of loose) {
      const goods = items.find((i) => i.id === item.id)!;
      const units = serial ? 1 : Math.min(there, some ? space.fits(goods) : Math.max(1, space.fits(goods)));
      // Goods that must not travel with these wait for the next carton.
      if (units === 0 || (group !== null && item.group !== null && item.group !== group)) continue;
      const put = await input(serial ? { kind: 'scan', text: serial } : { kind: 'put', item: item.id, lot, units });
      yield 3 + Math.min(30, units * 0.8);
      if (put?.verdict !== 'put') continue;
      group ??= item.group;
      space.take(goods, units);
      some = true;
    }
    await input({ kind: 'scan', text: 'DO-CLOSE' });
    yield 14;
    if (!some) return packed;
    packed = true;
  }
}

/** What still goes into a carton by weight and by size. */
function spaceIn(box: string) {
  const { innerMm, maxWeightG } = cartonTypes.find((t) => t.code === box)!;
  let left = { g: maxWeightG as number, mm3: innerMm.reduce((v, mm) => v * mm, FULL) };
  const volume = ({ size }: ScenarioItem) => size.reduce((v, mm) => v * mm, 1);
  return {
    fits: (of: ScenarioItem) => Math.floor(Math.min(left.g / of.weightG, left.mm3 / volume(of))),
    take: (of: ScenarioItem, units: number) => {
      left = { g: left.g - of.weightG * units, mm3: left.mm3 - volume(of) * units };
    },
  };
}
