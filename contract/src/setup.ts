import { sheetNames } from '@hand-relay/core/reading/sheets/names';
import { z } from 'zod';
import { id, instant } from './basics.ts';

const value = z.union([z.string().max(2000), z.number(), z.boolean(), z.null()]);
export const sheetRow = z.record(z.string().max(40), value);
export const sheetName = z.enum(sheetNames);

/** Whether this server has a site yet: the first page asks, before anybody can sign in. */
export const setupState = z.object({ empty: z.boolean() });

const timeZone = z.string().refine(
  (zone) => {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone });
      return true;
    } catch {
      return false;
    }
  },
  { message: 'a time zone as Europe/London' },
);

/** What a site is told by. */
export const siteBody = z.strictObject({
  name: z.string().trim().min(1).max(80),
  street: z.string().trim().max(120).default(''),
  city: z.string().trim().max(80).default(''),
  country: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^([A-Z]{2})?$/, 'two letters, as GB (ISO 3166), or none yet')
    .default(''),
  timeZone,
  currency: z.string().regex(/^[A-Z]{3}$/, 'three capital letters, as GBP (ISO 4217)'),
  gs1Prefix: z
    .string()
    .regex(/^(\d{4,12})?$/, '4 to 12 digits, or none yet')
    .default(''),
});
export const siteAnswer = z.object({ site: siteBody });

/** Sites of the house. */
export const sites = z.object({
  sites: z.array(
    z.object({ id, code: z.string(), name: z.string(), city: z.string(), people: z.int(), orders: z.int() }),
  ),
});
export type Sites = z.infer<typeof sites>;
export const makeSiteBody = z.strictObject({
  code: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z0-9-]{1,10}$/, '1 to 10 letters, digits or hyphens')
    .describe('By which transfers name it; it never changes'),
  site: siteBody,
  like: z
    .enum(['this', 'new'])
    .default('this')
    .describe('`this`: settings, roles and hold rules of this site; `new`: those of a new house'),
  people: z.boolean().default(false).describe('Whether all people of this site have their roles there too'),
});
export const siteMade = z.object({ site: id });

/** The site and its first supervisor. */
export const firstRunBody = z.strictObject({
  token: z
    .string()
    .trim()
    .min(1)
    .max(40)
    .describe('What the server printed when it started: proof that the server is yours'),
  site: siteBody,
  units: z.enum(['metric', 'imperial']).default('metric').describe('Units shown'),
  person: z.strictObject({
    name: z.string().trim().min(1).max(80),
    login: z.string().trim().toLowerCase().min(2).max(80),
    password: z.string().min(8, 'eight characters at least').max(200),
  }),
});

/** What a house has of each kind, and what it still needs to ship a first order. */
export const setupOverview = z.object({
  counts: z.record(z.string(), z.int()),
  missing: z.array(z.object({ what: z.string(), why: z.string() })),
});
export type SetupOverview = z.infer<typeof setupOverview>;

export const sheetRows = z.object({ rows: z.array(sheetRow) });
export const sheetFileQuery = z.object({ format: z.enum(['csv', 'xlsx']).default('csv') });

export const sheetError = z.object({
  row: z.int(),
  column: z.string(),
  value: z.string(),
  expected: z.string(),
  facts: z.record(z.string(), z.union([z.string(), z.number()])).optional(),
});
export type SheetErrorAnswer = z.infer<typeof sheetError>;

export const sheetFileBody = z.strictObject({
  file: z.string().min(1).max(200),
  /** The file's bytes in base64. */
  data: z.string().max(34_000_000),
  /** The heading chosen for each column; null leaves a column out. Without it they are found by name. */
  matching: z.record(z.string(), z.string().nullable()).optional(),
});
export const sheetPreview = z.object({
  heading: z.array(z.string()),
  matching: z.record(z.string(), z.string().nullable()),
  guesses: z
    .array(z.string())
    .describe('Columns whose heading a person should confirm by naming it in `matching`; until then they are not read'),
  samples: z.record(z.string(), z.array(z.string())).describe('Up to three values of each heading'),
  encoding: z.string(),
  counts: z.object({ new: z.int(), changed: z.int(), same: z.int(), errors: z.int() }),
  /** The first rows that a take would write. */
  rows: z.array(
    z.object({
      row: z.int(),
      outcome: z.enum(['new', 'changed']),
      values: sheetRow,
      differences: z.array(z.object({ column: z.string(), before: value, after: value })),
    }),
  ),
  errors: z.array(sheetError),
  warnings: z
    .array(sheetError)
    .describe(
      'Codes that would be mistaken when scanned, sizes that do not go with the weight; their rows are imported all the same',
    ),
});
export type SheetPreview = z.infer<typeof sheetPreview>;

