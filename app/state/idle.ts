/** At most so long the rest waits for a browser that is never idle. */
const PATIENCE_MS = 1000;

/** Waits until what is on the screen is drawn and no key waits for its answer. */
export function idle(): Promise<void> {
  return new Promise((resolve) => {
    if (typeof requestIdleCallback === 'function') requestIdleCallback(() => resolve(), { timeout: PATIENCE_MS });
    else setTimeout(resolve, 0);
  });
}
