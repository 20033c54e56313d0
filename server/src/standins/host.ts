import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { HostMessage, hostPlayBody } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import type { OrderDraft } from '@hand-relay/core/reading/intake';
import { seeded } from '@hand-relay/core/random';
import { writeMessage, messagesOf, received, waitingFor } from '../dock/host/index.ts';
import { asRead, cancelByNumber, draftsOf, takeOrders } from '../desk/orders/index.ts';
import { rows, type Change } from '../platform/index.ts';
import { nextNumbers } from '../stock/index.ts';
import { changedOrder, newOrder, type HostWorld } from './hostOrders.ts';

type Play = z.output<typeof hostPlayBody>;

async function worldOf({ tx, now }: Change, siteId: string): Promise<HostWorld> {
  const items = await rows<{ sku: string }>(
    tx,
    sql`select distinct i.sku from item i join stock_total t on t.item_id = i.id and t.site_id = ${siteId} where not i.retired and not i.service order by i.sku`,
  );
  const customers = await rows<HostWorld['customers'][number]>(
    tx,
    sql`select number, name, street, postcode, city, country from customer where not retired order by number limit 500`,
  );
  const [site] = await rows<{ timeZone: string }>(
    tx,
    sql`select time_zone as "timeZone" from site where id = ${siteId}`,
  );
  const today = localDate(now.getTime(), site!.timeZone);
  return { items: items.map((i) => i.sku), customers, days: [0, 0, 1, 2].map((ahead) => addDays(today, ahead)) };
}

/** Some open orders of the site, drawn on each call: what a customer changes or cancels may be at any stage. */
async function someOpen({ tx }: Change, siteId: string, seed: number, count: number): Promise<OrderDraft[]> {
  const open = await rows<{ number: string }>(
    tx,
    sql`select number from customer_order where site_id = ${siteId} and status = 'open' and split_of is null
        order by md5(number || ${String(seed)}) limit ${count}`,
  );
  const drafts = await draftsOf(
    tx,
    siteId,
    open.map((o) => o.number),
  );
  return open.flatMap(({ number }) => drafts.get(number)?.draft ?? []);
}

const DOCUMENT = 'host system';

/** Says to the house what a host system says: new orders, changes, cancellations; and hears what it answers. */
export async function playHost(current: Change, play: Play): Promise<HostMessage[]> {
  const { siteId } = current.actor;
  const seed = play.seed ?? current.now.getTime() % 2 ** 31;
  const random = seeded(seed);
  const world = await worldOf(current, siteId);
  if (world.items.length === 0 || world.customers.length === 0) return [];
  const replies: Pick<HostMessage, 'kind' | 'order' | 'facts'>[] = [];
  const send = async (kind: 'order' | 'change', drafts: OrderDraft[]) => {
    if (drafts.length === 0) return;
    const { orders, errors } = (await takeOrders(current, asRead(drafts), DOCUMENT)).result;
    for (const { number, outcome, differences } of orders)
      replies.push({ kind, order: number, facts: { outcome, differences } });
    for (const { order, column, expected } of errors)
      replies.push({ kind, order, facts: { outcome: 'refused', column, expected } });
  };
  const numbers = await nextNumbers(current, 'host-order', play.orders);
  await send(
    'order',
    numbers.map((n) => newOrder(random, world, `H-${String(n).padStart(5, '0')}`)),
  );
  const open = await someOpen(current, siteId, seed, play.changes + play.cancellations);
  await send(
    'change',
    open.slice(0, play.changes).map((order) => changedOrder(random, world, order)),
  );
  const gone = open.slice(play.changes).map(({ number }) => ({ number, reason: 'cancelled by the customer' }));
  if (gone.length > 0)
    for (const { number, ...facts } of (await cancelByNumber(current, { document: DOCUMENT, orders: gone })).orders)
      replies.push({ kind: 'cancellation', order: number, facts });
  for (const message of replies) await writeMessage(current, { direction: 'from-host', ...message });
  return (await messagesOf(current.tx, siteId, { limit: replies.length })).messages;
}

/** The stand-in takes everything that waits for the host. */
export async function hostReceives(current: Change): Promise<HostMessage[]> {
  const waiting = await waitingFor(current.tx, current.actor.siteId);
  if (waiting.length > 0) await received(current, waiting.at(-1)!.id);
  return waiting;
}
