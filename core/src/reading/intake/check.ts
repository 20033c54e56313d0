import type { DraftedOrder } from './rows.ts';
import type { IntakeError, OrderDraft } from './draft.ts';

export interface KnownItem {
  id: string;
  sku: string;
  /** Units in a pack of that level, absent where the item has no such pack. */
  packs: Partial<Record<Pack, number>>;
  /** The pack whose barcode was named; null where the item was named by its number. */
  level: Pack | null;
  /** A service or a charge: it stays on the order and is never picked. */
  service: boolean;
}
type Pack = OrderDraft['lines'][number]['pack'];

export interface KnownCustomer {
  number: string;
  address: OrderDraft['shipTo'];
}

/** What the house knows, by what drafts name: a customer by number or name, an item by number or barcode. */
export interface Known {
  customers: ReadonlyMap<string, KnownCustomer>;
  items: ReadonlyMap<string, KnownItem>;
  channels: ReadonlySet<string>;
  /** Codes of the other sites of the house. */
  sites: ReadonlySet<string>;
}

/**
 * Looks up everything that drafts name; an order with an unknown name stays out.
 *
 * @returns the others with numbers of customers and items, and the customer's address where they give none
 */
export function checkOrders(drafted: DraftedOrder[], known: Known): { orders: DraftedOrder[]; errors: IntakeError[] } {
  const errors: IntakeError[] = [];
  const orders = drafted.flatMap(({ draft, row, lineRows, packOpen }) => {
    const before = errors.length;
    const fail = (at: number, column: string, value: string, expected: IntakeError['expected']) =>
      errors.push({ row: at, column, value, expected, order: draft.number });
    const customer = known.customers.get(draft.customer);
    if (!known.channels.has(draft.channel)) fail(row, 'channel', draft.channel, 'a-known-channel');
    if (!customer) fail(row, 'customer', draft.customer, 'a-known-customer');
    if (draft.kind === 'transfer' ? !known.sites.has(draft.toSite) : draft.toSite !== '')
      fail(row, 'to_site', draft.toSite, 'another-site');
    const lines = draft.lines.map((line, i) => {
      const item = known.items.get(line.sku);
      if (!item) {
        fail(lineRows[i]!, 'item', line.sku, 'a-known-item');
        return line;
      }
      const pack = packOpen?.has(line.line) && item.level ? item.level : line.pack;
      if (!item.service && !item.packs[pack]) fail(lineRows[i]!, 'pack', pack, 'a-pack-of-the-item');
      return { ...line, sku: item.sku, pack };
    });
    if (errors.length > before) return [];
    const shipTo = shipToOf(draft.shipTo, customer!.address);
    return [{ draft: { ...draft, customer: customer!.number, shipTo, lines }, row, lineRows }];
  });
  return { orders, errors };
}

/** Where an order goes: the customer's own address where the order gives none at all. */
function shipToOf(given: OrderDraft['shipTo'], own: OrderDraft['shipTo']): OrderDraft['shipTo'] {
  const name = given.name || own.name;
  const none = !given.street && !given.postcode && !given.city && !given.country;
  return none ? { ...own, name } : { ...given, name, country: given.country || own.country };
}

/** An order as the house has it, in the words of a draft, with what has already been released of each line. */
export interface ExistingOrder {
  draft: OrderDraft;
  released: ReadonlyMap<number, number>;
  /**
   * Lines that waves or picks refer to, with the number of their item: also where all of it went back to Desk since, and
   * where the line is gone upstream. Their item never becomes another.
   */
  worked: ReadonlyMap<number, string>;
  /** Whether parts of it were split off as orders of their own. */
  split: boolean;
  /** A closed or cancelled order follows no change by itself. */
  open: boolean;
}

export interface Difference {
  /** Field of the order, or `line 3 quantity`. */
  field: string;
  before: string;
  after: string;
}

export type Comparison =
  | { outcome: 'new' }
  | { outcome: 'same' }
  | { outcome: 'changed'; differences: Difference[] }
  /** Changed while work is under way: what is not picked adapts by itself. */
  | { outcome: 'adapts'; differences: Difference[] }
  /** Changed in a way that work under way cannot follow: another customer, or another item on a line that is released. */
  | { outcome: 'under-way'; differences: Difference[] };

/** Sets a draft beside what is there: a repeat changes nothing, a change is listed field by field. */
export function compareOrder(draft: OrderDraft, existing: ExistingOrder | undefined): Comparison {
  if (!existing) return { outcome: 'new' };
  const differences: Difference[] = [];
  const note = (field: string, before: unknown, after: unknown) => {
    if (before !== after) differences.push({ field, before: String(before), after: String(after) });
  };
  const was = existing.draft;
  for (const field of [
    'kind',
    'toSite',
    'channel',
    'customer',
    'reference',
    'due',
    'priority',
    'shipComplete',
    'note',
    'link',
  ] as const)
    note(field, was[field], draft[field]);
  for (const field of ['name', 'street', 'postcode', 'city', 'country'] as const)
    note(field, was.shipTo[field], draft.shipTo[field]);
  const lines = new Map(was.lines.map((l) => [l.line, l]));
  for (const line of draft.lines) {
    const old = lines.get(line.line);
    lines.delete(line.line);
    const prefix = `line ${line.line}`;
    if (!old) note(prefix, '', `${line.quantity} × ${line.sku}`);
    else
      for (const field of ['sku', 'quantity', 'pack', 'note'] as const)
        note(`${prefix} ${field}`, old[field], line[field]);
  }
  for (const gone of lines.values()) note(`line ${gone.line}`, `${gone.quantity} × ${gone.sku}`, '');
  if (differences.length === 0) return { outcome: 'same' };
  const begun =
    existing.split || existing.worked.size > 0 || [...existing.released.values()].some((units) => units > 0);
  if (!existing.open) return { outcome: 'under-way', differences };
  if (!begun) return { outcome: 'changed', differences };
  const other = draft.lines.some((line) => {
    const worked = existing.worked.get(line.line);
    if (worked !== undefined) return worked !== line.sku;
    const old = was.lines.find((l) => l.line === line.line);
    return old !== undefined && old.sku !== line.sku && (existing.released.get(line.line) ?? 0) > 0;
  });
  const moved = other || was.customer !== draft.customer || was.kind !== draft.kind;
  return { outcome: moved ? 'under-way' : 'adapts', differences };
}
