import { spawnSync } from 'node:child_process';
import { build } from './build.mjs';
import { needChromium } from './debian.mjs';
import { root } from './lib.mjs';

await build();
needChromium();
const done = spawnSync(process.execPath, ['--import', 'tsx', 'bench/src/main.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
