import { expect } from '@playwright/test';
import type { Devices, Me, RunDetail } from '@hand-relay/contract';
import { api, change, person, PHONE, pickOne, scan, startWave, takeIn, test } from './people.ts';

test('a session that ends is announced, and asks for the PIN in place: the pick in hand goes on where it was', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'SESSION-1', [
    ['BR-001', 2],
    ['QC-001', 1],
  ]);
  const [run] = await startWave(desk, [order]);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await floor.goto('/floor');
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-21');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  const { step } = picks[0]!;
  await scan(floor, step.bin);
  const count = floor.getByRole('button', { name: /^All / });
  await expect(count).toBeVisible();

  await test.step('signed out from afar, the page is covered, and what was done is kept', async () => {
    const { devices } = await api<Devices>(desk, '/api/setup/devices');
    const { person: own } = await api<Me>(floor, '/api/session');
    const theirs = devices.find((d) => d.person === own.name)!;
    await change(desk, `/api/setup/devices/${theirs.id}/sign-out`);
    // The live stream ends with the session, so the page learns it by itself.
    const ended = floor.getByRole('dialog', { name: 'Signed out' });
    await expect(ended).toBeVisible();
    await expect(count).toBeHidden();
    // A scan here is for nobody, and a wrong PIN is told as one.
    await scan(floor, 'CART-21-1');
    await ended.getByLabel('PIN').fill('9999');
    await ended.getByRole('button', { name: 'Continue' }).click();
    await expect(ended.getByRole('alert')).toContainText('That PIN did not match');
    await ended.getByLabel('PIN').fill('2468');
    await ended.getByRole('button', { name: 'Continue' }).click();
    await expect(ended).toBeHidden();
  });

  await test.step('and the pick goes on, not begun again, with nothing lost', async () => {
    await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
    await count.click();
    if (step.lot) await scan(floor, step.lot);
    await scan(floor, `CART-21-${step.position.number}`);
    await pickOne(floor, picks[1]!, 'CART-21');
    await expect(floor.getByText('All picked')).toBeVisible();
    await expect
      .poll(async () => (await api<RunDetail>(desk, `/api/runs/${run!.id}`)).picks.map((p) => p.picked))
      .toEqual(picks.map((p) => p.step.units));
  });

  await test.step('before its end it says so, and one PIN makes it last', async () => {
    const soon = new Date(Date.now() + 10 * 60_000).toISOString();
    await floor.route('**/api/session', async (route) => {
      if (route.request().method() !== 'GET') return route.continue();
      const answer = await route.fetch();
      await route.fulfill({ response: answer, json: { ...((await answer.json()) as Me), until: soon } });
    });
    await floor.reload();
    await expect(floor.getByText(/^You will be signed out at/)).toBeVisible();
    await floor.getByRole('button', { name: 'Stay signed in' }).click();
    await floor.getByLabel('PIN').fill('2468');
    await floor.getByRole('button', { name: 'Continue' }).click();
    await expect(floor.getByText(/^You will be signed out at/)).toBeHidden();
    await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
    await floor.unroute('**/api/session');
  });

  await test.step('a clock of the device that is wrong is said, and times go by the server', async () => {
    await floor.clock.setSystemTime(Date.now() - 37 * 60_000);
    await floor.reload();
    await expect(floor.getByText(/clock is 37 min slow/)).toBeVisible();
    await floor.getByRole('button', { name: 'Dismiss' }).click();
    await expect(floor.getByText(/clock is 37 min slow/)).toBeHidden();
  });
});
