import { sql } from 'drizzle-orm';
import type { IntakeResult, OrderImport } from '@hand-relay/contract';
import {
  anyOf,
  iso,
  notFound,
  recordset,
  Refusal,
  rows,
  type Change,
  type Db,
  type ReadOrderFile,
  type Tx,
} from '../../platform/index.ts';
import type { ImportedOrder } from '../../tables/index.ts';
import { asRead, takeOrders } from '../orders/index.ts';
import { freeOrders, lockOrders } from '../waves/index.ts';
import { rememberSender } from './senders.ts';

/** Errors of an import that are kept. */
const ERRORS = 500;
/** Imports of a list. */
const LISTED = 100;

/** Takes the good orders of a file, and writes down what undoes it. */
export async function takeFile(
  current: Change,
  read: ReadOrderFile,
  { document, sender, source }: { document: string; sender: string; source: OrderImport['source'] },
): Promise<IntakeResult> {
  const { tx, actor } = current;
  if (sender !== '' && read.layout) await rememberSender(current, sender, read.layout);
  const documents = await documentsOf(tx, actor.siteId, read);
  const { result, taken } = await takeOrders(current, read, document);
  const versions = await rows<{ id: string; version: number }>(
    tx,
    sql`select id, version from customer_order where id = ${anyOf(taken.map((o) => o.id))}`,
  );
  const versionOf = new Map(versions.map((o) => [o.id, o.version]));
  const orders = taken.map(({ id, number, before }): ImportedOrder => ({
    id,
    number,
    version: versionOf.get(id)!,
    before: before && { draft: before, ...documents.get(number)! },
  }));
  const count = (...outcomes: string[]) => result.orders.filter((o) => outcomes.includes(o.outcome)).length;
  const id = current.newId();
  await tx.execute(sql`
    insert into order_import (id, site_id, at, person_id, document, sender, source, new, changed, same, faults, errors, orders)
    values (${id}, ${actor.siteId}, ${current.now.toISOString()}, ${actor.personId}, ${document}, ${sender || (read.layout?.sender ?? '')}, ${source},
      ${count('new')}, ${count('changed', 'adapts')}, ${count('same')}, ${result.errors.length},
      ${JSON.stringify(result.errors.slice(0, ERRORS))}::jsonb, ${JSON.stringify(orders)}::jsonb)`);
  current.publish('imports', [id]);
  return { ...result, import: id, file: read.layout ?? null };
}

/** What stands of orders beside what their documents say, before they are written again. */
async function documentsOf(tx: Tx, siteId: string, read: ReadOrderFile) {
  const found = await rows<{ number: string; document: string; tags: string[] }>(
    tx,
    sql`select number, document, tags from customer_order where site_id = ${siteId}
          and number in (select jsonb_array_elements_text(${recordset(read.orders.map((o) => o.draft.number))}))`,
  );
  return new Map(found.map(({ number, ...rest }) => [number, rest]));
}

/** An order of an import that is not as the import left it: released, cancelled, changed, shipped or gone. */
const movedOn = sql`
  o.id is null or o.version <> x.version
  or exists (select 1 from order_line l where l.order_id = o.id
             and (l.released > 0 or l.cancelled > 0 or exists (select 1 from wave_line w where w.line_id = l.id)))
  or exists (select 1 from shipment s where s.order_id = o.id) or exists (select 1 from customer_order p where p.split_of = o.id)`;

/** The last imports of a site, or those whose file or sender is asked for. */
export const importsOf = (on: Db | Tx, siteId: string, find = ''): Promise<OrderImport[]> =>
  rows<OrderImport>(
    on,
    sql`select m.id, ${iso(sql`m.at`)} as at, p.name as person, m.document, m.sender, m.source, m.new, m.changed, m.same, m.errors, m.faults,
               case when m.undone_at is not null then 'undone'
                    when exists (
                      select 1 from jsonb_to_recordset(m.orders) as x(id text, version int) left join customer_order o on o.id = x.id where ${movedOn}
                    ) then 'under-way' else 'done' end as state
        from order_import m join person p on p.id = m.person_id
        where m.site_id = ${siteId} and (m.document || ' ' || m.sender) ilike ${`%${find.replace(/[\\%_]/g, '\\$&')}%`}
        order by m.at desc, m.id desc limit ${LISTED}`,
  );

/**
 * Takes an import back: what it made is gone, what it changed is as it was.
 *
 * @throws Refusal 409 `import-under-way` naming the first orders that have moved on, `undone-already`
 */
export async function undoImport(current: Change, id: string): Promise<{ removed: number; restored: number }> {
  const { tx, actor } = current;
  const [found] = await rows<{ document: string; orders: ImportedOrder[]; undone: boolean }>(
    tx,
    sql`select document, orders, undone_at is not null as undone from order_import where id = ${id} and site_id = ${actor.siteId} for update`,
  );
  if (!found) throw notFound('import', id);
  if (found.undone) throw new Refusal('undone-already');
  await lockOrders(tx, actor.siteId, { numbers: found.orders.map((o) => o.number) });
  const moved = await rows<{ number: string }>(
    tx,
    sql`select x.number from jsonb_to_recordset(${recordset(found.orders)}) as x(id text, number text, version int)
        left join customer_order o on o.id = x.id where ${movedOn} order by x.number limit 5`,
  );
  if (moved.length > 0) throw new Refusal('import-under-way', { orders: moved.map((o) => o.number).join(', ') });
  const made = found.orders.filter((o) => o.before === null);
  const changed = found.orders.flatMap(({ before, ...o }) => (before ? [{ ...o, ...before }] : []));
  await removeOrders(current, made);
  const restored = await takeOrders(current, asRead(changed.map((o) => o.draft)), '');
  const [wrong] = restored.result.errors;
  if (wrong) throw new Refusal('import-under-way', { orders: wrong.order });
  await tx.execute(sql`
    update customer_order o set document = x.document, tags = array(select jsonb_array_elements_text(x.tags))
    from jsonb_to_recordset(${recordset(changed)}) as x(id text, document text, tags jsonb) where o.id = x.id`);
  await tx.execute(sql`update order_import set undone_at = ${current.now.toISOString()} where id = ${id}`);
  current.journal({
    kind: 'import-undone',
    facts: { document: found.document, removed: made.map((o) => o.number), restored: changed.map((o) => o.number) },
  });
  current.publish('imports', [id]);
  current.publish('orders', []);
  return { removed: made.length, restored: changed.length };
}

/** Deletes orders that nobody has worked on: their document can be imported again as new. */
async function removeOrders(current: Change, orders: readonly ImportedOrder[]): Promise<void> {
  const { tx } = current;
  const ids = orders.map((o) => o.id);
  const those = anyOf(ids);
  await freeOrders(current, ids);
  await tx.execute(sql`delete from reservation where line_id in (select id from order_line where order_id = ${those})`);
  for (const table of ['exception', 'load_order', 'order_hold', 'order_charge', 'order_line'])
    await tx.execute(sql`delete from ${sql.identifier(table)} where order_id = ${those}`);
  await tx.execute(sql`delete from customer_order where id = ${those}`);
}
