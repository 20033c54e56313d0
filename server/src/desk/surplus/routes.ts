import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { returnGoods } from './returnGoods.ts';
import { settleTask, tasksOf } from './tasks.ts';

export function surplusRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.deskTasks, ({ platform, actor }) => tasksOf(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.returnGoods, ({ id, body, change }) =>
    change((current) => returnGoods(current, id, body.reason)),
  );
  mountEndpoint(routes, endpoints.settleTask, ({ id, body, change }) =>
    change((current) => settleTask(current, id, body.decision)),
  );
}
