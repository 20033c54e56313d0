import { expect } from '@playwright/test';
import type { OrderDetail } from '@hand-relay/contract';
import { api, change, person, PHONE, takeIn, test } from './people.ts';

test('an order is tagged, split, released and taken back; a line is cancelled; and each can be undone', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const id = await takeIn(
    desk,
    'DAY-1',
    [
      ['HT-003', 6],
      ['HT-004', 2],
    ],
    { link: 'https://docs.example/DAY-1', note: 'two parcels, please' },
  );
  const order = () => api<OrderDetail>(desk, `/api/orders/${id}`);
  await desk.goto(`/desk/orders/${id}`);
  await expect(desk.getByText('Note: two parcels, please')).toBeVisible();
  await expect(desk.getByRole('link', { name: 'api', exact: true })).toBeVisible();

  await desk.getByRole('button', { name: 'Add a tag' }).click();
  await desk.getByLabel('New tag').fill('a,b');
  await expect(desk.getByText('Up to 24 letters, no comma.')).toBeVisible();
  await desk.getByLabel('New tag').fill('gift');
  await desk.getByLabel('New tag').press('Enter');
  await expect(desk.getByRole('list', { name: 'Tags' }).getByText('gift')).toBeVisible();
  await desk.getByLabel('Find number, customer or tag').fill('gift');
  await expect(desk.getByRole('link', { name: /^DAY-1/ })).toBeVisible();

  await desk.getByRole('button', { name: 'More', exact: true }).click();
  await desk.getByRole('button', { name: 'Split', exact: true }).click();
  const sheet = desk.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Let 0 units wait' }).click();
  await expect(sheet.getByText('Enter what waits.')).toBeVisible();
  await sheet.getByLabel('Line 1: units to wait').fill('9');
  await expect(sheet.getByText('Line 1 has only 6 open. Let at most that wait.')).toBeVisible();
  await sheet.getByLabel('Line 1: units to wait').fill('4');
  await sheet.getByRole('button', { name: 'Let 4 units wait' }).click();
  await expect(desk.getByRole('link', { name: /^DAY-1\/2: 4 wait until/ })).toBeVisible();
  await desk.getByRole('button', { name: 'Undo' }).click();
  await expect(desk.getByRole('link', { name: /^DAY-1\/2: 0 wait/ })).toBeVisible();
  expect((await order()).lines.map((l) => l.asked)).toEqual([6, 2]);

  await desk.getByRole('button', { name: 'Line 2: actions' }).click();
  await desk.getByRole('button', { name: 'Cancel this line' }).click();
  await sheet.getByLabel('Reason').fill('not wanted');
  await sheet.getByRole('button', { name: 'Cancel this line' }).click();
  await expect(desk.getByText('2 units cancelled.')).toBeVisible();
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect(desk.getByText('Cancellation undone')).toBeVisible();

  await desk.getByRole('button', { name: 'Release this order' }).click();
  await desk.getByRole('button', { name: 'Release 1 order' }).click();
  await expect(desk).toHaveURL(/\/waves\//);
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await order()).lines.map((l) => l.released)).toEqual([0, 0]);
  await change(desk, '/api/waves', { orders: [id] });
  await desk.goto(`/desk/orders/${id}`);
  await desk.getByRole('button', { name: 'More', exact: true }).click();
  await desk.getByRole('button', { name: 'Withdraw from wave' }).click();
  await expect(desk.getByText('Withdrawn: 8 units. Picks already begun continue.')).toBeVisible();
});

test('the host sends and is told; a screen works for the depot, whose day is confirmed by keyboard alone', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  await desk.goto('/setup/host');
  await desk.getByLabel('Changes').fill('101');
  await expect(desk.getByText('0 to 100')).toBeVisible();
  await desk.getByLabel('Changes').fill('2');
  await desk.getByRole('button', { name: 'Send once' }).click();
  await expect(desk.getByText(/^New order H-\d{5}$/)).toHaveCount(3);
  await expect(desk.getByText(/^Change of /)).toHaveCount(2);

  await desk.getByRole('button', { name: 'Signed in as Maren Holt' }).click();
  await desk
    .getByRole('group', { name: 'Desk of another site' })
    .getByRole('button', { name: 'Fennock Depot' })
    .click();
  await expect(desk.getByText('You work for Fennock Depot on this screen.')).toBeVisible();
  await desk.getByRole('link', { name: 'Quick', exact: true }).click();
  await expect(desk.getByRole('heading', { name: 'Quick' })).toBeVisible();
  const going = desk.getByRole('button', { name: /^Confirm and ship/ });
  await expect(going).toBeEnabled();
  // j to the first line, one less of it, Enter to the next, and all of it confirmed at once.
  await desk.keyboard.press('j');
  const first = desk.getByLabel(/^Line 1, .+: units picked$/).first();
  await expect(first).toBeFocused();
  await desk.keyboard.press('Control+a');
  await desk.keyboard.type('999', { delay: 150 });
  await expect(desk.getByText(/^At most \d+\.$/)).toBeVisible();
  await expect(going).toBeDisabled();
  await desk.keyboard.press('Control+a');
  await desk.keyboard.press('1');
  await expect(going).toBeEnabled();
  await desk.keyboard.press('Control+Enter');
  await expect(desk.getByText(/^\d+ orders shipped, \d+ units\.$/)).toBeVisible();
  await desk.reload();
  await expect(desk.getByText('You work for Fennock Depot on this screen.')).toBeVisible();
  await desk.getByRole('button', { name: 'Back to own site' }).click();
  await expect(desk.getByText('You work for Fennock Depot on this screen.')).toHaveCount(0);

  const phone = await person(browser, { name: 'maren' }, PHONE);
  await phone.goto('/setup/host?at=fennock');
  expect((await api<{ waiting: number }>(phone, '/api/host/messages?at=fennock')).waiting).toBeGreaterThan(5);
  await change(phone, '/api/host/receive?at=fennock');
  expect((await api<{ waiting: number }>(phone, '/api/host/messages?at=fennock')).waiting).toBe(0);
});
