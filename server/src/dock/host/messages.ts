import { sql } from 'drizzle-orm';
import type { HostMessage } from '@hand-relay/contract';
import { iso, rows, type Change, type Db, type Tx } from '../../platform/index.ts';

type Told = Pick<HostMessage, 'direction' | 'kind' | 'order' | 'facts'>;

/**
 * Keeps a message in the same transaction as what it tells of: a host that is away gets it later, and none is told
 * twice.
 */
export async function writeMessage(change: Change, { direction, kind, order, facts }: Told): Promise<void> {
  await change.tx.execute(sql`
    insert into host_message (site_id, at, direction, kind, order_number, facts)
    values (${change.actor.siteId}, ${change.now.toISOString()}, ${direction}, ${kind}, ${order}, ${JSON.stringify(facts)}::jsonb)`);
  change.publish('host', []);
}

/** What the host is told of a confirmed shipment: what left, with which tracking number, and what is to be invoiced. */
export async function confirmToHost(change: Change, shipmentId: string, invoice: boolean): Promise<void> {
  const [shipped] = await rows<{ order: string; facts: Record<string, unknown> }>(
    change.tx,
    sql`
    select o.number as "order", jsonb_build_object(
      'shipment', s.number, 'kind', o.kind, 'carrier', k.name, 'service', v.name, 'tracking', s.tracking,
      'confirmedAt', ${iso(sql`s.confirmed_at`)}, 'invoice', ${invoice}::boolean,
      'lines', (select jsonb_agg(jsonb_build_object('line', l.line, 'sku', i.sku, 'units', x.units) order by l.line)
                from shipment_line x join order_line l on l.id = x.line_id join item i on i.id = l.item_id where x.shipment_id = s.id and x.units > 0),
      'goods', (select jsonb_agg(jsonb_strip_nulls(jsonb_build_object('sku', g.sku, 'lot', nullif(g.lot, ''), 'serial', nullif(g.serial, ''), 'units', g.units)) order by g.sku, g.lot, g.serial)
                from (select i.sku, m.lot, m.serial, sum(m.units)::int as units from movement m join item i on i.id = m.item_id
                      where m.document = s.id and m.reason = 'ship' group by 1, 2, 3) g),
      'charges', ${
        invoice
          ? sql`(select jsonb_agg(jsonb_build_object('line', g.line, 'sku', i.sku, 'quantity', g.quantity) order by g.line)
                from order_charge g join item i on i.id = g.item_id where g.order_id = o.id)`
          : sql`null::jsonb`
      },
      -- Packaging that is a line of its own: what left of each type, outside what was asked and picked.
      'packaging', (select jsonb_agg(jsonb_build_object('type', coalesce(t.code, q.name), 'units', -m.units) order by m.type_id)
                from packaging_movement m join packaging p on p.site_id = m.site_id and p.type_id = m.type_id and p.own_line
                left join carton_type t on t.id = m.type_id left join pallet_type q on q.id = m.type_id
                where m.site_id = s.site_id and m.document = s.id and m.reason = 'shipped'),
      'units', (select jsonb_agg(c.sscc order by c.number) from carton c where c.shipment_id = s.id and c.sscc is not null)
    ) as facts
    from shipment s join customer_order o on o.id = s.order_id left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id
    where s.id = ${shipmentId}`,
  );
  await writeMessage(change, { direction: 'to-host', kind: 'confirmation', ...shipped! });
}

/**
 * Messages of a site: all, the newest first; or what the host has not read yet, in order.
 *
 * @param after only messages to the host with a greater number
 */
export async function messagesOf(
  on: Db | Tx,
  siteId: string,
  { after, limit }: { after?: number | undefined; limit: number },
): Promise<{ messages: HostMessage[]; waiting: number }> {
  const which =
    after === undefined ? sql`true order by m.id desc` : sql`m.direction = 'to-host' and m.id > ${after} order by m.id`;
  const messages = await rows<HostMessage>(
    on,
    sql`select m.id::int as id, ${iso(sql`m.at`)} as at, m.direction, m.kind, m.order_number as "order", m.facts,
               ${iso(sql`m.received_at`)} as "receivedAt"
        from host_message m where m.site_id = ${siteId} and ${which} limit ${limit}`,
  );
  const [waiting] = await rows<{ n: number }>(
    on,
    sql`select count(*)::int as n from host_message where site_id = ${siteId} and direction = 'to-host' and received_at is null`,
  );
  return { messages, waiting: waiting!.n };
}

/** The host has all messages up to a number. */
export async function received(change: Change, upTo: number): Promise<{ received: number }> {
  const { tx, actor, now } = change;
  const marked = await rows<{ id: string }>(
    tx,
    sql`update host_message set received_at = ${now.toISOString()}
        where site_id = ${actor.siteId} and direction = 'to-host' and received_at is null and id <= ${upTo} returning id`,
  );
  if (marked.length > 0) change.publish('host', []);
  return { received: marked.length };
}

/** Messages that the host has not received, the oldest first, at most so many at once. */
export async function waitingFor(on: Db | Tx, siteId: string, limit = 1000): Promise<HostMessage[]> {
  const [first] = await rows<{ id: number | null }>(
    on,
    sql`select min(id)::int as id from host_message where site_id = ${siteId} and direction = 'to-host' and received_at is null`,
  );
  if (!first || first.id === null) return [];
  const { messages } = await messagesOf(on, siteId, { after: first.id - 1, limit });
  return messages.filter((m) => m.receivedAt === null);
}
