import type { RunPick } from '@hand-relay/contract';
import type { PickProgress } from '@hand-relay/core/handling/picking';

/** A pick as it is done, and the lines that it is done for, in the order in which they are served. */
export interface JoinedPick {
  pick: RunPick;
  lines: RunPick[];
}

/**
 * Joins picks of consolidated runs that take one item and lot from one bin; the first of them bears the progress. What
 * must not be picked now stays by itself.
 */
export function together(lines: readonly RunPick[]): JoinedPick[] {
  const joined = new Map<string, RunPick[]>();
  for (const line of lines) {
    const { step, order, state } = line;
    const key =
      line.together && order.hold === null ? `${step.bin} ${step.item.id} ${step.lot} ${state === 'open'}` : step.id;
    joined.set(key, [...(joined.get(key) ?? []), line]);
  }
  return [...joined.values()].map((parts) => {
    const [first] = parts;
    if (parts.length === 1) return { pick: first!, lines: parts };
    const sum = (of: (p: RunPick) => number) => parts.reduce((n, p) => n + of(p), 0);
    const state = parts.some((p) => p.state === 'open')
      ? 'open'
      : parts.some((p) => p.state === 'short')
        ? 'short'
        : 'done';
    return {
      pick: {
        ...first!,
        step: {
          ...first!.step,
          units: sum((p) => p.step.units),
          countedBy: parts.every((p) => p.step.countedBy === first!.step.countedBy) ? first!.step.countedBy : 1,
        },
        state,
        picked: sum((p) => p.picked),
        askedIn: parts.every((p) => p.askedIn === first!.askedIn) ? first!.askedIn : 'unit',
        lineNote: [...new Set(parts.map((p) => p.lineNote).filter(Boolean))].join(' · '),
        remains: Math.max(0, first!.remains - (state === 'open' ? sum((p) => p.step.units) - first!.step.units : 0)),
      },
      lines: parts,
    };
  });
}

/**
 * Gives out what was picked to the lines that it was picked for: each in full, the first ones first, until nothing is
 * left.
 */
export function sharedOut(
  lines: readonly RunPick[],
  progress: PickProgress,
  units: number,
): { line: RunPick; units: number; progress: PickProgress }[] {
  let left = units;
  let serials = progress.serials;
  return lines.map((line) => {
    const own = Math.min(left, line.step.units);
    left -= own;
    const part = {
      ...progress,
      counted: own,
      serials: serials.slice(0, own),
      found: progress.found === null ? null : own,
      reason: own < line.step.units ? progress.reason : null,
    };
    serials = serials.slice(own);
    return { line, units: own, progress: part };
  });
}
