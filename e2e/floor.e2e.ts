import { toBuffer } from 'bwip-js/node';
import { chromium, expect, type Page } from '@playwright/test';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RunDetail, TrailEntry } from '@hand-relay/contract';
import { api, change, leaveIn, packAll, person, PHONE, pickOne, scan, startWave, takeIn, test } from './people.ts';

const picksOf = async (page: Page, run: string) => (await api<RunDetail>(page, `/api/runs/${run}`)).picks;
const key = (page: Page, name: string | RegExp) => page.getByRole('button', { name });

/** A run of these orders in somebody's hands. */
async function take(floor: Page, run: { id: string; number: string }, cart: string): Promise<void> {
  await floor.goto('/floor');
  await key(floor, `Take ${run.number}`).click();
  await scan(floor, cart);
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run.id}`));
}

test('what is wrong at a bin takes three touches, and each way on is a way on', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const orders = [
    await takeIn(desk, 'EX-1', [
      ['FW-012', 3],
      ['HT-003', 2],
      ['WK-004', 2],
    ]),
    await takeIn(desk, 'EX-2', [
      ['SM-001', 1],
      ['BR-001', 2],
    ]),
  ];
  const [run] = await startWave(desk, orders);
  const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await take(floor, run!, 'CART-13');
  const state = async () => (await picksOf(floor, run!.id)).map((p) => `${p.step.item.sku} ${p.state}`);
  /** Goes to the pick of an item by the list. */
  const turnTo = async (sku: string) => {
    const pick = (await picksOf(floor, run!.id)).find((p) => p.step.item.sku === sku && p.state === 'open')!;
    await key(floor, 'List').click();
    await floor.getByRole('button', { name: new RegExp(pick.step.bin) }).click();
    await expect(floor.getByRole('group', { name: `Go to ${pick.step.bin}` })).toBeVisible();
    return pick;
  };

  await test.step('another bin', async () => {
    const pick = await turnTo('FW-012');
    const [other] = pick.step.elsewhere;
    await key(floor, 'Problem').click();
    await key(floor, 'Cannot find').click();
    await key(floor, new RegExp(`^Take 3 from ${other!.bin}`)).click();
    await expect(floor.getByRole('group', { name: `Go to ${other!.bin}` })).toBeVisible();
    await expect(desk.getByText(new RegExp(`Pico Lund did not find 3 × .* in ${pick.step.bin}`))).toBeVisible();
    const moved = (await picksOf(floor, run!.id)).find((p) => p.step.id === `${pick.step.id}.r`)!;
    await pickOne(floor, moved, 'CART-13');
    await expect.poll(state).toContain('FW-012 done');
  });

  await test.step('missing, with a note and a photo that the Desk sees', async () => {
    const pick = await turnTo('HT-003');
    await key(floor, 'Problem').click();
    await key(floor, 'Damaged').click();
    await key(floor, '+1').click();
    await key(floor, 'Note').click();
    await floor.getByRole('textbox', { name: 'Note' }).fill('handle broken');
    const chooser = floor.waitForEvent('filechooser');
    await key(floor, 'Photo').click();
    await (await chooser).setFiles({ name: 'p.png', mimeType: 'image/png', buffer: await floor.screenshot() });
    await expect(key(floor, 'Photo taken')).toBeVisible();
    await key(floor, 'Report 1 missing').click();
    await scan(floor, pick.step.item.packs.find((p) => p.level === 'unit')!.gtin);
    await scan(floor, `CART-13-${pick.step.position.number}`);
    await expect.poll(state).toContain('HT-003 short');
    await desk.goto('/desk/counts');
    await expect(desk.getByText('handle broken')).toBeVisible();
    const photo = desk.getByRole('img', { name: `Photo from ${pick.step.bin}` });
    await expect.poll(() => photo.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  });

  await test.step('it stands on the list of exceptions until somebody deals with it', async () => {
    // Beside the track too, the supervisor's home.
    await desk.goto('/waves');
    const rail = desk.getByRole('region', { name: 'Exceptions' });
    await expect(rail.getByRole('article').filter({ hasText: 'handle broken' })).toBeVisible();
    await desk.goto('/desk/exceptions?find=EX-1');
    const cards = desk.getByRole('article');
    await expect(cards).toHaveCount(2);
    const short = cards.filter({ hasText: 'handle broken' });
    await expect(short.getByRole('img', { name: 'Photo' })).toBeVisible();
    await short.getByRole('button', { name: 'Ship short' }).click();
    await expect(cards).toHaveCount(1);
    await cards.getByRole('button', { name: 'Dismiss' }).click();
    const sheet = desk.getByRole('dialog');
    await sheet.getByRole('button', { name: 'Dismiss' }).click();
    await expect(sheet.getByText('Enter a reason of at least three letters.')).toBeVisible();
    await sheet.getByRole('textbox').fill('bin refilled');
    await sheet.getByRole('button', { name: 'Dismiss' }).click();
    await expect(cards).toHaveCount(0);
    await desk.getByRole('button', { name: '2 settled in the last 24 hours' }).click();
    await expect(desk.getByText(/Dismissed by Maren .*: bin refilled/)).toBeVisible();
  });

  await test.step('later, and out of the run: what lies on the cart goes back by a trip of its own', async () => {
    const pick = await turnTo('SM-001');
    await key(floor, 'Problem').click();
    await key(floor, 'Bin blocked').click();
    await key(floor, 'Later in this run').click();
    await expect.poll(async () => (await picksOf(floor, run!.id)).at(-1)!.step.id).toBe(pick.step.id);
    const brush = await turnTo('BR-001');
    await pickOne(floor, brush, 'CART-13');
    await expect.poll(state).toContain('BR-001 done');
    await turnTo('SM-001');
    await key(floor, 'Problem').click();
    await key(floor, 'Wrong goods').click();
    await key(floor, 'Remove EX-2 from run').click();
    await expect(floor.getByText('EX-2 removed from this run.')).toBeVisible();
    await expect.poll(async () => (await state()).filter((s) => /SM|BR/.test(s))).toEqual([]);
    const helper = await person(browser, { badge: 'BADGE-2002' }, PHONE);
    await key(helper, /: put 1 back$/).click();
    await scan(helper, 'A-01-1');
    await expect(helper.getByText(/^This is bin A-01-1\. Go to/)).toBeVisible();
    await scan(helper, brush.step.item.packs[0]!.gtin);
    await expect(helper.getByText(`Item matches. Scan bin ${brush.step.bin}.`)).toBeVisible();
    await scan(helper, brush.step.bin);
    await expect(helper.getByText('All put back')).toBeVisible();
  });

  await test.step('a count that differs waits until the Desk agrees', async () => {
    const helper = await person(browser, { badge: 'BADGE-2003' }, PHONE);
    await helper.goto('/floor/counts');
    await key(helper, /^Count .*, Smoker/)
      .or(key(helper, /^Count /))
      .first()
      .click();
    await helper.getByRole('textbox', { name: /^Units in the bin/ }).fill('9000');
    await key(helper, 'Confirm 9,000 in this bin').click();
    await expect(helper.getByText(/It differs: the Desk has to agree\./)).toBeVisible();
    await desk.goto('/desk/exceptions?kind=count');
    await expect(desk.getByText(/counted 9000, system quantity/)).toBeVisible();
    await desk.getByRole('link', { name: 'Settle the count' }).click();
    await key(desk, /^Agree: /)
      .first()
      .click();
    await expect(desk.getByText(/counted 9,000/)).toHaveCount(0);
  });
});

test('on the list a slip names its run, and a free cart takes the next one', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'SLIP-1', [['WK-004', 1]]);
  const [run] = await startWave(desk, [order]);
  await change(desk, '/api/runs/assign', { runs: [run!.id], person: 'pico', priority: 9 });
  const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await expect(key(floor, `Take ${run!.number}`)).toBeVisible();
  await scan(floor, 'ORDER-SLIP-1');
  await expect(floor.getByRole('dialog', { name: new RegExp(run!.number) })).toBeVisible();
  await floor.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  await scan(floor, 'NOBODY-KNOWS');
  await expect(floor.getByRole('alert')).toContainText('Nothing here is called "NOBODY-KNOWS".');
  await scan(floor, 'LANE-1');
  await expect(floor.getByRole('alert')).toContainText('LANE-1 is a lane, bench or door.');
  await scan(floor, 'CART-24');
  await expect(floor).toHaveURL(new RegExp(`/floor/runs/${run!.id}`));
  const [pick] = await picksOf(floor, run!.id);
  expect(pick!.step.position.cart).toBe('CART-24');
  await scan(desk, 'CART-12');
  await expect(desk.getByRole('dialog', { name: 'Find' }).getByText('CART-12')).toBeVisible();
});

test('the next run is one press away, and begins at once where the site asks for no cart', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const { settings } = await api<{ settings: object }>(desk, '/api/setup/settings');
  try {
    await change(desk, '/api/setup/settings', { ...settings, askCart: false });
    const orders = [await takeIn(desk, 'NEXT-1', [['WK-004', 1]]), await takeIn(desk, 'NEXT-2', [['WK-004', 1]])];
    const runs = [(await startWave(desk, [orders[0]!]))[0]!, (await startWave(desk, [orders[1]!]))[0]!];
    await change(desk, '/api/runs/assign', { runs: [runs[0]!.id], person: 'bram', priority: 9 });
    await change(desk, '/api/runs/assign', { runs: [runs[1]!.id], person: 'bram', priority: 8 });
    const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
    await key(floor, `Take ${runs[0]!.number}`).click();
    await expect(floor).toHaveURL(new RegExp(`/floor/runs/${runs[0]!.id}`));
    const [pick] = await picksOf(floor, runs[0]!.id);
    await pickOne(floor, pick!, pick!.step.position.cart);
    await leaveIn(floor, 'LANE-2', runs[0]!.id);
    await key(floor, new RegExp(`^Next run: ${runs[1]!.number}`)).click();
    await expect(floor).toHaveURL(new RegExp(`/floor/runs/${runs[1]!.id}`));
    const [next] = await picksOf(floor, runs[1]!.id);
    await expect(floor.getByRole('group', { name: `Go to ${next!.step.bin}` })).toBeVisible();
    await change(floor, `/api/runs/${runs[1]!.id}/return`);
    await packAll(await person(browser, { badge: 'BADGE-3002' }), orders[0]!);
  } finally {
    await change(desk, '/api/setup/settings', settings);
  }
});

test('where the site asks for a scan a touch says why, or is no key at all, and the trail tells it from a scan', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const { settings } = await api<{ settings: object }>(desk, '/api/setup/settings');
  await desk.goto('/setup/settings');
  await desk.getByRole('group', { name: 'Bin', exact: true }).getByRole('button', { name: 'With a reason' }).click();
  await desk.getByRole('group', { name: 'Item', exact: true }).getByRole('button', { name: 'Scan only' }).click();
  await key(desk, /^Save/).click();
  await expect(desk.getByText('Saved.')).toBeVisible();
  try {
    const order = await takeIn(desk, 'TOUCH-1', [['WK-004', 2]]);
    const [run] = await startWave(desk, [order]);
    const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
    await take(floor, run!, 'CART-23');
    const [pick] = await picksOf(floor, run!.id);
    await key(floor, 'At the bin').click();
    await floor
      .getByRole('dialog', { name: 'Why is it not scanned?' })
      .getByRole('button', { name: 'Label unreadable' })
      .click();
    await expect(key(floor, 'Problem')).toBeVisible();
    await expect(key(floor, /^All /)).toHaveCount(0);
    await scan(floor, 'COUNT-ALL');
    await expect(floor.getByText('here a touch is not enough')).toBeVisible();
    // One of them shows which goods these are: then a number will do.
    await scan(floor, pick!.step.item.packs.find((p) => p.level === 'unit')!.gtin);
    await key(floor, 'All 2').click();
    if (pick!.step.lot) await scan(floor, pick!.step.lot);
    await scan(floor, `CART-23-${pick!.step.position.number}`);
    await expect(floor.getByText('All picked')).toBeVisible();
    await desk.goto(`/desk/orders/${order}`);
    await expect(desk.getByText(/^Confirmed by touch: .+ at .+ Label unreadable$/)).toBeVisible();
  } finally {
    await change(desk, '/api/setup/settings', settings);
  }
});

test('what is left in a nearly empty bin is one touch', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  // An order for all but one of what a bin holds.
  let [sku, units] = ['', 0];
  for (const each of ['BR-001', 'BR-002', 'QC-001', 'SM-002', 'HT-001', 'HT-002', 'ST-002', 'ST-003', 'AC-003']) {
    const found = await api<{ bins?: { units: number; sent: number; lot: string }[] }>(
      desk,
      `/api/look-up?code=${each}`,
    );
    const [bin, ...others] = found.bins ?? [];
    if (!bin || others.length > 0 || bin.sent > 0 || bin.lot !== '' || (sku !== '' && bin.units >= units)) continue;
    [sku, units] = [each, bin.units];
  }
  expect(sku).not.toBe('');
  const order = await takeIn(desk, 'LEFT-1', [
    [sku, units - 1],
    ['WK-004', 1],
  ]);
  const [run] = await startWave(desk, [order]);
  const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await take(floor, run!, 'CART-17');
  const picks = await picksOf(floor, run!.id);
  await test.step('with very large letters a refusal is in view, and no key lies beyond the edge', async () => {
    await floor.setViewportSize({ width: PHONE.width / 2, height: PHONE.height / 2 });
    await expect(key(floor, 'Problem')).not.toBeInViewport();
    await key(floor, 'Problem').scrollIntoViewIfNeeded();
    const wrong = picks[0]!.step.bin === 'A-01-1' ? 'A-01-2' : 'A-01-1';
    await scan(floor, wrong);
    await expect(floor.getByText(`This is bin ${wrong}. Go to ${picks[0]!.step.bin}.`)).toBeInViewport();
    const beyond = () => {
      const keys = [...document.querySelectorAll('button')];
      return keys.filter((k) => k.getBoundingClientRect().right > innerWidth).map((k) => k.textContent);
    };
    expect(await floor.evaluate(beyond)).toEqual([]);
    // And on the smallest phone the parts of the card stand one below the other, with a refusal too.
    await floor.setViewportSize({ width: 320, height: 568 });
    await scan(floor, wrong);
    await expect(floor.getByText(`This is bin ${wrong}. Go to ${picks[0]!.step.bin}.`)).toBeInViewport();
    const card = floor.getByRole('group', { name: `Go to ${picks[0]!.step.bin}` });
    const parts = [/^This is bin/, picks[0]!.step.bin, picks[0]!.step.item.name, /^[\d,]+ × /];
    const boxes = await Promise.all(parts.map((p) => card.getByText(p, { exact: true }).first().boundingBox()));
    for (const [i, box] of boxes.slice(1).entries())
      expect(box!.y).toBeGreaterThanOrEqual(boxes[i]!.y + boxes[i]!.height - 2);
    await floor.setViewportSize(PHONE);
  });
  const at = picks.findIndex((p) => p.step.item.sku === sku);
  for (const pick of picks.slice(0, at + 1)) await pickOne(floor, pick, 'CART-17');
  await key(floor, 'Yes, 1').click();
  await expect(key(floor, 'Yes, 1')).toHaveCount(0);
  const noted = { bin: picks[at]!.step.bin, expected: 1, units: 1 };
  await expect
    .poll(
      async () =>
        (await api<{ entries: TrailEntry[] }>(desk, `/api/orders/${order}/trail`)).entries.find(
          (e) => e.kind === 'bin-left',
        )?.facts,
    )
    .toMatchObject(noted);
});

test('two pickers on one order see each other, and a run passes on', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  // Chilled and ambient goods of one order are picked by zone, by two people.
  const order = await takeIn(desk, 'TWO-1', [
    ['PP-002', 2],
    ['WK-004', 2],
    ['HT-005', 1],
  ]);
  const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders: [order] });
  await change(desk, `/api/waves/${wave}`, { picking: 'zones' });
  await change(desk, `/api/waves/${wave}/plan`);
  await change(desk, `/api/waves/${wave}/start`);
  const { runs } = await api<{ runs: { id: string; number: string }[] }>(desk, `/api/waves/${wave}`);
  expect(runs.length).toBeGreaterThan(1);
  const pico = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  const suri = await person(browser, { badge: 'BADGE-2002' }, PHONE);
  await take(pico, runs[0]!, 'CART-14');
  await take(suri, runs[1]!, 'CART-15');
  await test.step('in the run of another nothing can be scanned, and the attempt is counted', async () => {
    const [theirs] = await picksOf(pico, runs[0]!.id);
    await suri.goto(`/floor/runs/${runs[0]!.id}`);
    await expect(suri.getByText('Pico Lund picks this run.')).toBeVisible();
    await scan(suri, theirs!.step.bin);
    await expect(suri.getByText(`${theirs!.step.bin} is for Pico Lund to pick.`)).toBeVisible();
    await expect
      .poll(async () => (await api<{ entries: TrailEntry[] }>(desk, `/api/orders/${order}/trail`)).entries.at(-1))
      .toMatchObject({ kind: 'scan-refused', person: 'Suri Okell', facts: { code: 'not-your-run' } });
    // Anything else opens what it names.
    await scan(suri, `RUN-${runs[1]!.number}`);
    await expect(suri).toHaveURL(new RegExp(runs[1]!.id));
  });
  await key(pico, 'More').click();
  await expect(
    pico.getByText(new RegExp(`^Suri Okell: 0 of \\d+ in run ${runs[1]!.number} · a part of TWO-1$`)),
  ).toBeVisible();
  await key(pico, 'Note for the packer of TWO-1').click();
  await pico.getByRole('textbox', { name: 'What they should know' }).fill('keep cold');
  await key(pico, 'Leave note').click();
  await expect(pico.getByText('The packer of TWO-1 will see this note.')).toBeVisible();
  for (const pick of await picksOf(suri, runs[1]!.id)) await pickOne(suri, pick, 'CART-15');
  await expect(suri.getByText('All picked')).toBeVisible();
  await expect(suri.getByText(/^Pico Lund: 0 of .* a part of TWO-1$/)).toBeVisible();
  const [first, ...rest] = await picksOf(pico, runs[0]!.id);
  // Slow radio: what is done to the run as a whole must not overtake the scans before it.
  await pico.route(/\/api\/(kept|runs\/.*\/inputs)$/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await pickOne(pico, first!, 'CART-14');
  expect(rest).not.toEqual([]);
  await key(pico, 'More').click();
  await key(pico, 'Hand over').click();
  await key(pico, 'Suri Okell').click();
  await expect(pico).toHaveURL(/\/floor$/);
  await suri.goto('/floor');
  await key(suri, `Continue ${runs[0]!.number}`).click();
  for (const pick of rest) await pickOne(suri, pick, 'CART-14');
});

test('the camera reads what it is held to', async ({ browser, baseURL }) => {
  const desk = await person(browser, { name: 'maren' });
  const [run] = await startWave(desk, [await takeIn(desk, 'CAM-1', [['WK-004', 1]])]);
  const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await take(floor, run!, 'CART-16');
  const [pick] = await picksOf(floor, run!.id);
  // A video of the bin's label, as the browser's stand-in for a camera plays it.
  const label = await toBuffer({
    bcid: 'code128',
    text: pick!.step.bin,
    scale: 4,
    height: 20,
    padding: 20,
    backgroundcolor: 'FFFFFF',
  });
  const studio = await person(browser, { name: 'maren' });
  await studio.setContent(
    `<body style="margin:0;display:grid;place-items:center;height:100vh;background:#ddd"><img src="data:image/png;base64,${label.toString('base64')}">`,
  );
  const folder = mkdtempSync(join(tmpdir(), 'hand-relay-camera-'));
  const film = join(folder, 'label.mjpeg');
  writeFileSync(film, Buffer.concat(Array<Buffer>(20).fill(await studio.screenshot({ type: 'jpeg', quality: 90 }))));
  const seeing = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${film}`,
    ],
  });
  try {
    const context = await seeing.newContext({
      baseURL: baseURL!,
      viewport: PHONE,
      serviceWorkers: 'block',
      storageState: await floor.context().storageState(),
    });
    const page = await context.newPage();
    await page.goto(`/floor/runs/${run!.id}`);
    await key(page, 'Camera').click();
    await expect(page.getByRole('group', { name: /^Pick 1/ })).toBeVisible();
    // Held there on, it is said what it is, and what is awaited.
    await expect(page.getByRole('img', { name: /^What the camera sees/ })).toBeVisible();
  } finally {
    await seeing.close();
    rmSync(folder, { recursive: true, force: true });
  }
});

