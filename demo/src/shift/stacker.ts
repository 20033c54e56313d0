import type { Work } from './clock.ts';
import type { Person } from './person.ts';

/** Cartons that a pallet is worth building for, and how many of the last pallet are still to come when it is left. */
const WORTH = 8;
const LEFT = 4;

/** Builds pallets of what stands packed for a departure, as planned; the last one is left half way. */
export async function* stacker(person: Person, { departure, type }: { departure: string; type: string }): Work {
  let built = 0;
  for (;;) {
    const { groups, types } = await person.ask('pallets');
    const orders = groups.filter((g) => g.departure?.name === departure).flatMap((g) => g.orders);
    const pallet = types.find((t) => t.name === type);
    if (!pallet || orders.reduce((n, o) => n + o.cartons, 0) < WORTH) {
      yield 120;
      continue;
    }
    const station = 'BENCH-3';
    const body = { type: pallet.id, orders: orders.map((o) => o.id), station };
    const { id, pallets } = await person.ask('openPallet', { body });
    const { places } = await person.ask('pallet', { id });
    yield 60;
    // There is always a pallet under way when the demo opens.
    const last = pallets === 1 || built > 0;
    built += 1;
    for (const { sscc } of last ? places.slice(0, -LEFT) : places) {
      await person.try('stackInput', { id, body: { text: sscc, station } });
      yield 14;
    }
    if (last) return;
    await person.ask('stackInput', { id, body: { text: 'DO-CLOSE', station } });
    yield 30;
  }
}
