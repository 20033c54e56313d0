import type { OutlookAnswer, PolicyComparison } from '@hand-relay/contract';
import { note } from './note.ts';
import { quantile, scanFor, takeRuns } from './scans.ts';
import { signIn, type Bench, type Client } from './server.ts';

/** Orders in one request, as the app sends them. */
const AT_ONCE = 40;

/** A thousand orders changed at once, and taken back, while pickers scan. */
async function benchBulk(desk: Client, orders: string[], floor: Client, pickers: Awaited<ReturnType<typeof takeRuns>>) {
  const scanning = scanFor(floor, pickers, 14);
  const set = { due: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10), priority: 2 };
  const parts = Array.from({ length: orders.length / AT_ONCE }, (_, i) => orders.slice(i * AT_ONCE, (i + 1) * AT_ONCE));
  const inParts = async <P, A>(what: string, list: readonly P[], path: string, body: (part: P) => object) => {
    const answers: A[] = [];
    let ms = 0;
    for (const part of list) {
      const answer = await desk.call<A>('POST', `/api/desk/orders/${path}`, body(part));
      answers.push(answer.data);
      ms += answer.ms;
    }
    note(what, ms, 'ms', 'under 3000');
    return answers;
  };
  const change = (mode: string) => (part: string[]) => ({ mode, changes: [{ orders: part, set }] });
  await inParts('preview of a change of 1,000 orders', parts, 'change', change('preview'));
  const changed = await inParts<string[], { changed: number; undo: object[] }>(
    'day and priority of 1,000 orders changed',
    parts,
    'change',
    change('change'),
  );
  note(
    'orders changed',
    changed.reduce((n, c) => n + c.changed, 0),
    '',
    '1000',
  );
  await inParts('taken back', changed, 'change', ({ undo }) => ({ mode: 'change', changes: undo }));
  const held = await inParts<string[], { holds: string[] }>('1,000 orders put on hold', parts, 'hold', (part) => ({
    orders: part,
    reason: 'bench',
    stops: ['release'],
  }));
  await inParts('their holds lifted', held, 'lift', ({ holds }) => ({ holds, reason: 'bench' }));
  const gone = await inParts<string[], { lines: object[] }>(
    'open quantity of 1,000 orders cancelled',
    parts,
    'cancel',
    (part) => ({ orders: part, reason: 'bench' }),
  );
  await inParts('taken back', gone, 'restore', ({ lines }) => ({ lines }));
  const during = await scanning;
  note('scan while thousands of orders are changed, p50', quantile(during, 0.5), 'ms');
  note('scan while thousands of orders are changed, p95', quantile(during, 0.95), 'ms', 'under 150');
}

/** The Desk's computations on all open orders, and what scans notice of them. */
export async function benchDesk(bench: Bench, desk: Client, orders: string[]): Promise<void> {
  const outlook = () => desk.call<OutlookAnswer>('GET', '/api/desk/outlook');
  const first = await outlook();
  const again = [await outlook(), await outlook(), await outlook()].map((answer) => answer.ms);
  note('promise and coverage: open orders', first.data.orders.length, '', '10000');
  note('promise and coverage: items that fall short', first.data.short.length, '');
  note('promise and coverage, the first time', first.ms, 'ms');
  note('promise and coverage, median of three', quantile(again, 0.5), 'ms', 'under 2000');
  const one = await desk.call('GET', `/api/orders/${orders[0]!}/promise`);
  note('promise of one order, and why', one.ms, 'ms');
  const item = await desk.call('GET', `/api/desk/items/${first.data.short[0]!.id}`);
  note('a contested item with all who ask', item.ms, 'ms');
  const compared = await desk.call<PolicyComparison>('POST', '/api/desk/compare', {});
  note('three policies side by side', compared.ms / 1000, 's');
  for (const tally of compared.data.tallies) note(`orders in full by ${tally.policy}`, tally.orders, '');
  const { bound, orders: most } = compared.data.tallies.at(-1)!;
  note('gap of most-orders to its bound', (100 * (bound! - most)) / bound!, '%', 'at most 1');

  const released = await desk.call<{ wave: string }>('POST', '/api/waves', { orders: orders.slice(0, 300) });
  await desk.call('POST', `/api/waves/${released.data.wave}/plan`);
  await desk.call('POST', `/api/waves/${released.data.wave}/start`);
  const floor = await signIn(bench.base, 'pico');
  const pickers = await takeRuns(floor, 20);
  await benchBulk(desk, orders.slice(1000, 2000), floor, pickers);
  let over = false;
  const computing = (async () => {
    let times = 0;
    for (; !over; times += 1) await outlook();
    return times;
  })();
  const during = await scanFor(floor, pickers, 12);
  over = true;
  note('recomputations while pickers scanned', await computing, '');
  note('scan while the Desk recomputes without pause, p50', quantile(during, 0.5), 'ms');
  note('scan while the Desk recomputes without pause, p95', quantile(during, 0.95), 'ms', 'under 150');
}
