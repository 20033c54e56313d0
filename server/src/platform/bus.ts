import { EventEmitter } from 'node:events';
import { joined, topicNames, type ChangeEvent } from '@hand-relay/contract';

const COUNTED: ReadonlySet<ChangeEvent['topic']> = new Set(['orders', 'progress', 'stock']);

/** Milliseconds for which changes of a site are gathered, so that a burst of scans is told as one. */
const GATHER_MS = 150;

/** Carries "this changed" to the streams of this server. What comes in was committed. */
export class Bus {
  private readonly emitter = new EventEmitter().setMaxListeners(0);
  private readonly waiting = new Map<string, ChangeEvent[]>();
  private readonly counts = new Map<string, number>();
  /** Changes of what all sites share. */
  private shared = 0;

  /** Rises with every change of a site's orders, stock or master data: what was read before is as it was while it stays. */
  version(site: string): number {
    return this.shared + (this.counts.get(site) ?? 0);
  }

  /** A change of this server was committed; its events come back through the database a moment later. */
  committed(site: string, events: readonly ChangeEvent[]): void {
    if (events.some((event) => event.topic === 'setup')) this.shared += 1;
    else if (events.some((event) => COUNTED.has(event.topic))) this.counts.set(site, (this.counts.get(site) ?? 0) + 1);
  }

  /** Takes a payload as the database notified it. */
  receive(payload: string): void {
    const { site, event } = JSON.parse(payload) as { site: string; event: ChangeEvent };
    this.committed(site, [event]);
    const waiting = this.waiting.get(site);
    if (waiting) waiting.push(event);
    else {
      this.waiting.set(site, [event]);
      setTimeout(() => this.pass(site), GATHER_MS).unref();
    }
  }

  private pass(site: string): void {
    const events = this.waiting.get(site) ?? [];
    this.waiting.delete(site);
    for (const event of together(events)) this.emitter.emit(site, event);
  }

  /** Tells every stream that anything may have changed: events may have been missed. */
  gap(): void {
    this.shared += 1;
    for (const site of this.emitter.eventNames())
      for (const topic of topicNames) this.emitter.emit(site, { topic, ids: [] } satisfies ChangeEvent);
  }

  /** Calls back for every event of a site until the returned function is called. */
  subscribe(site: string, hear: (event: ChangeEvent) => void): () => void {
    this.emitter.on(site, hear);
    return () => this.emitter.off(site, hear);
  }
}

/** Events as few: one for each topic and page that asked, and each piece of news by itself. */
function together(events: readonly ChangeEvent[]): ChangeEvent[] {
  const pages = new Set(events.map((e) => e.by));
  const plain = [...pages].flatMap((by) =>
    joined(events.filter((e) => e.by === by && !e.news)).map((c) => (by === undefined ? c : { ...c, by })),
  );
  return [...plain, ...events.filter((e) => e.news)];
}
