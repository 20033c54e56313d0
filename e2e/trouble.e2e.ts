import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import type { BenchOrder, RunDetail } from '@hand-relay/contract';
import { PHONE, api, change, person, pickAll, scan, startWave, takeIn, test } from './people.ts';

test('the list shows that it loads, what failed and how to go on, and why it is empty', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  let answer: 'wait' | 'fail' | 'go on' = 'wait';
  let go = () => {};
  // It fails until the key is pressed: the page may read the list again by itself at any time before.
  const pressed = () => page.evaluate(() => 'pressed' in window);
  await page.route('**/api/orders?*', async (route) => {
    if (answer === 'wait') await new Promise<void>((resolve) => (go = resolve));
    if (answer === 'go on') return route.continue();
    if (await pressed()) return route.fulfill({ json: { rows: [], next: null, total: 0 } });
    return route.fulfill({ status: 500, json: problem('unexpected', 500) });
  });
  await page.goto('/desk');
  await expect(page.getByLabel('Loading').first()).toBeVisible();
  answer = 'fail';
  go();
  await expect(page.getByText('Give your administrator this request number: req-4711.')).toBeVisible();
  await page.evaluate(() => addEventListener('click', () => Object.assign(window, { pressed: true }), true));
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('No orders here')).toBeVisible();
  await expect(page.getByText('Orders come in from a file or through the API.')).toBeVisible();
  answer = 'go on';
  await page.reload();
  await expect(page.getByRole('link', { name: /^LA-/ }).first()).toBeVisible();
});

const problem = (code: string, status: number, facts: object = {}) => ({
  type: `urn:hand-relay:${code}`,
  title: '',
  status,
  code,
  detail: '',
  facts,
  fields: [],
  requestId: 'req-4711',
});

test('what was typed is kept while the server does not answer, and is sent once when it does', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  const id = await takeIn(page, 'TR-1', [['HT-001', 1]]);
  await page.goto(`/desk/orders/${id}`);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Cancel open quantity' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Reason').fill('customer rang');
  const keys: string[] = [];
  let lost = true;
  await page.route('**/cancel-rest', (route) => {
    keys.push(route.request().headers()['idempotency-key']!);
    return lost ? route.abort() : route.continue();
  });
  await sheet.getByRole('button', { name: 'Cancel open quantity' }).click();
  await expect(sheet.getByText('The server does not answer. Your entry is saved here: try again.')).toBeVisible();
  // It was tried again by itself, under the same key, so that it can happen once only.
  expect(keys).toHaveLength(3);
  expect(new Set(keys).size).toBe(1);
  await expect(sheet.getByLabel('Reason')).toHaveValue('customer rang');
  lost = false;
  await sheet.getByRole('button', { name: 'Cancel open quantity' }).click();
  await expect(page.getByText('Rest cancelled: customer rang')).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a release that falls short says who gets what, and one that gives nothing cannot be sent', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'maren' });
  const lids = await takeIn(page, 'TR-SHORT', [
    ['LD-004', 9_000],
    ['HT-004', 1],
  ]);
  await page.goto(`/desk/orders/${lids}`);
  await page.getByRole('button', { name: 'Release this order' }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText('1 line short')).toBeVisible();
  await expect(sheet.getByText(/^TR-SHORT line 1: .+ gets \d+ of 9000$/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);
  const whole = await takeIn(page, 'TR-WHOLE', [['LD-004', 9_000]], { shipComplete: true });
  await page.goto(`/desk/orders/${whole}`);
  await page.getByRole('button', { name: 'Release this order' }).click();
  await expect(sheet.getByText('1 order gets nothing and stays open: TR-WHOLE')).toBeVisible();
  await expect(sheet.getByRole('button', { name: /^Release \d/ })).toBeDisabled();
  await expect(sheet.getByRole('button', { name: /^Release and start/ })).toBeDisabled();
});

