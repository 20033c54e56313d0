import { z } from 'zod';
import { id, instant } from './basics.ts';
import { orderDraft } from './orders.ts';

/** Files of one import are at most this large, in bytes. */
export const LARGEST_ORDER_FILE = 20_000_000;

const senderName = z.string().trim().min(1).max(60);

/** How one sender writes order files. */
export const orderLayout = z.strictObject({
  matching: z
    .record(z.string(), z.string().nullable())
    .default({})
    .describe('The heading of each column; null leaves a column out. Columns not named are found by their heading'),
  values: z
    .record(z.string(), z.string().trim().max(200))
    .default({})
    .describe('What a column holds where the file has none; a due date as `+1` is a day after the import'),
  dates: z.enum(['day-first', 'month-first', 'unknown']).default('unknown'),
  decimals: z.enum(['point', 'comma', 'unknown']).default('unknown'),
});

/** What `POST /api/orders` takes: orders to be looked at (`preview`) or taken. */
export const intakeBody = z
  .strictObject({
    mode: z.enum(['preview', 'take']),
    document: z.string().max(200).default('api'),
    csv: z.string().max(20_000_000).optional(),
    orders: z.array(orderDraft).max(5000).optional(),
    file: z
      .base64()
      .max(28_000_000)
      .optional()
      .describe('A file in base64: CSV, XLSX, JSON as in `orders`, or UBL 2.1 Order XML; told apart by its content'),
    layout: orderLayout
      .optional()
      .describe('How a CSV or XLSX file is read; without it as its sender writes, or by the headings'),
    sender: senderName.optional().describe('Taking the file remembers `layout` by this name'),
  })
  .refine((b) => [b.csv, b.orders, b.file].filter((given) => given !== undefined).length === 1, {
    message: 'one of csv, orders and file',
    path: ['csv'],
  });

export const intakeError = z.object({
  row: z.int(),
  column: z.string(),
  value: z.string(),
  expected: z.string(),
  order: z.string(),
});
export const intakeResult = z.object({
  taken: z.boolean().describe('Whether anything was written'),
  import: id.nullable().describe('The import of a file, to undo it by'),
  orders: z.array(
    z.object({
      number: z.string(),
      customer: z.string(),
      lines: z.int(),
      outcome: z.enum(['new', 'same', 'changed', 'adapts', 'under-way']),
      differences: z.array(z.object({ field: z.string(), before: z.string(), after: z.string() })),
    }),
  ),
  errors: z.array(intakeError),
  file: orderLayout
    .extend({
      sender: z.string().describe('Whose layout was used; empty where none was'),
      heading: z.array(z.string()),
      guesses: z
        .array(z.string())
        .describe('Columns whose heading a person should confirm in `layout`; optional ones are not read until then'),
      samples: z.record(z.string(), z.array(z.string())).describe('Up to three values of each heading'),
    })
    .nullable()
    .describe('How a CSV or XLSX file was read; null for everything else'),
});
export type IntakeResult = z.infer<typeof intakeResult>;

/** Senders whose order files are known. */
export const orderSenders = z.object({
  senders: z.array(z.object({ name: z.string(), layout: orderLayout, at: instant, person: z.string() })),
  folder: z.string().nullable().describe('The folder that is watched for files of this site; null where none is'),
});
export type OrderSenders = z.infer<typeof orderSenders>;
export const forgetSenderBody = z.strictObject({ name: senderName });

/** An import of orders from a file. */
export const orderImport = z.object({
  id,
  at: instant,
  person: z.string(),
  document: z.string(),
  sender: z.string(),
  source: z.enum(['screen', 'folder']),
  new: z.int(),
  changed: z.int(),
  same: z.int(),
  errors: z.array(intakeError).describe('At most 500 of them'),
  faults: z.int().describe('How many errors there were'),
  state: z.enum(['done', 'undone', 'under-way']).describe('`under-way`: an order of it was released or changed since'),
});
export type OrderImport = z.infer<typeof orderImport>;
export const orderImportsQuery = z.object({ find: z.string().trim().max(100).optional() });
export const orderImports = z.object({ imports: z.array(orderImport) });
export const importUndone = z.object({ removed: z.int(), restored: z.int() });
