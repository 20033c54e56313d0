import { expect } from '@playwright/test';
import { api, person, test } from './people.ts';

interface Open {
  open: { id: string; number: string }[];
}

test('at the end of a day orders go to tomorrow, to customer service or are cancelled, and the report is saved', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const openNow = () => api<Open>(desk, '/api/day').then((d) => d.open.map((o) => o.number));
  await desk.goto('/waves');
  await desk.getByRole('button', { name: 'End of day' }).click();
  await expect(desk.getByText('Mark orders to decide about them together.')).toBeVisible();
  const [first, second] = await openNow();
  const mark = (order: string) => desk.getByRole('checkbox', { name: `Mark ${order}` });
  await mark(first!).click();
  await mark(second!).click();
  await desk.getByRole('button', { name: 'Move 2 orders to tomorrow' }).click();
  await expect(mark(first!)).toBeHidden();
  expect(await openNow()).not.toContain(second);
  // Undone as one.
  await desk.getByRole('button', { name: 'Undo' }).click();
  await expect(mark(first!)).toBeVisible();
  expect(await openNow()).toEqual(expect.arrayContaining([first, second]));
  await mark(first!).click();
  await desk.getByRole('button', { name: 'Tell customer service about 1 order' }).click();
  await expect(mark(first!)).not.toBeChecked();
  await mark(first!).click();
  await desk.getByRole('button', { name: 'Cancel what is open of 1 order' }).click();
  await expect(mark(first!)).toBeHidden();
  await desk.getByRole('button', { name: 'Undo' }).last().click();
  await expect(mark(first!)).toBeVisible();
  const { id } = (await api<Open>(desk, '/api/day')).open.find((o) => o.number === first)!;
  expect((await api<{ tags: string[] }>(desk, `/api/orders/${id}`)).tags).toContain('customer service');
  // The report.
  await desk.getByRole('button', { name: 'Report', exact: true }).click();
  await expect(
    desk.getByRole('table', { name: 'Departures' }).getByRole('cell', { name: 'Skylark Day' }),
  ).toBeVisible();
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'XLSX' }).click();
  expect((await saving).suggestedFilename()).toMatch(/^day-.*\.xlsx$/);
  const paper = desk.context().waitForEvent('page');
  await desk.getByRole('button', { name: 'Print report' }).click();
  expect((await paper).url()).toContain('/api/day.pdf?date=');
});
