import { expect } from '@playwright/test';
import { api, change, person, PHONE, takeIn, test, select } from './people.ts';

interface Wave {
  wave: { number: number; state: string };
  runs: { id: string; number: string; state: string; assigned: string | null; team: string; metres: number }[];
}

test('two waves are gathered, compared and started; a blocked aisle is planned around, shown before it is done', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  // Without anybody who picks nothing could be foreseen.
  await person(browser, { badge: 'BADGE-2001' }, PHONE);
  const gather = async (name: string, lines: [string, number][][]) => {
    const orders: string[] = [];
    for (const [i, list] of lines.entries()) orders.push(await takeIn(desk, `${name}-${i}`, list));
    return (await change<{ wave: string; number: number }>(desk, '/api/waves', { orders })).wave;
  };
  const one = await gather('WV-A', [
    [
      ['BR-001', 1],
      ['QC-001', 2],
    ],
    [['SM-001', 1]],
    [['BR-001', 2]],
  ]);
  const two = await gather('WV-B', [[['QC-001', 1]], [['BR-001', 1]]]);
  const read = (id: string) => api<Wave>(desk, `/api/waves/${id}`);
  const [a, b] = [(await read(one)).wave.number, (await read(two)).wave.number];

  await test.step('each is planned on its page, order by order or onto cart places', async () => {
    await desk.goto(`/waves/${two}`);
    await desk.getByRole('button', { name: 'How it is picked' }).click();
    await desk.getByRole('button', { name: 'Order by order' }).click();
    await expect(desk.getByText('Each run is one order.')).toBeVisible();
    await desk.getByRole('button', { name: 'Done' }).click();
    await desk.getByRole('button', { name: 'Plan the runs' }).click();
    await expect(desk.getByRole('button', { name: 'Start the wave' })).toBeVisible();
    expect((await read(two)).runs).toHaveLength(2);
    await desk.goto(`/waves/${one}`);
    await desk.getByRole('button', { name: 'Plan the runs' }).click();
    await expect(desk.getByText(/^No walk past these bins is shorter/)).toBeVisible();
  });

  await test.step('the track compares them by keyboard and puts one before the other', async () => {
    await desk.goto('/waves');
    for (const number of [a, b]) await desk.getByRole('checkbox', { name: `Mark Wave ${number}`, exact: true }).click();
    await desk.keyboard.press('c');
    const sheet = desk.getByRole('dialog', { name: 'Compare waves' });
    await expect(sheet.getByRole('row', { name: /^Orders/ })).toContainText(/3\D*2|2\D*3/);
    await expect(sheet.getByRole('row', { name: /^Picked by/ })).toContainText(/\d\d:\d\d/);
    await desk.keyboard.press('Escape');
    await sheet
      .getByRole('button', { name: 'Close' })
      .click({ timeout: 2000 })
      .catch(() => undefined);
    await expect(sheet).toHaveCount(0);
  });

  const first = await read(one);
  const { picks } = await api<{ picks: { at: { aisle: string; y: number } }[] }>(
    desk,
    `/api/runs/${first.runs[0]!.id}`,
  );
  await test.step('an aisle is blocked on the plan, with two taps', async () => {
    await desk.goto('/waves/floor');
    await desk.getByRole('button', { name: 'Block', exact: true }).click();
    const before = await api<{ blocked: object[] }>(desk, '/api/floor/layout');
    expect(before.blocked).toEqual([]);
    const plan = desk.getByRole('group', { name: /^Floor plan/ });
    const box = (await plan.boundingBox())!;
    const layout = await api<{ aisles: { id: string; x: number }[]; crossAisles: number[] }>(desk, '/api/floor/layout');
    const { places } = await api<{ places: { y: number }[] }>(desk, '/api/floor');
    const lowest = Math.min(0, ...places.map((p) => p.y));
    const whole = {
      left: -3,
      bottom: lowest - 2.6,
      width: layout.aisles.at(-1)!.x + 6,
      height: layout.crossAisles.at(-1)! - lowest + 5,
    };
    const scale = Math.min(box.width / whole.width, box.height / whole.height);
    const at = (x: number, y: number) => ({
      x: box.x + box.width / 2 + (x - whole.left - whole.width / 2) * scale,
      y: box.y + box.height / 2 - (y - whole.bottom - whole.height / 2) * scale,
    });
    const aisle = layout.aisles.find((x) => x.id === picks[0]!.at.aisle)!;
    // In front of the first stop: whoever wants to reach it has to go round.
    for (const y of [Math.max(0.5, picks[0]!.at.y - 2), Math.max(1, picks[0]!.at.y - 1)]) {
      const spot = at(aisle.x, y);
      await desk.mouse.click(spot.x, spot.y);
    }
    await expect(desk.getByText(/^Floor changed\./)).toBeVisible();
    expect((await api<{ blocked: object[] }>(desk, '/api/floor/layout')).blocked).toEqual([
      expect.objectContaining({ aisle: aisle.id }),
    ]);
  });

  await test.step('the wave is replanned, after a preview of the changes', async () => {
    await desk.goto(`/waves/${one}`);
    await desk.getByRole('button', { name: 'Start the wave' }).click();
    await expect(desk.getByText(/has started/)).toBeVisible();
    await desk.getByRole('button', { name: 'More', exact: true }).click();
    await desk.getByRole('button', { name: 'Replan' }).click();
    const sheet = desk.getByRole('dialog', { name: `Replan wave ${a}` });
    await expect(sheet.getByRole('row', { name: /^Walk/ })).toBeVisible();
    expect((await read(one)).runs.map((r) => r.id)).toEqual(first.runs.map((r) => r.id));
    await sheet.getByRole('button', { name: 'Use this plan' }).click();
    await expect(desk.getByText(`Wave ${a} replanned.`)).toBeVisible();
    const after = (await read(one)).runs.filter((r) => r.state !== 'cancelled');
    expect(after.map((r) => r.id)).not.toEqual(first.runs.map((r) => r.id));
    const walked = await api<{ path: [number, number][] }>(desk, `/api/runs/${after[0]!.id}`);
    // Whatever way it takes, it does not go through what is blocked.
    const { aisles, blocked } = await api<{
      aisles: { id: string; x: number }[];
      blocked: { aisle: string; from: number; to: number }[];
    }>(desk, '/api/floor/layout');
    const [shut] = blocked;
    const x = aisles.find((a) => a.id === shut!.aisle)!.x;
    for (const [i, to] of walked.path.entries()) {
      const from = walked.path[i - 1] ?? to;
      if (from[0] !== x || to[0] !== x) continue;
      expect(Math.max(from[1], to[1]) <= shut!.from || Math.min(from[1], to[1]) >= shut!.to).toBe(true);
    }
  });

  await test.step('and the stretch is free again', async () => {
    const layout = await api<object>(desk, '/api/floor/layout');
    await change(desk, '/api/floor/layout', { ...layout, blocked: [] });
    for (const id of [one, two]) await change(desk, `/api/waves/${id}/cancel`);
  });
});

