import { expect } from '@playwright/test';
import { api, person, takeIn, test, select } from './people.ts';

type Item = { free: number; askers: { number: string; gets: number }[] };

test('a morning at the Desk: a contested item solved three ways, decided by hand, and released by conditions', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'maren' });
  const given = async (policy: string) => {
    const { askers } = await api<Item>(page, `/api/desk/items/item-fi-002?policy=${policy}`);
    return Object.fromEntries(askers.filter((a) => a.number.startsWith('MO-')).map((a) => [a.number, a.gets]));
  };
  const { lots } = await api<{ lots: { free: number }[] }>(page, '/api/desk/items/item-fi-002');
  const free = lots.reduce((n, l) => n + l.free, 0);
  expect(free).toBeGreaterThan(8);
  await takeIn(page, 'MO-BIG', [['FI-002', free]], { priority: 1 });
  const small = await takeIn(page, 'MO-SMALL', [['FI-002', 3]], { priority: 2 });
  await takeIn(page, 'MO-LAST', [['FI-002', 4]], { priority: 2, shipComplete: true });

  await test.step('the list says that its numbers are old, and computes them again', async () => {
    await page.goto('/desk?find=MO-&show=open');
    await expect(page.getByRole('link', { name: /^MO-BIG/ })).toBeVisible();
    // Computed, and so listening by now: what changes from here on must be said.
    await expect(page.getByText(/^As of \d\d:\d\d$/)).toBeVisible();
    await takeIn(page, 'MO-LATER', [['HT-004', 1]]);
    await expect(page.getByText(/^\d+ orders? changed since \d\d:\d\d$/)).toBeVisible();
    await page.getByRole('button', { name: 'Refresh' }).click();
    await expect(page.getByText(/^As of \d\d:\d\d$/)).toBeVisible();
    await expect(page.getByRole('row', { name: /MO-BIG/ }).getByText('Contested')).toBeVisible();
    await expect(page.getByRole('row', { name: /MO-LATER/ }).getByText('Ready')).toBeVisible();
  });

  await test.step('three policies give the item to three different sets of orders', async () => {
    expect(await given('priority')).toEqual({ 'MO-BIG': free, 'MO-SMALL': 0, 'MO-LAST': 0 });
    expect(await given('most-orders')).toMatchObject({ 'MO-SMALL': 3, 'MO-LAST': 4 });
    const fair = await given('fair-share');
    expect(fair['MO-LAST']).toBe(0);
    expect(fair['MO-SMALL']! + fair['MO-BIG']!).toBe(free);
    await page.getByRole('link', { name: 'Contested', exact: true }).click();
    await page.getByRole('button', { name: 'Compare policies' }).click();
    await expect(page.getByRole('columnheader', { name: /Most orders/ })).toBeVisible();
    const full = page.getByRole('row', { name: /^Orders in full/ }).getByRole('cell');
    // Each but the first says before it how it differs from the first.
    const said = (await full.allTextContents()).map((text) => text.split(/\s+/));
    const [priority, most] = [said[0]!, said.at(-1)!].map((of) => Number(of.at(-1)!.replace(',', '')));
    expect(most!).toBeGreaterThan(priority!);
    expect(said.at(-1)![0]).toBe(`+${most! - priority!}`);
    await expect(page.getByRole('list', { name: 'Orders that change sides' }).getByText('MO-SMALL')).toBeVisible();
  });

  await test.step('a person moves quantity by keys and by dragging, sees what it means, and undoes it', async () => {
    await page.goto('/desk/items/item-fi-002');
    // As fast as a hand presses, not as fast as a scanner types.
    const press = async (key: string, times: number) => {
      for (let i = 0; i < times; i += 1) {
        await page.keyboard.press(key);
        await page.waitForTimeout(250);
      }
    };
    const row = (number: string) => page.getByRole('listitem').filter({ hasText: number });
    await expect(row('MO-BIG').getByText('Order goes in full')).toBeVisible();
    await row('MO-BIG').click();
    await press('-', 3);
    await expect(row('MO-BIG').getByText(`${free - 3} of ${free}`)).toBeVisible();
    await expect(row('MO-BIG').getByText('Line goes in part')).toBeVisible();
    await expect(page.getByText('3 left over')).toBeVisible();
    await row('MO-SMALL').click();
    await press('+', 3);
    await expect(row('MO-SMALL').getByText('Order goes in full')).toBeVisible();
    await expect(row('MO-LAST').getByText('Order waits: it ships complete')).toBeVisible();
    // The edge between two stretches gives what one can spare and the other still asks, and no more.
    const drag = async (by: number) => {
      const edge = (await page.locator('[data-edge="0"]').boundingBox())!;
      await page.mouse.move(edge.x + 10, edge.y + 20);
      await page.mouse.down();
      await page.mouse.move(edge.x + 10 + by, edge.y + 20, { steps: 6 });
      await page.mouse.up();
    };
    await drag(200);
    await expect(row('MO-SMALL').getByText('0 of 3')).toBeVisible();
    await expect(row('MO-BIG').getByText(`${free} of ${free}`)).toBeVisible();
    await drag(-80);
    await expect(row('MO-SMALL').getByText('3 of 3')).toBeVisible();
    await expect(row('MO-BIG').getByText(`${free - 3} of ${free}`)).toBeVisible();
    await page.getByRole('button', { name: 'Lock amounts' }).click();
    await expect(row('MO-SMALL').getByText('allocated manually')).toBeVisible();
    expect(await given('priority')).toMatchObject({ 'MO-BIG': free - 3, 'MO-SMALL': 3 });
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row('MO-SMALL').getByText('0 of 3')).toBeVisible();
  });

  await test.step('the order says why, and one line is decided by hand', async () => {
    await page.goto(`/desk/orders/${small}`);
    await expect(
      page.getByText(new RegExp(`^0 of 3: ${free} go to MO-BIG, class [ABC], due tomorrow\\.`)),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Allocate manually' }).click();
    await page.getByLabel('Units for line 1').fill('2');
    await page.getByRole('button', { name: 'Allocate manually' }).click();
    await expect(page.getByText(/^2 of 3: allocated manually\./)).toBeVisible();
    await expect(page.getByText('Line 1: 2 allocated manually')).toBeVisible();
  });

  await test.step('what conditions find goes into the tray, and from there into a wave', async () => {
    await page.getByRole('link', { name: /^Tray/ }).click();
    await expect(page.getByText('The tray is empty')).toBeVisible();
    await page.getByRole('button', { name: 'Add a condition' }).click();
    await select(page.getByRole('combobox', { name: 'Test' }), 'begins with');
    await expect(page.getByText('Enter a value.')).toBeVisible();
    await page.getByLabel('Value').fill('MO-');
    await page.getByRole('button', { name: 'Add a condition' }).click();
    const second = page.getByRole('group', { name: 'Condition 2' });
    await select(second.getByRole('combobox', { name: 'Field' }), 'Units');
    await select(second.getByRole('combobox', { name: 'Test' }), 'is at most');
    await second.getByLabel('Value').fill('3');
    await page.getByLabel('Name of the view').fill('Small ones');
    await page.getByRole('button', { name: 'Save conditions' }).click();
    await expect(page.getByRole('button', { name: 'Small ones' })).toBeVisible();
    await page.getByRole('button', { name: 'Put 2 orders into the tray' }).click();
    await expect(page.getByRole('list', { name: 'Tray' }).getByRole('listitem')).toHaveCount(2);
    await expect(page.getByText(/^Departures, with \d+ pickers? signed in$/)).toBeVisible();
    await page.getByRole('button', { name: 'Release 2 orders' }).click();
    await expect(page).toHaveURL(/\/waves\//);
    const order = await api<{ lines: { released: number }[] }>(page, `/api/orders/${small}`);
    expect(order.lines[0]!.released).toBe(2);
  });
});
