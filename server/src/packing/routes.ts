import { endpoints } from '@hand-relay/contract';
import { cartonLabel } from '../documents/index.ts';
import { serve, type Doors } from '../platform/index.ts';
import { wayOf } from '../ways/index.ts';
import { reopenCarton } from './cartons.ts';
import { packInput, unpack } from './input.ts';
import { benchOrder, benchQueue, find } from './read.ts';

export function packingRoutes(doors: Doors): void {
  serve(doors, endpoints.find, ({ platform, actor, query }) => find(platform, actor, query.code));
  serve(doors, endpoints.bench, ({ platform, actor }) => benchQueue(platform, actor.siteId));
  serve(doors, endpoints.benchOrder, ({ platform, actor, id }) => benchOrder(platform, actor.siteId, id));
  serve(doors, endpoints.packInput, ({ id, body, change }) =>
    change((current) => packInput(current, id, body.bench, body.input)),
  );
  serve(doors, endpoints.unpack, async ({ id, body, change }) => {
    await change((current) => unpack(current, id, body));
    return {};
  });
  serve(doors, endpoints.reopenCarton, async ({ id, body, change }) => {
    await change((current) => reopenCarton(current, id, body.bench));
    return {};
  });
  serve(doors, endpoints.cartonLabel, async ({ platform, actor, id, query, res }) => {
    const pdf = await cartonLabel(
      platform,
      actor.siteId,
      id,
      query.size ?? (await wayOf(platform.db, actor.siteId)).label,
    );
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="label.pdf"').send(pdf);
  });
}
