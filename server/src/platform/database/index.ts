export { openDatabase, type Alone, type Database, type DatabaseOptions, type Db, type Tx } from './connect.ts';
export { FolderInUse, lockFolder, type FolderLock } from './lock.ts';
export { mustBeOurs, OtherDatabaseVersion } from './major.ts';
export { migrateUp, NewerDatabase, newestMigration } from './migrate.ts';