test('orders are put into the tray by hand and all at once, summed, saved as shown, and taken out', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'maren' });
  await page.goto('/desk?show=open&find=Heron');
  const rows = page.getByRole('link', { name: /^LA-/ });
  await expect(rows.first()).toBeVisible();
  await expect(page.getByText(/^As of/)).toBeVisible();
  const shown = Number(
    (await page
      .getByText(/^\d+ of \d+$/)
      .first()
      .textContent())!.split(' ')[0],
  );
  await page.getByRole('checkbox', { name: 'Put all shown into the tray' }).click();
  await expect(page.getByText(new RegExp(`^Tray: ${shown} orders, [\\d,]+ units$`))).toBeVisible();
  await page
    .getByRole('checkbox', { name: /^Put order LA-/ })
    .first()
    .click();
  await expect(page.getByText(new RegExp(`^Tray: ${shown - 1} orders?, [\\d,]+ units$`))).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save list' }).click();
  await page.getByRole('button', { name: 'CSV' }).click();
  const text = readFileSync(await (await file).path(), 'utf8');
  // Spreadsheets take a file for UTF-8 by its first mark.
  expect(text[0]).toBe('\ufeff');
  const saved = text.slice(1).trimEnd().split('\r\n');
  expect(saved[0]).toBe(
    'order,customer,class,channel,due,departure,lines,can_go,sure_lines,sure_units,full_by,asked,released,picked,packed,shipped',
  );
  expect(saved).toHaveLength(shown + 1);
  expect(saved.slice(1).every((row) => row.includes('Heron'))).toBe(true);
  await page.getByRole('button', { name: 'Empty the tray' }).click();
  await expect(page.getByText(/^Tray: .+ units$/)).toHaveCount(0);
});

test('a wave is planned, its runs looked at on the floor plan, and taken back', async ({ browser }) => {
  const page = await person(browser, { name: 'maren' });
  const order = await takeIn(page, 'TR-WAVE', [
    ['HT-005', 2],
    ['QC-003', 1],
  ]);
  const { wave, number } = await change<{ wave: string; number: number }>(page, '/api/waves', { orders: [order] });
  await page.goto(`/waves/${wave}`);
  await expect(page.getByText('Runs are created when the wave is planned.')).toBeVisible();
  await page.getByRole('button', { name: 'Plan the runs' }).click();
  await expect(page.getByRole('img', { name: /^\d+ stops?, 1 order, 3 units, \d+ m$/ })).toBeVisible();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Cancel wave' }).click();
  await expect(page.getByText(`Wave ${number} cancelled. Its orders are open again.`)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/waves$/);
  await page.goto(`/desk/orders/${order}`);
  await expect(page.getByText(`Withdrawn from wave ${number}`)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Release this order' })).toBeEnabled();
});

test('a picker works from the list and by typed counts, is told what the server refuses, and gives the run back', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const orders = [
    await takeIn(desk, 'TR-P1', [
      ['HT-006', 2],
      ['CM-004', 1],
    ]),
    await takeIn(desk, 'TR-P2', [['UK-003', 1]]),
  ];
  const [run] = await startWave(desk, orders);
  const floor = await person(browser, { badge: 'BADGE-2002' }, PHONE);
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await expect(floor.getByText('It needs 2 places.')).toBeVisible();
  await scan(floor, 'CART-99');
  await expect(floor.getByText('There is no CART-99 here.')).toBeVisible();
  await scan(floor, 'CART-10');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  // Out of turn: the last pick first, chosen from the list.
  await floor.getByRole('button', { name: /Open the list/ }).click();
  const last = picks.at(-1)!;
  await floor.getByRole('button', { name: new RegExp(last.step.bin) }).click();
  await expect(floor.getByRole('group', { name: `Go to ${last.step.bin}` })).toBeVisible();
  // The radio is gone: the run goes on, and says so until the server has heard.
  await floor.route('**/inputs', (route) => route.abort());
  await scan(floor, last.step.bin);
  await expect(floor.getByText(/^Offline\./)).toBeVisible();
  await expect(floor.getByRole('group', { name: /^Pick/ })).toBeVisible();
  await floor.unroute('**/inputs');
  await expect(floor.getByText(/^Offline\./)).toHaveCount(0);
  await floor.getByRole('button', { name: 'Count' }).click();
  await floor.getByRole('textbox', { name: 'Count' }).fill(String(last.step.units + 5));
  await floor.keyboard.press('Enter');
  await expect(floor.getByText(new RegExp(`Only ${last.step.units} are needed`))).toBeVisible();
  // Meanwhile the supervisor takes the other order out of the run.
  const other = picks.find((p) => p.order.number !== last.order.number)!;
  await change(desk, `/api/runs/${run!.id}/take-out`, { order: other.order.id });
  await floor.getByRole('button', { name: /Open the list/ }).click();
  await expect(floor.getByText(other.step.item.name)).toHaveCount(0);
  await floor.getByRole('button', { name: 'Plan' }).click();
  await expect(floor.getByRole('img', { name: /stops?, / })).toBeVisible();
  await floor.getByRole('button', { name: 'Card' }).click();
  // A swipe leads there as well, and back.
  const swipe = (from: number, to: number) =>
    floor.getByRole('group', { name: /^(Go to|Pick) / }).evaluate(
      (on, [begin, end]) => {
        const touch = (x: number) =>
          new Touch({ identifier: 1, target: on, clientX: x, clientY: 300, pageX: x, pageY: 300 });
        for (const [kind, x] of [
          ['touchstart', begin],
          ['touchend', end],
        ] as const)
          on.dispatchEvent(
            new TouchEvent(kind, {
              bubbles: true,
              touches: kind === 'touchend' ? [] : [touch(x!)],
              changedTouches: [touch(x!)],
            }),
          );
      },
      [from, to],
    );
  await swipe(300, 100);
  await expect(floor.getByRole('button', { name: 'List', pressed: true })).toBeVisible();
  await floor.getByRole('button', { name: 'Card' }).click();
  await floor.getByRole('button', { name: 'Return run' }).click();
  await expect(floor.getByRole('button', { name: `Take ${run!.number}` })).toBeVisible();
  const third = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await third.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(third, 'CART-10');
  await expect(third).toHaveURL(/runs/);
  await floor.goto(`/floor/runs/${run!.id}`);
  await expect(floor.getByText('Bram Tolley picks this run.')).toBeVisible();
});

