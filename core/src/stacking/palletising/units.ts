import type { BoxKind, Sides } from '../boxes/index.ts';
import { FitsNoPallet, palletise, type Palletised, type PalletiseOptions, type PalletProblem } from './palletise.ts';

/** A unit that is stacked by its own name. */
export type NamedUnit = BoxKind & { id: string };

export interface StackedUnit {
  id: string;
  /** From the corner of the pallet's deck, in millimetres. */
  at: Sides;
  size: Sides;
}

/** A unit that is too large or too heavy for the pallet, by its name. */
export class UnitFitsNoPallet extends Error {
  constructor(readonly id: string) {
    super(`Unit ${id} fits no pallet.`);
  }
}

/**
 * How units with names stack on pallets. Those that are alike in everything are one kind, and take the places of their
 * kind in the order given.
 *
 * @returns for each pallet its units in building order, and pallets that nothing can do without
 * @throws UnitFitsNoPallet for the first that fits none
 */
export function palletiseUnits(
  units: readonly NamedUnit[],
  problem: Omit<PalletProblem, 'kinds' | 'counts'>,
  options: PalletiseOptions = {},
): { pallets: StackedUnit[][]; lowerBound: number } {
  const kinds: BoxKind[] = [];
  const members: string[][] = [];
  const kindOf = new Map<string, number>();
  for (const { id, ...kind } of units) {
    // JSON has no infinity: the last stop of all is told apart by its text.
    const key = `${JSON.stringify(kind)} ${kind.stop}`;
    const known = kindOf.get(key);
    if (known !== undefined) {
      members[known]!.push(id);
      continue;
    }
    kindOf.set(key, kinds.length);
    kinds.push(kind);
    members.push([id]);
  }
  const next = members.map(() => 0);
  const named = ({ pallets, lowerBound }: Palletised) => ({
    lowerBound,
    pallets: pallets.map((placed) =>
      placed.map(({ kind, at, size }): StackedUnit => ({ id: members[kind]![next[kind]!++]!, at, size })),
    ),
  });
  try {
    return named(palletise({ ...problem, kinds, counts: members.map((m) => m.length) }, options));
  } catch (error) {
    if (error instanceof FitsNoPallet) throw new UnitFitsNoPallet(members[error.kind]![0]!);
    throw error;
  }
}

/** Layers of a pallet from below: units whose bases are at one height, numbered from 1, for each unit. */
export function layersOf(units: readonly Pick<StackedUnit, 'at'>[]): number[] {
  const heights = [...new Set(units.map((u) => u.at[2]))].sort((a, b) => a - b);
  return units.map((u) => heights.indexOf(u.at[2]) + 1);
}
