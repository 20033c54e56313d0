import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Kept extends DBSchema {
  /** What the server answered last, by address. */
  answers: { key: string; value: unknown };
  /** What is to be sent, in the order of making. */
  outbox: { key: number; value: { seq: number } };
  /** What the server did not take. */
  lost: { key: string; value: { id: string } };
}
type Database = IDBPDatabase<Kept>;

let opened: Promise<Database | null> | undefined;

/** The device's own database; null where a browser keeps nothing: then all lasts as long as the page. */
export function database(): Promise<Database | null> {
  opened ??=
    typeof indexedDB === 'undefined'
      ? Promise.resolve(null)
      : openDB<Kept>('hand-relay', 1, {
          upgrade(db) {
            db.createObjectStore('answers');
            db.createObjectStore('outbox', { keyPath: 'seq' });
            db.createObjectStore('lost', { keyPath: 'id' });
          },
        }).catch(() => null);
  return opened;
}
