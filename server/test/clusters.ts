/** Where the PostgreSQL server of the tests answers, as an environment variable of theirs. */
export const ADDRESS = 'TEST_POSTGRES';
/** Databases on it that others are copied from: empty tables, and today's demo. */
export const TEMPLATES = { tables: 'tables', house: 'house' };