test('each reads their own language: on every device, after a reload, and at the sign-in of the device', async ({
  browser,
}) => {
  const floor = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await floor.goto('/floor');
  await floor.getByRole('button', { name: /^Signed in as/ }).click();
  await floor.getByRole('button', { name: /^Deutsch/ }).click();
  await expect(floor.getByRole('button', { name: 'Abmelden' })).toBeVisible();
  await floor.reload();
  await expect(floor.getByRole('heading', { name: 'Rundgänge', exact: true })).toBeVisible();
  const other = await person(browser, { badge: 'BADGE-2003' }, PHONE);
  await other.goto('/floor');
  await expect(other.getByRole('heading', { name: 'Rundgänge', exact: true })).toBeVisible();
  // Whoever comes next reads theirs.
  await change(other, '/api/session/language', { language: 'en' });
  await floor.reload();
  await expect(floor.getByRole('heading', { name: 'Runs', exact: true })).toBeVisible();
  await change(floor, '/api/session/language', { language: 'de' });
  await floor.reload();
  await floor.getByRole('button', { name: /^Angemeldet als/ }).click();
  await floor.getByRole('button', { name: 'Abmelden' }).click();
  await expect(floor.getByText('Ausweis und PIN')).toBeVisible();
  await change(other, '/api/session/language', { language: 'en' });
});
