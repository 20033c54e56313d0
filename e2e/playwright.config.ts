import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const PORT = Number(process.env['E2E_PORT'] ?? 4690);
export const EMPTY_PORT = PORT + 1;
// Workers read this file too: only the runner itself makes a folder.
process.env['E2E_DATA'] ??= mkdtempSync(join(tmpdir(), 'hand-relay-e2e-'));

/** The demo, and a server that has nothing yet. */
const server = (entry: 'demo' | 'start', port: number) => ({
  command: `node ../dist/server/${entry}.js`,
  url: `http://localhost:${port}/ready`,
  timeout: 300_000,
  env: { PORT: String(port), DATA_DIR: join(process.env['E2E_DATA']!, entry), LOG_LEVEL: 'warn' },
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
});

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  timeout: 300_000,
  // Generous, as nothing here measures: a busy machine must not turn a good run into a bad one.
  expect: { timeout: Number(process.env['E2E_PATIENCE'] ?? 40_000) },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  outputDir: '../test-results/e2e',
  use: {
    baseURL: `http://localhost:${PORT}`,
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
  webServer: [server('demo', PORT), server('start', EMPTY_PORT)],
});