test('a run goes to another picker by drag, by keys and on a phone', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  await person(browser, { badge: 'BADGE-2001' }, PHONE);
  await person(browser, { badge: 'BADGE-2002' }, PHONE);
  const order = await takeIn(desk, 'WV-DRAG', [['BR-001', 1]]);
  const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders: [order] });
  await change(desk, `/api/waves/${wave}/plan`);
  const run = async () => (await api<Wave>(desk, `/api/waves/${wave}`)).runs[0]!;
  const { number } = await run();
  await desk.goto(`/waves/${wave}`);
  const card = desk.getByLabel(new RegExp(`^Run ${number},`));
  const bay = (name: string) => desk.getByRole('group', { name, exact: true });
  await expect(bay('Next free picker').getByLabel(new RegExp(`^Run ${number},`))).toBeVisible();

  const [from, to] = [(await card.boundingBox())!, (await bay('Suri Okell').boundingBox())!];
  await desk.mouse.move(from.x + 20, from.y + 20);
  await desk.mouse.down();
  await desk.mouse.move(from.x + 40, from.y + 30, { steps: 4 });
  await desk.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 12 });
  await desk.mouse.up();
  await expect(desk.getByText(`Run ${number}: Suri Okell.`)).toBeVisible();
  await expect.poll(async () => (await run()).assigned).toBe('Suri Okell');
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await run()).assigned).toBeNull();

  await expect(bay('Next free picker').getByLabel(new RegExp(`^Run ${number},`))).toBeVisible();
  await card.focus();
  for (const key of ['Space', 'ArrowRight', 'Space']) {
    await desk.keyboard.press(key);
    await desk.waitForTimeout(400);
  }
  await expect.poll(async () => (await run()).assigned).not.toBeNull();

  await desk.setViewportSize(PHONE);
  await desk.keyboard.press('j');
  await desk.getByRole('button', { name: `Give run ${number}` }).click();
  await desk.getByRole('dialog').getByRole('button', { name: 'Pico Lund' }).click();
  await expect.poll(async () => (await run()).assigned).toBe('Pico Lund');
  await change(desk, `/api/waves/${wave}/cancel`);
});

