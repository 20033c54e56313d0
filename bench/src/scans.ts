import type { RunDetail } from '@hand-relay/contract';
import type { Client } from './server.ts';

export interface Picker {
  run: string;
  inputs: { pick: string; input: object }[];
}

/** The inputs with which a run is picked, one after the other. */
function inputsOf(run: RunDetail, cart: string): Picker['inputs'] {
  return run.picks
    .filter((p) => !p.step.item.tracksSerial)
    .flatMap((p) =>
      [
        { kind: 'scan', text: p.step.bin },
        { kind: 'count', units: p.step.units },
        ...(p.step.item.tracksLot ? [{ kind: 'scan', text: p.step.lot! }] : []),
        { kind: 'scan', text: `${cart}-${p.step.position.number}` },
      ].map((input) => ({ pick: p.step.id, input })),
    );
}

/**
 * Takes so many waiting runs, each with a cart of its own.
 *
 * @param cart number of the last cart that is in use
 */
export async function takeRuns(client: Client, count: number, carts = 24, cart = 0): Promise<Picker[]> {
  const { data } = await client.call<{ waiting: { id: string; orders: number }[] }>('GET', '/api/runs');
  const pickers: Picker[] = [];
  for (const { id } of data.waiting) {
    if (pickers.length === count) break;
    for (;;) {
      cart += 1;
      const code = `CART-${String(cart).padStart(2, '0')}`;
      const taken = await client
        .call<RunDetail>('POST', `/api/runs/${id}/take`, { cart: code })
        .catch((error: Error) => error);
      if (taken instanceof Error) {
        if (cart < carts) continue;
        return pickers;
      }
      pickers.push({ run: id, inputs: inputsOf(taken.data, code) });
      break;
    }
  }
  return pickers;
}

/** Every picker scans so often, a pace of seconds apart; gives the milliseconds of each scan. */
export async function scanFor(client: Client, pickers: Picker[], scans: number, pace = 1): Promise<number[]> {
  const times: number[] = [];
  await Promise.all(
    pickers.map(async (picker, n) => {
      await new Promise((resolve) => setTimeout(resolve, (n * pace * 1000) / pickers.length));
      for (let s = 0; s < scans; s++) {
        const next = picker.inputs.shift();
        if (!next) return;
        const begun = performance.now();
        times.push((await client.call('POST', `/api/runs/${picker.run}/inputs`, next)).ms);
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, pace * 1000 - (performance.now() - begun))));
      }
    }),
  );
  return times;
}

export function quantile(values: number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;
}
