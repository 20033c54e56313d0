import { useSyncExternalStore } from 'react';
import type { z } from 'zod';
import type { keptAnswers, RunDetail } from '@hand-relay/contract';
import { keep, unanswered } from '../kept/index.ts';
import { addressOf, api, call, nobodyAnswered, serverNow, store, type Trouble } from '../state/index.ts';
import { Outbox, type Kept, type OutboxState } from './outbox.ts';
import { tabsOfBrowser } from './tabs.ts';

/** The outbox of this device. */
export const outbox = new Outbox({
  async send(calls) {
    const [first] = calls;
    if (!first) return [];
    const alone = ({ ask, key, agoMs }: Kept) => call(ask, { key, ago: agoMs, patience: [] });
    if (calls.length === 1) return [await alone(first)];
    const answer = await call(
      {
        name: 'sendKept',
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
      { patience: [] },
    );
    if ('data' in answer) return (answer.data as z.infer<typeof keptAnswers>).answers;
    // Nobody answered for any of them.
    if (unanswered(answer.error) || answer.error.code === 'not-signed-in') return [answer];
    // The list was refused as a whole, by a server that looks at it otherwise: each call stands for itself.
    return [await alone(first)];
  },
  async readAgain(run, what) {
    if (what === 'count') return void store.dispatch(api.util.invalidateTags(['counts', 'stock']));
    const ask = { name: 'run', id: run } as const;
    const answer = await call(ask);
    if (!('data' in answer)) return;
    await keep(addressOf(ask), answer.data);
    await store.dispatch(api.util.upsertQueryData('run', run, answer.data as RunDetail));
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
  return (await outbox.told(run)) ? ask() : { error: nobodyAnswered };
}

if (typeof addEventListener === 'function') addEventListener('online', () => void outbox.pump());

export const useOutbox = (): OutboxState => useSyncExternalStore(outbox.watch, outbox.snapshot);
