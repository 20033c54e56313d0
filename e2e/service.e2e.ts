import { expect } from '@playwright/test';
import type { OrderDetail } from '@hand-relay/contract';
import { api, change, packAll, person, startWave, takeIn, test } from './people.ts';

test('service on the phone: the order is found by its reference, moved up, its stock kept, and the customer told when it leaves', async ({
  browser,
}) => {
  const service = await person(browser, { name: 'tobi' });
  const id = await takeIn(await person(browser, { name: 'maren' }), 'PHONE-1', [['JR-004', 3]], {
    reference: 'PO-7731',
  });
  const order = () => api<OrderDetail>(service, `/api/orders/${id}`);
  const before = await order();

  await test.step('found by what the customer has in hand', async () => {
    await service.goto('/desk');
    await expect(service.getByRole('heading', { name: 'Orders' })).toBeVisible();
    await service.keyboard.press('/');
    await service.getByRole('dialog').getByRole('textbox').fill('po 7731');
    await service
      .getByRole('link', { name: /PHONE-1/ })
      .first()
      .click();
    await expect(service.getByRole('heading', { name: 'PHONE-1' })).toBeVisible();
  });

  await test.step('moved up to another departure, and back by one touch', async () => {
    await service.getByRole('button', { name: 'Reschedule' }).click();
    const sheet = service.getByRole('dialog');
    await sheet.getByRole('button', { name: 'Priority' }).click();
    await sheet.getByRole('group', { name: 'Priority' }).getByRole('button', { name: '1', exact: true }).click();
    await expect(sheet.getByText('1 order changes.')).toBeVisible();
    await sheet.getByRole('button', { name: 'Change 1 order' }).click();
    await expect(service.getByText('1 order changed.')).toBeVisible();
    await expect.poll(async () => (await order()).priority).toBe(1);
    await service.getByRole('button', { name: 'Undo' }).first().click();
    await expect.poll(async () => (await order()).priority).toBe(before.priority);
  });

  await test.step('held, so that nobody releases it', async () => {
    await service.getByRole('button', { name: 'Reschedule' }).click();
    const sheet = service.getByRole('dialog');
    await sheet.getByRole('button', { name: 'Hold', exact: true }).click();
    await sheet.getByRole('textbox', { name: 'Reason' }).fill('Customer rings back');
    await sheet.getByRole('button', { name: 'Hold 1 order' }).click();
    await expect(service.getByText(/Customer rings back/).first()).toBeVisible();
    await service.getByRole('button', { name: 'Undo' }).first().click();
    await expect
      .poll(async () => (await api<{ holds: object[] }>(service, `/api/orders/${id}/holds`)).holds)
      .toHaveLength(0);
  });

  await test.step('changed with its lines: address, a line more, and the trail says who did what', async () => {
    await service.getByRole('button', { name: 'Change', exact: true }).click();
    await expect(service.getByRole('heading', { name: 'Change order PHONE-1' })).toBeVisible();
    await service.getByRole('textbox', { name: 'Street' }).fill('Quay 7');
    await service.getByRole('textbox', { name: 'Quantity of line 1' }).fill('4');
    await service.getByRole('textbox', { name: 'Quantity of line 1' }).press('Enter');
    await service.getByRole('textbox', { name: 'Item of line 2' }).fill('HT-003');
    await service.getByRole('option', { name: /^HT-003/ }).click();
    await service.getByRole('button', { name: 'Save changes' }).click();
    await expect(service.getByText('Order PHONE-1 changed.')).toBeVisible();
    await expect(service.getByText(/Changed: street: .* → Quay 7/)).toBeVisible();
    expect((await order()).lines.map((l) => [l.sku, l.asked])).toEqual([
      ['JR-004', 4],
      ['HT-003', 1],
    ]);
  });

  await test.step('a new one is entered by keyboard, as a copy', async () => {
    await service.getByRole('button', { name: 'More', exact: true }).click();
    await service.getByRole('button', { name: 'Copy', exact: true }).click();
    await expect(service.getByRole('heading', { name: 'Copy of PHONE-1' })).toBeVisible();
    await service.getByRole('button', { name: 'Remove line 1' }).click();
    await service.getByRole('button', { name: 'Remove line 2' }).click();
    await service.getByRole('button', { name: 'Enter order' }).click();
    await expect(service.getByText('Add at least one line.')).toBeVisible();
    await service.getByRole('button', { name: 'Add a line' }).click();
    await service.keyboard.type('round jar', { delay: 120 });
    await expect(service.getByRole('option').first()).toBeVisible();
    await service.keyboard.press('ArrowDown');
    await service.waitForTimeout(250);
    await service.keyboard.press('Enter');
    await service.getByRole('button', { name: 'Enter order' }).click();
    await expect(service.getByText(/^Order \S+ entered\.$/)).toBeVisible();
    await expect(service.getByRole('heading', { level: 1, name: /-\d{5}$/ })).toBeVisible();
    await expect(service.getByText('entered by hand')).toBeVisible();
  });
});

