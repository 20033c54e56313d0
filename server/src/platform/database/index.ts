export { openDatabase, type Database, type DatabaseOptions, type Db, type Tx } from './connect.ts';
export { FolderInUse, lockFolder, type FolderLock } from './lock.ts';
export { migrateUp, NewerDatabase } from './migrate.ts';
