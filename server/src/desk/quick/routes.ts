import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { quickConfirm } from './confirm.ts';
import { quickList } from './read.ts';

export function quickRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.quickList, ({ platform, actor, query }) => quickList(platform, actor.siteId, query));
  mountEndpoint(routes, endpoints.quickConfirm, ({ body, change }) => change((current) => quickConfirm(current, body)));
}