test('orders go from run to run by drag, by keys and from a list, and a wave is split', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  // Several bays in a row, so that what is carried passes others on its way.
  for (const badge of ['BADGE-2001', 'BADGE-2002', 'BADGE-2003']) await person(browser, { badge }, PHONE);
  const orders: string[] = [];
  for (let i = 0; i < 3; i++) orders.push(await takeIn(desk, `WV-MOVE-${i}`, [['BR-001', 1]]));
  const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders });
  await change(desk, `/api/waves/${wave}/plan`);
  const runs = async () =>
    (
      await api<{ runs: { id: string; number: string; orders: number; state: string }[] }>(desk, `/api/waves/${wave}`)
    ).runs
      .filter((r) => r.state !== 'cancelled')
      .map((r) => [r.number, r.orders] as const);
  const [[first]] = (await runs()) as [readonly [string, number]];
  expect(await runs()).toEqual([[first, 3]]);
  await desk.goto(`/waves/${wave}`);
  const card = (number: string) => desk.getByLabel(new RegExp(`^Run ${number},`));
  await card(first).click();

  await test.step('by drag, onto a person: a run of its own, theirs', async () => {
    const chip = desk.getByLabel('Order WV-MOVE-0', { exact: true });
    await chip.scrollIntoViewIfNeeded();
    const bay = desk.getByRole('group', { name: 'Pico Lund', exact: true });
    const [from, to] = [(await chip.boundingBox())!, (await bay.boundingBox())!];
    await desk.mouse.move(from.x + 10, from.y + 10);
    await desk.mouse.down();
    await desk.mouse.move(from.x + 30, from.y + 20, { steps: 4 });
    await desk.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 12 });
    await desk.mouse.up();
    await expect.poll(async () => (await runs()).map(([, n]) => n).sort()).toEqual([1, 2]);
  });
  const own = (await runs()).find(([number]) => number !== first)![0];
  // Theirs among others: a picker may have runs of other waves too.
  const bay = desk.getByRole('group', { name: 'Pico Lund', exact: true });
  await expect(bay.getByLabel(new RegExp(`^Run ${own},`))).toBeVisible();

  await test.step('by keys, from run to run', async () => {
    await card(first).click();
    const chip = desk.getByLabel('Order WV-MOVE-1', { exact: true });
    await chip.focus();
    // What is carried, and over what, is said aloud too.
    const said = desk.getByRole('status').filter({ hasText: 'Order WV-MOVE-1' });
    await desk.keyboard.press('Space');
    await expect(said).toBeVisible();
    // Row by row, there and back: how many people and runs stand beside each other depends on the tests before.
    let along = 'ArrowRight';
    const press = async (key: string) => {
      const before = await said.innerText();
      await desk.keyboard.press(key);
      const moved = expect.poll(() => said.innerText(), { timeout: 2000 }).not.toBe(before);
      return moved.then(
        () => true,
        () => false,
      );
    };
    for (let tries = 0; tries < 20 && !(await said.innerText()).includes(`over Run ${own}`); tries++) {
      if (await press(along)) continue;
      await press('ArrowDown');
      along = along === 'ArrowRight' ? 'ArrowLeft' : 'ArrowRight';
    }
    await expect(said).toContainText(`over Run ${own}`);
    await desk.keyboard.press('Space');
    await expect(desk.getByText(/1 order moved from run/)).toBeVisible();
    await expect.poll(runs).toEqual(expect.arrayContaining([[own, 2]]));
  });

  await test.step('from the list of a run, and back from the notice', async () => {
    await card(own).click();
    await desk.keyboard.press('o');
    const sheet = desk.getByRole('dialog', { name: new RegExp(`^Orders of run ${own}`) });
    await sheet.getByRole('checkbox', { name: /WV-MOVE-0/ }).click();
    await select(sheet.getByRole('combobox', { name: 'Move to' }), 1);
    await sheet.getByRole('button', { name: 'Move 1 order' }).click();
    await expect(sheet).toHaveCount(0);
    await expect.poll(runs).toEqual(expect.arrayContaining([[first, 2]]));
    await desk.getByRole('button', { name: 'Undo' }).last().click();
    await expect.poll(runs).toEqual(expect.arrayContaining([[own, 2]]));
  });

  await test.step('and one of its runs becomes a wave of its own', async () => {
    await desk.getByRole('button', { name: 'More', exact: true }).click();
    await desk.getByRole('button', { name: 'Split', exact: true }).click();
    const sheet = desk.getByRole('dialog', { name: /^Split wave/ });
    await sheet.getByRole('checkbox', { name: new RegExp(`^${own}`) }).click();
    await sheet.getByRole('button', { name: 'Split off 1 run' }).click();
    await expect(desk.getByText(/was split off wave/)).toBeVisible();
    await expect.poll(runs).toEqual([[first, 1]]);
    const apart = desk.url().split('/').at(-1)!;
    for (const id of [wave, apart]) await change(desk, `/api/waves/${id}/cancel`);
  });
});

