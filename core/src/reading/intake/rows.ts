import { demandKinds, type DemandKind } from '../../handling/shipping/index.ts';
import { quoted } from '../sheets/index.ts';
import { orderSheet, type OrderColumn } from './columns.ts';
import type { IntakeError, IntakeExpectation, LineDraft, OrderDraft } from './draft.ts';

/** Tags of a cell, separated by a bar, comma or semicolon; each once. */
const tagsOf = (text: string) => [
  ...new Set(
    text
      .split(/[|,;]/)
      .map((tag) => tag.trim())
      .filter(Boolean),
  ),
];

/** Columns of the line; the others are the order's. */
const ofLine: ReadonlySet<string> = new Set(['line', 'item', 'quantity', 'pack', 'line_note']);

/** A drafted order with the rows of the file it came from. */
export interface DraftedOrder {
  draft: OrderDraft;
  row: number;
  lineRows: number[];
  /** Lines of which the document does not say in what pack they are counted. */
  packOpen?: Set<number>;
}

/** Whether a text is a date of the calendar in the form YYYY-MM-DD. */
export function isIsoDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const at = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().slice(0, 10) === text;
}

/** A row of an order file: its cells by column, and where it stands. */
export interface OrderRowCells {
  row: number;
  cells: Partial<Record<OrderColumn, string>>;
  /** Where each cell stands, for documents that have no columns; the column itself without it. */
  at?: (column: OrderColumn) => string;
}

/**
 * Reads orders from rows, one a line, whatever file they came from. What the first row of an order says of it counts for
 * its further rows that leave it out; lines without a number get the next one.
 *
 * @returns the orders whose every row is well formed, and every error at its row and column
 */
export function readOrderRows(rows: OrderRowCells[]): { orders: DraftedOrder[]; errors: IntakeError[] } {
  const errors: IntakeError[] = [];
  const orders = new Map<string, DraftedOrder>();
  const bad = new Set<string>();
  const heads = new Map<string, OrderRowCells['cells']>();
  for (const { row, cells, at = (column: OrderColumn): string => column } of rows) {
    const number = (cells.order ?? '').trim();
    const head = heads.get(number) ?? cells;
    heads.set(number, head);
    const own = (column: OrderColumn) => (cells[column] ?? '').trim();
    const cell = (column: OrderColumn) => own(column) || (ofLine.has(column) ? '' : (head[column] ?? '').trim());
    const wrong = (column: OrderColumn, expected: IntakeExpectation) => {
      errors.push({ row, column: at(column), value: quoted(cell(column)), expected, order: quoted(number) });
      bad.add(number);
    };
    const before = errors.length;
    for (const { name: column, needed, type } of orderSheet.columns) {
      if (needed && cell(column) === '') wrong(column, 'a-value');
      if (type.kind === 'text' && cell(column).length > type.most) wrong(column, 'at-most-length');
    }
    const kind = cell('kind').toLowerCase() || 'order';
    if (!demandKinds.includes(kind as DemandKind)) wrong('kind', 'a-kind');
    if (cell('due') && !isIsoDate(cell('due'))) wrong('due', 'a-date');
    if (cell('priority') && !/^[1-9]$/.test(cell('priority'))) wrong('priority', 'one-to-nine');
    if (cell('ship_complete') && !/^(yes|no)$/i.test(cell('ship_complete'))) wrong('ship_complete', 'yes-or-no');
    if (cell('country') && !/^[A-Za-z]{2}$/.test(cell('country'))) wrong('country', 'a-country-code');
    if (cell('line') && !/^[1-9]\d{0,3}$/.test(cell('line'))) wrong('line', 'a-whole-number');
    if (cell('quantity') && !/^[1-9]\d{0,6}$/.test(cell('quantity'))) wrong('quantity', 'a-whole-number');
    const pack = cell('pack').toLowerCase() || 'unit';
    if (!['unit', 'inner', 'outer'].includes(pack)) wrong('pack', 'a-pack-of-the-item');
    if (cell('link') && !/^https?:\/\/\S+$/i.test(cell('link'))) wrong('link', 'an-address');
    const tags = tagsOf(cell('tags'));
    if (tags.length > 12 || tags.some((tag) => tag.length > 24)) wrong('tags', 'short-tags');
    if (errors.length > before) continue;

    const known = orders.get(number);
    const packOpen = (of: LineDraft) => new Set(cell('pack') === '' ? [of.line] : []);
    const line: LineDraft = {
      line: Number(cell('line')) || 1 + Math.max(0, ...(known?.draft.lines ?? []).map((l) => l.line)),
      sku: cell('item'),
      quantity: Number(cell('quantity')),
      pack: pack as LineDraft['pack'],
      note: cell('line_note'),
    };
    const draft: Omit<OrderDraft, 'lines'> = {
      number,
      kind: kind as DemandKind,
      toSite: cell('to_site').toUpperCase(),
      channel: cell('channel').toLowerCase(),
      customer: cell('customer'),
      reference: cell('reference'),
      due: cell('due'),
      priority: Number(cell('priority') || 5),
      shipComplete: cell('ship_complete').toLowerCase() === 'yes',
      shipTo: {
        name: cell('ship_to_name'),
        street: cell('street'),
        postcode: cell('postcode'),
        city: cell('city'),
        country: cell('country').toUpperCase(),
      },
      note: cell('order_note'),
      link: cell('link'),
      tags,
    };
    if (!known) {
      orders.set(number, { draft: { ...draft, lines: [line] }, row, lineRows: [row], packOpen: packOpen(line) });
      continue;
    }
    const odd = firstDifference(known.draft, draft);
    if (odd) wrong(odd, 'one-value-per-order');
    else if (known.draft.lines.some((l) => l.line === line.line)) wrong('line', 'a-line-once');
    else {
      known.draft.lines.push(line);
      known.lineRows.push(row);
      for (const open of packOpen(line)) known.packOpen!.add(open);
    }
  }
  return { orders: [...orders.values()].filter((o) => !bad.has(o.draft.number)), errors };
}

function firstDifference(a: OrderDraft, b: Omit<OrderDraft, 'lines'>): OrderColumn | undefined {
  const columns: [OrderColumn, (o: Omit<OrderDraft, 'lines'>) => unknown][] = [
    ['kind', (o) => o.kind],
    ['to_site', (o) => o.toSite],
    ['channel', (o) => o.channel],
    ['customer', (o) => o.customer],
    ['reference', (o) => o.reference],
    ['due', (o) => o.due],
    ['priority', (o) => o.priority],
    ['ship_complete', (o) => o.shipComplete],
    ['ship_to_name', (o) => o.shipTo.name],
    ['street', (o) => o.shipTo.street],
    ['postcode', (o) => o.shipTo.postcode],
    ['city', (o) => o.shipTo.city],
    ['country', (o) => o.shipTo.country],
    ['order_note', (o) => o.note],
    ['link', (o) => o.link],
    ['tags', (o) => o.tags.join('|')],
  ];
  return columns.find(([, of]) => of(a) !== of(b))?.[0];
}
