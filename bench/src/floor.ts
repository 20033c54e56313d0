import { makeCarts } from './carts.ts';
import type { note } from './note.ts';
import { quantile, scanFor, takeRuns } from './scans.ts';
import type { Bench, Client } from './server.ts';

const PICKERS = 50;
const SECONDS = 120;
/** Seconds between two scans of a picker. */
const PACE = 2;
/** Carts for the pickers. */
const CARTS = 60;

type Page = { rows: (string | number | null)[][]; next: string | null };

/** Releases, plans and starts orders as a wave. */
export async function release(desk: Client, orders: string[], picking: string): Promise<string> {
  const { wave } = (await desk.call<{ wave: string }>('POST', '/api/waves', { orders })).data;
  await desk.call('POST', `/api/waves/${wave}`, { picking });
  await desk.call('POST', `/api/waves/${wave}/plan`);
  await desk.call('POST', `/api/waves/${wave}/start`);
  return wave;
}

/** Milliseconds in which the server answers a question that costs nothing: what its event loop makes others wait. */
function askAlong(desk: Client): () => number[] {
  const waits: number[] = [];
  let over = false;
  void (async () => {
    while (!over) {
      const begun = performance.now();
      await desk.call('GET', '/api/session').catch(() => undefined);
      waits.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  })();
  return () => {
    over = true;
    return waits;
  };
}

/** Fifty pickers on one server, alone and while a wave is planned. */
export async function benchFloor(bench: Bench, desk: Client, floor: Client, say: typeof note): Promise<void> {
  const page = (await desk.call<Page>('GET', '/api/orders?limit=1000')).data;
  const ids = page.rows.filter((r) => Number(r[10]) > 0).map((r) => r[0] as string);
  await makeCarts(desk, CARTS);
  await release(desk, ids.slice(0, 700), 'sort');
  const pickers = await takeRuns(floor, PICKERS, CARTS);
  say('pickers', pickers.length, '', String(PICKERS));
  const ended = askAlong(desk);
  const alone = await scanFor(floor, pickers, SECONDS / PACE, PACE);
  const waits = ended();
  for (const [name, share] of [
    ['p50', 0.5],
    ['p95', 0.95],
    ['p99', 0.99],
  ] as const)
    say(
      `scan, ${PICKERS} pickers, one every ${PACE} s, ${name}`,
      quantile(alone, share),
      'ms',
      share === 0.95 ? 'under 60' : undefined,
    );
  say('scans', alone.length, '');
  say('a question beside them, p95', quantile(waits, 0.95), 'ms');
  say('a question beside them, worst', Math.max(...waits), 'ms');
  const scanning = scanFor(floor, pickers, 12, PACE);
  await new Promise((resolve) => setTimeout(resolve, 1500));
  await release(desk, ids.slice(700, 1000), 'sort');
  const during = await scanning;
  say('scans while a wave of 300 orders is planned', during.length, '');
  for (const [name, share] of [
    ['p50', 0.5],
    ['p95', 0.95],
    ['p99', 0.99],
  ] as const)
    say(`scan while it is planned, ${name}`, quantile(during, share), 'ms');
  say('memory after', bench.memoryMb(), 'MB', 'under 900');
}
