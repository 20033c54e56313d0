import { expect } from '@playwright/test';
import type { BenchOrder } from '@hand-relay/contract';
import { api, person, PHONE, pickAll, scan, takeIn, test } from './people.ts';

test('a carton is packed as it is drawn, another one is chosen knowing what it costs, its label prints by itself, and the sheet of commands does it all', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'PK-1', [
    ['HT-001', 6],
    ['JR-001', 12],
    ['LB-002', 2],
  ]);
  await pickAll(desk, [order], 'CART-18', 'LANE-5');
  const bench = await person(browser, { badge: 'BADGE-3002' });
  await scan(bench, 'CART-18-1');
  await expect(bench.getByRole('heading', { name: 'PK-1' })).toBeVisible();

  await test.step('the carton that is proposed is shown full; another one says what it comes to', async () => {
    await expect(bench.getByRole('heading', { name: /^Proposed: / })).toBeVisible();
    await expect(bench.getByRole('img', { name: /: 0 of 20 in$/ })).toBeVisible();
    await expect(bench.getByText(/^\d+ % full$/)).toBeVisible();
    await expect(bench.getByText(/^\d cartons? · £\d+\.\d\d more · [\d.]+ kg$/).first()).toBeVisible();
    // One unit after the other is named, before anything is put in.
    await bench.getByRole('button', { name: 'One unit ahead' }).click();
    await expect(bench.getByText(/^1 of 20: /)).toBeVisible();
    await bench.getByRole('button', { name: 'Turn the carton' }).click();
  });

  await test.step('what comes next is asked for, and the drawing follows', async () => {
    const proposed = (await bench.getByRole('heading', { name: /^Proposed: / }).innerText()).replace('Proposed: ', '');
    await bench.getByRole('button', { name: `Open ${proposed}` }).click();
    const next = bench.getByText(/^0 \/ \d+$/);
    await expect(next).toBeVisible();
    const of = Number((await next.innerText()).split('/')[1]);
    await bench
      .getByRole('button', { name: new RegExp(`^Put in ${of} ×`) })
      .first()
      .click();
    await expect(bench.getByRole('img', { name: new RegExp(`: ${of} of 20 in$`) })).toBeVisible();
    // By the sheet of commands: back, in again with all the rest, and what is asked for too early is refused.
    await scan(bench, 'DO-UNDO');
    await expect(bench.getByText('Removed again.')).toBeVisible();
    await expect(bench.getByRole('img', { name: /: 0 of 20 in$/ })).toBeVisible();
    await scan(bench, 'DO-PRINT');
    await expect(bench.getByText('No carton of this order is closed yet.')).toBeVisible();
    await bench.getByRole('button', { name: 'Put all 20 in' }).click();
    await expect(bench.getByRole('img', { name: /: 20 of 20 in$/ })).toBeVisible();
    await scan(bench, 'DO-NEXT');
    await expect(bench.getByText('Cartons of this order are still open. Close them first.')).toBeVisible();
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText(/Carton closed\. .* Its label prints at LABEL-1\.$/)).toBeVisible();
    await scan(bench, 'DO-PRINT');
    await expect(bench.getByText('Sent to LABEL-1')).toBeVisible();
    await expect(bench.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
  });

  await test.step('where the site wants it, the carton is confirmed in its lane before the next order', async () => {
    const confirmed = async (button: RegExp) => {
      await desk.goto('/setup/settings');
      await desk.getByRole('checkbox', { name: /^Closed cartons are confirmed in their lane/ }).click();
      await desk.getByRole('button', { name: button }).click();
      await expect(desk.getByRole('button', { name: 'Undo this change' })).toBeVisible();
    };
    await confirmed(/^Save 1 change/);
    const lane = (await api<BenchOrder>(bench, `/api/bench/orders/${order}`)).lane!;
    await expect(bench.getByText('Bring carton 1 to')).toBeVisible();
    await expect(bench.getByRole('textbox', { name: `Scan ${lane}` })).toBeVisible();
    await scan(bench, 'DO-NEXT');
    await expect(bench.getByText(`First bring what is closed to ${lane}, and scan the lane there.`)).toBeVisible();
    const other = lane === 'LANE-1' ? 'LANE-2' : 'LANE-1';
    await scan(bench, other);
    await expect(bench.getByText(`This is ${other}. The cartons go to ${lane}.`)).toBeVisible();
    await scan(bench, lane);
    await expect(bench.getByText(`Placed in ${lane}.`).first()).toBeVisible();
    await expect(bench.getByRole('button', { name: 'Next order' })).toBeVisible();
    await confirmed(/^Save 1 change/);
  });

  await test.step('on a phone the carton to take comes first, and another one than was proposed is taken', async () => {
    const two = [await takeIn(desk, 'PK-2', [['JR-001', 6]]), await takeIn(desk, 'PK-3', [['HT-001', 2]])];
    await pickAll(desk, two, 'CART-18', 'LANE-5');
    const phone = await person(browser, { badge: 'BADGE-3002' }, PHONE);
    await scan(phone, 'ORDER-PK-3');
    await expect(phone.getByRole('heading', { name: 'PK-3' })).toBeVisible();
    // While no carton is open another order is opened by its label, and the next one of the cart by the sheet.
    await scan(phone, 'ORDER-PK-2');
    await expect(phone.getByRole('heading', { name: 'PK-2' })).toBeVisible();
    await phone.getByRole('button', { name: 'Open Extra large' }).click();
    await expect(phone.getByRole('img', { name: 'Extra large: 0 of 6 in' })).toBeVisible();
    await scan(phone, 'DO-ALL');
    await expect(phone.getByRole('img', { name: 'Extra large: 6 of 6 in' })).toBeVisible();
    await scan(phone, 'DO-CLOSE');
    await expect(phone.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
    await scan(phone, 'DO-NEXT');
    await expect(phone.getByRole('heading', { name: 'PK-3' })).toBeVisible();
    await scan(phone, 'DO-OPEN');
    await scan(phone, 'DO-ALL');
    await scan(phone, 'DO-CLOSE');
    await expect(phone.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
  });
});
