import { useEffect } from 'react';

/** Keeps the screen on while a run is in hand, where the device can. */
export function useAwake(): void {
  useEffect(() => {
    if (typeof navigator === 'undefined' || !('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const hold = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (given) => {
          if (over) void given.release();
          else lock = given;
        },
        // A device that is low on power refuses: then its screen goes dark as always.
        () => undefined,
      );
    };
    hold();
    // A screen that was hidden has lost its hold.
    document.addEventListener('visibilitychange', hold);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, []);
}
