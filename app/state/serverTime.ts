import { useSyncExternalStore } from 'react';
import { remember, remembered } from '../deviceCache/index.ts';

/** Under this the device remembers how far its clock is from the server's, for when it is opened without a network. */
const KEPT_AS = 'clock-offset';
/** A clock that is further off is said: what people read on it and on the screen would differ. */
const WRONG_MS = 120_000;

/** Milliseconds to add to the device's clock, and how wrong that may be. */
let offset = Number(remembered(KEPT_AS)) || 0;
let error = Infinity;
const watchers = new Set<() => void>();

/**
 * Learns from an answer how far the device's clock is from the server's: half way between asking and answering, wrong by
 * half of what the way took at most (Mills, RFC 5905). The sample of the shortest way stands, until another one
 * contradicts it: then somebody set the clock.
 *
 * @param server the server's time in the answer, milliseconds since the epoch
 * @param asked device's time at which the call was sent
 * @param answered device's time at which its answer came
 */
export function sawServerTime(server: number, asked: number, answered: number): void {
  const [seen, doubt] = [Math.round(server - (asked + answered) / 2), Math.max(1, (answered - asked) / 2)];
  if (!Number.isFinite(seen) || doubt < 0) return;
  const contradicts = Math.abs(seen - offset) > doubt + error;
  if (!contradicts && doubt > error) return;
  const before = clockError();
  [offset, error] = [seen, doubt];
  remember(KEPT_AS, String(offset));
  if (clockError() !== before) for (const watcher of watchers) watcher();
}

/** The server's time, as far as this device knows it, milliseconds since the epoch. What is shown and judged goes by it. */
export const serverNow = (): number => Date.now() + offset;

/** The year by which dates of two digits in GS1 codes are read. */
export const thisYear = (): number => new Date(serverNow()).getFullYear();

/** Minutes that the device's clock is slow; negative where it is fast, 0 where it is right. */
const clockError = (): number => (Math.abs(offset) < WRONG_MS ? 0 : Math.round(offset / 60_000));

const watch = (watcher: () => void) => {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
};
export const useClockError = (): number => useSyncExternalStore(watch, clockError);