export const jobStarted = z.object({ job: id });
export const job = z.object({
  id,
  state: z.enum(['running', 'done', 'cancelled', 'failed']),
  done: z.int(),
  all: z.int(),
  /** What kept the job from its end, where something did. */
  problem: z.string().nullable(),
  errors: z.array(sheetError),
});
export type JobAnswer = z.infer<typeof job>;

export const sheetChangeBody = z.strictObject({ rows: z.array(sheetRow).min(1).max(500) });
export const sheetRetireBody = z.strictObject({ rows: z.array(sheetRow).min(1).max(500), retired: z.boolean() });
/** What was changed, to undo it by; errors where nothing was. */
export const sheetChanged = z.object({ entry: id.nullable(), changed: z.int(), errors: z.array(sheetError) });
export type SheetChanged = z.infer<typeof sheetChanged>;
/** Work that does not go on by itself, each kind with its way out. */
export const stuckKinds = [
  'run-nobody',
  'cart-empty',
  'cart-unwanted',
  'carton-empty',
  'carton-unwanted',
  'wave-empty',
  'shipment-empty',
  'order-done',
  'stock-reserved',
  'stock-doubted',
  'count-old',
  'surplus-old',
  'put-away-old',
  'exception-old',
] as const;
export const stuck = z.object({
  kind: z.enum(stuckKinds),
  id: z.string(),
  name: z.string(),
  since: instant.nullable(),
  link: z.string().describe('Where it is dealt with'),
});
export type Stuck = z.infer<typeof stuck>;
export const stuckList = z.object({ stuck: z.array(stuck) });

export const undoBody = z.strictObject({ entry: id });

export const setupHistory = z.object({
  entries: z.array(
    z.object({
      id,
      at: instant,
      person: z.string().nullable(),
      kind: z.string().describe('What was done, as the journal names it'),
      facts: z.record(z.string(), z.unknown()),
      /** Of a change of master data: its sheet and rows; these can be undone. */
      sheet: z.string().nullable(),
      rows: z.int().nullable(),
      file: z.string().nullable(),
      undone: z.boolean(),
      undoes: z.boolean().describe('It is itself the undoing of an earlier one'),
    }),
  ),
});
export type SetupHistory = z.infer<typeof setupHistory>;

export const floorPattern = z.strictObject({
  firstAisle: z.string().trim().min(1).max(4),
  aisles: z.int().min(1).max(200),
  startX: z.number().min(-1000).max(10_000).optional().describe('Metres; behind the last aisle where left out'),
  bays: z.int().min(1).max(300),
  levels: z.int().min(1).max(20),
  sides: z.union([z.literal(1), z.literal(2)]),
  bayMetres: z.number().min(0.1).max(20),
  aisleMetres: z.number().min(0.5).max(50),
  crossEvery: z.int().min(0).max(300),
  crossMetres: z.number().min(0.5).max(20),
  naming: z.string().trim().min(1).max(40),
  zone: z.string().trim().min(1).max(20),
  zonesFrom: z
    .array(z.strictObject({ aisle: z.string().trim().min(1).max(4), zone: z.string().trim().min(1).max(20) }))
    .max(200)
    .optional()
    .describe('Aisles from which on another zone begins'),
});

export const pictureBody = z.strictObject({
  /** The picture in base64: PNG, JPEG or WebP, of two megabytes at most. */
  data: z.string().min(1).max(2_800_000),
});
export const pictureKept = z.object({ picture: z.string() });

/** Backups that a server makes by itself. */
export const backups = z.object({
  state: z
    .enum(['fresh', 'late', 'failed', 'off'])
    .describe('late: none since a night; failed: the last try; off: none by night'),
  keep: z.int().describe('How many stay'),
  hasSecond: z.boolean().describe('Whether a second place has each of them too'),
  files: z.array(z.object({ name: z.string(), at: z.string(), bytes: z.int(), second: z.boolean() })),
  failed: z
    .object({
      at: z.string(),
      place: z.enum(['first', 'second']),
      why: z.enum(['disk-full', 'not-there', 'not-writable', 'other']),
    })
    .nullable(),
});

export type BackupsAnswer = z.infer<typeof backups>;

export const restored = z.object({ site: z.string(), orders: z.int(), lastAt: z.string().nullable() });
