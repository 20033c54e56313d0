import { expect, test as base, type Browser, type Locator, type Page } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { demoAddress } from './playwright.config.ts';

export const WIDE = { width: 1280, height: 800 };
export const PHONE = { width: 390, height: 844 };

/**
 * A test whose screens are gone when it ends. Left open, each would go on reading the lists again with every live
 * event of the tests behind it.
 */
export const test = base.extend<{ closing: void }>({
  // oxlint-disable-next-line no-empty-pattern -- the runner reads the parameter to learn what a fixture needs
  baseURL: async ({}, use, info) => use(demoAddress(info.parallelIndex)),
  closing: [
    async ({ browser }, use) => {
      await use();
      await Promise.all(browser.contexts().map((context) => context.close()));
    },
    { auto: true },
  ],
});

/** A person at a screen of their own, signed in; the sign-in screen has a test of its own. */
export async function person(
  browser: Browser,
  who: { name: string } | { badge: string },
  viewport = WIDE,
  /** Whether the app may put itself onto the device, as it does for a person; the other tests want the server's answer. */
  serviceWorkers: 'allow' | 'block' = 'block',
): Promise<Page> {
  const context = await browser.newContext({ viewport, serviceWorkers });
  const answer = await context.request.post('/api/session', {
    data: 'badge' in who ? { badge: who.badge, pin: '2468' } : { name: who.name, password: 'honeycomb' },
  });
  expect(answer.ok()).toBe(true);
  const page = await context.newPage();
  await page.goto('/');
  await expect(page.getByRole('main')).toBeVisible();
  return page;
}

/** A scanner that types: all keys at once, ended by Enter, wherever the focus is. */
export async function scan(page: Page, code: string): Promise<void> {
  await page.evaluate((text) => {
    const target = document.activeElement ?? document.body;
    // All made before the first is sent: a scanner's keys bear the time they were typed, not that of being heard.
    const keys = [...text, 'Enter'].map((key) => {
      const group = key === '\u001d';
      return new KeyboardEvent('keydown', { key: group ? ']' : key, ctrlKey: group, bubbles: true, cancelable: true });
    });
    for (const key of keys) target.dispatchEvent(key);
  }, code);
}

/** Chooses an entry of a list of the kit, by its words or by its place in the list. */
export async function select(field: Locator, entry: string | number): Promise<void> {
  await field.click();
  const options = field.page().getByRole('listbox').getByRole('option');
  await (
    typeof entry === 'number' ? options.nth(entry) : field.page().getByRole('option', { name: entry, exact: true })
  ).click();
  await expect(options).toHaveCount(0);
}

/** What the server says, asked with the page's own session. */
export function api<T>(page: Page, path: string): Promise<T> {
  return page.evaluate(async (address) => (await fetch(address)).json() as Promise<unknown>, path) as Promise<T>;
}

/** Asks for a change with the page's own session, and answers with what the server says. */
export function change<T>(page: Page, path: string, body: object = {}): Promise<T> {
  return page.evaluate(
    async ([address, text]) => {
      const answer = await fetch(address!, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID() },
        body: text!,
      });
      if (!answer.ok) throw new Error(`${address}: ${await answer.text()}`);
      return answer.json() as Promise<unknown>;
    },
    [path, JSON.stringify(body)],
  ) as Promise<T>;
}

/** Takes in an order of these lines, due tomorrow, and answers with its id. */
export async function takeIn(
  page: Page,
  number: string,
  lines: [sku: string, quantity: number][],
  more: object = {},
): Promise<string> {
  const order = {
    number,
    channel: 'web',
    customer: 'C1030',
    due: new Date(Date.now() + 86_400_000).toISOString().slice(0, 10),
    shipTo: { name: 'Juniper Orchards', street: '5 Weir Street', postcode: 'ZA1 2BC', city: 'Dunmere', country: 'GB' },
    lines: lines.map(([sku, quantity], i) => ({ line: i + 1, sku, quantity })),
    ...more,
  };
  await change(page, '/api/orders', { mode: 'take', orders: [order] });
  return (await api<{ id: string }>(page, `/api/find?code=ORDER-${number}`)).id;
}

