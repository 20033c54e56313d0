import { copyFileSync, existsSync, readdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import { holderOf } from './holder.mjs';
import { root } from './lib.mjs';

/** Asks the server that runs on a data folder for a backup, and copies it to the file named. */
const folder = process.env.DATA_DIR ?? join(root, '.data');
const to = process.argv[2];
const fail = (text) => {
  console.error(text);
  process.exit(2);
};
if (!to) fail('Usage: DATA_DIR=folder npm run backup -- FILE');
const holder = await holderOf(folder);
if (holder === null) fail(`No server runs on ${folder}. A folder that nobody uses is copied as it is.`);
const backups = join(folder, 'backups');
const there = () => (existsSync(backups) ? readdirSync(backups).filter((f) => f.endsWith('.backup')) : []);
const before = new Set(there());
process.kill(holder, 'SIGUSR2');
for (let waited = 0; waited < 120_000; waited += 200) {
  const made = there().find((f) => !before.has(f));
  if (made) {
    copyFileSync(join(backups, made), to);
    console.log(`${basename(made)} is written to ${to}.`);
    process.exit(0);
  }
  await new Promise((resolve) => setTimeout(resolve, 200));
}
fail('The server made no backup within two minutes. Its log says why.');
