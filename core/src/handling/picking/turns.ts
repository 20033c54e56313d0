/** A pick of a run, as far as its turn goes. */
export interface InTurn {
  id: string;
  open: boolean;
  /** Whether its order is on hold: it is not picked now. */
  held: boolean;
}

/**
 * The pick that comes after one: the next open one in walking order, or the first that is left.
 *
 * @param picks of a run in walking order
 * @param after id of a pick
 * @returns its id; null where none is left that may be picked now
 */
export function nextOpen(picks: readonly InTurn[], after: string): string | null {
  const at = picks.findIndex((p) => p.id === after);
  return [...picks.slice(at + 1), ...picks.slice(0, at)].find((p) => p.open && !p.held)?.id ?? null;
}

/**
 * The picks of a run as they are walked when one comes next: those after it follow, then those before it. What is done
 * stands in front.
 *
 * @param next id of the pick that comes next; where none of the open ones has it, their order stays
 * @param last id of a pick that is put off to the end
 */
export function inTurn<T extends { id: string; open: boolean }>(picks: readonly T[], next: string, last?: string): T[] {
  const done = picks.filter((p) => !p.open);
  const open = picks.filter((p) => p.open);
  const at = Math.max(
    0,
    open.findIndex((p) => p.id === next),
  );
  const turned = [...open.slice(at), ...open.slice(0, at)];
  return [...done, ...turned.filter((p) => p.id !== last), ...turned.filter((p) => p.id === last)];
}

/**
 * The pick that was confirmed last: what undo takes back.
 *
 * @param picks those of a run, with the instant of confirmation as ISO text, null where it is not confirmed
 * @param here ids of the picks that were confirmed on this device and may not be known elsewhere, in their order
 */
export function lastDone<T extends { id: string; open: boolean; confirmedAt: string | null }>(
  picks: readonly T[],
  here: readonly string[] = [],
): T | null {
  const done = picks.filter((p) => !p.open);
  const onDevice = [...here].reverse().flatMap((id) => done.find((p) => p.id === id) ?? [])[0];
  if (onDevice) return onDevice;
  return done.reduce<T | null>(
    (last, p) => (last && (last.confirmedAt ?? '') >= (p.confirmedAt ?? '') ? last : p),
    null,
  );
}
