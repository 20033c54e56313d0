import { unreadable, type ReadOrders } from './read.ts';
import type { OrderColumn } from './columns.ts';
import { readOrderRows, type OrderRowCells } from './rows.ts';

/** Where each column stands in an order of the API's JSON, and in one of its lines. */
const ofOrder: Partial<Record<OrderColumn, string>> = {
  order: 'number',
  kind: 'kind',
  to_site: 'toSite',
  channel: 'channel',
  customer: 'customer',
  reference: 'reference',
  due: 'due',
  priority: 'priority',
  ship_complete: 'shipComplete',
  ship_to_name: 'shipTo.name',
  street: 'shipTo.street',
  postcode: 'shipTo.postcode',
  city: 'shipTo.city',
  country: 'shipTo.country',
  order_note: 'note',
  link: 'link',
  tags: 'tags',
};
const ofLine: Partial<Record<OrderColumn, string>> = {
  line: 'line',
  item: 'sku',
  quantity: 'quantity',
  pack: 'pack',
  line_note: 'note',
};

type Tree = Record<string, unknown>;
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

function textAt(tree: unknown, path: string): string {
  const found = path.split('.').reduce<unknown>((at, name) => (isTree(at) ? at[name] : undefined), tree);
  if (Array.isArray(found)) return found.map(String).join('|');
  if (typeof found === 'boolean') return found ? 'yes' : 'no';
  return typeof found === 'string' || typeof found === 'number' ? String(found) : '';
}

/**
 * Reads orders from JSON as the API takes them: a list, or an object with `orders`. Errors name the field by its path,
 * `orders[1].lines[0].quantity`; their row counts the lines of the document.
 */
export function readOrdersJson(text: string): ReadOrders {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    return unreadable(0, '', (error as Error).message.split('\n')[0]!, 'json');
  }
  const list = isTree(document) && 'orders' in document ? document['orders'] : document;
  if (!Array.isArray(list)) return unreadable(0, 'orders', typeof list, 'a-list');
  const rows: OrderRowCells[] = [];
  for (const [n, order] of list.entries()) {
    const lines = isTree(order) ? order['lines'] : undefined;
    if (!Array.isArray(lines) || lines.length === 0) return unreadable(0, `orders[${n}].lines`, '', 'a-list');
    for (const [i, line] of lines.entries()) {
      const cells: OrderRowCells['cells'] = {};
      for (const [column, path] of Object.entries(ofOrder)) cells[column as OrderColumn] = textAt(order, path);
      for (const [column, path] of Object.entries(ofLine)) cells[column as OrderColumn] = textAt(line, path);
      rows.push({
        row: rows.length + 1,
        cells,
        at: (column) => `orders[${n}].${ofLine[column] ? `lines[${i}].${ofLine[column]}` : ofOrder[column]!}`,
      });
    }
  }
  return readOrderRows(rows);
}
