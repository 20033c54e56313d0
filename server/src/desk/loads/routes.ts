import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { closeLoad, orderStops } from './life.ts';
import { changeLoad, cancelLoad, fillLoad, planLoad } from './plan.ts';
import { candidatesOf, listLoads, oneLoad } from './read.ts';

export function loadRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.loads, ({ platform, actor, query }) =>
    listLoads(platform.db, actor.siteId, query.state),
  );
  mountEndpoint(routes, endpoints.load, ({ platform, actor, id }) => oneLoad(platform.db, actor.siteId, id));
  mountEndpoint(routes, endpoints.loadCandidates, ({ platform, actor, id }) =>
    candidatesOf(platform.db, actor.siteId, id),
  );
  mountEndpoint(routes, endpoints.planLoad, async ({ platform, actor, body, change }) =>
    oneLoad(platform.db, actor.siteId, await change((current) => planLoad(current, body))),
  );
  mountEndpoint(routes, endpoints.changeLoad, async ({ platform, actor, id, body, change }) => {
    await change((current) => changeLoad(current, id, body));
    return oneLoad(platform.db, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.fillLoad, async ({ platform, actor, id, body, change }) => {
    await change((current) => fillLoad(current, id, body));
    return oneLoad(platform.db, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.orderStops, async ({ platform, actor, id, body, change }) => {
    await change((current) => orderStops(current, id, body.stops));
    return oneLoad(platform.db, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.closeLoad, async ({ platform, actor, id, change }) => {
    await change((current) => closeLoad(current, id));
    return oneLoad(platform.db, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.cancelLoad, async ({ id, change }) => {
    await change((current) => cancelLoad(current, id));
    return {};
  });
}
