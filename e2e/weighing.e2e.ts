import { expect } from '@playwright/test';
import type { BenchOrder } from '@hand-relay/contract';
import { api, person, pickAll, scan, takeIn, test } from './people.ts';

test('two cartons are open at once, goods go from one into the other, a weight that is off wants a reason, and a void label says so', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'WG-1', [
    ['JR-001', 12],
    ['HT-001', 2],
  ]);
  const cart = await pickAll(desk, [order], null, 'LANE-5');
  const bench = await person(browser, { badge: 'BADGE-3001' });
  await scan(bench, `${cart}-1`);
  await expect(bench.getByRole('heading', { name: 'WG-1' })).toBeVisible();
  const now = () => api<BenchOrder>(bench, `/api/bench/orders/${order}`);
  const names = new Map((await now()).lines.map((l) => [l.sku, l.name]));

  await test.step('a second carton is opened beside the first, and goods are moved', async () => {
    await scan(bench, 'BOX-M');
    await expect(bench.getByText('Carton opened. Scan what goes in.')).toBeVisible();
    await bench.getByRole('button', { name: /^Put in 12 ×/ }).click();
    await expect(bench.getByText(/^12 added, 12 in carton/)).toBeVisible();
    await scan(bench, 'BOX-S');
    await expect(bench.getByText('Carton 2 opened. Still open: carton 1.')).toBeVisible();
    await bench.getByRole('button', { name: /^Put in 2 ×/ }).click();
    await expect(bench.getByText(/^2 added, 2 in carton/)).toBeVisible();
    await bench.getByRole('button', { name: 'Carton 1', exact: true }).click();
    await bench.getByLabel(`How many × ${names.get('JR-001')}`).fill('13');
    await expect(bench.getByText('1 to 12')).toBeVisible();
    await bench.getByLabel(`How many × ${names.get('JR-001')}`).fill('1');
    await bench.getByRole('button', { name: `Move ${names.get('JR-001')} to carton 2` }).click();
    await expect.poll(async () => (await now()).cartons.map((c) => c.contents.length)).toEqual([1, 2]);
  });

  await test.step('the scale is silent, then wrong, then right', async () => {
    const standin = await person(browser, { name: 'maren' });
    await standin.goto('/setup/scale');
    const scale = standin.getByRole('group', { name: 'BENCH-1' });
    await scale.getByRole('button', { name: 'Does not answer' }).click();
    await expect(scale.getByRole('button', { name: 'Does not answer' })).toHaveAttribute('aria-pressed', 'true');
    await scan(bench, 'DO-WEIGH');
    await expect(bench.getByText('The scale of BENCH-1 does not answer. Type the weight.')).toBeVisible();
    await scale.getByRole('button', { name: 'Steady', exact: true }).click();
    await scale.getByLabel('On the scale, g').last().fill('300');
    await scale.getByRole('button', { name: 'Put it on' }).click();
    await expect(scale.getByText('0.30 kg')).toBeVisible();
    await scan(bench, 'DO-WEIGH');
    await expect(
      bench.getByText(/^The scale shows 0\.30 kg, expected [\d.]+ kg ± [\d.]+ kg\. Count again\.$/),
    ).toBeVisible();
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText('Count again. To close it all the same, say why:')).toBeVisible();
    const { expectedG } = (await now()).bench.others[0]!.weight;
    await bench.getByLabel('Weight, g').fill(String(expectedG));
    await bench.getByRole('button', { name: 'Enter', exact: true }).last().click();
    await expect(bench.getByText(/: as expected\.$/)).toBeVisible();
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText(/^Carton closed\. /)).toBeVisible();
  });

  await test.step('the other carton closes by scans alone with a reason; opened again its label is void', async () => {
    await expect(bench.getByRole('heading', { name: /^Carton 2 · / })).toBeVisible();
    await scan(bench, 'DO-WEIGH');
    await expect(bench.getByText(/^The scale shows 0\.30 kg/)).toBeVisible();
    await scan(bench, 'DO-COUNTED');
    await expect(bench.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
    const { sscc } = (await now()).cartons[1]!;
    await bench.getByRole('button', { name: 'Reopen' }).last().click();
    await expect(bench.getByText('Carton 2 is open again. Remove its label: it is void.')).toBeVisible();
    await scan(bench, sscc!);
    await expect(bench.getByText('This label is void: 2 · WG-1 was reopened. Use its new label.')).toBeVisible();
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
    await desk.goto(`/desk/orders/${order}`);
    await expect(desk.getByText(/0\.30 kg, [\d.]+ kg expected: Counted again, all is right/)).toBeVisible();
  });
});
