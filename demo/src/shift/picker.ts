import type { RunDetail, RunPick } from '@hand-relay/contract';
import type { Random } from '@hand-relay/core/random';
import type { Work } from './clock.ts';
import type { Person } from './person.ts';

/** Something that happens to a picker once, at the first pick where it can. */
export type Incident = 'short' | 'other-bin' | 'damaged';

export interface PickerOptions {
  random: Random;
  /** Carts that are used, in order; where one is in use or too small, the next is taken. */
  carts: readonly string[];
  incidents?: Incident[];
  /** From when on their device is offline: what they do then is not known. */
  offline?: () => boolean;
}

/** Takes the runs that wait one after the other, picks them bin by bin by scans, and leaves each cart in its lane. */
export async function* picker(
  person: Person,
  { random, carts, incidents = [], offline = () => false }: PickerOptions,
): Work {
  const toCome = [...incidents];
  for (;;) {
    const { mine, waiting } = await person.ask('myRuns');
    const next = mine[0] ?? waiting[0];
    const run = next && (await take(person, next.id, carts));
    if (!run) {
      yield 110;
      continue;
    }
    yield random.int(20, 50);
    for (;;) {
      const open = (await person.ask('run', { id: next.id })).picks.filter((p) => p.state === 'open');
      if (open.length === 0) break;
      // One pick for several orders ends all of them: what is open is read again after it.
      for (const pick of open[0]!.together ? open.slice(0, 1) : open) {
        if (offline()) return;
        yield* pickOne(person, run, pick, { random, toCome });
      }
    }
    const { proposedLane } = await person.ask('run', { id: next.id });
    yield random.int(25, 60);
    await person.ask('leaveRun', { id: next.id, body: { lane: proposedLane ?? 'LANE-5' } });
    yield random.int(30, 90);
  }
}

async function take(person: Person, run: string, carts: readonly string[]): Promise<RunDetail | null> {
  for (const cart of carts) {
    const taken = await person.try('takeRun', { id: run, body: { cart } });
    if (taken) return taken;
  }
  return null;
}

/** One pick, its seconds by what it asks for: the walk, the look, the units, the place on the cart. */
async function* pickOne(
  person: Person,
  { run: { id, cart } }: RunDetail,
  { step, at }: RunPick,
  { random, toCome }: { random: Random; toCome: Incident[] },
): Work {
  const input = (what: object) => person.ask('runInput', { id, body: { pick: step.id, input: what } });
  yield random.int(6, 18);
  // Now and then the neighbour is scanned first, and refused.
  if (random.next() < 0.04) {
    await input({ kind: 'scan', text: `${at.aisle}-31-1` });
    yield 3;
  }
  await input({ kind: 'scan', text: step.bin });
  yield 2 + Math.min(40, step.units * 1.6);
  const incident = toCome.find((i) => fits(i, step));
  if (incident) toCome.splice(toCome.indexOf(incident), 1);
  const found = incident ? step.units - 1 - Math.floor(step.units / 3) : step.units;
  if (incident === 'other-bin') {
    const { bin, lot } = step.elsewhere.find((e) => e.units >= step.units && e.lot === step.lot)!;
    await input({ kind: 'short', units: found, reason: 'not-enough', rest: { bin, lot } });
  } else if (incident) {
    const why = { short: 'not-found', damaged: 'damaged' } as const;
    const note = incident === 'damaged' ? 'Box was wet, three of them stained' : '';
    await input({ kind: 'short', units: found, reason: why[incident], ...(note ? { note } : {}) });
  }
  if (step.item.tracksSerial)
    for (const serial of step.serialsInBin.slice(0, step.units)) await input({ kind: 'scan', text: serial });
  else {
    // Most look at the goods by scanning one of them; some only count.
    const unit = step.item.packs.find((p) => p.level === 'unit');
    const scanned = unit !== undefined && random.next() < 0.9;
    if (scanned) await input({ kind: 'scan', text: unit.gtin });
    if (found > 1 || !scanned) await input({ kind: 'count', units: found });
  }
  yield 2;
  if (step.item.tracksLot) await input({ kind: 'scan', text: step.lot! });
  yield 2;
  await input({ kind: 'scan', text: `${cart}-${step.position.number}` });
}

/** Whether an incident can happen at a pick: several plain units; another bin must have them too. */
function fits(incident: Incident, { item, units, elsewhere, lot }: RunPick['step']): boolean {
  if (item.tracksSerial || item.tracksLot || units < 3) return false;
  return incident !== 'other-bin' || elsewhere.some((e) => e.units >= units && e.lot === lot);
}
