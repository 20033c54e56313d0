/// <reference lib="dom" />
import { chromium, type Page } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import type { note } from './note.ts';
import { quantile } from './scans.ts';
import type { Bench, Client } from './server.ts';

const SCANS = 500;
const GAP = 2000;

/** What the page tells of a scan: milliseconds from its last character to the first changed paint, and to the sound. */
interface Feedback {
  paint: number;
  sound: number;
}

declare global {
  // What the page's own script keeps for the bench.
  var heardAt: number;
}

/** Scans in the page as a scanner types, and measures what the picker sees and hears of it. */
const scanIn = (page: Page, code: string): Promise<Feedback> =>
  page.evaluate(async (text) => {
    const keys = [...text, 'Enter'].map(
      (key) => new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
    );
    const card = document.querySelector('main') ?? document.body;
    globalThis.heardAt = NaN;
    const painted = new Promise<number>((resolve) => {
      const seen = new MutationObserver(() => {
        seen.disconnect();
        // The frame after the change is the one that shows it.
        requestAnimationFrame(() => setTimeout(() => resolve(performance.now()), 0));
      });
      seen.observe(card, { subtree: true, childList: true, characterData: true, attributes: true });
    });
    for (const key of keys) (document.activeElement ?? document.body).dispatchEvent(key);
    const begun = performance.now();
    const paint = (await painted) - begun;
    return { paint, sound: globalThis.heardAt - begun };
  }, code);

/** The device beside the server: what a scan costs the picker, in a good and a bad network, and what a gap costs after it. */
export async function benchDevice(
  bench: Bench,
  floor: Client,
  desk: Client,
  cart: string,
  say: typeof note,
): Promise<void> {
  const { data } = await floor.call<{ waiting: { id: string }[] }>('GET', '/api/runs');
  const run = data.waiting[0]!.id;
  await floor.call('POST', `/api/runs/${run}/take`, { cart });
  const detail = (await floor.call<RunDetail>('GET', `/api/runs/${run}`)).data;
  const wrong = ['Z-01-1', 'Z-02-2', 'Z-03-3', 'Z-04-4'];
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const [name, value] = floor.cookie.split('=') as [string, string];
    await context.addCookies([{ name, value, url: bench.base }]);
    const page = await context.newPage();
    await page.addInitScript(() => {
      // Kept aside to be called on the oscillator that is started.
      // oxlint-disable-next-line @typescript-eslint/unbound-method
      const start = OscillatorNode.prototype.start;
      OscillatorNode.prototype.start = function (...when) {
        if (Number.isNaN(globalThis.heardAt)) globalThis.heardAt = performance.now();
        start.apply(this, when);
      };
    });
    await page.goto(`${bench.base}/floor/runs/${run}`);
    await page.getByRole('group', { name: `Go to ${detail.picks[0]!.step.bin}` }).waitFor();
    await page.mouse.click(10, 10);
    const cdp = await context.newCDPSession(page);
    let n = 0;
    const measure = async (label: string, scans: number, target?: string) => {
      const all: Feedback[] = [];
      for (let i = 0; i < scans; i++) {
        all.push(await scanIn(page, wrong[n++ % wrong.length]!));
        await page.waitForTimeout(5);
      }
      const of = (what: keyof Feedback) => all.map((f) => f[what]);
      say(`${label}, changed paint, p50`, quantile(of('paint'), 0.5), 'ms');
      say(`${label}, changed paint, p95`, quantile(of('paint'), 0.95), 'ms', target);
      say(`${label}, sound, p95`, quantile(of('sound'), 0.95), 'ms', target);
    };
    const tempo = (rate: number) => cdp.send('Emulation.setCPUThrottlingRate', { rate });
    await measure('feedback, full speed', SCANS, 'under 50');
    await tempo(4);
    await measure('feedback, 4× slower', SCANS, 'under 100');
    await tempo(1);
    await context.setOffline(true);
    await measure('feedback, no network', SCANS, 'under 50');
    await tempo(4);
    await measure('feedback, no network, 4× slower', SCANS, 'under 100');
    await tempo(1);
    for (; n < 2 * SCANS + GAP;) await scanIn(page, wrong[n++ % wrong.length]!);
    const order = detail.picks[0]!.order.id;
    const heard = async () => {
      const trail = await desk.call<{ entries: { kind: string }[] }>('GET', `/api/orders/${order}/trail`);
      return trail.data.entries.filter((e) => e.kind === 'scan-refused').length;
    };
    const before = await heard();
    const begun = performance.now();
    await context.setOffline(false);
    await page.evaluate(() => dispatchEvent(new Event('online')));
    while ((await heard()) < n && performance.now() - begun < 180_000)
      await new Promise((resolve) => setTimeout(resolve, 1000));
    say('scans kept through the gap', n - before, '');
    say('sent after the gap in', (performance.now() - begun) / 1000, 's', 'under 30');
    await page.waitForTimeout(1000);
    say('heard twice', (await heard()) - n, '', '0');
  } finally {
    await browser.close();
  }
}
