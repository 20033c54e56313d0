import type { Logger } from 'pino';
import type { Bus } from './bus.ts';
import type { Carrier } from './carrier.ts';
import type { Computation } from './computation.ts';
import type { Disk } from './disk.ts';
import type { Alone, Db } from './database/index.ts';
import type { IdSource } from './ids.ts';

/** What a change works with. Time and identity come from outside, so that tests and replays are exact. */
export interface Foundation {
  db: Db;
  /** Lets one server at a time do something, of all on this database. */
  alone: Alone;
  clock: () => Date;
  newId: IdSource;
  log: Logger;
  bus: Bus;
  compute: Computation;
  disk: Disk;
  /** The link to carriers; null where none of them can be asked. */
  carrier: Carrier | null;
  /** Whether a stand-in for a host system answers. */
  standins: boolean;
  /** Version of the product, and which build of the app is served; null where none is. */
  version: { product: string; app: string | null };
}
