import { sql } from 'drizzle-orm';
import type { IntakeResult } from '@hand-relay/contract';
import { departureFor, type Departure } from '@hand-relay/core/calendar';
import {
  checkOrders,
  compareOrder,
  type Comparison,
  type DraftedOrder,
  type ExistingOrder,
  type IntakeError,
  type Known,
  type OrderDraft,
  type ReadOrders,
} from '@hand-relay/core/reading/intake';
import { anyOf, recordset, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { adaptOrder } from './adapt.ts';
import { knownOf } from './lookUp.ts';
import { judgeOrders } from '../holds/index.ts';
import { freeOrders, reservesAtIntake, lockOrders, reserveOrders } from '../waves/index.ts';

interface Judged {
  judged: { drafted: DraftedOrder; comparison: Comparison }[];
  errors: IntakeError[];
  known: Known;
  /** Orders that were there already, by number. */
  there: ReadonlyMap<string, ExistingOrder>;
}

/** What taking orders would do. */
export const previewOrders = async (on: Db | Tx, siteId: string, read: ReadOrders): Promise<IntakeResult> =>
  result(false, await judge(on, siteId, read));

/** An order that was taken: new where there was none before. */
export interface TakenOrder {
  id: string;
  number: string;
  before: OrderDraft | null;
}

/**
 * Takes the good ones of what was read, within a change. They are looked at again: what a preview saw may have changed.
 *
 * @param document what they came in; empty where a person entered them
 */
export async function takeOrders(
  current: Change,
  read: ReadOrders,
  document: string,
): Promise<{ result: IntakeResult; taken: TakenOrder[] }> {
  const { tx, actor } = current;
  await lockOrders(tx, actor.siteId, { numbers: read.orders.map((o) => o.draft.number) });
  const judged = await judge(tx, actor.siteId, read);
  const wanted = judged.judged.filter((j) => ['new', 'changed', 'adapts'].includes(j.comparison.outcome));
  const idOf = await writeOrders(current, wanted, judged.known, document);
  const taken = [...idOf].map(([number, id]) => ({ id, number, before: judged.there.get(number)?.draft ?? null }));
  return { result: result(true, judged), taken };
}

/** Orders that came as data, not as a file. */
export const asRead = (orders: readonly OrderDraft[]): ReadOrders => ({
  orders: orders.map((draft, i) => ({ draft, row: i + 1, lineRows: draft.lines.map(() => i + 1) })),
  errors: [],
});

function result(taken: boolean, { judged, errors }: Judged): IntakeResult {
  return {
    taken,
    import: null,
    orders: judged.map(({ drafted: { draft }, comparison }) => ({
      number: draft.number,
      customer: draft.customer,
      lines: draft.lines.length,
      outcome: comparison.outcome,
      differences: 'differences' in comparison ? comparison.differences : [],
    })),
    errors,
    file: null,
  };
}

async function judge(
  on: Db | Tx,
  siteId: string,
  read: { orders: DraftedOrder[]; errors: IntakeError[] },
): Promise<Judged> {
  const known = await knownOf(on, siteId, read.orders);
  const checked = checkOrders(read.orders, known);
  const there = await draftsOf(
    on,
    siteId,
    checked.orders.map((o) => o.draft.number),
  );
  return {
    judged: checked.orders.map((drafted) => ({
      drafted,
      comparison: compareOrder(drafted.draft, there.get(drafted.draft.number)),
    })),
    errors: [...read.errors, ...checked.errors].sort((a, b) => a.row - b.row),
    known,
    there,
  };
}

type OrderHead = Omit<OrderDraft, 'lines' | 'shipTo' | 'tags'> & OrderDraft['shipTo'] & { shipName: string };

/** Orders as their documents would say them, by number. */
export async function draftsOf(on: Db | Tx, siteId: string, numbers: string[]): Promise<Map<string, ExistingOrder>> {
  const heads = await rows<
    OrderHead & {
      open: boolean;
      split: boolean;
      lines: (OrderDraft['lines'][number] & { released: number; worked: boolean })[] | null;
    }
  >(
    on,
    sql`
    select o.number, o.kind, o.to_site as "toSite", o.channel, c.number as customer, o.reference, o.due::text as due, o.priority,
           o.ship_complete as "shipComplete", o.note, o.link, exists (select 1 from customer_order p where p.split_of = o.id) as split, o.ship_name as "shipName", o.ship_street as street,
           o.ship_postcode as postcode, o.ship_city as city, o.ship_country as country,
           o.status = 'open' as open,
           jsonb_agg(jsonb_build_object('line', l.line, 'sku', i.sku, 'quantity', l.quantity, 'pack', l.pack,
                     'note', l.note, 'released', l.released + l.cancelled,
                     'worked', exists (select 1 from wave_line x where x.line_id = l.id)) order by l.line) as lines
    from customer_order o join customer c on c.id = o.customer_id
    join (
      select id, order_id, line, item_id, quantity, pack, note, released, cancelled from order_line
      union all select null, order_id, line, item_id, quantity, 'unit', note, 0, 0 from order_charge
    ) l on l.order_id = o.id join item i on i.id = l.item_id
    where o.site_id = ${siteId} and o.number in (select jsonb_array_elements_text(${recordset(numbers)}))
    group by o.id, c.number`,
  );
  return new Map(
    heads.map(({ shipName, street, postcode, city, country, open, split, lines: existingLines, ...head }) => {
      const all = existingLines ?? [];
      // A line of which nothing is asked is gone upstream: no document names it, but work may have been done for it.
      const lines = all.filter((l) => l.quantity > 0);
      return [
        head.number,
        {
          draft: {
            ...head,
            tags: [],
            shipTo: { name: shipName, street, postcode, city, country },
            lines: lines.map(({ released: _, worked: __, ...line }) => line),
          },
          released: new Map(lines.map((l) => [l.line, l.released])),
          worked: new Map(all.filter((l) => l.worked).map((l) => [l.line, l.sku])),
          split,
          open,
        },
      ] as const;
    }),
  );
}

const goodsOf = (draft: OrderDraft, known: Known) => draft.lines.filter((l) => !known.items.get(l.sku)!.service);

/** Services and charges stay on the order, out of everything that is picked. */
async function writeCharges(
  { tx }: Change,
  wanted: Judged['judged'],
  idOf: ReadonlyMap<string, string>,
  known: Known,
): Promise<void> {
  const charges = wanted.flatMap(({ drafted: { draft } }) =>
    draft.lines
      .filter((l) => known.items.get(l.sku)!.service)
      .map((l) => ({ ...l, order: idOf.get(draft.number)!, item: known.items.get(l.sku)!.id })),
  );
  await tx.execute(sql`delete from order_charge where order_id = ${anyOf([...idOf.values()])}`);
  await tx.execute(sql`
    insert into order_charge (order_id, line, item_id, quantity, note)
    select "order", line, item, quantity, note
    from jsonb_to_recordset(${recordset(charges)}) as c("order" text, line int, item text, quantity int, note text)`);
}

const sameDeparture = sql`customer_order.due = excluded.due and customer_order.channel = excluded.channel and customer_order.priority = excluded.priority`;

/** @returns the ids of what was written, by number */
async function writeOrders(
  current: Change,
  wanted: Judged['judged'],
  known: Known,
  document: string,
): Promise<Map<string, string>> {
  if (wanted.length === 0) return new Map();
  const { tx, actor, now } = current;
  const reserves = await reservesAtIntake(current);
  const [{ timeZone } = { timeZone: 'UTC' }] = await rows<{ timeZone: string }>(
    tx,
    sql`select time_zone as "timeZone" from site where id = ${actor.siteId}`,
  );
  const timetable = await rows<Departure>(
    tx,
    sql`select id, cut_off as "cutOff", days, channel from departure where site_id = ${actor.siteId} and not retired`,
  );
  const heads = wanted.map(({ drafted: { draft } }) => {
    const leaves = departureFor(draft, timetable, timeZone);
    return {
      id: current.newId(),
      ...draft,
      ...draft.shipTo,
      shipName: draft.shipTo.name,
      lines: undefined,
      shipTo: undefined,
      departure: leaves?.id ?? null,
      leavesAt: leaves ? new Date(leaves.leavesAt).toISOString() : null,
    };
  });
  const written = await rows<{ id: string; number: string }>(
    tx,
    sql`
    insert into customer_order (id, site_id, number, kind, to_site, channel, customer_id, reference, due, leaves_at, departure_id, priority,
      ship_complete, ship_name, ship_street, ship_postcode, ship_city, ship_country, note, document, link, tags, created_at)
    select h.id, ${actor.siteId}, h.number, h.kind, h."toSite", h.channel, c.id, h.reference, h.due, h."leavesAt", h.departure, h.priority,
      h."shipComplete", h."shipName", h.street, h.postcode, h.city, h.country, h.note, ${document}, h.link, array(select jsonb_array_elements_text(h.tags)), ${now.toISOString()}
    from jsonb_to_recordset(${recordset(heads)}) as h(id text, number text, kind text, "toSite" text, channel text, customer text, reference text, due date,
      "leavesAt" timestamptz, departure text, priority int, "shipComplete" boolean, "shipName" text, street text, postcode text,
      city text, country text, note text, link text, tags jsonb)
    join customer c on c.number = h.customer
    on conflict (site_id, number) do update set kind = excluded.kind, to_site = excluded.to_site, channel = excluded.channel, customer_id = excluded.customer_id,
      reference = excluded.reference, due = excluded.due,
      -- A departure that somebody chose stays, unless what a departure follows from has changed.
      leaves_at = case when ${sameDeparture} then customer_order.leaves_at else excluded.leaves_at end,
      departure_id = case when ${sameDeparture} then customer_order.departure_id else excluded.departure_id end,
      priority = excluded.priority, ship_complete = excluded.ship_complete, ship_name = excluded.ship_name,
      ship_street = excluded.ship_street, ship_postcode = excluded.ship_postcode, ship_city = excluded.ship_city,
      ship_country = excluded.ship_country, note = excluded.note, document = coalesce(nullif(excluded.document, ''), customer_order.document), link = excluded.link,
      tags = array(select distinct t from unnest(customer_order.tags || excluded.tags) t order by t),
      version = customer_order.version + 1
    returning id, number`,
  );
  const idOf = new Map(written.map((o) => [o.number, o.id]));
  const changed = wanted
    .filter((w) => w.comparison.outcome === 'changed')
    .map((w) => idOf.get(w.drafted.draft.number)!);
  await freeOrders(current, changed);
  await tx.execute(
    sql`delete from reservation where units = 0 and line_id in (select l.id from order_line l where l.order_id = ${anyOf(changed)})`,
  );
  await tx.execute(sql`delete from order_line where order_id = ${anyOf(changed)}`);
  await writeCharges(current, wanted, idOf, known);
  const adapting = wanted.filter((w) => w.comparison.outcome === 'adapts');
  for (const { drafted } of adapting)
    await adaptOrder(current, idOf.get(drafted.draft.number)!, goodsOf(drafted.draft, known), known.items);
  const whole = wanted.filter((w) => w.comparison.outcome !== 'adapts');
  const lines = whole.flatMap(({ drafted: { draft } }) =>
    goodsOf(draft, known).map((line) => {
      const item = known.items.get(line.sku)!;
      return {
        ...line,
        id: current.newId(),
        order: idOf.get(draft.number)!,
        item: item.id,
        asked: line.quantity * item.packs[line.pack]!,
      };
    }),
  );
  await tx.execute(sql`
    insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked)
    select id, "order", line, item, quantity, pack, note, asked
    from jsonb_to_recordset(${recordset(lines)}) as l(id text, "order" text, line int, item text, quantity int, pack text, note text, asked int)`);
  for (const { drafted, comparison } of wanted)
    current.journal({
      kind: comparison.outcome === 'new' ? 'order-taken' : 'order-changed',
      orderId: idOf.get(drafted.draft.number)!,
      facts: {
        document,
        lines: drafted.draft.lines.length,
        ...('differences' in comparison ? { differences: comparison.differences } : {}),
      },
    });
  // Of services alone nothing is left to do.
  await tx.execute(sql`
    update customer_order o set status = 'closed' where o.id = ${anyOf([...idOf.values()])}
      and not exists (select 1 from order_line l where l.order_id = o.id)`);
  await judgeOrders(current, [...idOf.values()]);
  if (reserves) await reserveOrders(current, [...idOf.values()]);
  current.publish('orders', [...idOf.values()], {
    kind: 'orders-taken',
    facts: { count: wanted.length, by: current.actor.personId },
  });
  return idOf;
}
