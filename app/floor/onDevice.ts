import type { RunPick } from '@hand-relay/contract';
import {
  atSameBin,
  cartonOf,
  freshProgress,
  inTurn,
  withPlace,
  type CartSetUp,
  type PlaceGiven,
} from '@hand-relay/core/handling/picking';
import type { Entry } from '../offline/index.ts';

/** Picks as they are on the device: as the server said last, and over that what was done here since. */
export function onDevice(picks: readonly RunPick[], entries: readonly Entry[]): RunPick[] {
  // What an earlier version of the app kept here knows less of how far a pick has come.
  let now = picks.map((p) => ({ ...p, progress: { ...freshProgress, ...p.progress } }));
  for (const { after } of entries) {
    if (after?.kind === 'pick') {
      const at = now.findIndex((p) => p.step.id === after.pick);
      if (at < 0) continue;
      const { progress, state, picked, units, rest, drop } = after;
      const pick = now[at]!;
      const step = units === undefined ? pick.step : { ...pick.step, units };
      // The server may have told of the pick of the rest already.
      const others = rest && !now.some((p) => p.step.id === rest.step.id) ? [rest] : [];
      now.splice(at, 1, { ...pick, step, progress: { ...freshProgress, ...progress }, state, picked }, ...others);
      const carton = state === 'open' ? null : pick.step.carton && cartonOf(pick.step, progress);
      if (carton && picked > 0) now = now.map((p) => (p.order.id === pick.order.id ? inCarton(p, carton) : p));
      if (state !== 'open') now = atTheBin(now, after.pick);
      if (drop) now = now.filter((p) => p.step.id !== drop);
    } else if (after?.kind === 'order')
      now = inTurn(
        now.map((pick) => ({ id: pick.step.id, open: pick.state === 'open', pick })),
        after.next,
        after.last,
      ).map((t) => t.pick);
    else if (after?.kind === 'out') now = now.filter((p) => p.order.id !== after.order);
    else if (after?.kind === 'behind') now = now.filter((p) => !after.orders.includes(p.order.id));
    else if (after?.kind === 'set') now = placed(now, after);
  }
  return now.filter((p) => p.state !== 'out');
}

/** The cart of a run as it is on the device: as the server said last, and over that what was set up here since. */
export function cartOnDevice(setUp: CartSetUp, entries: readonly Entry[]): CartSetUp {
  let { places } = setUp;
  for (const { after } of entries) {
    if (after?.kind === 'set') places = withPlace(places, after);
    else if (after?.kind === 'all-set') places = places.map((p) => (p.place <= setUp.size ? { ...p, ready: true } : p));
    else if (after?.kind === 'behind') places = places.filter((p) => !after.orders.includes(p.order));
    else if (after?.kind === 'out') places = places.filter((p) => p.order !== after.order);
  }
  return { ...setUp, places };
}

/** Picks of an order go to its place; those of the order that had it go to the other's. */
function placed(picks: readonly RunPick[], { order, place, swapped }: PlaceGiven): RunPick[] {
  const to = (p: RunPick, number: number): RunPick => ({
    ...p,
    step: { ...p.step, position: { ...p.step.position, number } },
  });
  return picks.map((p) =>
    p.order.id === order ? to(p, place) : p.order.id === swapped?.order ? to(p, swapped.place) : p,
  );
}

/** What follows at the bin of a pick that is done needs no second scan of it. */
function atTheBin(picks: readonly RunPick[], done: string): RunPick[] {
  const following = new Set(
    atSameBin(
      picks.map((p) => ({ bin: p.step.bin, open: p.state === 'open' })),
      picks.findIndex((p) => p.step.id === done),
    ),
  );
  return picks.map((p, n) => (following.has(n) ? { ...p, progress: { ...p.progress, bin: true } } : p));
}

/** Another pick of an order whose goods go into one carton: the one before it is closed. */
function inCarton(pick: RunPick, sscc: string): RunPick {
  const { carton } = pick.step;
  if (!carton || carton.sscc === sscc) return pick;
  const others = carton.sscc ? [...carton.others, carton.sscc] : carton.others;
  return { ...pick, step: { ...pick.step, carton: { ...carton, sscc, others } } };
}