test('a packer takes goods out again, is kept from packing acid with food, and prints each label', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'TR-B1', [
    ['FD-002', 2],
    ['AC-002', 1],
    ['BR-003', 3],
  ]);
  await pickAll(desk, [order], 'CART-11', 'LANE-5');
  const bench = await person(browser, { badge: 'BADGE-3002' });
  await expect(bench.getByText(/CART-11 .* picked by Maren Holt/)).toBeVisible();
  await scan(bench, 'CART-11-1');
  await expect(bench.getByRole('heading', { name: 'TR-B1' })).toBeVisible();
  const { bench: state } = await api<BenchOrder>(bench, `/api/bench/orders/${order}`);
  const of = (sku: string) => state.loose.find((l) => l.item.sku === sku)!;
  await bench.getByRole('button', { name: 'Open Medium' }).click();
  await bench.getByRole('button', { name: /^Put in 2 × block/ }).click();
  await expect(bench.getByText(/^2 added, \d+ in carton/)).toBeVisible();
  await bench.getByRole('button', { name: /^Put in 1 × bottle/ }).click();
  await expect(
    bench.getByText(`${of('AC-002').item.name} must not travel with ${of('FD-002').item.name}. Take another carton.`),
  ).toBeVisible();
  await bench.getByRole('button', { name: `Remove ${of('FD-002').item.name}` }).click();
  await expect(bench.getByText('The carton is empty.')).toBeVisible();
  // Empty it is closed for nobody: it is given up, or filled with something else.
  await expect(bench.getByRole('button', { name: 'Close carton' })).toHaveCount(0);
  await bench.getByRole('button', { name: 'Discard empty carton' }).click();
  await expect(bench.getByText('Empty carton discarded.')).toBeVisible();
  await bench.getByRole('button', { name: 'Open Medium' }).click();
  await bench.getByRole('button', { name: /^Put in 1 × bottle/ }).click();
  await expect(bench.getByText(/^1 added, \d+ in carton/)).toBeVisible();
  await bench.getByRole('button', { name: 'Close carton' }).click();
  await expect(bench.getByText(/Carton closed. SSCC 3952\d{14}/)).toBeVisible();
  await bench.getByRole('button', { name: 'Print label' }).first().click();
  await expect(bench.getByText('Sent to LABEL-1')).toBeVisible();
  const label = bench.context().waitForEvent('page');
  await bench.getByRole('button', { name: 'Label as PDF' }).click();
  expect((await label).url()).toMatch(/\/api\/cartons\/.+\/label\.pdf$/);
});

test('on a phone the filters fold away, an order opens over the list, and Back leads to the same place', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'tobi' }, PHONE);
  await expect(page.getByRole('link', { name: /^LA-/ }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Channel' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: 'Channel' }).click();
  await page.getByRole('checkbox', { name: 'Key account' }).click();
  await page.getByRole('checkbox', { name: 'Web shop' }).click();
  await expect(page).toHaveURL(/channel=account%7Cweb/);
  await page.getByRole('checkbox', { name: 'Web shop' }).click();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/channel=account$/);
  const first = page.getByRole('link', { name: /^LA-/ }).first();
  const name = (await first.getAttribute('aria-label'))!;
  await first.click();
  await expect(page.getByRole('heading', { name: name.split(',')[0]! })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Release this order' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Back' }).click();
  await expect(page).toHaveURL(/channel=account/);
  await expect(first).toHaveAttribute('aria-label', name);
  await page.getByRole('button', { name: /^Signed in as/ }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await page.goto('/desk');
  await expect(page).toHaveURL(/sign-in/);
});
