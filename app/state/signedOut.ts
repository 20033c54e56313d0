import { remember, remembered } from '../deviceCache/index.ts';
import { call } from './call.ts';

/** Under this the device remembers that somebody signed out and the server may not have heard of it. */
const LEFT = 'signed-out';

/** Whether whoever was here signed out: then nobody is signed in, whatever the server still thinks. */
export const hasLeft = (): boolean => remembered(LEFT) === '1';

/** Somebody else signed in since: the session of before is this device's no more. */
export const hasCome = (): void => remember(LEFT, '');

/** Signs out on the device at once, and at the server as soon as it can be reached. */
export async function leave(): Promise<void> {
  remember(LEFT, '1');
  await finishLeaving();
}

/** Tells the server of a sign-out that it has not heard of. */
export async function finishLeaving(): Promise<void> {
  if (!hasLeft()) return;
  const answer = await call({ name: 'signOut' }, { retryDelays: [] });
  if ('data' in answer || answer.error.code === 'not-signed-in') hasCome();
}

if (typeof addEventListener === 'function') addEventListener('online', () => void finishLeaving());
