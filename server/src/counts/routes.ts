import { endpoints } from '@hand-relay/contract';
import { notFound, serve, type Doors } from '../platform/index.ts';
import { keepPicture } from '../setup/index.ts';
import { addPicture } from '../stock/index.ts';
import { countsOf } from './read.ts';
import { binLeft, settleCount, takeCount, wantCount } from './take.ts';

export function countRoutes(doors: Doors): void {
  serve(doors, endpoints.counts, ({ platform, actor }) => countsOf(platform.db, actor));
  serve(doors, endpoints.wantCount, ({ actor, body, change }) =>
    change(async (current) => {
      await wantCount(current, body);
      return countsOf(current.tx, actor);
    }),
  );
  serve(doors, endpoints.takeCount, ({ id, body, change }) => change((current) => takeCount(current, id, body)));
  serve(doors, endpoints.settleCount, ({ actor, id, body, change }) =>
    change(async (current) => {
      await settleCount(current, id, body);
      return countsOf(current.tx, actor);
    }),
  );
  serve(doors, endpoints.binLeft, async ({ id, body, change }) => {
    await change((current) => binLeft(current, id, body));
    return {};
  });
  serve(doors, endpoints.keepPhoto, async ({ body, change }) => {
    await change(async (current) => {
      if (!(await addPicture(current, body.pick, await keepPicture(current, body.data))))
        throw notFound('count', body.pick);
    });
    return {};
  });
}
