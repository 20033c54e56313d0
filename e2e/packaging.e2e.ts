import { expect } from '@playwright/test';
import type { PackPlan } from '@hand-relay/contract';
import { api, person, pickAll, takeIn, test } from './people.ts';

test('packaging becomes stock: a rule, a count, a purchase that is proposed and comes; what is used up is not proposed to packers', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'PK-S1', [['HT-001', 2]]);
  await pickAll(desk, [order], null, 'LANE-5');
  const bench = await person(browser, { badge: 'BADGE-3002' });
  const codes = async () =>
    (await api<PackPlan>(bench, `/api/bench/orders/${order}/plan`)).choices.map((choice) => choice.code);
  expect(await codes()).toContain('BOX-XL');
  await desk.goto('/setup/packaging');
  const type = desk.getByRole('group', { name: 'Extra large' });
  await expect(type.getByText('Expense')).toBeVisible();
  await type.getByRole('button', { name: 'Rule' }).click();
  await desk.getByRole('button', { name: 'With the unit' }).click();
  await desk.getByLabel('Reorder point').last().fill('10');
  await desk.getByLabel('Order quantity').last().fill('0');
  await expect(desk.getByText('1 to 1000000')).toBeVisible();
  await desk.getByLabel('Order quantity').last().fill('50');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(type.getByText('With the unit')).toBeVisible();
  // None by the books: a lot is proposed, and no packer is sent for one.
  await expect(type.getByText('Order 50 more.')).toBeVisible();
  expect(await codes()).not.toContain('BOX-XL');
  await type.getByRole('button', { name: 'Ordered' }).click();
  await desk.getByRole('button', { name: 'Save order' }).click();
  await expect(type.getByText('Order 50 more.')).toHaveCount(0);
  await type.getByRole('button', { name: 'Receive' }).click();
  await expect(desk.getByLabel('Units').last()).toHaveValue('50');
  await desk.getByRole('button', { name: 'Receive', exact: true }).last().click();
  await expect(desk.getByText('50 × Extra large received.').first()).toBeVisible();
  await type.getByRole('button', { name: 'Count' }).click();
  await desk.getByLabel('Units').last().fill('48');
  await desk.getByRole('button', { name: 'Save count' }).click();
  await expect(desk.getByText(/Extra large · counted/)).toBeVisible();
  expect(await codes()).toContain('BOX-XL');
});
