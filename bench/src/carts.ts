import type { Client } from './server.ts';

/** Carts of the demo; more are made for more pickers. */
const THERE = 24;

/** Sees to it that there are so many carts, CART-01 and on. */
export async function makeCarts(desk: Client, count: number): Promise<void> {
  const rows = Array.from(
    { length: count - THERE },
    (_, i) => `CART-${i + THERE + 1},"Tote, 12 places",12,260000,1400`,
  );
  const data = Buffer.from(['cart,type,positions,max_weight_g,max_volume_l', ...rows].join('\n')).toString('base64');
  const { job } = (
    await desk.call<{ job: string }>('POST', '/api/setup/sheets/carts/import', { file: 'carts.csv', data })
  ).data;
  while ((await desk.call<{ state: string }>('GET', `/api/setup/jobs/${job}`)).data.state === 'running')
    await new Promise((resolve) => setTimeout(resolve, 100));
}
