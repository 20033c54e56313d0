import { cpus } from 'node:os';
import { benchAllocation } from './allocation.ts';
import { benchBatching, benchManyOrders } from './batching.ts';
import { benchDesk } from './desk.ts';
import { benchDevice } from './device.ts';
import { benchFloor, release } from './floor.ts';
import { importMany } from './imports.ts';
import { openList } from './list.ts';
import { note } from './note.ts';
import { benchPacking } from './packing.ts';
import { benchHardRoutes, benchRouting } from './routing.ts';
import { quantile, scanFor, takeRuns } from './scans.ts';
import { benchShift } from './shift.ts';
import { benchSoak } from './soak.ts';
import { benchSpreadsheets } from './spreadsheets.ts';
import { signIn, startServer, type Client } from './server.ts';
import { benchWaves } from './waves.ts';
import { benchYear } from './year.ts';

type Page = { rows: (string | number | null)[][]; next: string | null; total: number };

async function readAll(desk: Client, limit: number): Promise<{ ids: string[]; ms: number[]; bytes: number }> {
  const ids: string[] = [];
  const ms: number[] = [];
  let bytes = 0;
  for (let after = ''; ;) {
    const page = await desk.call<Page>('GET', `/api/orders?limit=${limit}${after}`);
    ids.push(...page.data.rows.map((r) => r[0] as string));
    ms.push(page.ms);
    bytes += JSON.stringify(page.data).length;
    if (!page.data.next) return { ids, ms, bytes };
    after = `&after=${encodeURIComponent(page.data.next)}`;
  }
}

console.log(`Node.js ${process.version}, ${cpus().length} cores\n`);

/** Parts to be measured: all of them, or the one named. */
const wanted = (part: string) => process.argv[2] === undefined || process.argv[2] === part;
if (wanted('allocation')) await benchAllocation(note);
if (wanted('routing')) await benchRouting(note);
if (wanted('batching')) await benchBatching(note);
if (wanted('hard')) {
  benchHardRoutes(note);
  benchManyOrders(note);
}
if (wanted('packing')) benchPacking(note);
if (wanted('spreadsheets')) await benchSpreadsheets(note);
if (wanted('waves')) await benchWavesAlone();
if (wanted('relay')) await benchRelay();
if (wanted('floor')) await benchFloorAlone();
if (wanted('device')) await benchDeviceAlone();
if (wanted('desk')) await benchLists();
if (wanted('import')) await benchImport();

/** A quarter of an hour by itself, or one of its parts: `embedded`, or how many servers. */
if (process.argv[2] === 'shift') await benchShift(note, process.argv[3]);

/** Ten minutes by itself; after its name how many days in place of 365. */
if (process.argv[2] === 'year') await benchYear(note, Number(process.argv[3] ?? 365));

/** Half an hour by itself: asked for by name alone. */
if (process.argv[2] === 'soak') {
  const bench = await startServer(6);
  await benchSoak(bench, (await readAll(await signIn(bench.base, 'maren'), 1000)).ids, note);
  await bench.close();
}

async function benchWavesAlone() {
  const bench = await startServer(6);
  await benchWaves(bench, await signIn(bench.base, 'maren'));
  await bench.close();
}

async function benchFloorAlone() {
  const bench = await startServer(6);
  await benchFloor(bench, await signIn(bench.base, 'maren'), await signIn(bench.base, 'pico'), note);
  await bench.close();
}

async function benchDeviceAlone() {
  const bench = await startServer(1);
  const [desk, floor] = [await signIn(bench.base, 'maren'), await signIn(bench.base, 'pico')];
  const { ids } = await readAll(desk, 1000);
  await release(desk, ids.slice(0, 12), 'sort');
  await benchDevice(bench, floor, desk, 'CART-01', note);
  await bench.close();
}

