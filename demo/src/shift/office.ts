import { orderRowFields, type OrderRow } from '@hand-relay/contract';
import type { Work } from './clock.ts';
import type { Person } from './person.ts';

/** Open orders of which all can go now and nothing is released, with a departure of today. */
export async function readyFor(desk: Person, departure: string, today: string): Promise<OrderRow[]> {
  const { rows } = await desk.ask('orders');
  return rows
    .map((row) => Object.fromEntries(row.map((value, i) => [orderRowFields[i], value])) as unknown as OrderRow)
    .filter((o) => o.departure === departure && o.due === today && o.released === 0 && o.coveredLines === o.lines);
}

/** Releases orders as a wave and plans it. */
export async function planned(desk: Person, orders: OrderRow[]): Promise<string> {
  const { wave } = await desk.ask('release', { body: { orders: orders.map((o) => o.id) } });
  await desk.ask('planWave', { id: wave });
  return wave;
}

/** Plans a load for a departure of a day with as many of these orders as its vehicle takes. */
export async function loaded(
  desk: Person,
  { vehicle, departure, day, orders }: { vehicle: string; departure: string; day: string; orders: OrderRow[] },
): Promise<string> {
  const { id } = await desk.ask('planLoad', { body: { vehicle, departure, day } });
  await desk.ask('fillLoad', { id, body: { add: orders.map((o) => o.id), whatFits: true } });
  return id;
}

/** Confirms what stands packed, whole orders alone, with the number of its carrier where it has one. */
export async function* dock(person: Person, departures: readonly string[]): Work {
  for (;;) {
    const { shipments } = await person.ask('dock');
    const next = shipments.find(
      (s) =>
        s.departure && departures.includes(s.departure) && s.packed === s.asked && s.openCartons === 0 && s.cartons > 0,
    );
    if (!next) {
      yield 120;
      continue;
    }
    if (next.carrier) await person.try('tracking', { id: next.shipment, body: { from: 'carrier' } });
    yield 12;
    await person.try('confirm', { id: next.shipment, body: {} });
    yield 20;
  }
}
