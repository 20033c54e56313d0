import { sql } from 'drizzle-orm';
import { OperatorError, type Tx } from '../../platform/index.ts';

/**
 * A dump of everything as text that any version of PostgreSQL reads: one JSON document a line, the whole packed with
 * gzip. First the head, then each table with its rows, then the running numbers of sequences, then the end, by which a
 * file that was cut short is known.
 */
export interface DumpHead {
  /** Version of this format. */
  handRelay: 1;
  /** Version of the product and of the database that wrote it. */
  product: string;
  database: string;
  at: string;
  /** The last migration that the schema had, by its number. */
  migration: number;
}

/** The rows that follow belong to this table. A row is an array of its columns as PostgreSQL writes them as text. */
export interface DumpTable {
  table: string;
  columns: string[];
}

export interface DumpEnd {
  sequences: { name: string; last: string; called: boolean }[];
  rows: number;
}

/** A dump that cannot be loaded, or a place that cannot take it; the message is for whoever asked. */
export class CannotCarry extends OperatorError {}

/** Settings of a transaction under which values are written as text, so that every version reads them alike. */
const TEXT_FORM = {
  datestyle: 'ISO, YMD',
  intervalstyle: 'postgres',
  timezone: 'UTC',
  extra_float_digits: '1',
  bytea_output: 'hex',
};

export async function inTextForm(tx: Tx): Promise<void> {
  for (const [name, value] of Object.entries(TEXT_FORM))
    await tx.execute(sql`select set_config(${name}, ${value}, true)`);
}

/** Quotes a name for SQL. */
export const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;
