import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { changeWay, wavesUnderWay, wayOf } from './ways.ts';

export function wayRoutes(doors: Doors): void {
  serve(doors, endpoints.way, async ({ platform: { db }, actor: { siteId } }) => ({
    way: await wayOf(db, siteId),
    waves: await wavesUnderWay(db, siteId),
  }));
  serve(doors, endpoints.changeWay, async ({ platform: { db }, actor: { siteId }, body, change }) => {
    await change((current) => changeWay(current, body));
    return { way: body, waves: await wavesUnderWay(db, siteId) };
  });
}
