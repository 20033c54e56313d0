import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { putBackOne, putBacksOf } from './trip.ts';

export function putBackRoutes(doors: Doors): void {
  serve(doors, endpoints.putBacks, ({ platform, actor }) => putBacksOf(platform.db, actor.siteId));
  serve(doors, endpoints.putBackOne, async ({ id, body, change }) => {
    await change((current) => putBackOne(current, id, body));
    return {};
  });
}
