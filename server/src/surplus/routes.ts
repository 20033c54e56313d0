import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { returnGoods } from './returnGoods.ts';
import { settleTask, tasksOf } from './tasks.ts';

export function surplusRoutes(doors: Doors): void {
  serve(doors, endpoints.deskTasks, ({ platform, actor }) => tasksOf(platform.db, actor.siteId));
  serve(doors, endpoints.returnGoods, ({ id, body, change }) =>
    change((current) => returnGoods(current, id, body.reason)),
  );
  serve(doors, endpoints.settleTask, ({ id, body, change }) =>
    change((current) => settleTask(current, id, body.decision)),
  );
}
