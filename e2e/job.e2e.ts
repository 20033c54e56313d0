import { expect } from '@playwright/test';
import type { BenchOrder, OrderDetail, RunDetail } from '@hand-relay/contract';
import { embeddedDemo } from './playwright.config.ts';
import { api, leaveIn, person, PHONE, scan, test } from './people.ts';

test.use({ baseURL: embeddedDemo });

const HEAD =
  'order,channel,customer,reference,due,priority,ship_complete,ship_to_name,street,postcode,city,country,order_note,line,item,quantity,pack,line_note';
const due = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
const line = (order: string, n: number, item: string, quantity: number | string, pack: string) =>
  `${order},web,C1030,PO 7,${due},2,no,Juniper Orchards,5 Weir Street,ZA1 2BC,Dunmere,GB,Pad well,${n},${item},${quantity},${pack},`;
/** Jars with packs, paste with lots, a refractometer with a serial number, tools; and an order that nobody can take. */
const file = [
  HEAD,
  line('E2E-1', 1, 'JR-009', 14, 'unit'),
  line('E2E-1', 2, 'PP-002', 3, 'unit'),
  line('E2E-1', 3, 'RF-001', 1, 'unit'),
  line('E2E-1', 4, 'HT-003', 4, 'unit'),
  line('E2E-2', 1, 'NO-SUCH', 'x', 'unit'),
].join('\r\n');

