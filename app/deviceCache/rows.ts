import { database } from './database.ts';

/** Rows of one of the device's lists, in memory at once and in its database as soon as may be. */
export interface Rows<T> {
  all: () => Promise<T[]>;
  /** False where the device could not keep it: its database cannot be opened, or is full. */
  put: (row: T) => Promise<boolean>;
  /** What cannot be removed is read again later and sent once more, by its old key: no harm. */
  remove: (key: number | string) => Promise<boolean>;
}

export function rowsOf<T extends { seq: number } | { id: string }>(list: 'outbox' | 'lost'): Rows<T> {
  return {
    all: async () => ((await (await database())?.getAll(list).catch(() => [])) ?? []) as unknown as T[],
    put: async (row) => wasWritten((await database())?.put(list, row)),
    remove: async (key) => wasWritten((await database())?.delete(list, key)),
  };
}

/** Whether a write came through; the person is told by whoever asked for it. */
const wasWritten = async (write: Promise<unknown> | undefined): Promise<boolean> =>
  write === undefined
    ? false
    : write.then(
        () => true,
        () => false,
      );
