import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const PORT = Number(process.env['E2E_PORT'] ?? 4690);
/** Files run side by side, each worker against a demo of its own: what one leaves behind, the other does not see. */
const WORKERS = 2;
export const EMPTY_PORT = PORT + WORKERS;
const EMBEDDED_PORT = PORT + WORKERS + 1;
/** A demo on the embedded database, for the one file that walks the whole job; the others are on PostgreSQL. */
export const embeddedDemo = `http://localhost:${EMBEDDED_PORT}`;
/** Where the demo of a worker answers, by its place among them. */
export const demoAddress = (place: number) => `http://localhost:${PORT + place}`;
// Workers read this file too: only the runner itself makes a folder.
process.env['E2E_DATA'] ??= mkdtempSync(join(tmpdir(), 'hand-relay-e2e-'));

/** What the first run of the empty server must name. */
export const SETUP_TOKEN = 'e2e-first-run';

/** A demo for each worker, one on the embedded database, and a server that has nothing yet, embedded too. */
const server = (entry: 'demo' | 'start', port: number, on: 'postgres' | 'embedded') => ({
  command: `node ${on === 'postgres' ? 'onPostgres.mjs ' : ''}../dist/server/${entry}.js`,
  url: `http://localhost:${port}/ready`,
  timeout: 300_000,
  env: {
    SETUP_TOKEN,
    STANDINS: 'on',
    // Everything is still to be done: each test makes the state that it needs.
    DEMO_SHIFT: 'off',
    PORT: String(port),
    DATA_DIR: join(process.env['E2E_DATA']!, `${entry}-${port}`),
    LOG_LEVEL: 'warn',
  },
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
});

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  timeout: 300_000,
  // Generous, as nothing here measures: a busy machine must not turn a good run into a bad one.
  expect: { timeout: Number(process.env['E2E_PATIENCE'] ?? 40_000) },
  workers: WORKERS,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  outputDir: '../test-results/e2e',
  use: {
    screenshot: 'only-on-failure',
    actionTimeout: 60_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: [
    ...Array.from({ length: WORKERS }, (_, place) => server('demo', PORT + place, 'postgres')),
    server('start', EMPTY_PORT, 'embedded'),
    server('demo', EMBEDDED_PORT, 'embedded'),
  ],
});
