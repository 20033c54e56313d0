import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { putAwayOne, putAwaysOf } from './trip.ts';

export function putAwayRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.putAways, ({ platform, actor }) => putAwaysOf(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.putBackOne, async ({ id, body, change }) => {
    await change((current) => putAwayOne(current, id, body));
    return {};
  });
}
