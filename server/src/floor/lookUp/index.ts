import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { lookUp } from './lookUp.ts';

export function lookUpRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.lookUp, ({ platform, actor, query }) => lookUp(platform, actor, query.code));
}
