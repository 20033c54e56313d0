import { expect } from '@playwright/test';
import { change, packAll, person, startWave, takeIn, test } from './people.ts';

test('a second site is made like this one, and a transfer ships to it', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await test.step('the site is made, once its code is right', async () => {
    await desk.goto('/setup/site');
    await desk.getByRole('button', { name: 'New site' }).click();
    const sheet = desk.getByRole('dialog');
    await sheet.getByRole('textbox', { name: 'Code' }).fill('lm1');
    await sheet.getByRole('textbox', { name: 'Name of the site' }).fill('Westmoor Store');
    await sheet.getByRole('button', { name: 'Create site' }).click();
    await expect(sheet.getByText('another site has this code')).toBeVisible();
    await sheet.getByRole('textbox', { name: 'Code' }).fill('ws1');
    await sheet.getByRole('button', { name: 'Create site' }).click();
    await expect(desk.getByText('Westmoor Store created.')).toBeVisible();
    await expect(desk.getByText('WS1 Westmoor Store')).toBeVisible();
  });

  await test.step('a transfer to it is picked, packed and shipped here', async () => {
    const order = await takeIn(desk, 'MOVE-1', [['HT-003', 2]], { kind: 'transfer', toSite: 'WS1' });
    const [run] = await startWave(desk, [order]);
    await change(desk, `/api/runs/${run!.id}/confirm`, { lane: 'LANE-1' });
    await packAll(await person(browser, { badge: 'BADGE-3002' }), order);
    await desk.goto(`/desk/orders/${order}`);
    await desk
      .getByRole('link', { name: /^Shipment / })
      .first()
      .click();
    await desk.getByRole('button', { name: /^Get it from / }).click();
    await desk.getByRole('button', { name: 'Confirm the shipment' }).click();
    await expect(desk.getByText(/^Shipped .* by Maren Holt/)).toBeVisible();
  });

  await test.step('it is expected there, where nothing else is yet', async () => {
    await desk.goto('/setup/site');
    try {
      await desk.getByRole('button', { name: 'Go to Westmoor Store' }).click();
      // A supervisor begins at the track there too.
      await expect(desk).toHaveURL(/\/waves$/);
      await desk.goto('/desk');
      await expect(desk.getByText('No orders here')).toBeVisible();
      await desk.goto('/setup/supply');
      const row = desk.getByRole('row').filter({ hasText: 'HT-003' });
      await expect(row).toContainText('transfer');
      await expect(row).toContainText('2');
    } finally {
      await change(desk, '/api/session/site', { site: 'larkmoor' });
    }
  });
});
