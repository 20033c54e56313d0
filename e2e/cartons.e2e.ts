import { expect } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { ssccOf } from '@hand-relay/core/reading/gs1';
import type { SiteSettings } from '@hand-relay/core/deciding/settings';
import { api, change, leaveIn, person, PHONE, scan, startWave, takeIn, test } from './people.ts';

/** Numbers that this file puts on cartons: printed ahead, far beyond those that benches draw in the meantime. */
const PRINTED = 200;

test('a cart is set up by scans, goods go into the cartons that ship, partly without radio, and leave from the dock', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const { settings } = await api<{ settings: SiteSettings }>(desk, '/api/setup/settings');
  const carton = { ...settings.picking.many, drop: 'carton' };
  await change(desk, '/api/setup/settings', { ...settings, setUp: 'confirm', picking: { one: carton, many: carton } });
  try {
    const orders = [await takeIn(desk, 'CARTON-1', [['JR-004', 7]]), await takeIn(desk, 'CARTON-2', [['JR-004', 2]])];
    const run = (await startWave(desk, orders))[0]!.id;
    await desk.goto('/setup/printing');
    await desk.getByLabel('Numbers for cartons').fill(String(PRINTED));
    await desk.getByRole('button', { name: 'Print numbers' }).click();
    await expect(desk.getByText(`Numbers for ${PRINTED} cartons`)).toBeVisible();

    const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
    await change(floor, `/api/runs/${run}/take`, { cart: 'CART-18' });
    await floor.goto(`/floor/runs/${run}`);
    await test.step('the second order by its slip into the first place, the other where it stands then', async () => {
      await expect(floor.getByRole('group', { name: 'Set up Place 1' })).toBeVisible();
      await scan(floor, 'ORDER-CARTON-2');
      await scan(floor, 'CART-18-1');
      await expect(floor.getByText('CARTON-2 has place 1.')).toBeVisible();
      await scan(floor, 'CART-18-1');
      await expect(floor.getByText('Order CARTON-2 is there. Scan another place.')).toBeVisible();
      await floor.getByRole('button', { name: 'In place', exact: true }).click();
      await expect(floor.getByRole('group', { name: /^Go to/ })).toBeVisible();
    });
    const detail = () => api<RunDetail>(desk, `/api/runs/${run}`);
    await expect
      .poll(async () => (await detail()).positions.map((p) => [p.order, p.number]))
      .toEqual([
        ['CARTON-2', 1],
        ['CARTON-1', 2],
      ]);
    const { picks } = await detail();
    const { prefix } = picks[0]!.step.carton!;
    const number = (n: number) => ssccOf({ extension: Number(prefix[0]), companyPrefix: prefix.slice(1) }, PRINTED - n);
    const seven = picks.find((p) => p.order.number === 'CARTON-1')!;
    const two = picks.find((p) => p.order.number === 'CARTON-2')!;
    if (picks[0] !== seven) {
      await floor.getByRole('button', { name: /Open the list/ }).click();
      await floor.getByRole('button', { name: /CARTON-1/ }).click();
    }

    await test.step('a carton is begun, full, and followed by another, all without radio', async () => {
      await floor.context().setOffline(true);
      await scan(floor, seven.step.bin);
      await scan(floor, number(1));
      await floor.getByRole('button', { name: 'Count', exact: true }).click();
      await floor.getByRole('textbox', { name: 'Count' }).fill('4');
      await floor.getByRole('textbox', { name: 'Count' }).press('Enter');
      await floor.getByRole('button', { name: 'The carton is full' }).click();
      await expect(floor.getByText('3 more, into another carton')).toBeVisible();
      await floor.getByRole('button', { name: 'All 3' }).click();
      await expect(floor.getByRole('group', { name: 'Take a carton Place 2' })).toBeVisible();
      await scan(floor, number(1));
      await expect(floor.getByText(/is already on a carton/)).toBeVisible();
      await scan(floor, number(2));
      await expect(floor.getByText(/\d+ to send/)).toBeVisible();
      await floor.context().setOffline(false);
      await expect
        .poll(async () => (await detail()).cartons.map((c) => [c.sscc, c.units, c.state]))
        .toEqual([
          [number(1), 4, 'closed'],
          [number(2), 3, 'open'],
        ]);
    });

    await test.step('the other order has a carton of its own, which is closed by a touch', async () => {
      await scan(floor, two.step.bin);
      await floor.getByRole('button', { name: 'All 2' }).click();
      await scan(floor, number(2));
      await expect(floor.getByText(/is already on a carton/)).toBeVisible();
      await scan(floor, number(3));
      await expect(floor.getByText('Carton 1 of place 1', { exact: false })).toBeVisible();
      await floor.getByRole('button', { name: 'Close and print' }).first().click();
      await expect(floor.getByRole('button', { name: 'Close and print' })).toHaveCount(1);
      await leaveIn(floor, 'LANE-2', run);
      await expect(floor.getByRole('button', { name: 'Packing slip CARTON-1' })).toBeVisible();
    });

    await test.step('nothing waits at a bench, and the dock confirms it', async () => {
      const bench = await api<{ runs: { id: string }[] }>(desk, '/api/bench');
      expect(bench.runs.some((r) => r.id === run)).toBe(false);
      const order = await api<{ shipment: string; cartons: { state: string }[] }>(
        desk,
        `/api/bench/orders/${orders[0]}`,
      );
      expect(order.cartons.map((c) => c.state)).toEqual(['closed', 'closed']);
      await desk.goto(`/dock/${order.shipment}`);
      await desk.getByRole('button', { name: /^Get it from/ }).click();
      await desk.getByRole('button', { name: 'Confirm the shipment' }).click();
      await expect(desk.getByText(/^Shipped /)).toBeVisible();
    });
  } finally {
    await change(desk, '/api/setup/settings', settings);
  }
});
