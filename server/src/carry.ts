import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { dumpTo, loadFrom } from './setup/dump/index.ts';
import { migrateUp, openDatabase, OperatorError, productFolder } from './platform/index.ts';

/** The commands that write a dump and load one: exit with 2 where they cannot. */
const [verb, file] = process.argv.slice(2);
const url = process.env['DATABASE_URL'];
const folder = process.env['DATA_DIR'] ?? productFolder('.data');
const fail = (text: string): never => {
  console.error(text);
  process.exit(2);
};
if ((verb !== 'dump' && verb !== 'load') || !file)
  fail(`Usage: DATA_DIR=folder npm run ${verb ?? 'dump'} -- FILE, or DATABASE_URL=address in place of the folder`);
if (verb === 'dump' && !url && !existsSync(join(folder, 'cluster'))) fail(`There is no database in ${folder}.`);
if (verb === 'load' && !existsSync(file!)) fail(`There is no file ${file}.`);
try {
  const database = await openDatabase(url ? { url } : { folder });
  try {
    const path = resolve(file!);
    if (verb === 'dump') {
      // A database of an earlier version is written as this one knows it.
      await migrateUp(database.db);
      console.log(`${await dumpTo(database.db, path, new Date())} rows are written to ${file}.`);
    } else console.log(`${await loadFrom(path, database.db)} rows are loaded.`);
  } finally {
    await database.close();
  }
  process.exit(0);
} catch (error) {
  if (error instanceof OperatorError) fail(error.message);
  const { code, path, port, address } = error as NodeJS.ErrnoException & { port?: number; address?: string };
  if (code === 'ECONNREFUSED') fail(`No database answers at ${address ?? path ?? url}${port ? ` port ${port}` : ''}.`);
  if (code === 'ENOENT' || code === 'EACCES' || code === 'ENOSPC') fail(`${path ?? file}: ${(error as Error).message}`);
  throw error;
}
