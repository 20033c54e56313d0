import type { RunPick } from '@hand-relay/contract';
import type { Entry } from '../offline/index.ts';

/** Picks as they are on the device: as the server said last, and over that what was done here since. */
export function onDevice(picks: readonly RunPick[], entries: readonly Entry[]): RunPick[] {
  let now = [...picks];
  for (const { after } of entries) {
    if (after?.kind === 'pick') {
      const at = now.findIndex((p) => p.step.id === after.pick);
      if (at < 0) continue;
      const { progress, state, picked, units, rest, drop } = after;
      const pick = now[at]!;
      const step = units === undefined ? pick.step : { ...pick.step, units };
      // The server may have told of the pick of the rest already.
      const others = rest && !now.some((p) => p.step.id === rest.step.id) ? [rest] : [];
      now.splice(at, 1, { ...pick, step, progress, state, picked }, ...others);
      if (drop) now = now.filter((p) => p.step.id !== drop);
    } else if (after?.kind === 'order') now = inTurn(now, after.next, after.last);
    else if (after?.kind === 'out') now = now.filter((p) => p.order.id !== after.order);
  }
  return now.filter((p) => p.state !== 'out');
}

/** A pick comes next and those after it follow, then those before it; where one is put off, it comes last. */
function inTurn(picks: readonly RunPick[], next: string, last: string | undefined): RunPick[] {
  const done = picks.filter((p) => p.state !== 'open');
  const open = picks.filter((p) => p.state === 'open');
  const at = Math.max(
    0,
    open.findIndex((p) => p.step.id === next),
  );
  const turned = [...open.slice(at), ...open.slice(0, at)];
  return [...done, ...turned.filter((p) => p.step.id !== last), ...turned.filter((p) => p.step.id === last)];
}
