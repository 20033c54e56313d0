import { EventEmitter } from 'node:events';
import { topics, type ChangeEvent } from '@hand-relay/contract';

const COUNTED: ReadonlySet<ChangeEvent['topic']> = new Set(['orders', 'stock', 'setup']);

/** Carries "this changed" to the streams of this server. What comes in was committed. */
export class Bus {
  private readonly emitter = new EventEmitter().setMaxListeners(0);

  private count = 0;

  /** Rises with every change of orders, stock or master data: what was read before is as it was while it stays. */
  get version(): number {
    return this.count;
  }

  /** A change of this server was committed; its events come back through the database a moment later. */
  committed(events: readonly ChangeEvent[]): void {
    if (events.some((event) => COUNTED.has(event.topic))) this.count += 1;
  }

  /** Takes a payload as the database notified it. */
  hear(payload: string): void {
    const { site, event } = JSON.parse(payload) as { site: string; event: ChangeEvent };
    this.committed([event]);
    this.emitter.emit(site, event);
  }

  /** Tells every stream that anything may have changed: events may have been missed. */
  gap(): void {
    this.count += 1;
    for (const site of this.emitter.eventNames())
      for (const topic of topics) this.emitter.emit(site, { topic, ids: [] } satisfies ChangeEvent);
  }

  /** Calls back for every event of a site until the returned function is called. */
  subscribe(site: string, hear: (event: ChangeEvent) => void): () => void {
    this.emitter.on(site, hear);
    return () => this.emitter.off(site, hear);
  }
}
