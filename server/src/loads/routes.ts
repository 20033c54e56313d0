import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { changeLoad, dissolveLoad, fillLoad, planLoad } from './plan.ts';
import { candidatesOf, listLoads, oneLoad } from './read.ts';

export function loadRoutes(doors: Doors): void {
  serve(doors, endpoints.loads, ({ platform, actor }) => listLoads(platform.db, actor.siteId));
  serve(doors, endpoints.load, ({ platform, actor, id }) => oneLoad(platform.db, actor.siteId, id));
  serve(doors, endpoints.loadCandidates, ({ platform, actor, id }) => candidatesOf(platform.db, actor.siteId, id));
  serve(doors, endpoints.planLoad, async ({ platform, actor, body, change }) =>
    oneLoad(platform.db, actor.siteId, await change((current) => planLoad(current, body))),
  );
  serve(doors, endpoints.changeLoad, async ({ platform, actor, id, body, change }) => {
    await change((current) => changeLoad(current, id, body));
    return oneLoad(platform.db, actor.siteId, id);
  });
  serve(doors, endpoints.fillLoad, async ({ platform, actor, id, body, change }) => {
    await change((current) => fillLoad(current, id, body));
    return oneLoad(platform.db, actor.siteId, id);
  });
  serve(doors, endpoints.dissolveLoad, async ({ id, change }) => {
    await change((current) => dissolveLoad(current, id));
    return {};
  });
}
