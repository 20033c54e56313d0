import { expect } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { api, change, leaveIn, person, PHONE, pickOne, scan, startWave, takeIn, test } from './people.ts';

test('a run begun with radio is picked without, survives a reload, is finished, and arrives once', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const orders = [
    await takeIn(desk, 'OFF-1', [
      ['BR-001', 2],
      ['QC-001', 1],
    ]),
    await takeIn(desk, 'OFF-2', [['SM-001', 1]]),
  ];
  const [run] = await startWave(desk, orders);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE, 'allow');
  // The app puts itself onto the device.
  await floor.evaluate(async () => void (await navigator.serviceWorker.ready));
  await floor.goto('/floor');
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-07');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  const serverSays = async () =>
    (await api<RunDetail>(desk, `/api/runs/${run!.id}`)).picks.filter((p) => p.state === 'done').length;
  await pickOne(floor, picks[0]!, 'CART-07');
  await expect.poll(serverSays).toBe(1);

  await test.step('in a dead spot the scans are answered and kept, and another tab of the device shows them', async () => {
    const other = await floor.context().newPage();
    await other.goto(`/floor/runs/${run!.id}`);
    await expect(other.getByRole('heading', { name: /1\/3/ })).toBeVisible();
    await floor.bringToFront();
    await floor.context().setOffline(true);
    await pickOne(floor, picks[1]!, 'CART-07');
    await expect(floor.getByText(/^Offline\. .* to send/)).toBeVisible();
    await expect(floor.getByRole('heading', { name: /2\/3/ })).toBeVisible();
    expect(await serverSays()).toBe(1);
    await expect(other.getByRole('heading', { name: /2\/3/ })).toBeVisible();
    await other.close();
  });

  await test.step('a reload without radio loses nothing', async () => {
    await floor.reload();
    await expect(floor.getByRole('heading', { name: /2\/3/ })).toBeVisible();
    await pickOne(floor, picks[2]!, 'CART-07');
    await expect(floor.getByText('All picked')).toBeVisible();
    await leaveIn(floor, 'LANE-1');
    expect(await serverSays()).toBe(1);
  });

  await test.step('and with radio everything arrives, once', async () => {
    await floor.context().setOffline(false);
    await expect.poll(serverSays, { timeout: 60_000 }).toBe(3);
    await expect.poll(async () => (await api<RunDetail>(desk, `/api/runs/${run!.id}`)).run.state).toBe('left');
    await expect(floor.getByText(/^Offline/)).toHaveCount(0);
    const after = await api<RunDetail>(desk, `/api/runs/${run!.id}`);
    expect(after.picks.map((p) => [p.step.id, p.picked])).toEqual(picks.map((p) => [p.step.id, p.step.units]));
  });
});

test('a network that answers with a page of its own, or swallows everything, keeps nobody from working', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const orders = await Promise.all(
    ['BR-001', 'QC-001', 'SM-001'].map((sku, i) => takeIn(desk, `NET-${i}`, [[sku, 1]])),
  );
  const [run] = await startWave(desk, orders);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  let network: 'good' | 'portal' | 'broken' | 'silent' = 'good';
  await floor.route('**/api/**', (route) => {
    if (network === 'good') return route.continue();
    if (network === 'portal')
      return route.fulfill({ contentType: 'text/html', body: '<h1>Welcome to the guest network</h1>' });
    if (network === 'broken') return route.fulfill({ status: 502, contentType: 'text/html', body: 'Bad gateway' });
    return new Promise<void>(() => {});
  });
  await floor.goto('/floor');
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-09');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  const done = async () =>
    (await api<RunDetail>(desk, `/api/runs/${run!.id}`)).picks.filter((p) => p.state === 'done').length;
  network = 'portal';
  await pickOne(floor, picks[0]!, 'CART-09');
  await expect(floor.getByText(/^Offline\. .* to send/)).toBeVisible();
  network = 'broken';
  await pickOne(floor, picks[1]!, 'CART-09');
  await expect(floor.getByText(/^The server has a fault or is busy\. .* to send/)).toBeVisible();
  network = 'silent';
  const begun = Date.now();
  await floor.reload();
  await expect(floor.getByRole('heading', { name: /2\/3/ })).toBeVisible();
  // The app and the run are on the device: nobody waits until a browser gives up by itself.
  expect(Date.now() - begun).toBeLessThan(20_000);
  await pickOne(floor, picks[2]!, 'CART-09');
  await expect(floor.getByText('All picked')).toBeVisible();
  expect(await done()).toBe(0);
  network = 'good';
  await expect.poll(done, { timeout: 60_000 }).toBe(3);
  await expect(floor.getByText(/^Offline|^The server has a fault/)).toHaveCount(0);

  // Who signs out where nobody hears of it is out on the device at once, and at the server as soon as it can be reached.
  const sessions = async () =>
    (await api<{ devices: { person: string }[] }>(desk, '/api/setup/devices')).devices.filter((d) =>
      d.person.startsWith('Bram'),
    ).length;
  const before = await sessions();
  network = 'portal';
  await floor.getByRole('button', { name: /^Signed in as Bram/ }).click();
  await floor.getByRole('button', { name: 'Sign out' }).click();
  await expect(floor).toHaveURL(/sign-in/);
  await floor.goto('/floor');
  await expect(floor).toHaveURL(/sign-in/);
  expect(await sessions()).toBe(before);
  network = 'good';
  await floor.reload();
  await expect.poll(sessions).toBe(before - 1);
});