async function benchRelay() {
  let bench = await startServer(3);
  note('start with an empty folder, demo data loaded (×3)', bench.startMs / 1000, 's', 'under 240');
  bench = await bench.restart();
  note('start again on the same folder', bench.startMs / 1000, 's', 'under 10');
  const desk = await signIn(bench.base, 'maren');
  const floor = await signIn(bench.base, 'pico');
  const { ids } = await readAll(desk, 1000);

  const go = async (orders: string[]) => {
    const released = await desk.call<{ wave: string }>('POST', '/api/waves', { orders });
    const planned = await desk.call('POST', `/api/waves/${released.data.wave}/plan`);
    await desk.call('POST', `/api/waves/${released.data.wave}/start`);
    return { release: released.ms, plan: planned.ms };
  };
  await go(ids.slice(0, 300));
  const cold = await go(ids.slice(300, 320));
  const pickers = await takeRuns(floor, 20);
  note('pickers', pickers.length, '', '20');
  note('release of 20 orders', cold.release, 'ms');

  const alone = await scanFor(floor, pickers, 12);
  note('scan, 20 pickers, one a second, p50', quantile(alone, 0.5), 'ms');
  note('scan, 20 pickers, one a second, p95', quantile(alone, 0.95), 'ms', 'under 50');
  const scanning = scanFor(floor, pickers, 10);
  await new Promise((resolve) => setTimeout(resolve, 1500));
  const busy = await go(ids.slice(320, 520));
  const during = await scanning;
  note('scan while 200 orders are released and planned, p50', quantile(during, 0.5), 'ms');
  note('scan while 200 orders are released and planned, p95', quantile(during, 0.95), 'ms', 'under 150');
  note('scan while 200 orders are released and planned, worst', Math.max(...during), 'ms');
  note('release of 200 orders, pickers scanning', busy.release, 'ms');
  note('planning of 200 orders, pickers scanning', busy.plan, 'ms');
  note('release and planning together', busy.release + busy.plan, 'ms', 'under 3000');
  const quiet = await go(ids.slice(520, 720));
  note('release and planning of 200 orders, nobody scanning', quiet.release + quiet.plan, 'ms', 'under 3000');
  note('ratio busy to quiet', (busy.release + busy.plan) / (quiet.release + quiet.plan), '×');
  note('memory after', bench.memoryMb(), 'MB', 'under 900');
  await bench.close();
}

async function benchLists() {
  let bench = await startServer(40);
  note('start with an empty folder, demo data loaded (×40)', bench.startMs / 1000, 's');
  bench = await bench.restart();
  const wide = await signIn(bench.base, 'maren');
  await readAll(wide, 1000);
  const all = await readAll(wide, 1000);
  note('orders in the list', all.ids.length, '', '10000');
  note('a page of 1,000, median', quantile(all.ms, 0.5), 'ms');
  note(
    'all pages',
    all.ms.reduce((a, b) => a + b, 0),
    'ms',
  );
  note('all pages before compression', all.bytes / 1024, 'kB');
  await benchDesk(bench, wide, all.ids);
  const seen = await openList(bench, wide);
  note('list interactive in Chromium', seen.interactive, 'ms', 'under 1500');
  note('all rows read in Chromium', seen.all, 'ms');
  note('bytes over the wire, app from the cache', seen.wireKb, 'kB');
  note('memory after', bench.memoryMb(), 'MB', 'under 900');
  await bench.close();
}

async function benchImport() {
  const bench = await startServer(1);
  const setup = await signIn(bench.base, 'maren');
  const imported = await importMany(setup, 50_000);
  note('look at a file of 50,000 items', imported.lookSeconds, 's');
  note('50,000 items taken', imported.items.seconds, 's');
  note('times that it told how far it was', imported.items.tellings, '');
  note('50,000 bins made', imported.bins.seconds, 's');
  note('times that it told how far it was', imported.bins.tellings, '');
  note('stopped within', imported.stopMs, 'ms');
  note('rows written by then, which stay', imported.stoppedAfter, '');
  note('memory after', bench.memoryMb(), 'MB', 'under 900');
  await bench.close();
}
