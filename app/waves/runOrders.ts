import type { RunDetail, RunSummary } from '@hand-relay/contract';

/** An order of a run: what of it is to be picked there. */
export interface RunOrder {
  id: string;
  number: string;
  customer: string;
  /** Position of the cart. */
  position: number;
  lines: number;
  units: number;
}

/** Orders of a run by their position on the cart. */
export const ordersOfRun = ({ positions }: Pick<RunDetail, 'positions'>): RunOrder[] =>
  positions.map(({ number, order, ...more }) => ({ ...more, number: order, position: number }));

/** Whether nobody has begun a run. */
export const waits = (run: Pick<RunSummary, 'state'>) => run.state === 'planned' || run.state === 'waiting';
