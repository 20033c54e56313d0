import { sql } from 'drizzle-orm';
import type { OrderSenders } from '@hand-relay/contract';
import type { OrderFileLayout, OrderLayout, OrderSender } from '@hand-relay/core/reading/intake';
import { iso, notFound, rows, type Change, type Db, type Tx } from '../../platform/index.ts';

/** Senders of a site whose order files are known. */
export const knownSenders = (on: Db | Tx, siteId: string): Promise<OrderSender[]> =>
  rows<OrderSender>(on, sql`select name, layout from order_sender where site_id = ${siteId} order by name`);

/** Senders as a person sees them. */
export const sendersOf = (on: Db | Tx, siteId: string): Promise<OrderSenders['senders']> =>
  rows(
    on,
    sql`select s.name, s.layout, ${iso(sql`s.at`)} as at, p.name as person from order_sender s join person p on p.id = s.person_id
        where s.site_id = ${siteId} order by lower(s.name)`,
  );

/** Remembers how a sender writes: every heading that was found, so that the sender's next file is known by them. */
export async function rememberSender(
  { tx, actor, now, newId }: Change,
  name: string,
  { matching, values, dates, decimals, guesses }: OrderFileLayout,
): Promise<void> {
  const unsure = new Set(guesses);
  const layout: OrderLayout = {
    matching: Object.fromEntries(Object.entries(matching).filter(([column]) => !unsure.has(column))),
    values,
    dates,
    decimals,
  };
  await tx.execute(sql`
    insert into order_sender (id, site_id, name, layout, at, person_id)
    values (${newId()}, ${actor.siteId}, ${name}, ${JSON.stringify(layout)}::jsonb, ${now.toISOString()}, ${actor.personId})
    on conflict (site_id, lower(name)) do update set name = excluded.name, layout = excluded.layout, at = excluded.at, person_id = excluded.person_id`);
}

/** @throws Refusal 404 where nobody is known by that name */
export async function forgetSender({ tx, actor }: Change, name: string): Promise<void> {
  const gone = await rows(
    tx,
    sql`delete from order_sender where site_id = ${actor.siteId} and lower(name) = lower(${name}) returning 1`,
  );
  if (gone.length === 0) throw notFound('sender', name);
}
