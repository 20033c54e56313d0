/** What can change, and of what an event names the ids. */
export const topics = {
  orders: 'order',
  waves: 'wave',
  runs: 'run',
  /** How far a run is: scans of its picks. */
  picks: 'run',
  /** How far an order is picked. */
  progress: 'order',
  counts: 'count',
  exceptions: 'exception',
  bench: 'order',
  shipments: 'shipment',
  stock: 'item',
  setup: 'kind of master data',
  imports: 'import of orders',
  printing: 'print job',
  host: 'message',
  tray: 'person',
  views: 'person',
  me: 'person',
} as const;
export type Topic = keyof typeof topics;
export const topicNames = Object.keys(topics) as [Topic, ...Topic[]];

/** Topics of one person: their events go to nobody else. */
export const personal: ReadonlySet<Topic> = new Set<Topic>(['tray', 'views', 'me']);

/** A topic, or with `#id` of it only the one that the endpoint's address names. */
export type Effect = Topic | `${Topic}#id`;

/** An effect taken apart: its topic, and the id where it is about one thing only. */
export function effectOn(effect: Effect, id: string): { topic: Topic; id: string | null } {
  const [topic, one] = effect.split('#') as [Topic, 'id' | undefined];
  return { topic, id: one ? id : null };
}

/** Work that goes on when the request that began it was answered, on whichever server there is. */
export type JobKind = 'plan-wave' | 'import' | 'host-stream';