test('what was picked without radio in a run that was taken back becomes a task on the device and at the Desk', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const [run] = await startWave(desk, [await takeIn(desk, 'OFF-3', [['BR-001', 1]])]);
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-08');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(floor, `/api/runs/${run!.id}`);
  await floor.context().setOffline(true);
  await pickOne(floor, picks[0]!, 'CART-08');
  await expect(floor.getByText(/^Offline/)).toBeVisible();
  await change(desk, `/api/runs/${run!.id}/return`);
  // Longer than a card would say it at once.
  await floor.waitForTimeout(11_000);
  await floor.context().setOffline(false);
  await floor.getByRole('button', { name: '1 rejected' }).click();
  const sheet = floor.getByRole('dialog', { name: 'Rejected' });
  await expect(sheet.getByText(new RegExp(`Run ${run!.number}: 1 ×`))).toBeVisible();
  await expect(sheet.getByText(new RegExp(`Put it back into ${picks[0]!.step.bin}`))).toBeVisible();
  await expect(desk.getByText(/offline, and it was rejected/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect(floor.getByRole('button', { name: '1 rejected' })).toHaveCount(0);
});

test('a device that is signed out from the Desk while it has no radio learns it later, and keeps what was done', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const [run] = await startWave(desk, [await takeIn(desk, 'OFF-4', [['BR-001', 1]])]);
  const floor = await person(browser, { badge: 'BADGE-2002' }, PHONE);
  await floor.goto('/floor');
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-19');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const { picks } = await api<RunDetail>(desk, `/api/runs/${run!.id}`);
  await floor.context().setOffline(true);
  await pickOne(floor, picks[0]!, 'CART-19');
  await expect(floor.getByText(/^Offline/)).toBeVisible();
  const { devices } = await api<{ devices: { id: string; person: string }[] }>(desk, '/api/setup/devices');
  for (const { id } of devices.filter((d) => d.person === 'Suri Okell'))
    await change(desk, `/api/setup/devices/${id}/sign-out`);
  await floor.context().setOffline(false);
  // Nothing of it reaches the server, and nothing is lost: it waits for whoever did it.
  const ended = floor.getByRole('dialog', { name: 'Signed out' });
  await expect(ended).toBeVisible();
  await expect(ended.getByText(/saved on this device/)).toBeVisible();
  expect((await api<RunDetail>(desk, `/api/runs/${run!.id}`)).picks[0]!.state).toBe('open');
  await ended.getByLabel('PIN').fill('2468');
  await ended.getByRole('button', { name: 'Continue' }).click();
  await expect
    .poll(async () => (await api<RunDetail>(desk, `/api/runs/${run!.id}`)).picks[0]!.state, { timeout: 60_000 })
    .toBe('done');
});
