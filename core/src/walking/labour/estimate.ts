/** Engineered standards in seconds; units by class of handling. Predetermined times in the manner of MTM-1. */
export interface Standards {
  perRun: number;
  perStop: number;
  perUnit: Readonly<Record<string, number>>;
  perScan: number;
  perDrop: number;
  /** Packing of one unit. */
  perPacked: number;
  /** Metres a second. */
  speed: number;
}

/** What a house begins with, until its own scans tell better. Walking as MTM-1 has it, a little below 1.2 m/s with stops. */
export const firstStandards: Standards = {
  perRun: 45,
  perStop: 6,
  perUnit: { easy: 2.5, heavy: 6, 'two-person': 12, fragile: 4 },
  perScan: 1.5,
  perDrop: 3,
  perPacked: 4,
  speed: 1.2,
};

export interface Work {
  runs: number;
  /** Metres. */
  distance: number;
  stops: number;
  scans: number;
  drops: number;
  /** By class of handling. */
  units: Readonly<Record<string, number>>;
}

/** Seconds of walking and of handling that work should take. */
export function estimate(work: Work, standards: Standards): { seconds: number; walk: number; handling: number } {
  const walk = work.distance / standards.speed;
  const units = Object.entries(work.units).reduce(
    (n, [handling, count]) => n + count * (standards.perUnit[handling] ?? 0),
    0,
  );
  const handling =
    work.runs * standards.perRun +
    work.stops * standards.perStop +
    work.scans * standards.perScan +
    work.drops * standards.perDrop +
    units;
  return { seconds: walk + handling, walk, handling };
}
