import type { Note } from './note.ts';
import { scanFor, takeRuns } from './scans.ts';
import { signIn, type Bench, type Client } from './server.ts';
import { release } from './floor.ts';

/** Minutes of steady work; SOAK_MINUTES. */
const MINUTES = Number(process.env['SOAK_MINUTES'] ?? 30);
/** Looks at the memory on the way. */
const LOOKS = 6;

async function heaps(base: string): Promise<{ server: number; database: number }> {
  const text = await (await fetch(`${base}/metrics?collect`)).text();
  const mb = (name: string) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]) / 2 ** 20;
  return { server: mb('relay_heap_bytes'), database: mb('relay_database_heap_bytes') };
}

/** The Desk reads its lists again and again, releases and looks at waves, while pickers scan and the bench reads its own. */
async function desk(client: Client, until: number, orders: string[]): Promise<number> {
  let reads = 0;
  for (let n = 0; performance.now() < until; n++, reads++) {
    await client.call('GET', '/api/orders?limit=1000');
    await client.call('GET', '/api/waves');
    await client.call('GET', '/api/bench');
    await client.call('GET', '/api/dock');
    await client.call('GET', `/api/orders/${orders[n % orders.length]!}`);
    if (n % 10 === 0)
      await client.call('POST', '/api/release/preview', { orders: orders.slice(n % 50, (n % 50) + 20) });
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  return reads;
}

/** Steady work for half an hour: what the server needs after a collection must not grow with it. */
export async function benchSoak(bench: Bench, orders: string[], note: Note): Promise<void> {
  const [maren, pico] = [await signIn(bench.base, 'maren'), await signIn(bench.base, 'pico')];
  await release(maren, orders.slice(0, 200), 'sort');
  const part = (MINUTES * 60) / LOOKS;
  const seen: { server: number; database: number }[] = [];
  let reads = 0;
  let scans = 0;
  for (let look = 0; look <= LOOKS; look++) {
    const until = performance.now() + part * 1000;
    const pickers = await takeRuns(pico, 8).catch(() => []);
    const scanning = pickers.length > 0 ? scanFor(pico, pickers, part) : Promise.resolve([]);
    const [read, scanned] = await Promise.all([desk(maren, until, orders.slice(300)), scanning]);
    reads += read;
    scans += scanned.length;
    const heap = await heaps(bench.base);
    // The first part fills what is kept on purpose.
    if (look > 0) seen.push(heap);
    note(`after ${Math.round(((look + 1) * part) / 60)} min: heap of server`, heap.server, 'MB');
    note(`after ${Math.round(((look + 1) * part) / 60)} min: heap of database thread`, heap.database, 'MB');
  }
  const growth = (of: 'server' | 'database') => 100 * (seen.at(-1)![of] / seen[0]![of] - 1);
  note('rounds of lists read', reads, '');
  note('scans', scans, '');
  note('heap of server grew by', growth('server'), '%', 'within 5');
  note('heap of database thread grew by', growth('database'), '%', 'within 5');
  note('memory of the process', bench.memoryMb(), 'MB');
}
