/** A carton, or a pallet or crate that is stacked with what is on it. */
export interface Stackable {
  id: string;
  state: 'open' | 'closed' | 'shipped';
  weightG: number;
  /** The departure that its goods must make, as one text; null where they have none. */
  departure: string | null;
  /** What it stands on now. */
  outer: { id: string; number: string; state: 'open' | 'closed' | 'shipped' } | null;
  /** A rule or a person keeps one of its orders from leaving. */
  held: boolean;
}

export interface PalletState {
  id: string;
  state: 'open' | 'closed' | 'shipped';
  /** That of what is on it; undefined while it is empty. */
  departure: string | null | undefined;
  /** Weight of what is on it. */
  loadG: number;
  maxLoadG: number;
  units: readonly string[];
  /** Units that its plan has. */
  planned: readonly string[];
  /** What it stands on, and what that stands on, up to the outermost. */
  outers: readonly string[];
}

export type StackRefusal =
  | 'pallet-closed'
  | 'unit-unknown'
  | 'unit-open'
  | 'unit-shipped'
  | 'unit-held'
  | 'on-this'
  | 'inside-itself'
  | 'on-closed-pallet'
  | 'other-departure'
  | 'over-load'
  | 'nothing-to-undo';

export type StackVerdict =
  /** It goes on; `from` is the open pallet that it is taken from. */
  | { verdict: 'put'; asPlanned: boolean; from: string | null }
  | { verdict: 'refused'; code: StackRefusal; expected: string; got: string };

/**
 * Whether a unit may go onto a pallet. What is on a pallet leaves together: it has one departure.
 *
 * @param unit null where the code names none
 * @param got what was scanned
 */
export function judgeStack(pallet: PalletState, unit: Stackable | null, got: string): StackVerdict {
  const refuse = (code: StackRefusal, expected = ''): StackVerdict => ({ verdict: 'refused', code, expected, got });
  if (pallet.state !== 'open') return refuse('pallet-closed');
  if (!unit) return refuse('unit-unknown');
  if (unit.id === pallet.id || pallet.outers.includes(unit.id)) return refuse('inside-itself');
  if (pallet.units.includes(unit.id)) return refuse('on-this');
  if (unit.state !== 'closed') return refuse(unit.state === 'open' ? 'unit-open' : 'unit-shipped');
  if (unit.held) return refuse('unit-held');
  if (unit.outer && unit.outer.state !== 'open') return refuse('on-closed-pallet', unit.outer.number);
  if (pallet.departure !== undefined && unit.departure !== pallet.departure)
    return refuse('other-departure', pallet.departure ?? '');
  if (pallet.loadG + unit.weightG > pallet.maxLoadG) return refuse('over-load', String(pallet.maxLoadG));
  return { verdict: 'put', asPlanned: pallet.planned.includes(unit.id), from: unit.outer?.id ?? null };
}
