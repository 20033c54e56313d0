import Papa from 'papaparse';
import type { IntakeError, IntakeExpectation, LineDraft, OrderDraft } from './draft.ts';

/** Columns of the order file, one row a line. Those marked true must be there. */
export const orderColumns = {
  order: true,
  channel: true,
  customer: true,
  reference: false,
  due: true,
  priority: false,
  ship_complete: false,
  ship_to_name: true,
  street: true,
  postcode: true,
  city: true,
  country: true,
  order_note: false,
  line: true,
  item: true,
  quantity: true,
  pack: false,
  line_note: false,
} as const;

type Column = keyof typeof orderColumns;

const LONGEST: Partial<Record<Column, number>> = {
  order: 30,
  reference: 60,
  order_note: 500,
  line_note: 500,
  ship_to_name: 120,
  street: 120,
  city: 80,
  postcode: 20,
};

/** A drafted order with the rows of the file it came from. */
export interface DraftedOrder {
  draft: OrderDraft;
  row: number;
  lineRows: number[];
}

/** Whether a text is a date of the calendar in the form YYYY-MM-DD. */
export function isIsoDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const at = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().slice(0, 10) === text;
}

/**
 * Reads an order file (CSV after RFC 4180, comma or semicolon, with or without byte order mark).
 *
 * @param text the decoded file
 * @returns the orders whose every row is well formed, and every error at its row and column
 */
export function readOrdersCsv(text: string): { orders: DraftedOrder[]; errors: IntakeError[] } {
  const errors: IntakeError[] = [];
  const fail = (row: number, column: string, value: string, expected: IntakeExpectation, order = '') =>
    errors.push({ row, column, value, expected, order });

  const body = text.replace(/^\uFEFF/, '');
  const parsed = Papa.parse<string[]>(body, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t'] });
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken) {
    fail((broken.row ?? 0) + 1, '', broken.message, 'csv');
    return { orders: [], errors };
  }
  const [heading, ...rows] = parsed.data;
  if (!heading) {
    fail(0, '', '', 'csv');
    return { orders: [], errors };
  }
  const names = heading.map((h) => h.trim().toLowerCase());
  for (const [column, needed] of Object.entries(orderColumns))
    if (needed && !names.includes(column)) fail(1, column, '', 'a-column');
  if (errors.length > 0) return { orders: [], errors };

  const orders = new Map<string, DraftedOrder>();
  const bad = new Set<string>();
  rows.forEach((cells, i) => {
    const row = i + 2;
    const cell = (column: Column) => (cells[names.indexOf(column)] ?? '').trim();
    const number = cell('order');
    const wrong = (column: Column, expected: IntakeExpectation, value: string = cell(column)) => {
      fail(row, column, value, expected, number);
      bad.add(number);
    };
    if (cells.length !== names.length) {
      fail(row, '', String(cells.length), 'as-many-fields-as-headings', number);
      bad.add(number);
      return;
    }
    const before = errors.length;
    for (const [column, needed] of Object.entries(orderColumns) as [Column, boolean][]) {
      if (needed && cell(column) === '') wrong(column, 'a-value');
      if (cell(column).length > (LONGEST[column] ?? 200)) wrong(column, 'at-most-length');
    }
    if (cell('due') && !isIsoDate(cell('due'))) wrong('due', 'a-date');
    if (cell('priority') && !/^[1-9]$/.test(cell('priority'))) wrong('priority', 'one-to-nine');
    if (cell('ship_complete') && !/^(yes|no)$/i.test(cell('ship_complete'))) wrong('ship_complete', 'yes-or-no');
    if (cell('country') && !/^[A-Za-z]{2}$/.test(cell('country'))) wrong('country', 'a-country-code');
    if (cell('line') && !/^[1-9]\d{0,3}$/.test(cell('line'))) wrong('line', 'a-whole-number');
    if (cell('quantity') && !/^[1-9]\d{0,6}$/.test(cell('quantity'))) wrong('quantity', 'a-whole-number');
    const pack = cell('pack').toLowerCase() || 'unit';
    if (!['unit', 'inner', 'outer'].includes(pack)) wrong('pack', 'a-pack-of-the-item');
    if (errors.length > before) return;

    const line: LineDraft = {
      line: Number(cell('line')),
      sku: cell('item'),
      quantity: Number(cell('quantity')),
      pack: pack as LineDraft['pack'],
      note: cell('line_note'),
    };
    const head: Omit<OrderDraft, 'lines'> = {
      number,
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
    };
    const known = orders.get(number);
    if (!known) {
      orders.set(number, { draft: { ...head, lines: [line] }, row, lineRows: [row] });
      return;
    }
    const odd = firstDifference(known.draft, head);
    if (odd) return wrong(odd, 'one-value-per-order');
    if (known.draft.lines.some((l) => l.line === line.line)) return wrong('line', 'a-line-once');
    known.draft.lines.push(line);
    known.lineRows.push(row);
  });
  return { orders: [...orders.values()].filter((o) => !bad.has(o.draft.number)), errors };
}

function firstDifference(a: OrderDraft, b: Omit<OrderDraft, 'lines'>): Column | undefined {
  const columns: [Column, (o: Omit<OrderDraft, 'lines'>) => unknown][] = [
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
  ];
  return columns.find(([, of]) => of(a) !== of(b))?.[0];
}
