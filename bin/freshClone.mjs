import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { needChromium } from './debian.mjs';
import { root } from './lib.mjs';

/**
 * Proves that the demo starts on a machine that has nothing: clones the commit into an empty folder, runs
 * `npm run demo` there, waits until it is ready, signs in on its page in Chromium, and stops it. Ends with 1 when any
 * of it fails.
 */
const READY_WITHIN_MS = 15 * 60_000;
const STOPPED_WITHIN_MS = 30_000;

const place = mkdtempSync(join(tmpdir(), 'hand-relay-fresh-'));
const clone = join(place, 'clone');
let demo;
try {
  needChromium();
  const cloned = spawnSync('git', ['clone', '--quiet', '--no-local', root, clone], { stdio: 'inherit' });
  if (cloned.status !== 0) throw new Error('The commit could not be cloned.');
  const port = await freePort();
  demo = spawn('npm', ['run', 'demo'], {
    cwd: clone,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, PORT: String(port), DATA_DIR: join(place, 'data') },
    detached: true,
  });
  const address = `http://localhost:${port}`;
  await ready(address, demo);
  await signIn(address);
  await stopped(demo);
  console.log('A fresh clone starts the demo, and Chromium signs in.');
} catch (error) {
  console.error(`A fresh clone does not start the demo: ${error.message}`);
  process.exitCode = 1;
} finally {
  if (demo) killGroup(demo.pid);
  rmSync(place, { recursive: true, force: true });
}

function killGroup(pid) {
  try {
    process.kill(-pid, 'SIGKILL');
  } catch (error) {
    // ESRCH: all of it has ended, as it should.
    if (error.code !== 'ESRCH') throw error;
  }
}

function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer().once('error', reject);
    server.listen(0, () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

async function ready(address, running) {
  const until = Date.now() + READY_WITHIN_MS;
  while (Date.now() < until) {
    if (running.exitCode !== null) throw new Error(`npm run demo ended with ${running.exitCode}.`);
    const answer = await fetch(`${address}/ready`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error('It was not ready in time.');
}

async function signIn(address) {
  const { chromium } = await import(
    pathToFileURL(join(clone, 'node_modules', '@playwright', 'test', 'index.mjs')).href
  );
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage();
    await page.goto(address);
    await page.getByText('Name and password').click();
    await page.getByLabel('Name', { exact: true }).fill('maren');
    await page.getByLabel('Password', { exact: true }).fill('honeycomb');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.getByRole('button', { name: 'Signed in as Maren Holt' }).first().waitFor();
  } finally {
    await browser.close();
  }
}

async function stopped(running) {
  const ended = once(running, 'exit');
  process.kill(-running.pid, 'SIGINT');
  const late = new Promise((_, reject) =>
    setTimeout(() => reject(new Error('It did not stop in time.')), STOPPED_WITHIN_MS).unref(),
  );
  await Promise.race([ended, late]);
}
