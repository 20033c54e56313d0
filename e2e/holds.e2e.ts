import { expect } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { api, change, person, PHONE, scan, startWave, takeIn, test, select } from './people.ts';

test('a rule holds an order, a hold by hand stops a picker in the aisle, and both are lifted', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });

  await test.step('a rule is made in Setup, and says what is missing', async () => {
    await desk.goto('/setup/holds');
    await expect(desk.getByText('Credit stop', { exact: true })).toBeVisible();
    await desk.getByRole('button', { name: 'Add rule' }).click();
    const sheet = desk.getByRole('dialog');
    await sheet.getByRole('button', { name: 'Save the rule' }).click();
    await expect(sheet.getByText('Enter a name.')).toBeVisible();
    await expect(sheet.getByText('Choose who may lift it.')).toBeVisible();
    await sheet.getByLabel('Name').fill('Fragile abroad');
    await sheet.getByLabel('Message shown to people').fill('Ask the office for papers.');
    await sheet.getByRole('button', { name: 'Add a condition' }).click();
    // The list of the kit by keys alone: it opens, letters jump to what begins with them, Enter chooses.
    const field = sheet.getByRole('combobox', { name: 'Field' });
    await field.press('ArrowDown');
    await expect(desk.getByRole('option', { name: 'order number' })).toBeFocused();
    await desk.keyboard.press('End');
    await desk.keyboard.type('no');
    await expect(desk.getByRole('option', { name: 'note' })).toBeFocused();
    await desk.keyboard.press('Enter');
    await expect(field).toHaveText('note');
    await expect(desk.getByRole('option')).toHaveCount(0);
    await select(sheet.getByRole('combobox', { name: 'Test' }), 'contains');
    await sheet.getByLabel('Value').fill('papers');
    await sheet.getByRole('button', { name: 'supervisor' }).click();
    await sheet.getByRole('button', { name: 'Save the rule' }).click();
    await expect(desk.getByText('When note contains papers')).toBeVisible();
  });

  await test.step('it holds the next order that it is made for, until a person lifts it', async () => {
    const order = await takeIn(desk, 'HO-RULE', [['HT-003', 1]], { note: 'needs papers' });
    await desk.goto(`/desk/orders/${order}`);
    await expect(desk.getByText('On hold: Ask the office for papers.').first()).toBeVisible();
    await desk.getByRole('button', { name: 'Release this order' }).click();
    await expect(desk.getByText('HO-RULE is on hold and stays: Ask the office for papers.')).toBeVisible();
    await desk.keyboard.press('Escape');
    await desk.getByRole('button', { name: 'Lift the hold' }).click();
    await desk.getByLabel('Reason').fill('papers are here');
    await desk.getByRole('dialog').getByRole('button', { name: 'Lift the hold' }).click();
    await expect(desk.getByRole('alert')).toHaveCount(0);
    await expect(desk.getByText(/^Hold lifted \(papers are here\): .+/)).toBeVisible();
  });

  await test.step('a late hold stops the picker and says what to do with what is in hand', async () => {
    const one = await takeIn(desk, 'HO-ONE', [['HT-003', 2]]);
    const two = await takeIn(desk, 'HO-TWO', [['HT-004', 2]]);
    const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders: [one, two] });
    await change(desk, `/api/waves/${wave}/plan`);
    await change(desk, `/api/waves/${wave}/start`);
    const { runs } = await api<{ runs: { id: string }[] }>(desk, `/api/waves/${wave}`);
    const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
    await change(floor, `/api/runs/${runs[0]!.id}/take`, { cart: 'CART-06' });
    await floor.goto(`/floor/runs/${runs[0]!.id}`);
    await expect(floor.getByText('Go to')).toBeVisible();
    await desk.goto(`/desk/orders/${one}`);
    await desk.getByRole('button', { name: 'More', exact: true }).click();
    await desk.getByRole('button', { name: 'Hold this order' }).click();
    await desk.getByLabel('Reason').fill('customer rang');
    await desk.getByRole('dialog').getByRole('button', { name: 'Hold this order' }).click();
    await expect(floor.getByText('Stop: HO-ONE is on hold')).toBeVisible();
    await expect(floor.getByText('customer rang')).toBeVisible();
    await floor.getByRole('button', { name: 'Understood, continue' }).click();
    await expect(floor.getByText('Go to')).toBeVisible();
    await desk.getByRole('button', { name: 'Lift the hold' }).click();
    await desk.getByLabel('Reason').fill('false alarm');
    await desk.getByRole('dialog').getByRole('button', { name: 'Lift the hold' }).click();
    await expect(desk.getByRole('alert')).toHaveCount(0);
    await change(floor, `/api/runs/${runs[0]!.id}/return`);
  });

  await test.step('a hold at the bench has a way out: the goods go back, and the cart is free', async () => {
    const order = await takeIn(desk, 'HO-BENCH', [['HT-003', 2]]);
    const [run] = await startWave(desk, [order]);
    const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
    await change(floor, `/api/runs/${run!.id}/take`, { cart: 'CART-12' });
    const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
    for (const { step } of picks)
      for (const input of [
        { kind: 'scan', text: step.bin },
        { kind: 'count', units: step.units },
        { kind: 'scan', text: `CART-12-${step.position.number}` },
      ])
        await change(floor, `/api/runs/${run!.id}/inputs`, { pick: step.id, input });
    await change(floor, `/api/runs/${run!.id}/leave`, { lane: 'LANE-4' });
    await change(desk, `/api/orders/${order}/hold`, { reason: 'customer rang', stops: ['packing'] });
    const bench = await person(browser, { badge: 'BADGE-3001' });
    await bench.goto(`/bench/orders/${order}`);
    await expect(bench.getByRole('img', { name: 'CART-12, place 1' })).toBeVisible();
    await scan(bench, 'BOX-M');
    await expect(bench.getByText(/HO-BENCH is on hold/)).toBeVisible();
    await bench.getByRole('button', { name: 'Return 2 units to stock' }).click();
    const sheet = bench.getByRole('dialog');
    await sheet.getByLabel('Reason').fill('bench is full');
    await sheet.getByRole('button', { name: 'Return 2 units to stock' }).click();
    await expect(sheet).toHaveCount(0);
    await expect(bench.getByRole('button', { name: /to stock/ })).toHaveCount(0);
    const { trips } = await api<{ trips: { goods: { order: string; units: number }[] }[] }>(floor, '/api/put-aways');
    expect(trips.flatMap((t) => t.goods).filter((g) => g.order === 'HO-BENCH')).toMatchObject([{ units: 2 }]);
  });
});