test('an order file becomes a confirmed shipment, by three people', async ({ browser }) => {
  const desk = await person(browser, { name: 'maren' });
  const floor = await person(browser, { badge: 'BADGE-2001' }, PHONE);
  const bench = await person(browser, { badge: 'BADGE-3002' });

  await test.step('Desk takes in the file: the good order, not the bad one', async () => {
    await desk.getByRole('link', { name: 'Import orders' }).click();
    const chooser = desk.waitForEvent('filechooser');
    await desk.getByRole('button', { name: 'Choose files' }).click();
    await (await chooser).setFiles({ name: 'monday.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
    await expect(desk.getByText('monday.csv: 1 new, 1 error')).toBeVisible();
    await expect(desk.getByRole('row').filter({ hasText: 'a whole number from 1' })).toContainText('6');
    await desk.getByRole('button', { name: 'Import 1 order' }).click();
    await expect(desk.getByText('1 order imported.')).toBeVisible();
    await desk.getByRole('link', { name: 'Import orders' }).click();
    await desk.getByTestId('drop').evaluate((place, text) => {
      const data = new DataTransfer();
      data.items.add(new File([text], 'monday.csv', { type: 'text/csv' }));
      place.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }, file);
    await expect(desk.getByText('Nothing to import: every valid order is already here.')).toBeVisible();
    await expect(desk.getByRole('button', { name: 'Import 0 orders' })).toBeDisabled();
  });

  let run = '';
  await test.step('Desk releases it by keyboard, plans and starts the wave', async () => {
    await desk.getByRole('link', { name: 'Orders', exact: true }).click();
    await expect(desk.getByRole('link', { name: /^LA-/ }).first()).toBeVisible();
    await desk.keyboard.press('f');
    await expect(desk.getByLabel('Find number, customer or tag')).toBeFocused();
    await desk.keyboard.type('e2e', { delay: 120 });
    await expect(desk.getByRole('link', { name: /^E2E-1/ })).toBeVisible();
    await expect(desk).toHaveURL(/find=e2e/);
    await desk.getByRole('heading', { name: 'Orders' }).click();
    for (const key of ['j', ' ', 'r']) {
      await desk.keyboard.press(key);
      await desk.waitForTimeout(250);
    }
    await expect(desk.getByText('Every line is fully allocated.')).toBeVisible();
    await desk.getByRole('button', { name: 'Release 1 order' }).click();
    await desk.getByRole('button', { name: 'Plan the runs' }).click();
    const start = desk.getByRole('button', { name: 'Start the wave' });
    await expect(start).toBeVisible();
    const wave = await api<{ runs: { number: string }[] }>(desk, `/api/waves/${desk.url().split('/').at(-1)}`);
    run = wave.runs[0]!.number;
    await expect(floor.getByRole('button', { name: `Take ${run}` })).toHaveCount(0);
    await start.click();
  });

  let picks: RunDetail['picks'] = [];
  let runId = '';
  await test.step('Floor sees the run without a reload, and takes it with a cart', async () => {
    await floor.getByRole('button', { name: `Take ${run}` }).click();
    await scan(floor, 'LANE-1');
    await expect(floor.getByText('"LANE-1" is not a cart. Scan the label on the cart.')).toBeVisible();
    await scan(floor, 'CART-02');
    await expect(floor).toHaveURL(/floor\/runs\//);
    runId = floor.url().split('/').at(-1)!;
    picks = (await api<RunDetail>(floor, `/api/runs/${runId}`)).picks;
    expect(picks).toHaveLength(4);
  });

  const says = async (text: string) => expect(floor.getByText(text)).toBeVisible();
  const gtin = (pick: RunDetail['picks'][number], level: string) =>
    pick.step.item.packs.find((p) => p.level === level)!.gtin;
  await test.step('Floor is stopped at every wrong scan, and picks by scan, count and touch', async () => {
    for (const pick of picks) {
      const { step } = pick;
      await expect(floor.getByRole('group', { name: `Go to ${step.bin}` })).toBeVisible();
      const wrong = step.bin === 'A-01-1' ? 'A-01-2' : 'A-01-1';
      await scan(floor, wrong);
      await says(`This is bin ${wrong}. Go to ${step.bin}.`);
      await scan(floor, step.bin);
      const other = picks.find((p) => p !== pick)!;
      await scan(floor, gtin(other, 'unit'));
      await says(`This is ${other.step.item.name}. Pick ${step.item.name}.`);
      if (step.item.sku === 'HT-003') {
        await floor.getByRole('button', { name: 'Problem' }).click();
        await floor.getByRole('button', { name: 'Damaged' }).click();
        for (let i = 0; i < 3; i++) await floor.getByRole('button', { name: '+1' }).click();
        await floor.getByRole('button', { name: 'Report 1 missing' }).click();
        await scan(floor, gtin(pick, 'unit'));
        await floor.getByRole('button', { name: 'All 3' }).click();
      } else if (step.item.tracksSerial) {
        await scan(floor, 'RF-NOT-HERE');
        await says('Serial RF-NOT-HERE is not in this bin. Take one that is.');
        await scan(floor, step.serialsInBin[0]!);
      } else if (step.item.tracksLot) {
        await scan(floor, `01${gtin(pick, 'unit')}10WRONG9`);
        await says(`This is lot WRONG9. Take lot ${step.lot}.`);
        await scan(floor, `01${gtin(pick, 'unit')}10${step.lot}\u001d373`);
      } else {
        await scan(floor, gtin(pick, 'inner'));
        await scan(floor, gtin(pick, 'inner'));
        await says('That would be 24. Only 14 are needed. Put the rest back.');
        await scan(floor, gtin(pick, 'unit'));
        await scan(floor, gtin(pick, 'unit'));
      }
      await scan(floor, `CART-02-${step.position.number + 1}`);
      await says(`This is CART-02-${step.position.number + 1}. Put it into CART-02-${step.position.number}.`);
      await scan(floor, `CART-02-${step.position.number}`);
      // Looked at now: a notice goes by itself.
      if (step.item.sku === 'HT-003')
        await expect(
          desk.getByText(new RegExp(`Pico Lund is short of 1 × ${step.item.name} for E2E-1: Damaged`)),
        ).toBeVisible();
    }
    await expect(floor.getByText('All picked')).toBeVisible();
  });

  await test.step('Floor undoes the last confirmation, picks it again, and leaves the cart', async () => {
    await floor.getByRole('button', { name: 'Undo' }).click();
    const last = picks.at(-1)!;
    await expect(floor.getByText('Undone. It is open again.')).toBeVisible();
    await floor.getByRole('button', { name: 'At the bin' }).click();
    if (last.step.item.tracksSerial) await scan(floor, last.step.serialsInBin[0]!);
    else if (last.step.item.sku === 'HT-003') {
      await floor.getByRole('button', { name: 'Problem' }).click();
      await floor.getByRole('button', { name: 'Damaged' }).click();
      for (let i = 0; i < 3; i++) await floor.getByRole('button', { name: '+1' }).click();
      await floor.getByRole('button', { name: 'Report 1 missing' }).click();
      await floor.getByRole('button', { name: 'All 3' }).click();
    } else {
      await floor.getByRole('button', { name: 'Count' }).click();
      await floor.getByRole('textbox', { name: 'Count' }).fill(String(last.step.units));
      await floor.getByRole('button', { name: 'Enter' }).click();
    }
    if (last.step.item.tracksLot) await floor.getByRole('button', { name: 'Lot matches' }).click();
    await floor.getByRole('button', { name: 'Placed' }).click();
    await expect(floor.getByText('All picked')).toBeVisible();
    await leaveIn(floor, 'LANE-1', runId);
  });

  await test.step('Bench packs two cartons by scan and closes them', async () => {
    await scan(bench, 'CART-02');
    await expect(bench.getByRole('heading', { name: 'E2E-1' })).toBeVisible();
    const id = bench.url().split('/').at(-1)!;
    const state = () => api<BenchOrder>(bench, `/api/bench/orders/${id}`);
    const { bench: at } = await state();
    const [jar, paste, meter, tool] = ['JR-009', 'PP-002', 'RF-001', 'HT-003'].map((sku) =>
      at.loose.find((l) => l.item.sku === sku)!,
    );
    const unit = (l: typeof jar) => l!.item.packs.find((p) => p.level === 'unit')!.gtin;
    await scan(bench, unit(jar));
    await expect(bench.getByText('Scan a carton first.')).toBeVisible();
    await scan(bench, 'BOX-M');
    await expect(bench.getByText('Carton opened. Scan what goes in.')).toBeVisible();
    await scan(bench, '09521234999993');
    await expect(bench.getByText(/is not known here. Scan an item of this order, or a carton/)).toBeVisible();
    await scan(bench, jar!.item.packs.find((p) => p.level === 'inner')!.gtin);
    await expect(bench.getByText(/^12 added, \d+ in carton/)).toBeVisible();
    await scan(bench, jar!.item.packs.find((p) => p.level === 'inner')!.gtin);
    await expect(bench.getByText('That would be 12. Only 2 are needed. Put the rest back.')).toBeVisible();
    for (const code of [unit(jar), unit(jar), `01${unit(paste)}10${paste!.lot}\u001d373`]) {
      await scan(bench, code);
      await bench.waitForTimeout(500);
    }
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText(/Carton closed. SSCC 3952\d{14}. It goes to LANE-1./)).toBeVisible();
    await scan(bench, 'BOX-S');
    await expect(bench.getByText('Carton opened. Scan what goes in.')).toBeVisible();
    await scan(bench, meter!.serial!);
    await expect(bench.getByText(/^1 added, \d+ in carton/)).toBeVisible();
    await bench.getByRole('button', { name: `Put in ${tool!.units} × piece` }).click();
    await expect(bench.getByText(/^3 added, \d+ in carton/)).toBeVisible();
    await bench.getByRole('button', { name: 'Close carton' }).click();
    await expect(bench.getByText('Everything picked is packed. Next: the dock.')).toBeVisible();
    const { cartons } = await state();
    expect(new Set(cartons.map((c) => c.sscc)).size).toBe(2);
    const label = await bench.request.get(`/api/cartons/${cartons[0]!.id}/label.pdf`);
    expect((await label.body()).subarray(0, 5).toString()).toBe('%PDF-');
  });

  await test.step('Dock gets the tracking number and confirms, the rest staying open', async () => {
    await bench.getByRole('link', { name: 'Dock' }).click();
    await expect(bench.getByRole('heading', { name: 'Dock', level: 1 })).toBeVisible();
    await scan(bench, 'ORDER-E2E-1');
    await expect(bench.getByRole('heading', { name: 'E2E-1' })).toBeVisible();
    await bench.getByRole('textbox', { name: 'Scan or type the tracking number' }).fill('RR473124828GB');
    await bench.keyboard.press('Enter');
    await expect(
      bench.getByText(/is not a tracking number of Skylark Parcels. Expected format: RR473124829GB/),
    ).toBeVisible();
    await bench.getByRole('button', { name: 'Get it from Skylark Parcels' }).click();
    await expect(bench.getByText(/^RR\d{9}GB$/).first()).toBeVisible();
    await bench.getByRole('button', { name: 'Ship, keep the rest open' }).click();
    await expect(bench.getByText(/Shipped .*\d\d:\d\d by Jory Marlow/)).toBeVisible();
    expect(
      (await (await bench.request.get('/api/shipments.csv')).text()).split('\r\n').filter((l) => l.includes('E2E-1'))
        .length,
    ).toBeGreaterThan(3);
  });

  await test.step('Desk reads the whole trail, refused scans too', async () => {
    await desk.goto('/desk?show=open&find=E2E');
    await desk.getByRole('link', { name: /^E2E-1/ }).click();
    for (const words of [
      'Imported from monday.csv',
      /Released in wave \d+: 22 units, 4 lines/,
      'Refused: This is bin',
      'Short by 1',
      'Carton 2 closed',
      'Shipped: 21 units in 2 cartons',
    ])
      await expect(desk.getByText(words).first()).toBeVisible();
    const order = await api<OrderDetail>(desk, `/api/orders/${desk.url().split('/').at(-1)!.split('?')[0]}`);
    expect(order.status).toBe('open');
    expect(order.lines.map((l) => l.shipped)).toEqual([14, 3, 1, 3]);
  });
});
