import type { Tray } from '@hand-relay/contract';
import { call } from './call.ts';
import type { Store } from './store.ts';
import { fill } from './tray.ts';

/** So long after a change it is sent: marking ten rows is one message. */
const PAUSE_MS = 400;

const same = (a: Tray, b: Tray): boolean => JSON.stringify(a) === JSON.stringify(b);

let reread: (() => Promise<void>) | null = null;

/** Somebody's tray changed on another device; whose it is decides whether it is read. */
export function trayChanged(person: string, ids: readonly string[]): void {
  if (ids.includes(person)) void reread?.();
}

/**
 * Keeps the tray as the server has it for whoever is signed in: reads it, and sends every change after a moment. What was
 * put in before the first answer came stays in. A change that cannot be sent is sent with the next one.
 *
 * @returns a function that ends it
 */
export function syncTray(store: Store): () => void {
  let known: Tray = { orders: [], lines: {} };
  let ready = false;
  let over = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const here = () => store.getState().tray;
  const read = async () => {
    const answer = (await call({ name: 'tray' })) as { data: Tray } | { error: unknown };
    if (over || !('data' in answer)) return;
    const before = here();
    // What this device has not sent yet wins over what it had read.
    const pending = ready ? !same(before, known) : before.orders.length > 0;
    known = answer.data;
    if (!pending) store.dispatch(fill(answer.data));
    else if (!ready) {
      const orders = [...new Set([...answer.data.orders, ...before.orders])];
      store.dispatch(fill({ orders, lines: { ...answer.data.lines, ...before.lines } }));
    }
    ready = true;
  };
  const send = async () => {
    const wanted = here();
    if (!ready || same(wanted, known)) return;
    const done = await call({ name: 'saveTray', body: wanted });
    if (!('error' in done)) known = wanted;
  };
  const stop = store.subscribe(() => {
    if (!ready || same(here(), known)) return;
    clearTimeout(timer);
    timer = setTimeout(() => void send(), PAUSE_MS);
  });
  reread = read;
  void read();
  return () => {
    over = true;
    clearTimeout(timer);
    reread = null;
    stop();
    void send();
    store.dispatch(fill({ orders: [] }));
  };
}
