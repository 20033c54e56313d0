import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { change, person, PHONE, scan, takeIn, test, WIDE } from './people.ts';

test('the sign-in refuses without saying what was wrong, keeps the name, and leads back to the address asked for', async ({
  page,
}) => {
  await page.setViewportSize(PHONE);
  await page.goto('/desk/orders/order-la-20003');
  await expect(page).toHaveURL(/sign-in\?to=%2Fdesk%2Forders%2Forder-la-20003/);
  await page.getByRole('button', { name: 'Name and password' }).click();
  await page.getByLabel('Name', { exact: true }).fill('maren');
  await page.getByLabel('Password', { exact: true }).fill('wrong');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('That did not match. Check both and try again.');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('maren');
  await page.getByLabel('Password', { exact: true }).fill('honeycomb');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'LA-20003' })).toBeVisible();
  await page.getByRole('button', { name: /^Signed in as Maren Holt/ }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  // A badge is scanned wherever the focus is; then the PIN is typed.
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeDisabled();
  await scan(page, 'BADGE-2001');
  await expect(page.getByLabel('Badge', { exact: true })).toHaveValue('BADGE-2001');
  await page.getByLabel('PIN', { exact: true }).fill('2468');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/floor$/);
});

test('the list keeps its filter, sort and groups in the address, through reload and Back', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  await page.goto('/desk');
  await page.getByRole('button', { name: 'All open' }).click();
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Departure', exact: true }).click();
  await page.keyboard.press('Escape');
  // The heading of the column sorts; the filter stands before it.
  await page.getByRole('button', { name: 'Channel', exact: true }).first().click();
  await page.getByRole('checkbox', { name: 'Key account' }).click();
  await page.keyboard.press('Escape');
  await expect(page).toHaveTitle('Orders · Hand Relay');
  await page
    .getByRole('columnheader', { name: /^Units/ })
    .getByRole('button')
    .click();
  await expect(page).toHaveURL(/show=open/);
  await expect(page).toHaveURL(/sort=units/);
  const first = page.getByRole('link', { name: /^LA-/ }).first();
  const name = await first.getAttribute('aria-label');
  await page.reload();
  await expect(first).toHaveAttribute('aria-label', name!);
  // A link of the browser: the middle key opens it in a tab of its own.
  const tab = page.context().waitForEvent('page');
  await first.click({ button: 'middle' });
  await expect((await tab).getByRole('heading', { name: name!.split(',')[0]! })).toBeVisible();
  await (await tab).close();
  await first.click();
  await expect(page.getByRole('heading', { name: name!.split(',')[0]! })).toBeVisible();
  await expect(page).toHaveTitle(`${name!.split(',')[0]!} · Hand Relay`);
  await page.goBack();
  await expect(page).toHaveURL(/\/desk\?/);
  await expect(first).toHaveAttribute('aria-label', name!);
  await page.getByLabel('Find number, customer or tag').fill('no such customer');
  await expect(page.getByText('No order matches')).toBeVisible();
  await page.getByRole('button', { name: 'Clear the filter' }).click();
  await expect(first).toBeVisible();
});

test('a scanned code never fires a shortcut, never presses a key, and opens what it names', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  await page.goto('/desk');
  await expect(page.getByRole('link', { name: /^LA-/ }).first()).toBeVisible();
  // Letters of the code are shortcuts here: j and k move, r releases, ? helps.
  await scan(page, 'jkr?jkr?');
  await expect(page.getByText('Nothing here is called "jkr?jkr?".')).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('link', { name: 'Track' }).focus();
  await scan(page, 'a b c d');
  await expect(page.getByText('Nothing here is called "a b c d".')).toBeVisible();
  await expect(page).toHaveURL(/\/desk/);
  await page.getByLabel('Find number, customer or tag').fill('Heron');
  await page.getByLabel('Find number, customer or tag').focus();
  await scan(page, 'LA-20005');
  await expect(page.getByRole('heading', { name: 'LA-20005' })).toBeVisible();
  await expect(page.getByLabel('Find number, customer or tag')).toHaveValue('Heron');
  await page.getByRole('heading', { name: 'Orders' }).click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toBeVisible();
});

