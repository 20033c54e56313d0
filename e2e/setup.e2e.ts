import { expect, type Page } from '@playwright/test';
import type { RunDetail } from '@hand-relay/contract';
import { EMPTY_PORT, SETUP_TOKEN } from './playwright.config.ts';
import { api, PHONE, scan, test, WIDE, select } from './people.ts';

const base = `http://localhost:${EMPTY_PORT}`;
const days = 'mon tue wed thu fri sat sun';

/** Chooses a file that the test made itself, on the page that is open. */
async function give(page: Page, name: string, text: string | Buffer): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /^Choose (a file|files)$/ }).click();
  await (await chooser).setFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text) });
}

/** Takes a file on the page of its kind, to the end. */
async function take(page: Page, sheet: string, text: string, rows: number): Promise<void> {
  await page.goto(`${base}/setup/${sheet}/import`);
  await give(page, `${sheet}.csv`, text);
  await page.getByRole('button', { name: `Import ${rows} row${rows === 1 ? '' : 's'}` }).click();
  await expect(page.getByText(new RegExp(`^${rows} rows? imported`))).toBeVisible();
}

test('an empty server becomes a warehouse of its own and ships its first order', async ({ browser }) => {
  test.setTimeout(400_000);

  const context = await browser.newContext({ viewport: WIDE, baseURL: base });
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);

  await test.step('the first page makes the site and its supervisor, and says what is wrong at its field', async () => {
    await page.goto('/');
    await expect(page).toHaveURL(/\/first$/);
    await page.getByLabel('Setup token').fill(SETUP_TOKEN);
    await page.getByLabel('Name of the site').fill('Two Rivers Spares');
    await page.getByLabel('Time zone').fill('Mars/North');
    await page.getByLabel('GS1 company prefix').fill('9524321');
    await page.getByLabel('Your name').fill('Ove Strand');
    await page.getByLabel('Sign-in name').fill('ove');
    await page.getByLabel('Password, eight characters at least').fill('long enough');
    await page.getByRole('button', { name: 'Create site' }).click();
    await expect(page.getByText('a time zone as Europe/London')).toBeVisible();
    await page.getByLabel('Time zone').fill('Europe/Berlin');
    await page.getByRole('button', { name: 'Create site' }).click();
    await expect(page).toHaveURL(/\/setup$/);
    await expect(page.getByText('11 things are missing before an order can ship')).toBeVisible();
  });

  await test.step('zones by hand, undone and made again; the floor of a few numbers', async () => {
    await page.getByRole('button', { name: 'Add Zones' }).click();
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    const form = page.getByRole('dialog');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(form.getByText('Required').first()).toBeVisible();
    await form.getByLabel('Zone', { exact: true }).fill('racks');
    await form.getByLabel('Name', { exact: true }).fill('High racks');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('racks saved.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText(/^Undone: /)).toBeVisible();
    await expect(page.getByText('Nothing here yet')).toBeVisible();
    await page.getByRole('button', { name: 'Retired' }).click();
    await page.getByRole('link', { name: 'racks, High racks' }).click();
    await form.getByRole('button', { name: 'Bring back' }).click();
    await expect(page.getByText('racks is in use again.')).toBeVisible();
    await page.goto(`${base}/setup/floor`);
    await page.getByLabel('First aisle', { exact: true }).fill('07');
    await page.getByLabel('Aisles', { exact: true }).fill('3');
    await page.getByLabel('Bays along one side').fill('5');
    await page.getByLabel('Levels').fill('2');
    await page.getByRole('button', { name: 'One side' }).click();
    await page.getByLabel('Bin names').fill('{aisle}');
    await expect(page.getByText('naming must tell bins apart')).toBeVisible();
    await page.getByLabel('Bin names').fill('{aisle}.{bay}.{level}');
    await expect(page.getByRole('img', { name: 'Plan of 30 bins' })).toBeVisible();
    await page.getByRole('button', { name: 'Create 30 bins' }).click();
    await expect(page.getByText('30 rows imported.')).toBeVisible();
    // The next ones begin behind these, and are refused on them.
    await page.goto(`${base}/setup/floor`);
    await expect(page.getByLabel('First aisle', { exact: true })).toHaveValue('10');
    await page.getByLabel('First aisle at, m across').fill('1');
    await expect(page.getByText('Aisle 10 at 1 m would lie on aisle 07 at 0 m: move the start.')).toBeVisible();
    await page.getByLabel('First aisle at, m across').fill('');
    await expect(page.getByRole('button', { name: 'Create 768 bins' })).toBeEnabled();
  });

  await test.step('items from a file with headings of its own and a fault: the good rows are taken', async () => {
    await page.goto(`${base}/setup/items/import`);
    await give(
      page,
      'artikel.csv',
      Buffer.from(
        'Artikel;Description;L;W;H;Weight;Charge\nWELLE-1;Welle, gehärtet;400;60;60;2100;L-2209\nLAGER-2;Lager;80;80;40;350;L-2210\nX-3;Falsch;80;80;viel;350;L-2209\n',
        'latin1',
      ),
    );
    await expect(page.getByText('required', { exact: true })).toHaveCount(1);
    await select(page.getByLabel('Column of the file for Item', { exact: true }), 'Artikel');
    // "Charge" is a lot as often as a service: it is asked, with what it holds, and the panel stays as it was.
    await expect(page.getByText('It holds L-2209 · L-2210')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Import 2 rows' })).toBeDisabled();
    await page.getByRole('group', { name: 'Is “Charge” the column Service?' }).getByText('No, ignore it').click();
    await expect(page.getByText('Ignored: Charge')).toBeVisible();
    await expect(page.getByLabel('Column of the file for Item', { exact: true })).toHaveText('Artikel');
    await expect(page.getByText('artikel.csv (windows-1252): 2 new, 0 changed, 0 unchanged, 1 error')).toBeVisible();
    await expect(page.getByRole('row').filter({ hasText: 'viel' })).toContainText('a whole number, written as 1234');
    await page.getByRole('button', { name: 'Import 2 rows' }).click();
    await expect(page.getByText('1 error, this row was skipped.')).toBeVisible();
    await page.getByRole('button', { name: 'See the list' }).click();
    await expect(page.getByRole('link', { name: 'WELLE-1, Welle, gehärtet' })).toBeVisible();
  });

  await test.step('the rest from files', async () => {
    await take(page, 'stock', 'bin,item,units\n07.02.1,WELLE-1,12\n09.05.2,LAGER-2,40\n', 2);
    await take(page, 'customers', 'customer,name\nK1,Hof Lindau\n', 1);
    await take(page, 'places', 'place,kind\nTOR-SPUR,lane\nTISCH 1,bench\n', 2);
    await take(
      page,
      'cartons',
      'carton,name,inner_length_mm,inner_width_mm,inner_height_mm,tare_g,max_weight_g\nKISTE-5,Kiste,600,400,400,900,25000\n',
      1,
    );
    await take(page, 'carts', 'cart,type,positions\nWAGEN 1,Wagen,6\n', 1);
    await take(page, 'carriers', 'carrier,service,tracking\nEilbote,Paket,s10\n', 1);
    await take(
      page,
      'departures',
      `departure,carrier,service,cut_off,days,channel,lane\nAbend,Eilbote,Paket,17:30,${days},web,TOR-SPUR\n`,
      1,
    );
    await take(page, 'people', 'person,name,roles,badge,pin\np1,Ida Falk,picker packer loader,AUSWEIS-1,1357\n', 1);
    await page.goto(`${base}/setup`);
    await expect(page.getByText('Everything is there to ship an order.')).toBeVisible();
    const badges = await page.request.get(`${base}/api/setup/badges.pdf`);
    expect((await badges.body()).subarray(0, 5).toString()).toBe('%PDF-');
  });

  await test.step('the first order, taken in and released', async () => {
    const due = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
    await page.goto(`${base}/desk/intake`);
    await give(
      page,
      'erste.csv',
      `order,channel,customer,due,ship_to_name,street,postcode,city,country,line,item,quantity\nERSTE,web,K1,${due},Hof Lindau,Weg 1,10115,Berlin,DE,1,WELLE-1,2\nERSTE,web,K1,${due},Hof Lindau,Weg 1,10115,Berlin,DE,2,LAGER-2,1\n`,
    );
    await page.getByRole('button', { name: 'Import 1 order' }).click();
    await page.getByRole('link', { name: /^ERSTE/ }).click();
    await page.getByRole('button', { name: 'Release this order' }).click();
    await page.getByRole('button', { name: 'Release 1 order' }).click();
    await page.getByRole('button', { name: 'Plan the runs' }).click();
    await page.getByRole('button', { name: 'Start the wave' }).click();
    await expect(page.getByText(/has started: 1 run waits for a picker/)).toBeVisible();
  });

  const hands = await (await browser.newContext({ viewport: PHONE, baseURL: base })).newPage();
  hands.setDefaultTimeout(60_000);
  await test.step('Ida signs in by her new badge, picks by codes of this house, packs and ships', async () => {
    await hands.goto('/');
    await expect(hands.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await scan(hands, 'AUSWEIS-1');
    await expect(hands.getByLabel('Badge', { exact: true })).toHaveValue('AUSWEIS-1');
    await hands.getByLabel('PIN', { exact: true }).fill('1357');
    await hands.keyboard.press('Enter');
    await hands.getByRole('button', { name: /^Take/ }).click();
    await scan(hands, 'WAGEN 1');
    await expect(hands.getByRole('group', { name: /^Go to/ })).toBeVisible();
    const { picks } = await api<RunDetail>(hands, `/api/runs/${hands.url().split('/').at(-1)!}`);
    const first = picks[0]!.step;
    await scan(hands, '08.03.1');
    await expect(hands.getByText(`This is bin 08.03.1. Go to ${first.bin}.`)).toBeVisible();
    for (const { step } of picks)
      for (const code of [step.bin, ...Array<string>(step.units).fill(step.item.sku), 'WAGEN 1-1']) {
        await scan(hands, code);
        await hands.waitForTimeout(250);
      }
    await expect(hands.getByText('All picked')).toBeVisible();
    await scan(hands, 'TOR-SPUR');
    await expect(hands.getByText('WAGEN 1 is in TOR-SPUR')).toBeVisible();
    await hands.getByRole('link', { name: 'Bench' }).click();
    await scan(hands, 'WAGEN 1');
    await expect(hands.getByRole('heading', { name: 'ERSTE' })).toBeVisible();
    for (const code of ['KISTE-5', 'WELLE-1', 'WELLE-1', 'LAGER-2', 'DO-CLOSE']) {
      await scan(hands, code);
      await hands.waitForTimeout(500);
    }
    await expect(hands.getByText(/Carton closed. SSCC 09524321\d{10}. It goes to TOR-SPUR./)).toBeVisible();
    await hands.getByRole('link', { name: 'Dock' }).click();
    await hands.getByRole('link', { name: /^ERSTE/ }).click();
    await hands.getByRole('button', { name: 'Get it from Eilbote' }).click();
    await expect(hands.getByText(/^RR\d{9}GB$/).first()).toBeVisible();
    await hands.getByRole('button', { name: 'Confirm the shipment' }).click();
    await expect(hands.getByText(/Shipped .*\d\d:\d\d by Ida Falk/)).toBeVisible();
    // It keeps its number, and is found by part of it.
    await expect(hands.getByText(/^RR\d{9}GB$/).first()).toBeVisible();
    const tracking = await hands
      .getByText(/^RR\d{9}GB$/)
      .first()
      .innerText();
    await hands.goto('/dock');
    await hands.getByRole('button', { name: 'Shipped', exact: true }).click();
    await hands.getByLabel('Find by order, shipment').fill('nothing of the kind');
    await expect(hands.getByText('No shipment found')).toBeVisible();
    await hands.getByLabel('Find by order, shipment').fill(tracking.slice(3, 8));
    await expect(hands.getByText(tracking)).toBeVisible();
  });

  await test.step('the stock is booked out, and the page of changes tells who set it all up', async () => {
    await page.goto(`${base}/setup/stock`);
    await expect(page.getByRole('row').filter({ hasText: '07.02.1' })).toContainText('10');
    await page.goto(`${base}/setup/history`);
    await expect(page.getByText('People: 1 row, people.csv')).toBeVisible();
    await expect(page.getByText(/Ove Strand/).first()).toBeVisible();
    await hands.goto('/setup');
    await expect(hands.getByText('You do not have the right to do this. Ask a supervisor.')).toBeVisible();
  });

  await test.step('a backup saved now and restored by the page brings back what was changed since', async () => {
    const kept = await page.request.get(`${base}/api/setup/backup`);
    await page.goto(`${base}/setup/site`);
    await page.getByLabel('Name of the site').fill('Wrong name');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Site saved.')).toBeVisible();
    await page.goto(`${base}/setup/backups`);
    const give = async (name: string, buffer: Buffer) => {
      const chooser = page.waitForEvent('filechooser');
      await page.getByRole('button', { name: 'Choose a file' }).click();
      await (await chooser).setFiles({ name, mimeType: 'application/gzip', buffer });
    };
    await give('holiday.backup', Buffer.from('no backup at all'));
    await expect(page.getByText(/is not a Hand Relay backup/)).toBeVisible();
    await give('two-rivers.backup', await kept.body());
    // What it holds is shown before anybody is asked.
    await expect(
      page.getByText(/^It holds Two Rivers Spares: 1 order, the last change today \d\d:\d\d\.$/),
    ).toBeVisible();
    await page.getByLabel(/^To continue, type the name of this site/).fill('Wrong name');
    await page.getByRole('button', { name: 'Restore this backup' }).click();
    await expect(page.getByText(/^Restored: Two Rivers Spares, 1 order\./)).toBeVisible();
    await expect
      .poll(async () => (await page.request.get(`${base}/ready`).catch(() => null))?.status() ?? 0, { timeout: 60_000 })
      .toBe(200);
    await page.goto(`${base}/setup/site`);
    // Everybody signs in again, and comes back to where they were.
    await page.getByLabel('Name', { exact: true }).fill('ove');
    await page.getByLabel('Password', { exact: true }).fill('long enough');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Name of the site')).toHaveValue('Two Rivers Spares');
  });
});
