import { expect } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { api, change, leaveIn, person, PHONE, scan, startWave, takeIn, test } from './people.ts';

test('a site that packs nothing ships off the cart, and goes back to how it worked', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await desk.goto('/setup/settings');
  const save = desk.getByRole('button', { name: /^Save/ });
  await expect(save).toBeDisabled();
  await desk.getByRole('button', { name: 'Pick, ship', exact: true }).click();
  await expect(desk.getByText(/No bench. A cart is left at the dock/)).toBeVisible();
  const alone = desk.getByRole('group', { name: 'One order on the cart' });
  await alone.getByRole('checkbox', { name: 'Place on the cart' }).click();
  await alone.getByRole('button', { name: 'One scan for all' }).click();
  await alone.getByRole('button', { name: 'Item', exact: true }).click();
  await expect(alone.getByText('1  Scan the item once: 3 count as taken')).toBeVisible();
  await expect(alone.getByText('2  Scan bin B-07-2')).toBeVisible();
  await desk.getByRole('button', { name: 'Save 2 changes' }).click();
  await expect(desk.getByText('Saved. It applies to everybody from now on.')).toBeVisible();

  const order = await takeIn(desk, 'WAY-1', [['HT-001', 5]]);
  const [run] = await startWave(desk, [order]);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await change(floor, `/api/runs/${run!.id}/take`, { cart: 'CART-18' });
  await floor.goto(`/floor/runs/${run!.id}`);
  await expect(floor.getByRole('group', { name: 'Pick 5' })).toBeVisible();
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  await scan(floor, picks[0]!.step.item.packs.find((p) => p.level === 'unit')!.gtin);
  await expect(floor.getByRole('group', { name: `Go to ${picks[0]!.step.bin}` })).toBeVisible();
  await scan(floor, picks[0]!.step.bin);
  await expect(floor.getByText('All picked')).toBeVisible();
  await leaveIn(floor, 'LANE-2', run!.id);

  const dock = await person(browser, { badge: 'BADGE-4001' });
  await dock.goto('/dock');
  await dock.getByRole('link', { name: /^WAY-1/ }).click();
  await dock.getByRole('button', { name: /^Get it from/ }).click();
  await expect(dock.getByText(/^RR\d{9}GB$/).first()).toBeVisible();
  await dock.getByRole('button', { name: 'Print packing slip' }).click();
  await expect(dock.getByText('Sent to SHEETS')).toBeVisible();
  await dock.getByRole('button', { name: 'Confirm the shipment' }).click();
  await expect(dock.getByText(/Shipped .*\d\d:\d\d by Len Corran/)).toBeVisible();

  await desk.getByRole('button', { name: 'Undo this change' }).click();
  await expect(desk.getByText('Change undone.')).toBeVisible();
  await expect(desk.getByText(/^A cart is left for a bench/)).toBeVisible();
});

test('the printer that ships with the product shows what was printed, and says when it is taken', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'maren' });
  await page.goto('/setup/printing?printer=LABEL-2');
  await expect(page.getByText('Nothing printed yet')).toBeVisible();
  await page.getByRole('button', { name: 'Print a test page' }).click();
  const picture = page.getByRole('img', { name: 'Picture of: Test page' });
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(500);
  await page.getByRole('button', { name: 'Mark as printed' }).click();
  await expect(page.getByRole('button', { name: 'Print again' })).toBeVisible();
  await page.getByRole('button', { name: 'Preview: Test page' }).click();
  await expect(page.getByRole('dialog', { name: 'Test page' })).toBeVisible();
});

test('a device is signed out from afar, and who works at two sites changes over', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  const phone = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await phone.getByRole('button', { name: 'Signed in as Pico Lund' }).click();
  await phone.getByRole('button', { name: 'Fennock Depot' }).click();
  await expect(phone.getByRole('dialog')).toHaveCount(0);
  await phone.getByRole('button', { name: 'Signed in as Pico Lund' }).click();
  await expect(phone.getByRole('button', { name: 'Fennock Depot' })).toHaveAttribute('aria-pressed', 'true');
  await phone.getByRole('button', { name: 'Larkmoor Apiary Supply' }).click();
  await expect(phone.getByRole('dialog')).toHaveCount(0);
  await page.goto('/setup/devices');
  await expect(page.getByRole('img', { name: /^QR code of http/ })).toBeVisible();
  await page
    .getByRole('button', { name: /^Sign out: Pico Lund/ })
    .first()
    .click();
  await expect(page.getByText('Pico Lund is signed out there.')).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('button', { name: 'Sign in' })).toBeVisible();
});

test('settings that are not saved are said when the page is left, and are still there', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await desk.goto('/setup/settings');
  await desk.getByRole('checkbox').first().click();
  const save = desk.getByRole('button', { name: /^Save 1 change/ });
  await expect(save).toBeVisible();
  await desk.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(desk).toHaveURL(/\/setup$/);
  await desk.getByRole('link', { name: /1 change is not saved/ }).click();
  await expect(save).toBeVisible();
  await desk.getByRole('button', { name: 'Discard changes' }).click();
  await expect(save).toHaveCount(0);
  await expect(desk.getByText(/is not saved/)).toHaveCount(0);
  // Nothing is stuck, and the page says so.
  await desk.goto('/setup/stuck');
  await expect(desk.getByText('What is stuck').first()).toBeVisible();
});
