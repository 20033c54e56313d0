import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Relay } from '@hand-relay/server';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { seeded } from '@hand-relay/core/random';
import { carts, site } from '../house.ts';
import { workUntil, type ShiftClock, type Work } from './clock.ts';
import { dock, loaded, planned, readyFor } from './office.ts';
import { packer } from './packer.ts';
import { stacker } from './stacker.ts';
import { signIn, type Person } from './person.ts';
import { picker } from './picker.ts';
import { rosterAround } from './roster.ts';

const MINUTE = 60_000;

/** How long before it opens the shift began. */
export const SHIFT_MS = 215 * MINUTE;

const HANDHELD = 'Mozilla/5.0 (Linux; Android 14; Mobile) Chrome/130.0';
const DESKTOP = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/130.0';

/** What the desk does in the course of the shift, in minutes before the demo opens. */
async function* desk(person: Person, today: string, now: () => Date, opened: number): Work {
  /** Seconds until so many minutes before the opening. */
  const until = (minutes: number) => Math.max(0, (opened - minutes * MINUTE - now().getTime()) / 1000);
  await person.ask('changeSheet', { id: 'roster', body: { rows: rosterAround(opened) } });
  const express = (await readyFor(person, 'Skylark Day', today)).slice(0, 14);
  await person.ask('changeOrders', {
    body: {
      mode: 'change',
      changes: [{ orders: express.map((o) => o.id), set: { departure: 'Skylark Express', priority: 2 } }],
    },
  });
  const early = await loaded(person, {
    vehicle: 'Van 3.5 t',
    departure: 'Skylark Express',
    day: today,
    orders: express,
  });
  yield until(207);
  await person.ask('startWave', { id: await planned(person, express) });
  yield until(66);
  const van = (await readyFor(person, 'Van tour north', today)).slice(0, 10);
  await person.ask('startWave', { id: await planned(person, van) });
  await loaded(person, { vehicle: 'Truck 12 t', departure: 'Van tour north', day: today, orders: van });
  yield until(21);
  // It left with what was ready; the rest goes with the next.
  await person.try('closeLoad', { id: early });
  const pallets = (await readyFor(person, 'Fellhaul Pallet', today)).slice(0, 9);
  const freightWave = await planned(person, pallets);
  // Bram's device falls silent in the middle of this one.
  const [heavy] = (await person.ask('wave', { id: freightWave })).runs;
  if (heavy) await person.ask('assignRuns', { body: { runs: [heavy.id], person: 'bram' } });
  await person.ask('startWave', { id: freightWave });
  yield until(6);
  const parcels = await readyFor(person, 'Skylark Day', today);
  const wave = await planned(person, parcels.slice(0, 12));
  const { runs } = await person.ask('wave', { id: wave });
  // Pico and Suri are on runs when the demo opens, whoever was quicker before.
  for (const [i, who] of ['pico', 'suri'].entries())
    if (runs[i]) await person.ask('assignRuns', { body: { runs: [runs[i].id], person: who } });
  await person.ask('startWave', { id: wave });
  yield until(3);
  await planned(person, parcels.slice(12));
  const tomorrow = addDays(today, 1);
  const freight = await readyFor(person, 'Fellhaul Pallet', tomorrow);
  await loaded(person, { vehicle: 'Trailer 40 t', departure: 'Fellhaul Pallet', day: tomorrow, orders: freight });
  const next = await readyFor(person, 'Skylark Day', tomorrow);
  await person.ask('release', { body: { orders: next.slice(0, 10).map((o) => o.id) } });
}

/**
 * Plays the shift up to the opening: everybody does their part as they would on their devices, so that all that is seen
 * afterwards came about by the product's own rules. Waves are done, under way and planned, carts stand at benches,
 * shipments have left, and some things went wrong.
 *
 * @param relay a server filled with the scenario, whose departures are around the opening (`departuresAround`)
 * @param options the server's clock, and the instant at which the demo opens
 * @returns who is on a run when the demo opens, with a device that is heard
 */
export async function playShift(
  relay: Pick<Relay, 'app'>,
  { clock, opened }: { clock: ShiftClock; opened: Date },
): Promise<Person[]> {
  const until = opened.getTime();
  const began = until - SHIFT_MS;
  clock.set(began);
  const server = createServer(relay.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  try {
    const [maren, pico, suri, bram, ada, jory, len] = await Promise.all([
      signIn(base, 'maren', DESKTOP),
      ...(['pico', 'suri', 'bram'] as const).map((id) => signIn(base, id, HANDHELD)),
      ...(['ada', 'jory'] as const).map((id) => signIn(base, id, DESKTOP)),
      signIn(base, 'len', HANDHELD),
    ]);
    const taken = new Set<string>();
    const own = (of: number) => carts.filter((_, i) => i % 3 === of).map((c) => c.code);
    const at = (minutes: number) => until - minutes * MINUTE;
    const random = (n: number) => seeded(41 + n);
    await workUntil(until, clock, [
      { from: began, of: desk(maren, localDate(until, site.timeZone), clock.now, until) },
      { from: at(205), of: picker(pico, { random: random(1), carts: own(0), incidents: ['other-bin'] }) },
      { from: at(204), of: picker(suri!, { random: random(2), carts: own(1), incidents: ['short'] }) },
      {
        from: at(70),
        of: picker(bram!, {
          random: random(3),
          carts: own(2),
          incidents: ['damaged'],
          // In a corner without radio, with a run in hand.
          offline: () => clock.now().getTime() >= at(14),
        }),
      },
      // Ada has her break when the demo opens: carts wait.
      { from: at(180), to: at(15), of: packer(ada!, { bench: 'BENCH-1', random: random(4), taken }) },
      { from: at(4), of: packer(jory!, { bench: 'BENCH-3', random: random(5), taken }) },
      { from: at(25), to: at(5), of: stacker(jory!, { departure: 'Van tour north', type: 'Euro pallet' }) },
      { from: at(130), of: dock(len!, ['Skylark Express']) },
    ]);
    return [pico, suri!];
  } finally {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    clock.release();
  }
}
