import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { HostMessage, HostMessages, hostPlayBody, hostStreamBody } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import type { OrderDraft } from '@hand-relay/core/intake';
import { seeded } from '@hand-relay/core/random';
import { keepMessage, messagesOf, received, waitingFor } from '../host/index.ts';
import { cancelByNumber, draftsOf, intake } from '../orders/index.ts';
import { change, rows, type Actor, type Platform } from '../platform/index.ts';
import { nextNumbers } from '../stock/index.ts';
import { changedOrder, newOrder, type HostWorld } from './hostOrders.ts';

type Play = z.output<typeof hostPlayBody>;

async function worldOf({ db, clock }: Platform, siteId: string): Promise<HostWorld> {
  const items = await rows<{ sku: string }>(
    db,
    sql`select distinct i.sku from item i join stock_total t on t.item_id = i.id and t.site_id = ${siteId} where not i.retired and not i.service order by i.sku`,
  );
  const customers = await rows<HostWorld['customers'][number]>(
    db,
    sql`select number, name, street, postcode, city, country from customer where not retired order by number limit 500`,
  );
  const [site] = await rows<{ timeZone: string }>(
    db,
    sql`select time_zone as "timeZone" from site where id = ${siteId}`,
  );
  const today = localDate(clock().getTime(), site!.timeZone);
  return { items: items.map((i) => i.sku), customers, days: [0, 0, 1, 2].map((ahead) => addDays(today, ahead)) };
}

/** Some open orders of the site, drawn on each call: what a customer changes or cancels may be at any stage. */
async function someOpen(platform: Platform, siteId: string, seed: number, count: number): Promise<OrderDraft[]> {
  const open = await rows<{ number: string }>(
    platform.db,
    sql`select number from customer_order where site_id = ${siteId} and status = 'open' and split_of is null
        order by md5(number || ${String(seed)}) limit ${count}`,
  );
  const drafts = await draftsOf(
    platform.db,
    siteId,
    open.map((o) => o.number),
  );
  return open.flatMap(({ number }) => drafts.get(number)?.draft ?? []);
}

/** Says to the house what a host system says: new orders, changes, cancellations; and hears what it answers. */
export async function playHost(platform: Platform, actor: Actor, play: Play): Promise<HostMessage[]> {
  const seed = play.seed ?? platform.clock().getTime() % 2 ** 31;
  const random = seeded(seed);
  const world = await worldOf(platform, actor.siteId);
  if (world.items.length === 0 || world.customers.length === 0) return [];
  const told: Pick<HostMessage, 'kind' | 'order' | 'facts'>[] = [];
  const send = async (kind: 'order' | 'change', drafts: OrderDraft[]) => {
    if (drafts.length === 0) return;
    const body = { mode: 'take' as const, document: 'host system', orders: drafts };
    const { orders, errors } = await intake(platform, actor, null, body);
    for (const { number, outcome, differences } of orders)
      told.push({ kind, order: number, facts: { outcome, differences } });
    for (const { order, column, expected } of errors)
      told.push({ kind, order, facts: { outcome: 'refused', column, expected } });
  };
  const numbers = await change(platform, actor, null, (current) => nextNumbers(current, 'host-order', play.orders));
  await send(
    'order',
    numbers.map((n) => newOrder(random, world, `H-${String(n).padStart(5, '0')}`)),
  );
  const open = await someOpen(platform, actor.siteId, seed, play.changes + play.cancellations);
  await send(
    'change',
    open.slice(0, play.changes).map((order) => changedOrder(random, world, order)),
  );
  const gone = open.slice(play.changes).map(({ number }) => ({ number, reason: 'cancelled by the customer' }));
  const first = await change(platform, actor, null, async (current) => {
    if (gone.length > 0)
      for (const { number, ...facts } of (await cancelByNumber(current, { document: 'host system', orders: gone }))
        .orders)
        told.push({ kind: 'cancellation', order: number, facts });
    for (const message of told) await keepMessage(current, { direction: 'from-host', ...message });
    return told.length;
  });
  return (await messagesOf(platform.db, actor.siteId, { limit: first })).messages;
}

/** The stand-in takes everything that waits for the host. */
export async function hostReceives(platform: Platform, actor: Actor): Promise<HostMessage[]> {
  const waiting = await waitingFor(platform.db, actor.siteId);
  if (waiting.length > 0) await change(platform, actor, null, (current) => received(current, waiting.at(-1)!.id));
  return waiting;
}

type Stream = NonNullable<HostMessages['stream']>;

/** Streams under way, by site. They end with the server: a stand-in has nothing to lose. */
export class HostStreams {
  private readonly running = new Map<string, { stream: Stream; timer: NodeJS.Timeout }>();
  private readonly platform: Platform;

  constructor(platform: Platform) {
    this.platform = platform;
  }

  of(siteId: string): Stream | null {
    return this.running.get(siteId)?.stream ?? null;
  }

  set(actor: Actor, { every, ...play }: z.output<typeof hostStreamBody>): void {
    clearInterval(this.running.get(actor.siteId)?.timer);
    this.running.delete(actor.siteId);
    if (every === null) return;
    let busy = false;
    const tick = async () => {
      if (busy) return;
      busy = true;
      await playHost(this.platform, actor, play)
        .then(() => hostReceives(this.platform, actor))
        .catch((error: unknown) => this.platform.log.warn({ err: error }, 'the host stand-in was refused'));
      busy = false;
    };
    const timer = setInterval(() => void tick(), every * 1000);
    timer.unref();
    this.running.set(actor.siteId, { stream: { every, ...play }, timer });
    void tick();
  }

  close(): void {
    for (const { timer } of this.running.values()) clearInterval(timer);
    this.running.clear();
  }
}