test('the list stays whole while others change it', async ({ browser }) => {
  const [one, other] = [await person(browser, { name: 'maren' }), await person(browser, { name: 'tobi' })];
  await one.goto('/desk?show=open&find=LA-20010');
  await other.goto('/desk/orders/order-la-20010');
  await expect(one.getByRole('link', { name: /^LA-20010/ })).toBeVisible();
  await other.getByRole('button', { name: 'More', exact: true }).click();
  await other.getByRole('button', { name: 'Cancel open quantity' }).click();
  await other.getByRole('dialog').getByRole('button', { name: 'Cancel open quantity' }).click();
  await expect(other.getByText('Enter a reason of at least three letters.')).toBeVisible();
  await other.getByLabel('Reason').fill('customer rang');
  await other.getByRole('dialog').getByRole('button', { name: 'Cancel open quantity' }).click();
  await expect(one.getByText('No order matches')).toBeVisible();
  await expect(other.getByRole('button', { name: 'Release this order' })).toHaveCount(0);
});

/** Serious faults that the axe rules find; colour contrast is computed in the kit's own test. */
async function faults(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa'])
    .disableRules(['color-contrast', 'meta-viewport'])
    .analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`);
}

/** Goes to an address within the page, as its links do, and waits for what it shows: loading all of it anew takes a second. */
async function visit(page: Page, path: string): Promise<void> {
  const { pathname, search } = new URL(page.url());
  if (pathname + search === path) return;
  const shown = () => page.locator('body').innerText();
  const before = await shown();
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state: null }));
  }, path);
  await expect.poll(shown).not.toBe(before);
}

test('every main view can be read by a screen reader, and nothing is wider than its screen', async ({ browser }) => {
  const everywhere = [
    '/desk',
    '/desk/orders/order-la-20003',
    '/desk/intake',
    '/desk/items',
    '/desk/items/item-br-002',
    '/desk/trace?item=item-br-002',
    '/desk/choose',
    '/desk/tray',
    '/desk/surplus',
    '/desk/counts',
    '/desk/loads',
    '/desk/quick',
    '/desk/lines?by=item',
    '/desk/enter',
    '/desk/exceptions',
    '/desk/picks',
    '/desk/day',
    '/desk/day?part=report',
    '/waves',
    '/waves/floor',
    '/floor',
    '/floor/counts',
    '/bench',
    '/pallets',
    '/dock',
    '/kit',
    '/setup',
    '/setup/items',
    '/setup/items/import',
    '/setup/floor',
    '/setup/site',
    '/setup/history',
    '/setup/settings',
    '/setup/holds',
    '/setup/devices',
    '/setup/printing',
    '/setup/host',
    '/setup/scale',
    '/setup/weights',
    '/setup/packaging',
    '/setup/backups',
    '/setup/roles',
  ];
  // What a phone draws in another way, and so is read again there.
  const onPhone = [
    '/waves',
    '/waves/floor',
    '/desk',
    '/desk/day',
    '/desk/enter',
    '/desk/items/item-br-002',
    '/floor',
    '/kit',
    '/setup/settings',
  ];
  const page = await person(browser, { name: 'maren' });
  const order = await takeIn(page, 'SEEN', [['BR-001', 1]]);
  const { wave } = await change<{ wave: string }>(page, '/api/waves', { orders: [order] });
  await change(page, `/api/waves/${wave}/plan`);
  everywhere.push(`/waves/${wave}`);
  for (const path of everywhere) {
    await page.setViewportSize(WIDE);
    await visit(page, path);
    for (const [viewport, read] of [
      [WIDE, true],
      [PHONE, onPhone.includes(path)],
    ] as const) {
      await page.setViewportSize(viewport);
      await page.waitForTimeout(250);
      if (read) expect([path, viewport.width, await faults(page)]).toEqual([path, viewport.width, []]);
      const clipped = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth);
      expect([path, viewport.width, clipped]).toEqual([path, viewport.width, false]);
    }
  }
});

test('an address that is none leads home; a person without a right is told', async ({ browser }) => {
  const page = await person(browser, { badge: 'BADGE-2002' }, PHONE);
  await page.goto('/nowhere/at/all');
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
  await page.goto('/desk/orders/order-la-20003');
  await expect(page.getByText('You do not have the right to do this. Ask a supervisor.')).toBeVisible();
});
