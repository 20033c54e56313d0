import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { search } from './search.ts';

export function searchRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.search, ({ platform, actor, query }) => search(platform, actor, query));
}
