import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { actOnPackaging, changePackaging, postDays } from './change.ts';
import { packagingList } from './read.ts';

export function packagingRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.packaging, ({ platform, actor }) =>
    packagingList(platform.db, actor.siteId, platform.clock()),
  );
  mountEndpoint(routes, endpoints.changePackaging, async ({ platform, actor, id, body, change }) => {
    await change((current) => changePackaging(current, id, body));
    return packagingList(platform.db, actor.siteId, platform.clock());
  });
  mountEndpoint(routes, endpoints.actOnPackaging, async ({ platform, actor, id, body, change }) => {
    await change((current) => actOnPackaging(current, id, body));
    return packagingList(platform.db, actor.siteId, platform.clock());
  });
  mountEndpoint(routes, endpoints.postPackaging, ({ change }) =>
    change(async (current) => ({ postings: await postDays(current) })),
  );
}
