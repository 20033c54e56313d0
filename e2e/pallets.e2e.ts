import { expect } from '@playwright/test';
import type { BenchOrder, PalletDetail } from '@hand-relay/contract';
import { api, person, PHONE, pickAll, scan, takeIn, test } from './people.ts';

test('by a scanner alone two orders are packed and stacked as drawn; what is not planned, wrong or void is said; the pallet opens what is on it', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const order = await takeIn(desk, 'PL-1', [
    ['JR-001', 24],
    ['HT-001', 4],
  ]);
  const other = await takeIn(desk, 'PL-2', [['HT-001', 2]]);
  await pickAll(desk, [order, other], null, 'LANE-5');
  const bench = await person(browser, { badge: 'BADGE-3002' });
  const now = (of: string) => api<BenchOrder>(bench, `/api/bench/orders/${of}`);
  const closed = async (of: string) => (await now(of)).cartons.flatMap((c) => c.sscc ?? []);

  await test.step('cartons are filled and closed by commands', async () => {
    for (const of of [order, other]) {
      const { number, where } = await now(of);
      await scan(bench, `${where[0]!.cart}-${where[0]!.position}`);
      await expect(bench.getByRole('heading', { name: number })).toBeVisible();
      while ((await now(of)).bench.loose.length > 0) {
        const before = (await closed(of)).length;
        for (const command of ['DO-OPEN', 'DO-ALL', 'DO-CLOSE']) await scan(bench, command);
        await expect.poll(async () => (await closed(of)).length).toBe(before + 1);
      }
      await bench.getByRole('link', { name: 'Bench' }).click();
    }
  });

  await test.step('a scan of a carton plans a pallet for its order, and each goes where it is drawn', async () => {
    const [first] = await closed(order);
    await bench.getByRole('button', { name: 'Pallets' }).click();
    await expect(bench.getByText('Cartons without a pallet')).toBeVisible();
    await scan(bench, first!);
    await expect(bench.getByRole('heading', { name: /^Pallet P\d{5}$/ })).toBeVisible();
    const id = bench.url().split('/').pop()!;
    const { places } = await api<PalletDetail>(bench, `/api/pallets/${id}`);
    await expect(bench.getByText(`Next · No. 1 of ${places.length}`)).toBeVisible();
    await scan(bench, 'HT-001');
    await expect(bench.getByText('HT-001 is no carton or pallet. Scan the label of a closed one.')).toBeVisible();
    for (const place of places) {
      await scan(bench, place.sscc);
      await expect(bench.getByText(`${place.name} is on.`)).toBeVisible();
    }
    await expect(bench.getByText('All planned units are on.')).toBeVisible();
    const [besides] = await closed(other);
    await scan(bench, besides!);
    await expect(bench.getByText('PL-2 · 1 is on. It was not planned here.')).toBeVisible();
    await scan(bench, 'DO-UNDO');
    await expect(bench.getByText('PL-2 · 1 taken off.')).toBeVisible();
    await bench.getByRole('button', { name: 'Turn the carton' }).click();
    await scan(bench, 'DO-CLOSE');
    await expect(bench.getByText(/^Pallet closed\. SSCC 3952\d{14}\. Its label prints at .+, twice\.$/)).toBeVisible();
  });

  await test.step('on a phone its label opens it; reopened it is void', async () => {
    const pallet = await api<PalletDetail>(bench, `/api/pallets/${bench.url().split('/').pop()!}`);
    const phone = await person(browser, { badge: 'BADGE-3002' }, PHONE);
    await phone.goto('/pallets');
    await expect(phone.getByText('Cartons without a pallet')).toBeVisible();
    await scan(phone, pallet.sscc!);
    await expect(phone.getByRole('heading', { name: `Pallet ${pallet.number}` })).toBeVisible();
    await phone.getByRole('button', { name: 'Reopen' }).click();
    await expect(phone.getByRole('button', { name: 'Close pallet' })).toBeVisible();
    await phone.goto('/pallets');
    await expect(phone.getByText('Cartons without a pallet')).toBeVisible();
    await scan(phone, pallet.sscc!);
    await expect(
      phone.getByText(`This label is void: ${pallet.number} was reopened. Use its new label.`),
    ).toBeVisible();
    await desk.goto(`/desk/orders/${order}`);
    await expect(desk.getByText(new RegExp(`Pallet ${pallet.number} closed, SSCC ${pallet.sscc}`))).toBeVisible();
  });
});
