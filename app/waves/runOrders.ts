import type { RunDetail, RunSummary } from '@hand-relay/contract';

/** An order of a run: what of it is to be picked there. */
export interface RunOrder {
  id: string;
  number: string;
  customer: string;
  /** Position of the cart. */
  position: number;
  picks: number;
  units: number;
  begun: boolean;
}

/** Orders of a run by their position on the cart. */
export function ordersOfRun({ picks, positions }: Pick<RunDetail, 'picks' | 'positions'>): RunOrder[] {
  const orders = new Map<string, RunOrder>();
  for (const { order, step, state } of picks) {
    const known = orders.get(order.id);
    if (known) {
      known.picks += 1;
      known.units += step.units;
      known.begun ||= state !== 'open';
      continue;
    }
    const place = positions.find((p) => p.order === order.number);
    orders.set(order.id, {
      id: order.id,
      number: order.number,
      customer: place?.customer ?? '',
      position: place?.number ?? step.position.number,
      picks: 1,
      units: step.units,
      begun: state !== 'open',
    });
  }
  return [...orders.values()].sort((a, b) => a.position - b.position || a.number.localeCompare(b.number));
}

/** Whether nobody has begun a run. */
export const waits = (run: Pick<RunSummary, 'state'>) => run.state === 'planned' || run.state === 'waiting';
