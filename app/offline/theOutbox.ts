import { useSyncExternalStore } from 'react';
import type { RunDetail } from '@hand-relay/contract';
import { keep } from '../kept/index.ts';
import { addressOf, api, call, store } from '../state/index.ts';
import { Outbox, type OutboxState } from './outbox.ts';

/** The outbox of this device. */
export const outbox = new Outbox({
  send: (ask, key, ago) => call(ask, { key, ago, patience: [] }),
  async readAgain(run) {
    const ask = { name: 'run', id: run } as const;
    const answer = await call(ask);
    if (!('data' in answer)) return;
    await keep(addressOf(ask), answer.data);
    await store.dispatch(api.util.upsertQueryData('run', run, answer.data as RunDetail));
  },
  async report(run, { about, trouble }) {
    await call({ name: 'reportLost', id: run, body: { ...about, code: trouble.code } });
  },
  now: () => Date.now(),
});

if (typeof addEventListener === 'function') addEventListener('online', () => void outbox.pump());

export const useOutbox = (): OutboxState => useSyncExternalStore(outbox.watch, outbox.snapshot);
