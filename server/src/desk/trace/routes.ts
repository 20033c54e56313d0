import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { trace } from './trace.ts';

export function traceRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.trace, ({ platform, actor, query }) => trace(platform.db, actor.siteId, query));
}
