import { changeEvent, type Changed, type ChangeEvent } from '@hand-relay/contract';
import { i18n } from '../text/index.ts';
import { allStale, api } from './api.ts';
import { addressOf, tab, whenChanged } from './call.ts';
import { forSite } from './forSite.ts';
import { changedSince } from './outlook.ts';
import { trayChanged } from './syncTray.ts';
import { notify } from './notices.ts';
import { readOrders, refreshOrders } from './orderList.ts';
import { Stale } from './stale.ts';
import type { Store } from './store.ts';
import { words } from './trouble.ts';

/** Tabs that work for one site share a stream. */
const channelOf = () => `hand-relay-live ${forSite() ?? ''}`;
/** Changes of orders are gathered for a moment, so that a release of hundreds asks once. */
const GATHER_MS = 120;
/** A stream that was refused is opened again after so long, then ever later. */
const REOPEN_MS = 2_000;
const SLOWEST_MS = 30_000;
/** `EventSource.CLOSED`: the browser has given up. */
const CLOSED = 2;

const reasonOf = (facts: Record<string, unknown>) =>
  words({ code: String(facts['code']), facts, fields: [], requestId: '', status: 409 });

const meOf = (store: Store) => api.endpoints.me.select()(store.getState()).data?.person.id;

/** What is read again as something changed. */
export interface Readers {
  stale: Stale;
  /** Reads rows of the list of orders; without ids all of it. */
  orders: (ids: string[]) => void;
}

/** What beside the API's answers is kept of what a change touches. */
function keptBeside(store: Store, change: Changed, { orders }: Readers): void {
  if (change.topic === 'orders' || change.topic === 'progress') orders(change.ids);
  store.dispatch(changedSince(change));
}

/** Has read again what somebody changed. */
function take(store: Store, change: Changed, readers: Readers): void {
  if (change.topic === 'tray') {
    const me = meOf(store);
    if (me !== undefined) trayChanged(me, change.ids);
    return;
  }
  readers.stale.add(change);
  keptBeside(store, change, readers);
}

/** Takes an event from the stream: what it names is read again, news is told. */
export function onEvent(store: Store, event: ChangeEvent, readers: Readers): void {
  // What this page did itself came with the answer.
  if (event.by !== tab) take(store, event, readers);
  if (!event.news) return;
  const { kind, facts } = event.news;
  // Who did it was told already.
  if (facts['by'] !== undefined && facts['by'] === meOf(store)) return;
  if (kind === 'short' || kind === 'elsewhere' || kind === 'out') {
    const reason = i18n.t(`floor.reason.${String(facts['reason'])}`);
    store.dispatch(
      notify({
        kind: 'caution',
        text: i18n.t(`notice.${kind}`, { ...facts, reason }),
        link: '/desk/exceptions',
      }),
    );
  } else if (kind === 'count-differs')
    store.dispatch(notify({ kind: 'caution', text: i18n.t('notice.count-differs', facts), link: '/desk/counts' }));
  else if (kind === 'lost')
    store.dispatch(
      notify({
        kind: 'caution',
        text: i18n.t('notice.lost', { ...facts, reason: reasonOf(facts) }),
        link: '/desk/exceptions',
      }),
    );
  else store.dispatch(notify({ kind: 'done', text: i18n.t(`notice.${kind}`, facts) }));
}

/**
 * Keeps this tab live: one tab of a browser holds the stream and passes it on to the others, since a browser allows
 * few connections to one server. After a gap everything is read again.
 *
 * @returns a function that ends it
 */
export function goLive(store: Store): () => void {
  let source: EventSource | undefined;
  let over = false;
  let waiting = new Set<string>();
  let all = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const orders = (ids: string[]) => {
    if (ids.length === 0) all = true;
    ids.forEach((id) => waiting.add(id));
    timer ??= setTimeout(() => {
      timer = undefined;
      const { status, read } = store.getState().orderList;
      if (read && (all || waiting.size > 200)) void store.dispatch(readOrders(status));
      else if (read) void store.dispatch(refreshOrders([...waiting]));
      waiting = new Set();
      all = false;
    }, GATHER_MS);
  };
  const everything = () => {
    store.dispatch(allStale());
    orders([]);
  };
  const stale = new Stale(store);
  const readers = { stale, orders };
  whenChanged((changes) => {
    stale.addOwn(changes);
    for (const change of changes) keptBeside(store, change, readers);
  });
  const name = channelOf();
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(name);
  if (channel)
    channel.onmessage = ({ data }: MessageEvent<ChangeEvent | 'reopened'>) =>
      data === 'reopened' ? everything() : onEvent(store, data, readers);

  const hold = () =>
    new Promise<void>((resolve) => {
      if (over) return resolve();
      let opened = false;
      let pause = REOPEN_MS;
      const open = () => {
        const stream = new EventSource(addressOf({ name: 'events' }));
        source = stream;
        stream.onopen = () => {
          pause = REOPEN_MS;
          if (opened) {
            everything();
            channel?.postMessage('reopened');
          }
          opened = true;
        };
        stream.onmessage = ({ data }: MessageEvent<string>) => {
          const event = changeEvent.safeParse(JSON.parse(data));
          if (!event.success) return;
          onEvent(store, event.data, readers);
          channel?.postMessage(event.data);
        };
        // A lost connection is tried again by the browser itself. An answer that is no stream is not: the session has
        // ended, or a proxy stands before a server that is just starting.
        stream.onerror = () => {
          if (stream.readyState !== CLOSED || over) return;
          store.dispatch(api.util.invalidateTags(['me']));
          reopening = setTimeout(open, pause);
          pause = Math.min(SLOWEST_MS, 2 * pause);
        };
      };
      open();
      release = () => {
        clearTimeout(reopening);
        source?.close();
        resolve();
      };
    });
  let reopening: ReturnType<typeof setTimeout> | undefined;
  let release = () => {};
  if (channel && typeof navigator !== 'undefined' && navigator.locks) void navigator.locks.request(name, hold);
  else void hold();
  return () => {
    over = true;
    whenChanged(() => {});
    stale.end();
    clearTimeout(timer);
    release();
    channel?.close();
  };
}