test('a picker gathers a trip of their own where the site allows it, and puts it back', async ({ browser }) => {
  const picker = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  const desk = await person(browser, { name: 'maren' });
  for (const who of [desk, picker]) await change(who, '/api/session/site', { site: 'fennock' });
  const { rows } = await api<{ rows: (string | number)[][] }>(desk, '/api/orders?limit=500');
  const open = rows.filter((r) => Number(r[10]) > 0).map((r) => String(r[0]));
  const { wave } = await change<{ wave: string }>(desk, '/api/waves', { orders: open.slice(0, 8) });
  await picker.goto('/floor');
  await picker.getByRole('button', { name: 'Gather a trip' }).click();
  await expect(picker.getByText('0 of 4 places taken')).toBeVisible();
  await picker.getByRole('checkbox').first().click();
  await picker.getByRole('checkbox').nth(1).click();
  await picker.getByRole('button', { name: 'Make a trip of 2 orders' }).click();
  await expect(picker.getByText(/^Yours · Run/)).toBeVisible();
  await picker.getByRole('button', { name: 'Undo' }).click();
  await expect(picker.getByText(/^Yours · Run/)).toHaveCount(0);
  for (const { id, state } of (await api<{ waves: { id: string; state: string }[] }>(desk, '/api/waves')).waves)
    if (state === 'gathering' || id === wave) await change(desk, `/api/waves/${id}/cancel`);
  for (const who of [desk, picker]) await change(who, '/api/session/site', { site: 'larkmoor' });
});
