import { useSyncExternalStore } from 'react';
import type { z } from 'zod';
import type { outboxAnswers } from '@hand-relay/contract';
import { unanswered } from '../deviceCache/index.ts';
import { call, networkError, readNow, serverNow, store, type Trouble } from '../state/index.ts';
import { Outbox, type OutboxCall, type OutboxState } from './outbox.ts';
import { tabsOfBrowser } from './tabs.ts';

/** The outbox of this device. */
export const outbox = new Outbox({
  async send(calls) {
    const [first] = calls;
    if (!first) return [];
    const alone = ({ ask, key, agoMs }: OutboxCall) =>
      call(ask, { key, ago: agoMs, retryDelays: [], handled: ['picks'] });
    if (calls.length === 1) return [await alone(first)];
    const answer = await call(
      {
        name: 'sendOutbox',
        body: {
          calls: calls.map(({ ask: { name, id, body }, key, agoMs }) => ({
            name,
            id,
            key,
            ago: Math.round(agoMs),
            body: body ?? {},
          })),
        },
      },
      { retryDelays: [], handled: ['picks'] },
    );
    if ('data' in answer) return (answer.data as z.infer<typeof outboxAnswers>).answers;
    // Nobody answered for any of them.
    if (unanswered(answer.error) || answer.error.code === 'not-signed-in') return [answer];
    // The list was refused as a whole, by a server that looks at it otherwise: each call stands for itself.
    return [await alone(first)];
  },
  async readAgain(run, what) {
    // A count says with its answer what is to be read again.
    if (what === 'count') return true;
    const read = await store.dispatch(readNow('run', run));
    return 'data' in read || read.answered;
  },
  async report(run, { about, trouble }) {
    await call({ name: 'reportLost', id: run, body: { ...about, code: trouble.code } });
  },
  now: serverNow,
  tabs: tabsOfBrowser(),
});

/**
 * Asks something of a run as a whole, after the server has heard of all that was done in it on this device; answers as
 * without a network where it cannot hear of it now.
 */
export async function afterTold<A>(
  run: string,
  ask: () => Promise<A>,
): Promise<A | { data?: undefined; error: Trouble }> {
  return (await outbox.delivered(run)) ? ask() : { error: networkError };
}

if (typeof addEventListener === 'function') addEventListener('online', () => void outbox.pump());

export const useOutbox = (): OutboxState => useSyncExternalStore(outbox.watch, outbox.snapshot);
