import type { Entry, Rejected } from './entry.ts';

/** What one tab of a device tells the others of its outbox. */
export type TabNews =
  | { kind: 'entry'; entry: Entry }
  /** It was not taken, and is no entry any more. */
  | { kind: 'gone'; seq: number }
  | { kind: 'task'; lost: Rejected }
  | { kind: 'settled'; id: string };

/** The other tabs of the device that show this application. */
export interface Tabs {
  post: (news: TabNews) => void;
  listen: (listener: (news: TabNews) => void) => void;
}

const NAME = 'hand-relay-outbox';

/** The tabs of this browser; nobody is told where it knows of none. */
export function tabsOfBrowser(): Tabs {
  if (typeof BroadcastChannel === 'undefined') return { post: () => {}, listen: () => {} };
  const channel = new BroadcastChannel(NAME);
  // Where this runs outside a browser, as in tests, it keeps no process alive.
  (channel as { unref?: () => void }).unref?.();
  return {
    post: (news) => channel.postMessage(news),
    listen: (listener) => {
      channel.onmessage = ({ data }: MessageEvent<TabNews>) => listener(data);
    },
  };
}
