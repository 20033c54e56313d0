import { sql, type SQL } from 'drizzle-orm';
import { readSearch } from '@hand-relay/core/reading/search';

/** Fewer characters than these are looked for at the beginning alone: an index knows texts by three in a row. */
const SHORT = 3;

const column = (name: string) => sql.raw(`search_key(${name})`);
const or = (parts: SQL[]) => sql`(${sql.join(parts, sql` or `)})`;
const and = (parts: SQL[]) => sql`(${sql.join(parts, sql` and `)})`;
/** A key has none of the signs that mean something in a pattern. */
const has = (name: string, part: string) => sql`${column(name)} like ${part.length < SHORT ? `${part}%` : `%${part}%`}`;

/** How columns are held against what is looked for. */
export interface Match {
  /** Without spaces and marks. */
  key: string;
  /** One of them has it all, or all of its words are in them. */
  is: SQL;
  /** One of them is what is looked for. */
  same: SQL;
  /** 0 where one is it, 1 where one begins with it, else 2. */
  rank: SQL;
}

/**
 * Holds a text against columns that have an index of their search keys.
 *
 * @param columns names with the name of their table, written in the code and never typed by anybody
 * @returns conditions of an SQL statement; none of a text without a letter or digit is true
 */
export function match(text: string, columns: readonly string[]): Match {
  const { key, words } = readSearch(text);
  if (key === '') return { key, is: sql`false`, same: sql`false`, rank: sql`2` };
  const whole = or(columns.map((c) => has(c, key)));
  const each = words.length > 1 ? [and(words.map((word) => or(columns.map((c) => has(c, word)))))] : [];
  const same = or(columns.map((c) => sql`${column(c)} = ${key}`));
  return {
    key,
    is: or([whole, ...each]),
    same,
    rank: sql`case when ${same} then 0 when ${or(columns.map((c) => sql`${column(c)} like ${`${key}%`}`))} then 1 else 2 end`,
  };
}
