import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { DraftOfOrder, enterOrderBody, IntakeResult, OrderEntered } from '@hand-relay/contract';
import { iso, notFound, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { nextNumbers } from '../../stock/index.ts';
import { itemsOf } from './choices.ts';
import { changeOrders, mustBeThere, timetableOf } from './change.ts';
import { draftsOf, previewOrders, takeOrders } from './take.ts';

type Draft = z.output<typeof enterOrderBody>['draft'];

/** Numbers that are drawn until one is free: somebody may have used some of them by hand. */
const DRAWS = 50;

/** An order as it would be entered. */
export async function draftOfOrder(on: Db | Tx, siteId: string, id: string): Promise<DraftOfOrder> {
  const [order] = await rows<Omit<DraftOfOrder, 'draft' | 'items'> & { number: string; tags: string[] }>(
    on,
    sql`select o.number, o.tags, o.version, o.status = 'open' as open, d.name as departure, ${iso(sql`o.created_at`)} as "takenAt"
        from customer_order o left join departure d on d.id = o.departure_id where o.id = ${id} and o.site_id = ${siteId}`,
  );
  if (!order) throw notFound('order', id);
  const { number, tags, ...rest } = order;
  const { draft } = (await draftsOf(on, siteId, [number])).get(number)!;
  const items = await itemsOf(
    on,
    siteId,
    draft.lines.map((l) => l.sku),
  );
  return { ...rest, draft: { ...draft, tags }, items };
}

const columnOf: Record<string, string> = { to_site: 'toSite', item: 'sku' };

/** Where on the form something is wrong: of the order, or of a line of it. */
const fieldOf = ({ row, column, expected }: IntakeResult['errors'][number]) => ({
  path: ['draft', ...(row === 0 ? [] : ['lines', row - 1]), columnOf[column] ?? column].join('.'),
  message: expected,
});

/** @throws Refusal 409 `order-closed`, `changed-since` where it is not as the person read it */
async function mustBeAsRead({ tx, actor }: Change, id: string, version: number | null): Promise<string> {
  const [order] = await rows<{ number: string; status: string; version: number }>(
    tx,
    sql`select number, status, version from customer_order where id = ${id} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', id);
  if (order.status !== 'open') throw new Refusal('order-closed');
  if (order.version !== version) throw new Refusal('changed-since');
  return order.number;
}

/** The number of a new order: as the person wrote it, or the next of the site. */
async function newNumber(change: Change, { number }: Draft, draw: boolean): Promise<string> {
  const { tx, actor } = change;
  const used = async (n: string) =>
    (await rows(tx, sql`select 1 from customer_order where site_id = ${actor.siteId} and number = ${n}`)).length > 0;
  if (number !== '') {
    if (await used(number))
      throw new Refusal('number-used', { number }, [{ path: 'draft.number', message: 'used already' }]);
    return number;
  }
  if (!draw) return '-';
  const [site] = await rows<{ code: string }>(tx, sql`select code from site where id = ${actor.siteId}`);
  for (let i = 0; i < DRAWS; i++) {
    const [n] = await nextNumbers(change, 'order', 1);
    const drawn = `${site!.code}-${String(n).padStart(5, '0')}`;
    if (!(await used(drawn))) return drawn;
  }
  throw new Refusal('number-used', { number: site!.code });
}

/**
 * Takes an order as a person wrote it, or brings one to what they changed: work under way adapts as to a change that
 * comes from a channel.
 *
 * @throws Refusal 422 `order-wrong` with the fields, 409 `order-in-work` where work under way cannot follow
 */
export async function enterOrder(
  change: Change,
  { mode, id, version, departure, draft }: z.output<typeof enterOrderBody>,
): Promise<OrderEntered> {
  const { tx, actor } = change;
  const take = mode === 'take';
  const number = id === null ? await newNumber(change, draft, take) : await mustBeAsRead(change, id, version);
  mustBeThere((await timetableOf(tx, actor.siteId)).timetable, departure, 'departure', { retired: id !== null });
  const read = {
    orders: [{ draft: { ...draft, number }, row: 0, lineRows: draft.lines.map((_, i) => i + 1) }],
    errors: [],
  };
  const result = take ? (await takeOrders(change, read, '')).result : await previewOrders(tx, actor.siteId, read);
  if (result.errors.length > 0) throw new Refusal('order-wrong', {}, result.errors.map(fieldOf));
  const { outcome, differences } = result.orders[0]!;
  if (outcome === 'under-way') throw new Refusal('order-in-work', { number });
  const readOrder = () =>
    rows<{ id: string; version: number; departure: string | null }>(
      tx,
      sql`select o.id, o.version, d.name as departure from customer_order o left join departure d on d.id = o.departure_id
          where o.site_id = ${actor.siteId} and o.number = ${number}`,
    );
  const [order] = await readOrder();
  const moved = departure !== undefined && order && departure !== order.departure;
  if (moved && take)
    await changeOrders(change, { mode: 'change', changes: [{ orders: [order.id], set: { departure } }] });
  return {
    id: order?.id ?? null,
    number: order ? number : draft.number,
    version: (await readOrder())[0]?.version ?? null,
    outcome: outcome === 'same' && moved ? 'changed' : outcome,
    differences:
      moved && id !== null
        ? [...differences, { field: 'departure', before: order.departure ?? '', after: departure ?? '' }]
        : differences,
  };
}
