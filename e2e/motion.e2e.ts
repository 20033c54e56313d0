import { expect, type Page } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { api, person, PHONE, pickOne, scan, startWave, takeIn, test } from './people.ts';

interface Seen {
  /** Pixels that the step card, or something in it, was away from its place at most. */
  aside: number;
  below: number;
  /** Texts of rows with an edge of hi-vis. */
  edged: string[];
}

/** Looks at every frame from now on. */
const watch = (page: Page) =>
  page.evaluate(() => {
    const seen: Seen = { aside: 0, below: 0, edged: [] };
    Object.assign(window, { seen });
    const look = () => {
      if ((window as unknown as { seen: Seen }).seen !== seen) return;
      for (const on of document.querySelectorAll<HTMLElement>('[role=group], [role=group] *')) {
        const { m41, m42 } = new DOMMatrix(getComputedStyle(on).transform);
        seen.aside = Math.max(seen.aside, Math.abs(m41));
        seen.below = Math.max(seen.below, m42);
      }
      for (const on of document.querySelectorAll<HTMLElement>('div')) {
        const { outlineColor, outlineStyle, outlineWidth } = getComputedStyle(on);
        if (outlineStyle === 'solid' && outlineWidth === '4px' && outlineColor === 'rgb(221, 245, 39)')
          seen.edged.push(on.innerText);
      }
      requestAnimationFrame(look);
    };
    look();
  });
const seen = (page: Page) => page.evaluate(() => (window as unknown as { seen: Seen }).seen);

test('a refusal jolts the card, the next place slides in, a handoff edges its row for a moment; nothing moves where the system asks for that', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'MO-1', [
    ['FW-012', 1],
    ['HT-003', 1],
    ['CM-004', 1],
  ]);
  const [run] = await startWave(desk, [order]);
  const floor = await person(browser, { badge: 'BADGE-2002' }, PHONE);
  await floor.getByRole('button', { name: `Take ${run!.number}` }).click();
  await scan(floor, 'CART-03');
  const refused = (bin: string) => floor.getByText(`Go to ${bin}.`, { exact: false });
  const [first, second, third] = (await api<RunDetail>(floor, `/api/runs/${run!.id}`)).picks;
  await expect(floor.getByRole('group', { name: `Go to ${first!.step.bin}` })).toBeVisible();

  await watch(floor);
  await scan(floor, second!.step.bin);
  await expect(refused(first!.step.bin)).toBeVisible();
  await expect.poll(async () => (await seen(floor)).aside).toBeGreaterThan(1);
  expect((await seen(floor)).aside).toBeLessThanOrEqual(6);
  expect((await seen(floor)).below).toBe(0);
  await pickOne(floor, first!, 'CART-03');
  await expect(floor.getByRole('group', { name: `Go to ${second!.step.bin}` })).toBeVisible();
  await expect.poll(async () => (await seen(floor)).below).toBeGreaterThan(1);

  await floor.emulateMedia({ reducedMotion: 'reduce' });
  // What slid in has come to rest.
  const now = async () => {
    await watch(floor);
    await floor.waitForTimeout(100);
    return (await seen(floor)).below;
  };
  await expect.poll(now).toBe(0);
  await scan(floor, first!.step.bin);
  await expect(refused(second!.step.bin)).toBeVisible();
  await pickOne(floor, second!, 'CART-03');
  await expect(floor.getByRole('group', { name: `Go to ${third!.step.bin}` })).toBeVisible();
  expect(await seen(floor)).toEqual({ aside: 0, below: 0, edged: [] });

  await desk.goto('/waves');
  await expect(desk.getByRole('img', { name: /^Floor, 2 of 3 picked/ })).toBeVisible();
  await watch(desk);
  await pickOne(floor, third!, 'CART-03');
  await expect.poll(async () => (await seen(desk)).edged.join()).toContain('Wave');
  await expect(desk.getByRole('img', { name: /^Bench, 0 of 3 packed/ })).toBeVisible();
  // It goes by itself: no later frame has one.
  const more = async () => {
    const before = (await seen(desk)).edged.length;
    await desk.waitForTimeout(200);
    return (await seen(desk)).edged.length - before;
  };
  await expect.poll(more).toBe(0);
});
