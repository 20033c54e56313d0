import { expect } from '@playwright/test';
import { api, change, packAll, person, takeIn, test } from './people.ts';

test('a load fills up, refuses what is too much, and is given up and had again', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await takeIn(desk, 'LOAD-BIG', [['EX-007', 400]], { channel: 'field', note: 'heavy' });
  await desk.goto('/desk/loads');
  await expect(desk.getByText('No loads yet')).toBeVisible();
  await desk.getByRole('button', { name: 'Plan a load' }).click();
  const sheet = desk.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Plan a load' }).click();
  await expect(sheet.getByText('Choose a vehicle.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Van 3.5 t' }).click();
  await sheet.getByRole('button', { name: 'Plan a load' }).click();
  await expect(desk).toHaveURL(/\/desk\/loads\/.+/);
  await desk.getByLabel('Find order, customer, postcode or city').fill('LOAD-BIG');
  await desk.getByRole('button', { name: 'Add LOAD-BIG' }).click();
  await expect(
    desk.getByText(/^Load \d+ \(Van 3\.5 t\) would be overloaded: .+ too heavy, .+\. Nothing was added\.$/),
  ).toBeVisible();
  await desk.getByLabel('Find order, customer, postcode or city').fill('Heron');
  await desk.getByRole('button', { name: 'Fill load' }).click();
  const inside = desk.getByRole('list', { name: 'In this load' }).getByRole('listitem');
  await expect(inside.first()).toContainText('Heron');
  const count = await inside.count();
  await desk
    .getByRole('button', { name: /^Remove .+/ })
    .first()
    .click();
  await expect(inside).toHaveCount(count - 1);
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect(inside).toHaveCount(count);
  await desk.getByRole('button', { name: 'Cancel load' }).click();
  await expect(desk.getByText('No loads yet')).toBeVisible();
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect(desk.getByRole('link', { name: /^Load \d+$/ })).toBeVisible();
});

test('a load goes from plan to left, by its stops, without what did not ship', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const shipTo = (street: string, postcode: string) => ({
    shipTo: { name: 'Teasel Stores', street, postcode, city: 'Quarrydale', country: 'GB' },
  });
  const orders: string[] = [];
  for (const [number, street, postcode] of [
    ['TOUR-1', '1 Quarry Road', 'ZQ7 1AA'],
    ['TOUR-2', '9 Chapel Street', 'ZQ2 4AB'],
    ['TOUR-3', '1 quarry road', 'ZQ71AA'],
  ] as const)
    orders.push(await takeIn(desk, number, [['HT-003', 1]], { channel: 'field', ...shipTo(street, postcode) }));
  const inside = desk.getByRole('list', { name: 'In this load' });

  await test.step('it is planned, filled from one district, and its stops are ordered', async () => {
    await desk.goto('/desk/loads');
    await desk.getByRole('button', { name: 'Plan a load' }).click();
    const sheet = desk.getByRole('dialog');
    await sheet.getByRole('button', { name: 'Truck 12 t' }).click();
    await sheet.getByRole('button', { name: 'Plan a load' }).click();
    await desk.getByRole('button', { name: 'ZQ, Quarrydale: 3 orders' }).click();
    await expect(desk.getByRole('list', { name: 'Could be added' }).getByRole('listitem')).toHaveCount(3);
    await desk.getByRole('button', { name: 'Fill load' }).click();
    await expect(desk.getByText('3 orders added.')).toBeVisible();
    await expect(inside.getByRole('group')).toHaveCount(2);
    const first = await inside.getByRole('group').first().getAttribute('aria-label');
    await desk.getByRole('button', { name: 'Deliver stop 2 earlier' }).click();
    await expect(inside.getByRole('group').last()).toHaveAccessibleName(first!.replace('Stop 1', 'Stop 2'));
    await desk.getByRole('button', { name: 'Undo' }).last().click();
    await expect(inside.getByRole('group').first()).toHaveAccessibleName(first!);
  });

  const load = desk.url();
  await test.step('all its orders are released, planned and started in one act', async () => {
    await desk.getByRole('button', { name: 'Release 3 orders' }).click();
    await desk.getByRole('dialog').getByRole('button', { name: 'Release and start 3 orders' }).click();
    await expect(desk).toHaveURL(/\/waves\//);
    const wave = desk.url().split('/').pop()!;
    const found = () => api<{ wave: { state: string }; runs: { id: string }[] }>(desk, `/api/waves/${wave}`);
    await expect.poll(async () => (await found()).wave.state).toBe('started');
    for (const { id } of (await found()).runs) await change(desk, `/api/runs/${id}/confirm`, { lane: 'LANE-1' });
    await desk.goto(load);
    await expect(desk.getByText('3 released · 3 picked · 0 packed · 0 shipped · of 3 units')).toBeVisible();
  });

  await test.step('two are packed and leave, the third goes with another load', async () => {
    const packer = await person(browser, { badge: 'BADGE-3002' });
    for (const order of orders) await packAll(packer, order);
    const { shipments } = await api<{ shipments: { shipment: string; order: string }[] }>(desk, '/api/dock');
    for (const order of orders.slice(0, 2)) {
      const { shipment } = shipments.find((s) => s.order === order)!;
      await change(desk, `/api/shipments/${shipment}/carrier`, { service: null });
      await change(desk, `/api/shipments/${shipment}/confirm`, {});
    }
    await expect(desk.getByText('3 released · 3 picked · 3 packed · 2 shipped · of 3 units')).toBeVisible();
    await expect(desk.getByRole('list', { name: 'Left on this load' }).getByRole('listitem')).toHaveCount(2);
    await desk.getByRole('button', { name: 'Close load' }).click();
    const sheet = desk.getByRole('dialog');
    await expect(sheet.getByText('1 order did not ship. It leaves the load and can go with another.')).toBeVisible();
    await sheet.getByRole('button', { name: 'Close load' }).click();
    await expect(desk.getByText(/^Left .*, closed by Maren Holt$/)).toBeVisible();
  });

  await test.step('it stays readable, and its shipments open', async () => {
    await desk.goto('/desk/loads?left=1');
    await desk
      .getByRole('link', { name: /^Load \d+$/ })
      .first()
      .click();
    await desk.getByRole('link', { name: /TOUR-1/ }).click();
    await expect(desk).toHaveURL(/\/dock\/.+/);
    await expect(desk.getByText(/^Shipped .* by Maren Holt/)).toBeVisible();
  });
});
