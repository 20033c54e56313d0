import type { TrackingForm } from '../../reading/tracking/index.ts';

export interface ShipLine {
  line: string;
  sku: string;
  /** Asked less cancelled less shipped before. */
  open: number;
  /** Picked and not shipped before. */
  picked: number;
  /** In closed cartons and not shipped before. */
  packed: number;
  /** In a carton that is still open. */
  inOpenCarton: number;
}

export interface ShipState {
  confirmed: boolean;
  cartons: number;
  openCartons: number;
  /** Whether goods may leave that no carton holds, as picked. */
  loose: boolean;
  /** Picks of the order that a run still has to do. */
  openPicks: number;
  /** Whether a carrier has to be chosen and is not: nothing leaves without one by silence. */
  carrierMissing: boolean;
  tracking: string | null;
  trackingForm: TrackingForm;
  /** Whether the order leaves whole or not at all. */
  shipComplete: boolean;
  lines: ShipLine[];
}

/** What becomes of what does not ship now. */
export type Rest = 'keep-open' | 'cancel';

export type ShipRefusal =
  | 'already-confirmed'
  | 'nothing-packed'
  | 'carton-still-open'
  | 'picks-open'
  | 'not-all-packed'
  | 'carrier-missing'
  | 'tracking-missing'
  | 'decide-rest'
  | 'ships-complete';

export type ShipVerdict =
  | {
      verdict: 'confirm';
      ship: { line: string; units: number }[];
      rest: { line: string; units: number }[];
      complete: boolean;
    }
  | { verdict: 'refused'; code: ShipRefusal; lines: { sku: string; picked: number; packed: number; open: number }[] };

/**
 * Whether a shipment may be confirmed: what was picked is what was packed is what ships. Where less ships than is
 * asked, somebody must have decided what becomes of the rest.
 */
export function judgeShipment(state: ShipState, rest: Rest | null): ShipVerdict {
  const refuse = (code: ShipRefusal, lines: ShipLine[] = []): ShipVerdict => ({
    verdict: 'refused',
    code,
    lines: lines.map(({ sku, picked, packed, open }) => ({ sku, picked, packed, open })),
  });
  if (state.confirmed) return refuse('already-confirmed');
  if (state.openCartons > 0) return refuse('carton-still-open');
  if (state.cartons === 0 && !(state.loose && state.lines.some((l) => l.packed > 0))) return refuse('nothing-packed');
  if (state.openPicks > 0) return refuse('picks-open');
  const unequal = state.lines.filter((l) => l.picked !== l.packed || l.inOpenCarton > 0);
  if (unequal.length > 0) return refuse('not-all-packed', unequal);
  if (state.carrierMissing) return refuse('carrier-missing');
  if (state.trackingForm.kind !== 'none' && state.tracking === null) return refuse('tracking-missing');
  const short = state.lines.filter((l) => l.packed < l.open);
  if (short.length > 0 && rest === null) return refuse('decide-rest', short);
  if (short.length > 0 && rest === 'keep-open' && state.shipComplete) return refuse('ships-complete', short);
  return {
    verdict: 'confirm',
    ship: state.lines.filter((l) => l.packed > 0).map((l) => ({ line: l.line, units: l.packed })),
    rest: short.map((l) => ({ line: l.line, units: l.open - l.packed })),
    complete: short.length === 0 || rest === 'cancel',
  };
}
