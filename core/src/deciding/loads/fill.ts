/** A vehicle or container: what goes into it. Millimetres and grams. */
export interface Vehicle {
  inside: [length: number, width: number, height: number];
  /** Pallets that stand on its floor. */
  floorPlaces: number;
  maxLoadG: number;
}

/** What one shipment brings into a load. */
export interface Share {
  weightG: number;
  volumeCm3: number;
  /** Sides of its largest piece. */
  largest: [number, number, number];
}

/** The pallet that floor places are counted in. */
export interface Pallet {
  lengthMm: number;
  widthMm: number;
  /** Of pallet and goods together. */
  maxHeightMm: number;
  heightMm: number;
  maxLoadG: number;
}

export const loadLimits = ['weight', 'volume', 'places', 'size'] as const;

export interface Over {
  what: (typeof loadLimits)[number];
  /** Grams, cm³, floor places, or millimetres of the longest side too much. */
  by: number;
}

export interface Fill {
  weightG: number;
  volumeCm3: number;
  places: number;
  /** What the vehicle takes of each. */
  most: { weightG: number; volumeCm3: number; places: number };
  /** What is too much; empty where all goes in. */
  over: Over[];
}

/** The share of a room that goods fill before they are arranged piece by piece. */
const USABLE = 0.8;

/** Pallets that a shipment's goods come to, in parts of one. */
export function palletsOf({ weightG, volumeCm3 }: Share, pallet: Pallet): number {
  const room = (pallet.lengthMm * pallet.widthMm * (pallet.maxHeightMm - pallet.heightMm)) / 1000;
  return Math.max(volumeCm3 / (room * USABLE), weightG / pallet.maxLoadG);
}

/**
 * How far shipments fill a vehicle, roughly: by weight, by volume and by floor places. Whole pallets stand by
 * themselves, and so does a rest of more than half a pallet; smaller rests of several shipments share places.
 */
export function fillOf(vehicle: Vehicle, pallet: Pallet, shares: readonly Share[]): Fill {
  const sum = (of: (s: Share) => number) => shares.reduce((n, s) => n + of(s), 0);
  const [weightG, volumeCm3] = [sum((s) => s.weightG), sum((s) => s.volumeCm3)];
  let own = 0;
  let shared = 0;
  for (const share of shares) {
    const pallets = palletsOf(share, pallet);
    const rest = pallets - Math.floor(pallets);
    own += Math.floor(pallets) + (rest > 0.5 ? 1 : 0);
    if (rest <= 0.5) shared += rest;
  }
  // Adding many small parts must not make a place of a rounding error.
  const places = own + Math.ceil(shared - 1e-9);
  const [length, width, height] = vehicle.inside;
  const most = {
    weightG: vehicle.maxLoadG,
    volumeCm3: Math.floor(((length / 10) * width * height * USABLE) / 100),
    places: vehicle.floorPlaces,
  };
  const room = [...vehicle.inside].sort((a, b) => b - a);
  const tooLong = Math.max(
    0,
    ...shares.flatMap((s) => [...s.largest].sort((a, b) => b - a).map((side, i) => side - room[i]!)),
  );
  const over: Over[] = [
    { what: 'weight' as const, by: weightG - most.weightG },
    { what: 'volume' as const, by: volumeCm3 - most.volumeCm3 },
    { what: 'places' as const, by: places - most.places },
    { what: 'size' as const, by: tooLong },
  ].filter((o) => o.by > 0);
  return { weightG, volumeCm3, places, most, over };
}

/**
 * Which of several shipments still go in beside what is there, taken in the order given: each that fits stays.
 *
 * @returns their indices
 */
export function fitting(
  vehicle: Vehicle,
  pallet: Pallet,
  there: readonly Share[],
  candidates: readonly Share[],
): number[] {
  const inside = [...there];
  return candidates.flatMap((share, i) => {
    if (fillOf(vehicle, pallet, [...inside, share]).over.length > 0) return [];
    inside.push(share);
    return [i];
  });
}
