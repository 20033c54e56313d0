import { endpoints } from '@hand-relay/contract';
import { notFound, mountEndpoint, type Routes } from '../../platform/index.ts';
import { savePicture } from '../../setup/sheets/index.ts';
import { addPicture } from '../../stock/index.ts';
import { countsOf } from './read.ts';
import { binLeft, settleCount, takeCount, requestCountByHand } from './take.ts';

export function countRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.counts, ({ platform, actor }) => countsOf(platform.db, actor));
  mountEndpoint(routes, endpoints.wantCount, ({ actor, body, change }) =>
    change(async (current) => {
      await requestCountByHand(current, body);
      return countsOf(current.tx, actor);
    }),
  );
  mountEndpoint(routes, endpoints.takeCount, ({ id, body, change }) =>
    change((current) => takeCount(current, id, body)),
  );
  mountEndpoint(routes, endpoints.settleCount, ({ actor, id, body, change }) =>
    change(async (current) => {
      await settleCount(current, id, body);
      return countsOf(current.tx, actor);
    }),
  );
  mountEndpoint(routes, endpoints.binLeft, async ({ id, body, change }) => {
    await change((current) => binLeft(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.keepPhoto, async ({ body, change }) => {
    await change(async (current) => {
      if (!(await addPicture(current, body.pick, await savePicture(current, body.data))))
        throw notFound('count', body.pick);
    });
    return {};
  });
}
