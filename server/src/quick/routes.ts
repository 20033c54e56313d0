import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { quickConfirm } from './confirm.ts';
import { quickList } from './read.ts';

export function quickRoutes(doors: Doors): void {
  serve(doors, endpoints.quickList, ({ platform, actor, query }) => quickList(platform, actor.siteId, query.until));
  serve(doors, endpoints.quickConfirm, ({ body, change }) => change((current) => quickConfirm(current, body)));
}
