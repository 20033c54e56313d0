import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { picksOf } from './picks.ts';
import { trace } from './trace.ts';

export function traceRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.picks, ({ platform, actor, query }) => picksOf(platform, actor.siteId, query));
  mountEndpoint(routes, endpoints.trace, ({ platform, actor, query }) => trace(platform.db, actor.siteId, query));
}
