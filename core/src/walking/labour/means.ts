/** What a site has to work with: carts, how many of them wait with goods on them, and benches. */
export interface Means {
  carts: number;
  waiting: number;
  benches: number;
}

/**
 * How many can work at once by what there is to work with: pickers by the carts that are free or picked with, packers by
 * the benches. A site that has none of them works without.
 *
 * @returns Infinity where nothing limits it
 */
export function placesToWork(activity: 'pick' | 'pack', { carts, waiting, benches }: Means): number {
  if (activity === 'pack') return benches === 0 ? Infinity : benches;
  return carts === 0 ? Infinity : Math.max(0, carts - waiting);
}

/** How long a device is not heard before it counts as offline, milliseconds: its live stream is heard every few seconds. */
const SILENT_MS = 3 * 60_000;

/** Devices that were last heard before this instant are offline; both in milliseconds since 1970. */
export const silentSince = (now: number): number => now - SILENT_MS;
