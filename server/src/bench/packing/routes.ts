import { endpoints } from '@hand-relay/contract';
import { cartonLabel } from '../../setup/documents/index.ts';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { printAtClosing } from '../../setup/printing/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { reopenCarton } from './cartons.ts';
import { packInput } from './input.ts';
import { packPlan } from './plan.ts';
import { moveGoods, unpack } from './takeOut.ts';
import { benchOrder, benchQueue, find } from './read.ts';

export function packingRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.find, ({ platform, actor, query }) => find(platform, actor, query.code));
  mountEndpoint(routes, endpoints.bench, ({ platform, actor }) => benchQueue(platform, actor.siteId));
  mountEndpoint(routes, endpoints.benchOrder, ({ platform, actor, id }) => benchOrder(platform, actor.siteId, id));
  mountEndpoint(routes, endpoints.packPlan, ({ platform, actor, id, query }) =>
    packPlan(platform, actor.siteId, id, query.carton ?? null),
  );
  mountEndpoint(routes, endpoints.packInput, async ({ platform, actor, id, body, change }) => {
    const done = await change((current) => packInput(current, id, body.bench, body.input, body.carton ?? null));
    if (done.verdict !== 'close' || !done.carton) return done;
    return { ...done, ...(await printAtClosing(platform, actor, { carton: done.carton, bench: body.bench })) };
  });
  mountEndpoint(routes, endpoints.unpack, async ({ id, body, change }) => {
    await change((current) => unpack(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.moveGoods, async ({ id, body: { to, ...goods }, change }) => {
    await change((current) => moveGoods(current, id, to, goods));
    return {};
  });
  mountEndpoint(routes, endpoints.reopenCarton, async ({ id, body, change }) => {
    await change((current) => reopenCarton(current, id, body.bench));
    return {};
  });
  mountEndpoint(routes, endpoints.cartonLabel, async ({ platform, actor, id, query, res }) => {
    const pdf = await cartonLabel(
      platform,
      actor.siteId,
      id,
      query.size ?? (await settingsOf(platform.db, actor.siteId)).label,
    );
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="label.pdf"').send(pdf);
  });
}
