import type { ShortReason } from './step.ts';

/** A bin at which goods were missing, as the books see it. */
export interface ShortAt {
  reason: ShortReason;
  /** Units that the picker did not get. */
  missing: number;
  /** Units of the item and lot in the bin, by serial number where it has them. */
  there: readonly { serial: string; units: number }[];
  /** Units that other pickers are sent there for: each of them says what they find. */
  sentFor: number;
  /** Units of the item and lot at the site that are promised to nobody. */
  free: number;
}

/**
 * Which units in a bin nobody may be promised any more until it is counted: as many as a damaged report names, else all
 * that should still be there; in both cases no more than are promised to nobody. Of a bin that nobody gets at none are in
 * doubt: they are still there.
 *
 * @returns units by serial number, none of them empty
 */
export function suspectStock({ reason, missing, there, sentFor, free }: ShortAt): { serial: string; units: number }[] {
  if (reason === 'bin-blocked') return [];
  const inBin = Math.max(0, there.reduce((n, b) => n + b.units, 0) - sentFor);
  let left = Math.min(reason === 'damaged' ? missing : inBin, inBin, Math.max(0, free));
  return there.flatMap(({ serial, units }) => {
    const some = Math.min(left, units);
    left -= some;
    return some > 0 ? [{ serial, units: some }] : [];
  });
}

/** Whether others who are sent to the bin would find nothing either. Damaged goods say nothing of those beside them. */
export const sendsOthersAway = (reason: ShortReason): boolean => reason !== 'damaged';

/** Where a bin is on the floor. */
export interface At {
  aisle: string;
  y: number;
}

/**
 * The bin that takes the place of another: the nearest that holds enough, in the same aisle if there is one.
 *
 * @param bins other bins of the same item and lot, with what of it is nobody's there
 * @param from the bin whose place it takes
 * @returns undefined where none holds enough
 */
export function replacementBin<B extends At & { bin: string; units: number }>(
  bins: readonly B[],
  from: At,
  units: number,
): B | undefined {
  const far = (b: B) => [b.aisle === from.aisle ? 0 : 1, Math.abs(b.y - from.y)] as const;
  return bins
    .filter((b) => b.units >= units)
    .sort((a, b) => far(a)[0] - far(b)[0] || far(a)[1] - far(b)[1] || (a.bin < b.bin ? -1 : 1))[0];
}