/** Releases, plans and starts orders as one wave; answers with its runs. */
export async function startWave(page: Page, orders: string[]): Promise<{ id: string; number: string }[]> {
  const { wave } = await change<{ wave: string }>(page, '/api/waves', { orders });
  await change(page, `/api/waves/${wave}/plan`);
  await change(page, `/api/waves/${wave}/start`);
  return (await api<{ runs: { id: string; number: string }[] }>(page, `/api/waves/${wave}`)).runs;
}

/** Releases orders and has one person pick all of them by touch onto a cart, which is left in a lane. */
export async function pickAll(page: Page, orders: string[], cart: string | null, lane: string): Promise<string> {
  let used = cart ?? '';
  for (const run of await startWave(page, orders)) {
    const { picks } = await takeOn(page, run.id, cart ? [cart] : carts);
    used = cart ?? (await api<RunDetail>(page, `/api/runs/${run.id}`)).run.cart!;
    for (const { step } of picks)
      for (const input of [
        { kind: 'touch', what: 'bin' },
        { kind: 'count', units: step.units },
        ...(step.lot ? [{ kind: 'touch', what: 'lot' }] : []),
        { kind: 'touch', what: 'position' },
      ])
        await change(page, `/api/runs/${run.id}/inputs`, { pick: step.id, input });
    await change(page, `/api/runs/${run.id}/leave`, { lane });
  }
  return used;
}

/** No test names these carts: those that only want one leave the others to those that scan theirs. */
const carts = [
  'CART-05',
  'CART-04',
  ...Array.from({ length: 24 }, (_, i) => `CART-${String(24 - i).padStart(2, '0')}`),
];

/** Takes a run with the first of these carts that nobody else has: other tests may have left theirs. */
async function takeOn(page: Page, run: string, [cart, ...others]: string[]): Promise<RunDetail> {
  try {
    return await change<RunDetail>(page, `/api/runs/${run}/take`, { cart });
  } catch (error) {
    if (others.length === 0 || !String(error).includes('cart-busy')) throw error;
    return takeOn(page, run, others);
  }
}

/** Picks what the card shows, as a picker does: bin, count, lot, place. */
export async function pickOne(floor: Page, { step }: RunDetail['picks'][number], cart: string): Promise<void> {
  await expect(floor.getByRole('group', { name: `Go to ${step.bin}` })).toBeVisible();
  await scan(floor, step.bin);
  await floor.getByRole('button', { name: /^All / }).click();
  if (step.lot) await scan(floor, step.lot);
  await scan(floor, `${cart}-${step.position.number}`);
}

/**
 * Leaves a cart in a lane; where another one was planned, or it is full, it is said twice. With a run the server has heard
 * of it too: a device shows at once what it sends after.
 */
export async function leaveIn(page: Page, lane: string, run?: string): Promise<void> {
  await scan(page, lane);
  const again = page.getByText(new RegExp(`scan ${lane} again to leave it here`, 'i'));
  const left = page.getByText(new RegExp(`CART-\\d+ is in ${lane}$`));
  await expect(again.or(left).first()).toBeVisible();
  if (await again.isVisible()) await scan(page, lane);
  await expect(left).toBeVisible();
  // Done at once where nothing of it goes over a bench.
  if (run)
    await expect.poll(async () => (await api<RunDetail>(page, `/api/runs/${run}`)).run.state).toMatch(/^(left|done)$/);
}

/** Packs what waits of an order into one carton, so that its cart is free again. */
export async function packAll(packer: Page, order: string): Promise<void> {
  const pack = (input: object) => change(packer, `/api/bench/orders/${order}/inputs`, { bench: 'BENCH-1', input });
  const { bench } = await api<{ bench: { loose: { item: { id: string }; lot: string; units: number }[] } }>(
    packer,
    `/api/bench/orders/${order}`,
  );
  await pack({ kind: 'scan', text: 'BOX-XL' });
  for (const { item, lot, units } of bench.loose) await pack({ kind: 'put', item: item.id, lot, units });
  await pack({ kind: 'scan', text: 'DO-CLOSE' });
}