test('many orders are changed at once and taken back as one', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const ids: string[] = [];
  for (const n of [1, 2, 3]) ids.push(await takeIn(desk, `BULK-${n}`, [['JR-004', 1]]));
  const orders = () => Promise.all(ids.map((id) => api<OrderDetail>(desk, `/api/orders/${id}`)));
  const before = (await orders()).map((o) => o.due);
  await desk.goto('/desk?find=BULK-&show=open');
  await expect(desk.getByText('3 of', { exact: false })).toBeVisible();
  await desk.getByRole('checkbox', { name: 'Put all shown into the tray' }).click();
  await desk.getByRole('button', { name: 'Change', exact: true }).click();
  const sheet = desk.getByRole('dialog');
  await sheet.getByLabel('Another day').fill('2031-03-03');
  await expect(sheet.getByText('3 orders change.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Change 3 orders' }).click();
  await expect.poll(async () => (await orders()).map((o) => o.due)).toEqual(Array(3).fill('2031-03-03'));
  await desk.getByRole('button', { name: 'Undo' }).first().click();
  await expect.poll(async () => (await orders()).map((o) => o.due)).toEqual(before);
  await desk.getByRole('button', { name: 'Empty the tray' }).click();
  await expect.poll(async () => (await api<{ orders: string[] }>(desk, '/api/tray')).orders).toEqual([]);
});

test('an order entered by hand is changed while it is picked, and ships as it was changed', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await test.step('entered', async () => {
    await desk.goto('/desk/enter');
    await desk.getByRole('textbox', { name: 'Customer' }).fill('C1030');
    await desk.getByRole('option', { name: /^C1030/ }).click();
    await desk.getByRole('textbox', { name: 'Number' }).fill('HAND-77');
    if ((await desk.getByRole('textbox', { name: 'Item of line 1' }).count()) === 0)
      await desk.getByRole('button', { name: 'Add a line' }).click();
    await desk.getByRole('textbox', { name: 'Item of line 1' }).fill('HT-003');
    await desk.getByRole('option', { name: /^HT-003/ }).click();
    await desk.getByRole('textbox', { name: 'Quantity of line 1' }).fill('3');
    await desk.getByRole('button', { name: 'Enter order' }).click();
    await expect(desk.getByText('Order HAND-77 entered.')).toBeVisible();
  });
  const id = desk.url().split('/').pop()!;
  const lines = async () => (await api<OrderDetail>(desk, `/api/orders/${id}`)).lines;
  const [run] = await startWave(desk, [id]);

  await test.step('a unit less and another street, with its run already waiting: what changes is said first', async () => {
    await desk.goto(`/desk/enter?order=${id}`);
    await desk.getByRole('textbox', { name: 'Street' }).fill('Quay 9');
    await desk.getByRole('textbox', { name: 'Quantity of line 1' }).fill('2');
    await desk.getByRole('button', { name: 'Save changes' }).click();
    const sheet = desk.getByRole('dialog');
    await expect(sheet.getByText(/street: .* → Quay 9/)).toBeVisible();
    await sheet.getByRole('button', { name: 'Change the order' }).click();
    await expect(desk.getByText('Order HAND-77 changed.')).toBeVisible();
    expect((await lines()).map((l) => [l.asked - l.cancelled, l.released])).toEqual([[2, 2]]);
  });

  await test.step('picked, packed and shipped with two', async () => {
    await change(desk, `/api/runs/${run!.id}/confirm`, { lane: 'LANE-1' });
    await packAll(await person(browser, { badge: 'BADGE-3002' }), id);
    await desk.goto(`/desk/orders/${id}`);
    await desk
      .getByRole('link', { name: /^Shipment / })
      .first()
      .click();
    await expect(desk.getByText(/Quay 9/).first()).toBeVisible();
    await desk.getByRole('button', { name: /^Get it from / }).click();
    await desk.getByRole('button', { name: 'Confirm the shipment' }).click();
    await expect(desk.getByText(/^Shipped .* by Maren Holt/)).toBeVisible();
    expect((await lines()).map((l) => [l.asked - l.cancelled, l.shipped])).toEqual([[2, 2]]);
  });
});
