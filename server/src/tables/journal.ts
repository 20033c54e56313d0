import { bigint, index, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core';

/** What happened, appended in the transaction of what it tells of; never changed. */
export const journal = pgTable(
  'journal',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    at: timestamp({ withTimezone: true }).notNull(),
    siteId: text().notNull(),
    personId: text(),
    device: text().notNull(),
    requestId: text().notNull(),
    kind: text().notNull(),
    orderId: text(),
    waveId: text(),
    runId: text(),
    facts: jsonb().$type<Record<string, unknown>>().notNull(),
  },
  (t) => [
    index('journal_order').on(t.orderId, t.id),
    index('journal_wave').on(t.waveId, t.id),
    index('journal_run').on(t.runId, t.id),
    index('journal_kind').on(t.siteId, t.kind, t.id),
  ],
);

/** First answers, by the key that the change request carried. */
export const idempotency = pgTable(
  'idempotency',
  {
    personId: text().notNull(),
    key: text().notNull(),
    /** Endpoint and hash of the body: a key used for something else is refused. */
    request: text().notNull(),
    status: integer().notNull(),
    answer: jsonb().$type<unknown>(),
    at: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.key] }), index('idempotency_at').on(t.at)],
);
