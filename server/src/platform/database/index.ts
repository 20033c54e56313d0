export { openDatabase } from './connect.ts';
export type { Alone, Database, DatabaseOptions, Db, ServerSettings, Tx } from './database.ts';
export { FolderInUse, lockFolder, type FolderLock } from './lock.ts';
export { mustBeOurs, OtherDatabaseVersion } from './major.ts';
export { migrateUp, NewerDatabase, newestMigration } from './migrate.ts';
