import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { correctItemWeight, itemWeights } from './itemWeights.ts';
import { readScale } from './scale.ts';

export function weighingRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.scale, ({ platform, actor, query }) =>
    readScale(platform, actor.siteId, query.bench),
  );
  mountEndpoint(routes, endpoints.itemWeights, ({ platform }) => itemWeights(platform.db));
  mountEndpoint(routes, endpoints.correctItemWeight, async ({ id, body, change }) => {
    await change((current) => correctItemWeight(current, id, body));
    return {};
  });
}
