import { expect } from '@playwright/test';
import { api, change, person, PHONE, takeIn, test } from './people.ts';

interface Wave {
  wave: { number: number; state: string };
  runs: { id: string; number: string; state: string; assigned: string | null; team: string; metres: number }[];
}

test('two waves are gathered, compared and started; a blocked aisle is planned around, shown before it is done', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
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
    await desk.getByRole('button', { name: 'Order by order' }).click();
    await expect(desk.getByText('Each run is one order.')).toBeVisible();
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
    const sheet = desk.getByRole('dialog', { name: 'Waves side by side' });
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
    const whole = {
      left: -3,
      bottom: -2.6,
      width: layout.aisles.at(-1)!.x + 6,
      height: layout.crossAisles.at(-1)! + 5,
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
    await expect(desk.getByText(/^The floor is changed\./)).toBeVisible();
    expect((await api<{ blocked: object[] }>(desk, '/api/floor/layout')).blocked).toEqual([
      expect.objectContaining({ aisle: aisle.id }),
    ]);
  });

  await test.step('the wave is planned anew, after a look at what would change', async () => {
    await desk.goto(`/waves/${one}`);
    await desk.getByRole('button', { name: 'Start the wave' }).click();
    await expect(desk.getByText(/has started/)).toBeVisible();
    await desk.getByRole('button', { name: 'Plan anew' }).click();
    const sheet = desk.getByRole('dialog', { name: `Wave ${a} planned anew` });
    await expect(sheet.getByRole('row', { name: /^Walk/ })).toBeVisible();
    expect((await read(one)).runs.map((r) => r.id)).toEqual(first.runs.map((r) => r.id));
    await sheet.getByRole('button', { name: 'Take the new plan' }).click();
    await expect(desk.getByText(`Wave ${a} has its new plan.`)).toBeVisible();
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
  await expect(bay('Whoever asks next').getByLabel(new RegExp(`^Run ${number},`))).toBeVisible();

  const [from, to] = [(await card.boundingBox())!, (await bay('Suri Okell').boundingBox())!];
  await desk.mouse.move(from.x + 20, from.y + 20);
  await desk.mouse.down();
  await desk.mouse.move(from.x + 40, from.y + 30, { steps: 4 });
  await desk.mouse.move(to.x + to.width / 2, to.y + 50, { steps: 12 });
  await desk.mouse.up();
  await expect(desk.getByText(`Run ${number}: Suri Okell.`)).toBeVisible();
  await expect.poll(async () => (await run()).assigned).toBe('Suri Okell');
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await run()).assigned).toBeNull();

  await expect(bay('Whoever asks next').getByLabel(new RegExp(`^Run ${number},`))).toBeVisible();
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
