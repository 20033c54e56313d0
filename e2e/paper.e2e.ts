import { expect } from '@playwright/test';
import type { OrderDetail, RunDetail } from '@hand-relay/contract';
import { api, change, packAll, person, startWave, takeIn, test } from './people.ts';

test('everything for a departure is released, planned and started in three touches', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const urgent = { priority: 1 };
  const ids = [
    await takeIn(desk, 'DEP-1', [['JR-004', 2]], urgent),
    await takeIn(desk, 'DEP-2', [['HT-003', 1]], urgent),
  ];
  const order = (id: string) => api<OrderDetail>(desk, `/api/orders/${id}`);
  const { departure } = await order(ids[0]!);
  await desk.goto('/waves');
  await desk.getByRole('button', { name: 'Release a departure' }).click();
  await desk
    .getByRole('dialog')
    .getByRole('button', { name: new RegExp(`^${departure}, `) })
    .last()
    .click();
  await expect(
    desk
      .getByText('Release preview')
      .or(desk.getByText(`Release everything for ${departure}`))
      .first(),
  ).toBeVisible();
  await desk.getByRole('button', { name: /^Release and start \d+ order/ }).click();
  await expect(desk).toHaveURL(/\/waves\//);
  await expect(desk.getByText('Started', { exact: true })).toBeVisible();
  for (const id of ids) expect((await order(id)).runs.map((r) => r.state)).toEqual(['waiting']);

  // A wave shows its orders in every state; each opens, and leaves it while nobody has begun.
  await desk.getByRole('button', { name: 'Orders', exact: true }).click();
  await desk.getByRole('textbox', { name: 'Find order or customer' }).fill('DEP-');
  await expect(desk.getByRole('row', { name: /DEP-/ })).toHaveCount(2);
  await desk.getByRole('button', { name: 'Withdraw DEP-2' }).click();
  await expect(desk.getByText('DEP-2 withdrawn: 1 unit.')).toBeVisible();
  await expect(desk.getByRole('row', { name: /DEP-2/ })).toHaveCount(0);
  expect((await order(ids[1]!)).lines[0]!.released).toBe(0);
});

