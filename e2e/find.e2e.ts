import { expect } from '@playwright/test';
import { person, PHONE, scan, takeIn, test } from './people.ts';

/** Milliseconds between keys of somebody who types: what comes closer together is taken for a scanner. */
const TYPED = { delay: 110 };

test('customer service finds an order by what the customer says, and a supervisor follows a lot and a bin', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'FOUND-1', [['HT-001', 2]], { reference: 'PO 77/2026' });
  const tobi = await person(browser, { name: 'tobi' });
  const panel = tobi.getByRole('dialog', { name: 'Find' });

  // On any page, by its key; in any writing.
  await tobi.goto('/desk/items');
  await expect(tobi.getByRole('heading', { level: 1 })).toBeVisible();
  await tobi.keyboard.press('/');
  await tobi.waitForTimeout(250);
  await tobi.keyboard.type('po-77 2026', TYPED);
  await expect(panel.getByRole('list', { name: 'Orders' }).getByRole('link')).toHaveCount(1);
  await expect(panel.getByRole('link')).toHaveAttribute('href', new RegExp(`/desk/orders/${order}$`));
  await expect(panel.getByText('open · due tomorrow')).toBeVisible();
  await tobi.keyboard.press('Enter');
  await expect(tobi).toHaveURL(new RegExp(`/desk/orders/${order}`));
  await expect(panel).toBeHidden();

  // With nothing typed what was opened last; arrows choose, Escape closes.
  await tobi.waitForTimeout(250);
  await tobi.keyboard.press('/');
  await expect(panel.getByRole('list', { name: 'Opened last' }).getByText('FOUND-1')).toBeVisible();
  await panel.getByLabel('Find anything').fill('hive tool');
  await expect(panel.getByRole('list', { name: 'Items' }).getByRole('link')).not.toHaveCount(0);
  await panel.getByLabel('Find anything').fill('nothing is called this');
  await expect(panel.getByText('Nothing found for "nothing is called this"')).toBeVisible();
  await tobi.keyboard.press('Escape');
  await expect(panel).toBeHidden();
  // Tobi has no Setup and arranges no runs: people are not told.
  await tobi.getByRole('button', { name: 'Find', exact: true }).click();
  await panel.getByLabel('Find anything').fill('pico');
  await expect(panel.getByText('Nothing found for "pico"')).toBeVisible();

  // A scanned code with no screen of its own opens the search: a bin leads to all that is and moved there.
  await desk.goto('/desk');
  await expect(desk.getByRole('heading', { name: 'Orders' })).toBeVisible();
  await scan(desk, 'M-04-2');
  const found = desk.getByRole('dialog', { name: 'Find' });
  await found.getByRole('list', { name: 'Bins' }).getByRole('link').click();
  await expect(desk.getByRole('heading', { name: 'M-04-2' })).toBeVisible();
  await expect(desk.getByRole('button', { name: /^Here now [1-9]/, pressed: true })).toBeVisible();
  await desk.getByRole('button', { name: /^Movements/ }).click();
  await expect(desk.getByText('Opening stock').first()).toBeVisible();
  const saved = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Save list' }).click();
  await desk.getByRole('button', { name: 'CSV' }).click();
  expect((await saved).suggestedFilename()).toBe('trace-M-04-2-moves.csv');
});

test('on a phone the search has the whole screen; a picker reads what a cart or bin is, and of no order', async ({
  browser,
}) => {
  const pico = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await pico.getByRole('button', { name: 'Find', exact: true }).click();
  const panel = pico.getByRole('dialog', { name: 'Find' });
  await panel.getByLabel('Find anything').fill('cart-0');
  await expect(panel.getByText('CART-01')).toBeVisible();
  await expect(panel.getByRole('link')).toHaveCount(0);
  await panel.getByRole('button', { name: 'More: Carts' }).click();
  await expect(panel.getByText('CART-09')).toBeVisible();
  await panel.getByRole('button', { name: 'Only Carts' }).click();
  await expect(panel.getByText('CART-09')).toBeHidden();
  await panel.getByLabel('Find anything').fill('LA-20');
  await expect(panel.getByText('Nothing found for "LA-20"')).toBeVisible();
  await panel.getByRole('button', { name: 'Close' }).click();
  await expect(panel).toBeHidden();
});
