import { place } from './shell/index.ts';
import { idle } from './state/index.ts';

/** The parts of the app, each read when it is entered. */
export const bench = place(() => import('./bench/index.ts'));
export const desk = place(() => import('./desk/index.ts'));
export const dock = place(() => import('./dock/index.ts'));
export const endOfDay = place(() => import('./endOfDay/index.ts'));
export const exceptions = place(() => import('./exceptions/index.ts'));
export const floor = place(() => import('./floor/index.ts'));
export const intake = place(() => import('./intake/index.ts'));
export const kit = place(() => import('./kit/index.ts'));
export const loads = place(() => import('./loads/index.ts'));
export const pallets = place(() => import('./pallets/index.ts'));
export const quick = place(() => import('./quick/index.ts'));
export const setup = place(() => import('./setup/index.ts'));
export const waves = place(() => import('./waves/index.ts'));

/**
 * Reads all parts once the first screen is there and nothing else is to be done: whoever goes to the next place, and
 * scans at once, must find it.
 */
export async function prepareAll(): Promise<void> {
  await idle();
  for (const { prepare } of [
    floor,
    bench,
    dock,
    pallets,
    desk,
    intake,
    exceptions,
    waves,
    endOfDay,
    loads,
    quick,
    setup,
  ])
    await prepare();
}