test('a wave picked by paper is confirmed at once, all but what was short', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const id = await takeIn(desk, 'PAPER-1', [
    ['JR-004', 4],
    ['HT-003', 2],
  ]);
  const [run] = await startWave(desk, [id]);
  const detail = () => api<RunDetail>(desk, `/api/runs/${run!.id}`);
  const wave = (await api<OrderDetail>(desk, `/api/orders/${id}`)).waves[0]!.id;
  const jar = (await detail()).picks.findIndex((p) => p.step.item.sku === 'JR-004');
  await desk.goto(`/waves/${wave}`);
  await desk.getByRole('button', { name: 'Confirm at once' }).click();
  const sheet = desk.getByRole('dialog');
  await sheet.getByRole('textbox', { name: 'Cart', exact: true }).fill('CART-20');
  await sheet.getByRole('listitem').nth(jar).getByRole('checkbox', { name: 'Differs' }).click();
  await sheet.getByRole('textbox', { name: 'In hand' }).fill('3');
  await sheet.getByRole('button', { name: 'Confirm 2 picks' }).click();
  await expect(sheet.getByText('Choose why it is short.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Damaged' }).click();
  await expect(sheet.getByText(/^1 unit is short/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Confirm 2 picks' }).click();
  await expect(desk.getByText(/^Run \d+ is confirmed, its cart is in LANE-/)).toBeVisible();
  const { run: after, picks } = await detail();
  expect(after).toMatchObject({ state: 'left', cart: 'CART-20' });
  expect(picks.map((p) => p.picked).sort()).toEqual([2, 3]);
  // It stands in the list of picks, found by what was short, and is saved as a file.
  await desk.goto('/waves');
  await desk.getByRole('button', { name: 'Picks' }).click();
  await expect(desk.getByRole('row', { name: /Hive tool/ }).first()).toBeVisible();
  await desk.getByRole('button', { name: 'Short', exact: true }).click();
  await desk.getByRole('textbox', { name: 'Find order, item, bin, lot or person' }).fill('PAPER-1');
  await expect(desk.getByRole('row')).toHaveCount(2);
  await expect(desk.getByRole('cell', { name: '3 of 4' })).toBeVisible();
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Save list' }).click();
  await desk.getByRole('button', { name: 'XLSX' }).click();
  expect((await saving).suggestedFilename()).toMatch(/^picks-\d{4}-\d\d-\d\d\.xlsx$/);
  await desk.getByRole('link', { name: 'PAPER-1' }).click();
  await expect(desk).toHaveURL(new RegExp(`/desk/orders/${id}`));
});

test('all runs of a wave that was picked by paper are confirmed together, and one that is held stays', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const orders: string[] = [];
  for (const n of [1, 2, 3]) orders.push(await takeIn(desk, `SHEET-${n}`, [['HT-003', 1]]));
  const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders });
  // A run for each order.
  await change(desk, `/api/waves/${wave}`, { picking: 'single' });
  await change(desk, `/api/waves/${wave}/plan`);
  await change(desk, `/api/waves/${wave}/start`);
  await change(desk, `/api/orders/${orders[1]!}/hold`, { reason: 'Customer rang', stops: ['picking'] });
  await desk.goto(`/waves/${wave}`);
  await desk.getByRole('button', { name: 'More', exact: true }).click();
  await desk.getByRole('button', { name: 'Confirm all at once' }).click();
  const sheet = desk.getByRole('dialog');
  const runs = sheet.getByRole('list', { name: 'Runs to confirm' }).getByRole('listitem');
  await expect(runs).toHaveCount(3);
  await sheet.getByRole('button', { name: 'Confirm 3 runs' }).click();
  await expect(desk.getByText(/^Wave \d+: 2 runs confirmed\.$/)).toBeVisible();
  await expect(sheet.getByText('Confirmed', { exact: true })).toHaveCount(2);
  await expect(sheet.getByText(/SHEET-2 is on hold/)).toBeVisible();
  for (const { id } of (await api<{ holds: { id: string }[] }>(desk, `/api/orders/${orders[1]!}/holds`)).holds)
    await change(desk, `/api/holds/${id}/lift`, { reason: 'All clear' });
  // What is left is one run, of which one unit more is asked than was there.
  const last = runs.filter({ has: desk.getByRole('button', { name: /^What differs in run/ }) });
  await last.getByRole('button', { name: /^What differs in run/ }).click();
  await last.getByRole('checkbox', { name: 'Differs' }).click();
  await last.getByRole('textbox', { name: 'In hand' }).fill('0');
  await last.getByRole('button', { name: 'Not enough' }).click();
  await expect(last.getByText(/^1 unit is short/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Confirm 1 run' }).click();
  await expect(desk.getByText(/^Wave \d+: 1 run confirmed\.$/)).toBeVisible();
  const { runs: after } = await api<{ runs: { state: string; cart: string }[] }>(desk, `/api/waves/${wave}`);
  expect(new Set(after.map((r) => r.cart)).size).toBe(3);
  // Other tests need the carts.
  const packer = await person(browser, { badge: 'BADGE-3002' });
  for (const n of [0, 2]) await packAll(packer, orders[n]!);
});

test('goods that were fetched without a device are confirmed for one order, out of another bin, and wait at the bench', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const id = await takeIn(desk, 'FETCHED-1', [['JR-030', 2]]);
  await desk.goto(`/desk/orders/${id}`);
  await desk.getByRole('button', { name: 'More', exact: true }).click();
  await desk.getByRole('button', { name: 'Confirm picked goods' }).click();
  await expect(desk).toHaveURL(new RegExp(`/desk/quick\\?order=${id}`));
  await desk.getByRole('button', { name: 'Line 1, Flat-face jar, 1000 ml: bins' }).click();
  const bins = desk.getByRole('group', { name: 'Line 1, Flat-face jar, 1000 ml: bins' }).getByRole('textbox');
  await expect(bins).toHaveCount(2);
  const other = (await bins.nth(1).getAttribute('aria-label'))!.replace(/^.* units out of /, '');
  await bins.nth(1).fill('2');
  await expect(desk.getByText('At most 2.')).toBeVisible();
  await expect(desk.getByRole('button', { name: /^Confirm / })).toBeDisabled();
  await bins.nth(0).fill('0');
  await desk.getByRole('button', { name: 'Confirm 1 order as picked, 2 units' }).click();
  await expect(desk.getByText('1 order picked, 2 units. They wait at the bench.')).toBeVisible();
  const order = await api<OrderDetail>(desk, `/api/orders/${id}`);
  expect(order.lines[0]).toMatchObject({ picked: 2, packed: 0 });
  const { picks } = await api<RunDetail>(desk, `/api/runs/${order.runs[0]!.id}`);
  expect(picks.map((p) => p.step.bin)).toEqual([other]);
  await desk.goto('/bench');
  await desk.getByRole('link', { name: /^FETCHED-1, / }).click();
  await expect(desk.getByRole('heading', { name: 'FETCHED-1' })).toBeVisible();
});
