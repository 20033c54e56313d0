/// <reference lib="dom" />
/// <reference lib="dom.iterable" />
import { chromium } from '@playwright/test';
import type { Bench, Client } from './server.ts';

/** The Desk's list in Chromium: milliseconds until its first row answers a key, and until all rows are read. */
export async function openList(
  bench: Bench,
  client: Client,
): Promise<{ interactive: number; all: number; wireKb: number }> {
  const browser = await chromium.launch({
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
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const [name, value] = client.cookie.split('=') as [string, string];
    await context.addCookies([{ name, value, url: bench.base }]);
    const page = await context.newPage();
    // Once before, so that the app itself comes from the browser's cache, as it does every day.
    await page.goto(`${bench.base}/desk`);
    await page.getByRole('link', { name: /^LA-/ }).first().waitFor();
    let wire = 0;
    const session = await context.newCDPSession(page);
    await session.send('Network.enable');
    session.on(
      'Network.loadingFinished',
      ({ encodedDataLength }: { encodedDataLength: number }) => (wire += encodedDataLength),
    );
    const begun = performance.now();
    await page.goto(`${bench.base}/desk`, { waitUntil: 'commit' });
    await page.getByRole('link', { name: /^LA-/ }).first().waitFor();
    await page.keyboard.press('j');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role="row"]')].some(
        (r) =>
          getComputedStyle(r).borderLeftColor === 'rgb(30, 35, 38)' && getComputedStyle(r).borderLeftWidth === '3px',
      ),
    );
    const interactive = performance.now() - begun;
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[aria-live="polite"]')].some((e) =>
        /^[\d,]+ of [\d,]+$/.test(e.textContent ?? ''),
      ),
    );
    const all = performance.now() - begun;
    return { interactive, all, wireKb: Math.round(wire / 1024) };
  } finally {
    await browser.close();
  }
}
