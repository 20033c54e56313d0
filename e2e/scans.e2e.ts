import { expect } from '@playwright/test';
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
  await floor.getByRole('button', { name: 'I am here' }).click();
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

test('codes of any length, speed and end are heard once, whatever was touched before', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' }, PHONE);
  await page.goto('/kit');
  const field = page.getByRole('textbox', { name: 'Scan bin B-07-2' });
  await field.scrollIntoViewIfNeeded();
  const heard = page.locator('#scanned');
  // Park and Miller's generator: the same codes in every run.
  let state = 1409;
  const draw = (low: number, high: number) => {
    state = (state * 48_271) % 2_147_483_647;
    return low + (state % (high - low + 1));
  };
  const letters = [...'ABCDEFGHJKLMNPQRSTUVWXYZ0123456789- .'];
  const touched = page.getByRole('region', { name: 'floor' }).getByRole('button').first();
  for (let n = 0; n < 12; n++) {
    const length = n < 3 ? n + 1 : draw(1, 30);
    const body = Array.from({ length }, () => letters[draw(0, letters.length - 1)]!).join('');
    // A code neither begins nor ends with a space.
    const code = body.replace(/^[ .]|[ .]$/g, 'X');
    await touched.click();
    await page.keyboard.type(code, { delay: draw(5, 250) });
    await page.keyboard.press(draw(0, 1) ? 'Enter' : 'Tab');
    await expect(heard).toHaveText(code);
  }
});
