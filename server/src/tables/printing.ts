import { customType, index, integer, pgTable, primaryKey, text, timestamp, boolean } from 'drizzle-orm/pg-core';
import { site } from './site.ts';

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

/** A printer of a site, and who prints on it. */
export const printer = pgTable(
  'printer',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    code: text().notNull(),
    name: text().notNull(),
    /** What it prints: labels or sheets. */
    prints: text().$type<'labels' | 'sheets' | 'all'>().notNull(),
    /** Benches, doors and devices that print here; empty where it prints for all others. */
    stations: text().array().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.code] })],
);

/** What the scale that ships with the product shows at a bench, and whether it works. */
export const scaleStandin = pgTable(
  'scale_standin',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    bench: text().notNull(),
    grams: integer().notNull(),
    mode: text().$type<'steady' | 'unsteady' | 'silent'>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.bench] })],
);

/** Something to print: kept as it was made, until a printer fetches it. */
export const printJob = pgTable(
  'print_job',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    at: timestamp({ withTimezone: true }).notNull(),
    personId: text().notNull(),
    station: text().notNull(),
    printer: text().notNull(),
    title: text().notNull(),
    document: text().notNull(),
    copies: integer().notNull(),
    /** Any one of these rights lets a person see it. */
    needs: text().array().notNull(),
    pdf: bytes().notNull(),
    /** The same for a label printer, in ZPL; null for what is no label. */
    zpl: text(),
    state: text().$type<'waiting' | 'printed' | 'failed'>().notNull(),
    note: text().notNull().default(''),
    printedAt: timestamp({ withTimezone: true }),
  },
  (t) => [index('print_job_at').on(t.siteId, t.at), index('print_job_state').on(t.siteId, t.printer, t.state)],
);
