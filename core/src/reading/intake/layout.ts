import {
  cellText,
  guessedColumns,
  headingScore,
  matchColumns,
  readCell,
  samplesOf,
  unguard,
  writtenAs,
  type Cell,
  type DateOrder,
  type DecimalMark,
  type Matching,
  type Table,
  type Written,
} from '../sheets/index.ts';
import { addDays } from '../../calendar/index.ts';
import { orderSheet, type OrderColumn, type OrderSheetColumn } from './columns.ts';
import { countryCode } from './country.ts';
import type { IntakeError, IntakeExpectation } from './draft.ts';
import type { ReadOrders } from './read.ts';
import { readOrderRows, type OrderRowCells } from './rows.ts';

/** How one sender writes order files: matched once, and used for every file of theirs. */
export interface OrderLayout {
  /** Heading of each column; null leaves the column out. Columns that are not named are found by their heading. */
  matching: Matching;
  /** What a column holds in every row where the file has none: a due date as days from today, `+1` for tomorrow. */
  values: Record<string, string>;
  /** Which way round dates are written; unknown goes by what the column shows. */
  dates: DateOrder;
  /** The decimal mark of numbers; unknown goes by what the column shows. */
  decimals: DecimalMark;
}

export const plainLayout: OrderLayout = { matching: {}, values: {}, dates: 'unknown', decimals: 'unknown' };

/** Somebody whose files are known. */
export interface OrderSender {
  name: string;
  layout: OrderLayout;
}

/** What was found in a file that is a table, so that a person can see and change how it is read. */
export interface OrderFileLayout extends OrderLayout {
  /** Whose layout was used; empty where none was. */
  sender: string;
  heading: string[];
  /** Columns whose heading a person should confirm; optional ones are not read until then. */
  guesses: string[];
  /** Up to three values of each heading. */
  samples: Record<string, string[]>;
}

/** How well a row would do as the heading of an order file, also by what senders call its columns. */
export const orderHeadingScore = (senders: readonly OrderSender[], layout?: OrderLayout) =>
  headingScore(
    orderSheet,
    [...(layout ? [layout] : []), ...senders.map((s) => s.layout)].map((l) => l.matching),
  );

/**
 * Whose file it is: the sender all of whose headings the file has, of several the one with most; none where two have
 * equally many.
 */
function senderOf(heading: readonly string[], senders: readonly OrderSender[]): OrderSender | undefined {
  const known = senders
    .map((sender) => ({ sender, names: Object.values(sender.layout.matching).filter((h) => h !== null) }))
    .filter(({ names }) => names.length > 0 && names.every((h) => heading.includes(h)))
    .sort((a, b) => b.names.length - a.names.length);
  const [first, second] = known;
  return first && first.names.length !== second?.names.length ? first.sender : undefined;
}

export interface OrderTableOptions {
  /** How a person says that it is to be read; without it the sender's layout is used, or what is found. */
  layout?: OrderLayout | undefined;
  senders: readonly OrderSender[];
  /** ISO date of today at the site, for due dates given in days. */
  today: string;
  /** Whether a row must have as many cells as the heading: in a text file another number is a broken row. */
  strict?: boolean;
}

/** Reads orders from a table of cells with its heading, whoever wrote it. */
export function readOrderTable(table: Table, options: OrderTableOptions): ReadOrders & { layout: OrderFileLayout } {
  const { heading } = table;
  const sender = options.layout ? undefined : senderOf(heading, options.senders);
  const chosen = options.layout ?? sender?.layout ?? plainLayout;
  const matching = matchColumns(orderSheet, heading, chosen.matching);
  for (const [column, value] of Object.entries(chosen.values)) if (value !== '') matching[column] = null;
  const guesses = guessedColumns(orderSheet, table, matching, chosen.matching);
  const layout: OrderFileLayout = {
    ...chosen,
    matching,
    sender: sender?.name ?? '',
    heading,
    guesses,
    samples: samplesOf(table),
  };
  const missing = orderSheet.columns.filter((c) => c.needed && !matching[c.name] && !chosen.values[c.name]);
  if (missing.length > 0) {
    const errors = missing.map((c) => fault(1, c.name, '', 'a-column', ''));
    return { orders: [], errors, layout };
  }
  const read = readRows(table, layout, options);
  return { ...read, layout };
}

const fault = (
  row: number,
  column: string,
  value: string,
  expected: IntakeExpectation,
  order: string,
): IntakeError => ({ row, column, value, expected, order });

/** A column of the file: where it stands, and how its cells are written. */
interface Place {
  column: OrderSheetColumn;
  index: number;
  written: Written;
}

