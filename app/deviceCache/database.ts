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
/** Another tab that holds an older version open is waited for so long; then this page keeps nothing. */
const BLOCKED_MS = 3_000;

/** Some browsers throw where the device's database is switched off. */
function mayKeep(): boolean {
  try {
    return typeof indexedDB !== 'undefined' && indexedDB !== null;
  } catch {
    return false;
  }
}

/** The device's own database; null where a browser keeps nothing: then all lasts as long as the page. */
export function database(): Promise<Database | null> {
  opened ??= mayKeep() ? openOrNothing() : Promise.resolve(null);
  return opened;
}

function openOrNothing(): Promise<Database | null> {
  return new Promise((resolve) => {
    const again = () => (opened = undefined);
    try {
      openDB<Kept>('hand-relay', 1, {
        upgrade(db) {
          db.createObjectStore('answers');
          db.createObjectStore('outbox', { keyPath: 'seq' });
          db.createObjectStore('lost', { keyPath: 'id' });
        },
        blocked: () => void setTimeout(() => resolve(null), BLOCKED_MS),
        // A newer app wants to change the form of what is kept: this page lets go, and opens it again when it must.
        blocking(_now, _wanted, event) {
          (event.target as IDBDatabase).close();
          again();
        },
        terminated: again,
      }).then(resolve, () => resolve(null));
    } catch {
      resolve(null);
    }
  });
}
