import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

/**
 * Has the system write to the disk what the embedded database gave to it, now and then: the database itself never
 * does, so a power cut loses, or leaves half written, what came since. This narrows that to a few seconds and no more
 * than narrows it; only a PostgreSQL server forces each commit.
 *
 * @returns a function that ends it
 */
export function flushNowAndThen(folder: string, seconds: number): () => Promise<void> {
  // Other systems have no such command.
  if (seconds === 0 || process.platform !== 'linux') return () => Promise.resolve();
  const flush = () =>
    promisify(execFile)('sync', ['-f', folder]).then(
      () => undefined,
      () => undefined,
    );
  let flushing: Promise<void> | null = null;
  const timer = setInterval(() => void (flushing ??= flush().finally(() => (flushing = null))), seconds * 1000);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await flushing;
  };
}
