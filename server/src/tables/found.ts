import { sql, type AnyColumn, type SQL } from 'drizzle-orm';

/** A text as a search compares it; `search_key` of the database does what `searchKey` of core does. */
export const found = (column: AnyColumn): SQL => sql`search_key(${column}) gin_trgm_ops`;