function readRows(table: Table, layout: OrderFileLayout, { today, strict = false }: OrderTableOptions): ReadOrders {
  const unsure = new Set(layout.guesses);
  const places = orderSheet.columns.flatMap((column): Place[] => {
    const name = layout.matching[column.name];
    if (!name || (unsure.has(column.name) && !column.needed)) return [];
    const index = table.heading.indexOf(name);
    const shown = writtenAs(table.rows.map((r) => cellText(r.cells[index] ?? null)));
    return [
      {
        column,
        index,
        written: { dates: orElse(layout.dates, shown.dates), decimals: orElse(layout.decimals, shown.decimals) },
      },
    ];
  });
  const constants = Object.entries(layout.values)
    .filter(([, value]) => value !== '')
    .map(([column, value]) => [column, column === 'due' ? dueOf(value, today) : value]);
  const errors: IntakeError[] = [];
  const bad = new Set<string>();
  const at = (column: OrderColumn) => layout.matching[column] ?? column;
  let above = '';
  const rows = table.rows.flatMap(({ row, cells }): OrderRowCells[] => {
    const raw = (name: OrderColumn) => {
      const place = places.find((p) => p.column.name === name);
      return place ? cellText(cells[place.index] ?? null) : (layout.values[name] ?? '');
    };
    // Lines below the first of an order leave out its number, where they leave out its customer too.
    const order = raw('order') || (raw('customer') === '' || layout.values['customer'] ? above : '');
    above = order;
    const wrong = (column: string, value: string, expected: IntakeExpectation) => {
      errors.push(fault(row, column, value, expected, order));
      bad.add(order);
    };
    if (strict && cells.length !== table.heading.length) {
      wrong('', String(cells.length), 'as-many-fields-as-headings');
      return [];
    }
    const read: OrderRowCells['cells'] = Object.fromEntries(constants) as OrderRowCells['cells'];
    let good = true;
    for (const { column, index, written } of places) {
      const cell = plain(column, cells[index] ?? null, written);
      if ('text' in cell) read[column.name] = cell.text;
      else {
        wrong(at(column.name), cellText(cells[index] ?? null).slice(0, 100), cell.expected);
        good = false;
      }
    }
    return good ? [{ row, cells: { ...read, order }, at }] : [];
  });
  const found = readOrderRows(rows);
  return {
    orders: found.orders.filter((o) => !bad.has(o.draft.number)),
    errors: [...errors, ...found.errors].sort((a, b) => a.row - b.row),
  };
}

const orElse = <T extends string>(chosen: T | 'unknown', shown: T): T => (chosen === 'unknown' ? shown : chosen);

/** A due date that is given in days from today, or as it is. */
const dueOf = (value: string, today: string) => (/^\+\d{1,3}$/.test(value) ? addDays(today, Number(value)) : value);

/** What `readCell` expects, in the words of an order file. */
const expectations: Partial<Record<string, IntakeExpectation>> = {
  'a-number-from': 'a-whole-number',
  'one-number-only': 'one-number-only',
  'one-date-only': 'one-date-only',
  'a-date': 'a-date',
  'a-whole-number': 'a-whole-number',
  'yes-or-no': 'yes-or-no',
};

/** A cell as an order file of our own would have it: ISO dates, whole numbers, yes and no, codes of countries and packs. */
function plain(
  column: OrderSheetColumn,
  cell: Cell,
  written: Written,
): { text: string } | { expected: IntakeExpectation } {
  const text = cellText(cell);
  if (text === '') return { text: '' };
  if (column.name === 'country') return { text: countryCode(text) ?? text };
  if (column.name === 'pack') return { text: PACKS[text.toLowerCase().replace(/\.$/, '')] ?? text };
  const { kind } = column.type;
  if (kind === 'text' || kind === 'choice') return { text: typeof cell === 'string' ? unguard(text) : text };
  const read = readCell(cell, column, written);
  if ('value' in read)
    return { text: typeof read.value === 'boolean' ? (read.value ? 'yes' : 'no') : String(read.value) };
  if (read.expected === 'a-number-from' && column.name === 'priority') return { expected: 'one-to-nine' };
  return { expected: expectations[read.expected] ?? 'a-value' };
}

/** Units of measure as people write them, and the codes of UN/ECE Recommendation 20 and 21. */
const PACKS: Record<string, 'unit' | 'inner' | 'outer'> = {
  ...spelled('unit', 'each ea pc pcs pce piece pieces c62 h87 nmb st stk stck stück stueck'),
  ...spelled('inner', 'pack packs pk pak pkg bundle päckchen bund'),
  ...spelled('outer', 'case cases cs ca carton cartons ct ctn box boxes bx karton kartons krt'),
};

function spelled(level: 'unit' | 'inner' | 'outer', words: string): Record<string, typeof level> {
  return Object.fromEntries([level, ...words.split(' ')].map((word) => [word, level]));
}
