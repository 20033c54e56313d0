import type { Changed, Topic } from '@hand-relay/contract';
import { api, WHOLE } from './api.ts';
import type { Store } from './store.ts';

/** Milliseconds for which changes are gathered: what two of them touch is read once. */
const SOON_MS = 30;
/** Milliseconds between two readings of what shows a topic as a whole, however much others do. */
const LISTS_MS = 1500;

/**
 * Has what shows a change read again: what names one of its ids soon, lists of its topic soon too, yet not again and again
 * while others scan.
 */
export class Stale {
  private readonly store: Store;
  private readonly ids = new Map<Topic, Set<string>>();
  /** Topics whose lists wait; whether all that shows them does, as a change could not name its ids. */
  private readonly lists = new Map<Topic, { all: boolean }>();
  private readonly readAt = new Map<Topic, number>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(store: Store) {
    this.store = store;
  }

  /** Somebody changed something. */
  add({ topic, ids }: Changed): void {
    for (const id of ids) this.ids.set(topic, (this.ids.get(topic) ?? new Set()).add(id));
    this.lists.set(topic, { all: ids.length === 0 || (this.lists.get(topic)?.all ?? false) });
    this.wait(SOON_MS);
  }

  /** This page changed something: nothing of it waits. */
  addOwn(changes: readonly Changed[]): void {
    for (const change of changes) {
      this.readAt.delete(change.topic);
      this.add(change);
    }
    this.read();
  }

  /** What still waits is not read any more. */
  end(): void {
    clearTimeout(this.timer);
  }

  private wait(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.read(), ms);
  }

  private read(): void {
    clearTimeout(this.timer);
    const now = Date.now();
    const waits = (topic: Topic) => Math.max(0, (this.readAt.get(topic) ?? -Infinity) + LISTS_MS - now);
    const ready = [...this.lists].filter(([topic]) => waits(topic) === 0);
    const tags = [
      ...[...this.ids].flatMap(([type, ids]) => [...ids].map((id) => ({ type, id }))),
      ...ready.map(([type, { all }]) => (all ? { type } : { type, id: WHOLE })),
    ];
    this.ids.clear();
    for (const [topic] of ready) {
      this.lists.delete(topic);
      this.readAt.set(topic, now);
    }
    if (tags.length > 0) this.store.dispatch(api.util.invalidateTags(tags));
    if (this.lists.size > 0) this.wait(Math.min(...[...this.lists.keys()].map(waits)));
  }
}
