import { BadSetting, openRelay, run } from '@hand-relay/server';
import { onlyAtDepot } from './depot.ts';
import { localDate } from '@hand-relay/core/calendar';
import { people, PASSWORD, PIN, site } from './house.ts';
import { isFilled, loadScenario } from './load.ts';
import { writeLastMonth } from './past/index.ts';
import { departuresAround, playShift, ShiftClock, SHIFT_MS, type Person } from './shift/index.ts';

/** How many times the demo's orders and stock are wanted: DEMO_SIZE, 1 without it. */
function sizeFactor(env: NodeJS.ProcessEnv): number {
  const size = Number(env['DEMO_SIZE'] ?? 1);
  if (!Number.isInteger(size) || size < 1 || size > 100)
    throw new BadSetting(`DEMO_SIZE must be a whole number from 1 to 100, received "${env['DEMO_SIZE']}".`);
  return size;
}

/** Whether the demo opens in mid-shift: DEMO_SHIFT=off leaves everything to be done. */
function inMidShift(env: NodeJS.ProcessEnv): boolean {
  const wanted = env['DEMO_SHIFT'] ?? 'on';
  if (wanted !== 'on' && wanted !== 'off') throw new BadSetting(`DEMO_SHIFT must be on or off, received "${wanted}".`);
  return wanted === 'on';
}

/** Who is on a run when the demo opens: their devices stay heard. */
let onTheFloor: Person[] = [];

/** Starts the demo: fills an empty database with the scenario and plays the morning's work, then serves it. */
await run(
  // The demo's host system and carriers are stand-ins.
  { STANDINS: 'on', ...process.env },
  async (options) => {
    const clock = new ShiftClock();
    const relay = await openRelay({ ...options, clock: clock.now });
    try {
      if (!(await isFilled(relay.platform.db))) {
        const opened = new Date();
        const size = sizeFactor(process.env);
        if (!inMidShift(process.env)) await loadScenario(relay.platform.db, opened, { size });
        else {
          await loadScenario(relay.platform.db, new Date(opened.getTime() - SHIFT_MS), {
            size,
            today: localDate(opened.getTime(), site.timeZone),
            departures: departuresAround(opened),
          });
          await writeLastMonth(relay.platform.db);
          console.log("Playing the morning's work: up to a minute …");
          onTheFloor = await playShift(relay, { clock, opened });
        }
      }
    } catch (error) {
      await relay.close();
      throw error;
    }
    return relay;
  },
  (address) => {
    // Over a secure address a stand-in does not know the certificate: nobody stays heard there.
    if (address.startsWith('http://')) for (const person of onTheFloor) person.stay(address);
    console.log(`\nHand Relay is at ${address}\n`);
    console.log(`Who can sign in, with the password ${PASSWORD}:`);
    for (const p of people) if (p.login) console.log(`  ${p.login.padEnd(12)} ${p.name}, ${p.roles.join(' and ')}`);
    console.log(`\nOr by badge, with the PIN ${PIN}:`);
    for (const p of people) if (p.badge) console.log(`  ${p.badge.padEnd(12)} ${p.name}, ${p.roles.join(' and ')}`);
    console.log('\nAt the second site, Fennock Depot (Maren and Pico work there too):');
    for (const p of onlyAtDepot) console.log(`  ${(p.login ?? p.badge).padEnd(12)} ${p.name}`);
    console.log('\nStop with Ctrl-C. "npm run demo -- --fresh" starts over.\n');
  },
);
