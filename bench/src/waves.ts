import type { RunSummary, WaveSummary } from '@hand-relay/contract';
import { note } from './note.ts';
import type { Bench, Client } from './server.ts';

type Page = { rows: (string | number | null)[][]; next: string | null };

/** Waves of growing size end to end: released, planned in the worker, started. */
export async function benchWaves(bench: Bench, desk: Client): Promise<void> {
  const ids: string[] = [];
  for (let after = ''; ;) {
    const page = await desk.call<Page>('GET', `/api/orders?limit=1000${after}`);
    ids.push(...page.data.rows.filter((r) => Number(r[10]) > 0).map((r) => r[0] as string));
    if (!page.data.next) break;
    after = `&after=${encodeURIComponent(page.data.next)}`;
  }
  for (const size of [10, 100, 1000]) {
    const orders = ids.splice(0, size);
    const what = `a wave of ${orders.length} orders`;
    const released = await desk.call<{ wave: string }>('POST', '/api/waves', { orders });
    const { wave } = released.data;
    let told = 0;
    let last = -1;
    let over = false;
    const watching = (async () => {
      while (!over) {
        const { planProgress } = (await desk.call<{ wave: WaveSummary }>('GET', `/api/waves/${wave}`)).data.wave;
        if (planProgress !== null && planProgress !== last) [told, last] = [told + 1, planProgress];
        await new Promise((resolve) => setTimeout(resolve, 200));
      }
    })();
    const planned = await desk.call<{ wave: WaveSummary }>('POST', `/api/waves/${wave}/plan`);
    over = true;
    await watching;
    const started = await desk.call('POST', `/api/waves/${wave}/start`);
    const { runs } = (await desk.call<{ runs: RunSummary[] }>('GET', `/api/waves/${wave}`)).data;
    const { lines, metres } = planned.data.wave;
    note(`${what}: lines`, lines, '');
    note(`${what}: released`, released.ms / 1000, 's');
    note(`${what}: planned`, planned.ms / 1000, 's', orders.length === 1000 ? 'within 20' : '');
    note(`${what}: times that it told how far it was`, told, '');
    note(`${what}: started`, started.ms / 1000, 's');
    note(`${what}: runs`, runs.length, '');
    note(`${what}: walks proven shortest`, runs.filter((r) => r.proven).length, '', String(runs.length));
    note(`${what}: metres for each line`, metres / lines, 'm');
  }
  note('memory after', bench.memoryMb(), 'MB', 'under 900');
}
