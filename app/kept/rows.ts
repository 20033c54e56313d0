import { database } from './database.ts';

/** Rows of one of the device's lists, in memory at once and in its database as soon as may be. */
export interface Rows<T> {
  all: () => Promise<T[]>;
  put: (row: T) => Promise<void>;
  remove: (key: number | string) => Promise<void>;
}

export function rowsOf<T extends { seq: number } | { id: string }>(list: 'outbox' | 'lost'): Rows<T> {
  return {
    all: async () => ((await (await database())?.getAll(list)) ?? []) as unknown as T[],
    put: async (row) => void (await (await database())?.put(list, row)),
    remove: async (key) => void (await (await database())?.delete(list, key)),
  };
}
