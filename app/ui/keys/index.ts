import { useLayoutEffect, useRef } from 'react';
import { hearScans, offerShortcuts } from './listen.ts';

export { recordKeys } from './listen.ts';
export type { Press } from './press.ts';
export {
  PAUSES,
  quietMs,
  readTrial,
  scannerEnds,
  scannerHere,
  setScanner,
  usualScanner,
  withoutPrefix,
  type Scanner,
  type Tried,
} from './scanner.ts';

// Layout effects throughout: whatever is seen on the screen is also listened for, even on a busy device.

/**
 * Calls back for every code scanned while the component is shown and nothing newer (or, `behind`, nothing else) listens.
 * Where it answers `false` the code is not for it, and is heard by what lies behind.
 */
export function useScans(
  onScan: (text: string) => unknown,
  { enabled = true, behind = false }: { enabled?: boolean; behind?: boolean } = {},
): void {
  const latest = useRef(onScan);
  useLayoutEffect(() => {
    latest.current = onScan;
  });
  useLayoutEffect(() => (enabled ? hearScans((text) => latest.current(text), behind) : undefined), [enabled, behind]);
}

/** Shortcuts while the component is shown: never fired by a scan, nor while somebody types in a field. */
export function useShortcuts(keys: Record<string, () => void>, enabled = true): void {
  const latest = useRef(keys);
  useLayoutEffect(() => {
    latest.current = keys;
  });
  const names = Object.keys(keys).join('\n');
  useLayoutEffect(() => {
    if (!enabled) return undefined;
    return offerShortcuts(Object.fromEntries(names.split('\n').map((key) => [key, () => latest.current[key]?.()])));
  }, [names, enabled]);
}
