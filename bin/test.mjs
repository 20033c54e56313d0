import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { needChromium, needPooler, needPostgres, needProxy } from './debian.mjs';
import { installed, quiet, root } from './lib.mjs';
import { jestOf, unitProjects } from './unit.mjs';

/** Everything that must hold: lint, types, all tests. Ends with a line that counts them. */
installed();
needChromium();
needPostgres();
needPooler();
needProxy();
const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

let failedSteps = 0;
function step(name, command, args, env = {}) {
  const begun = Date.now();
  console.log(`\n── ${name}`);
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...quiet, ...env } });
  const good = done.status === 0;
  if (!good) failedSteps += 1;
  console.log(`── ${name}: ${good ? 'good' : 'FAILED'} after ${Math.round((Date.now() - begun) / 1000)} s`);
}
/** A step that runs beside others: what it says is shown when it ends. */
async function beside(name, command, args, env = {}) {
  const begun = Date.now();
  const said = [];
  const child = spawn(command, args, { cwd: root, env: { ...process.env, ...quiet, ...env } });
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => said.push(bytes));
  const [code] = await once(child, 'close');
  if (code !== 0) failedSteps += 1;
  process.stdout.write(Buffer.concat(said));
  console.log(`── ${name}: ${code === 0 ? 'good' : 'FAILED'} after ${Math.round((Date.now() - begun) / 1000)} s`);
}
const read = (file) => (existsSync(join(results, file)) ? JSON.parse(readFileSync(join(results, file), 'utf8')) : null);

/** Every test runs: a change that none of them sends twice is missing. */
const allOfThem = { SENT_TWICE: join(results, 'sent-twice.txt') };
const unitTests = (project) => [
  `unit, ${project}`,
  process.execPath,
  [...jestOf(project), '--json', `--outputFile=${join(results, `${project}.json`)}`],
];

// Linting takes one core for as long as the other needs for types, build and a part of the tests.
await Promise.all([
  beside('lint', 'npm', ['run', '--silent', 'lint']),
  (async () => {
    await beside('typecheck', 'npm', ['run', '--silent', 'typecheck']);
    await beside('build', process.execPath, [join(root, 'bin', 'build.mjs')]);
    for (const project of unitProjects) await beside(...unitTests(project), allOfThem);
  })(),
]);
step('browser', process.execPath, [
  'node_modules/@playwright/test/cli.js',
  'test',
  '--config',
  'e2e/playwright.config.ts',
]);

const units = unitProjects.map((project) => read(`${project}.json`));
const inUnits = (count) => units.reduce((n, unit) => n + (unit?.[count] ?? 0), 0);
const browser = read('e2e.json');
// A step that failed without a test to show for it (lint, types, a suite that did not run) counts as one.
const failedTests = inUnits('numFailedTests') + (browser?.stats.unexpected ?? 0);
const failed = Math.max(failedTests, failedSteps);
const passed = inUnits('numPassedTests') + (browser?.stats.expected ?? 0) + (browser?.stats.flaky ?? 0);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
