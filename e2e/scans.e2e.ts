import { expect, type Page } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { api, person, PHONE, startWave, takeIn, test } from './people.ts';

/** A scanner so slow that it types as a person does. */
const SLOW = { delay: 110 };

test('a slow scanner is never a key press: what was touched before is not pressed by the code that follows', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const [run] = await startWave(desk, [await takeIn(desk, 'SLOW-1', [['BR-001', 2]])]);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await floor.goto('/floor');
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  const type = async (code: string, end: 'Enter' | 'Tab' = 'Enter') => {
    await floor.keyboard.type(code, SLOW);
    await floor.keyboard.press(end);
  };
  await type('CART-22');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const pick = async () => (await api<RunDetail>(floor, `/api/runs/${run!.id}`)).picks[0]!;
  const { step } = await pick();
  await floor.getByRole('button', { name: 'At the bin' }).click();
  // The goods of another pick, then another cart's place: neither counts, and neither presses "All".
  await expect(floor.getByRole('button', { name: /^All / })).toBeVisible();
  await type('QC-001');
  await expect(floor.getByText(/QC-001|Queen cage/).first()).toBeVisible();
  expect((await pick()).progress.counted).toBe(0);
  await floor.getByRole('button', { name: /^All / }).click();
  await type('CART-01-9', 'Tab');
  await expect(floor.getByText(/CART-01-9/)).toBeVisible();
  expect((await pick()).state).toBe('open');
  await type(`CART-22-${step.position.number}`);
  await expect(floor.getByText('All picked')).toBeVisible();
});

/** Draws whole numbers as Park and Miller's generator does: the same in every run. */
function drawsFrom(state: number): (low: number, high: number) => number {
  return (low, high) => {
    state = (state * 48_271) % 2_147_483_647;
    return low + (state % (high - low + 1));
  };
}
const letters = [...'ABCDEFGHJKLMNPQRSTUVWXYZ0123456789- .'];

/** Scans random codes after a touch, or with the focus in the field, and sees that each is heard once and whole. */
async function hearsAll(page: Page, ends: readonly (string | null)[], prefix: string, seed: number): Promise<void> {
  await page.goto('/kit');
  const field = page.getByRole('textbox', { name: 'Scan bin B-07-2' });
  await field.scrollIntoViewIfNeeded();
  const heard = page.locator('#scanned');
  // Nobody scans before the screen is there: its letters come last, and move what is drawn.
  await page.waitForLoadState('load');
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  await expect(heard).toHaveText('–');
  const draw = drawsFrom(seed);
  const touched = page.getByRole('region', { name: 'floor' }).getByRole('button').first();
  for (let n = 0; n < 8; n++) {
    const length = n < 3 ? n + 1 : draw(1, 30);
    const body = Array.from({ length }, () => letters[draw(0, letters.length - 1)]!).join('');
    // A code neither begins nor ends with a space.
    const code = body.replace(/^[ .]|[ .]$/g, 'X');
    await (draw(0, 3) ? touched : field).click();
    await page.keyboard.type(prefix + code, { delay: draw(5, 180) });
    const end = ends[draw(0, ends.length - 1)]!;
    if (end) await page.keyboard.press(end);
    await expect(heard).toHaveText(code);
  }
}

test('codes of any length, speed and end are heard once, whatever was touched before', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' }, PHONE);
  await hearsAll(page, ['Enter', 'Tab'], '', 1409);
});

test('a scanner that sends no end and a sign before each code is tried, set, and heard', async ({ browser }) => {
  const page = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await page.goto('/setup/scanner');
  await expect(page.getByText('Waiting for a scan.')).toBeVisible();
  // Another keyboard's letters first: said, and nothing to save.
  await page.keyboard.type('HR/75-yZ?4', { delay: 60 });
  await expect(page.getByText(/The scanner types for another keyboard/)).toBeVisible();
  await page.getByRole('button', { name: 'Try again' }).click();
  await page.keyboard.type('~HR-75/zY_4', { delay: 250 });
  await expect(page.getByText(/ms between characters/)).toBeVisible();
  await page.getByRole('button', { name: 'Use these settings' }).first().click();
  await expect(page.getByText('These settings are in use on this device.')).toBeVisible();
  await hearsAll(page, [null], '~', 77);
});

test('on lists held and quickly typed keys move, and arrows too', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  await page.goto('/desk');
  const rows = page.getByRole('row');
  await expect(rows.nth(12)).toBeVisible();
  await page.getByRole('heading', { name: 'Orders' }).click();
  const at = async () =>
    page.evaluate(() => [...document.querySelectorAll('[role=row]')].findIndex((r) => r.ariaCurrent === 'true'));
  await page.keyboard.press('j');
  await expect.poll(at).toBeGreaterThan(0);
  const first = await at();
  await page.keyboard.type('jjj', { delay: 30 });
  await expect.poll(at).toBe(first + 3);
  await page.keyboard.press('ArrowDown');
  await expect.poll(at).toBe(first + 4);
  // Held down: the first press, then repeats.
  await page.keyboard.down('k');
  await page.waitForTimeout(300);
  await page.keyboard.down('k');
  await page.keyboard.down('k');
  await page.keyboard.up('k');
  await expect.poll(at).toBe(first + 1);
});
