import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import type * as schema from '../../tables/index.ts';
import type { FolderLock } from './lock.ts';

export type Db = NodePgDatabase<typeof schema>;
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

export interface Database {
  db: Db;
  /**
   * Hears each NOTIFY on the channel `relay`, after commit. `gap` is called when some may have been missed, because
   * the connection to a server was lost and is there again.
   */
  listen(hear: (payload: string) => void, gap: () => void): Promise<void>;
  /**
   * The embedded cluster as a file that `dump` takes; null on a server.
   *
   * @throws Error when there is not enough memory for a copy; the database goes on
   */
  dump(): Promise<Uint8Array | null>;
  /** Lets one server at a time do something, of all on this database. */
  alone: Alone;
  /** Bytes of heap that the embedded database's thread uses after a collection; null on a server. */
  heap(): Promise<number | null>;
  close(): Promise<void>;
}

/**
 * Does work while no other server does work of the same name.
 *
 * @param options `wait`: until it is this one's turn; else, where another is at it, nothing is done
 * @returns what the work returns; null where another was at it
 */
export type Alone = <T>(name: string, work: () => Promise<T>, options: { wait: boolean }) => Promise<T | null>;

export interface DatabaseOptions {
  /** A PostgreSQL server; without it the database is embedded. */
  url?: string | undefined;
  /** How its connections are used; see `ServerSettings` for the defaults. */
  server?: ServerSettings;
  /** Folder of the embedded database; null keeps it in memory. */
  folder?: string | null;
  /** The folder's lock, where the caller holds it; it goes over to the database and is given back with it. */
  lock?: FolderLock;
  /** Seconds between two flushes of the embedded database's disk, 0 for none; see `flushNowAndThen`. */
  flushSeconds?: number;
  /** A cluster to begin with, made by `dump`. Used only where the folder is empty. */
  from?: string | null;
  /** Called when a connection was lost; it is opened again by itself. */
  onLost?: (error: Error) => void;
  /**
   * Told when the embedded database is gone for good: its thread died, or another machine took its folder. Nothing is
   * answered any more; the process should end.
   */
  onDead?: (error: Error) => void;
}

/** How connections to a PostgreSQL server are used. */
export interface ServerSettings {
  /** Connections of this process at most, beside the one that listens; 10. */
  pool?: number;
  /** Milliseconds that a connection may take to be had; 10,000. */
  connectMs?: number;
  /** Milliseconds that a statement waits for a lock, after which it is refused as busy; 20,000, 0 for no end. */
  lockMs?: number;
  /** Milliseconds that a statement may take; 120,000, 0 for no end. */
  statementMs?: number;
  /**
   * Whether a pooler between hands a connection out for one transaction only. Then nothing is kept in a connection:
   * statements have no names, and timeouts are the database role's.
   */
  pooler?: boolean;
  /** Address for the one connection that hears notifications, where `url` leads to a pooler: past it. */
  listenUrl?: string;
}
