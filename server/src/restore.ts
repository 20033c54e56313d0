import { OperatorError, productFolder } from './platform/index.ts';
import { restore } from './setup/backup/restore.ts';

/** The command that restores a backup: exits with 2 where it cannot. */
const [file] = process.argv.slice(2);
const folder = process.env['DATA_DIR'] ?? productFolder('.data');
if (!file) {
  console.error('Usage: DATA_DIR=folder npm run restore -- FILE');
  process.exit(2);
}
try {
  const { site, orders, lastAt, aside } = await restore(file, folder, new Date());
  console.log(`Restored ${site}: ${orders} orders, the last change at ${lastAt ?? '–'}.`);
  if (aside) console.log(`What was there before is in ${aside}. Delete it when all is well.`);
  process.exit(0);
} catch (error) {
  const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
  if (!(error instanceof OperatorError) && !missing) throw error;
  console.error(missing ? `There is no file ${file}.` : (error as Error).message);
  process.exit(2);
}
