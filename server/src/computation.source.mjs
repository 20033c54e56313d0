// Lets the pool's threads run the TypeScript source while developing; the bundle's threads do without.
import { register } from 'tsx/esm/api';

register();
const tasks = await import('./computation.worker.ts');
export const {
  askersTask,
  cartonsTask,
  comparePoliciesTask,
  drawPageTask,
  orderPromiseTask,
  outlookTask,
  palletsTask,
  walkTask,
  planWaveTask,
} = tasks;
