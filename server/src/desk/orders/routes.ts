import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { cancelByNumber, cancelOrder } from './adapt.ts';
import { cancelOrders, cancelRest, restore } from './cancel.ts';
import { changeOrders } from './change.ts';
import { customerChoices, itemChoices } from './choices.ts';
import { orderDetail, orderTrail } from './detail.ts';
import { draftOfOrder, enterOrder } from './enter.ts';
import { listOrders } from './list.ts';
import { reserve } from './reserve.ts';
import { joinOrder, splitOrder } from './split.ts';
import { tagOrders } from './tags.ts';
import { unreleaseLines } from './unrelease.ts';

export function orderRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.orders, ({ platform, actor, query }) => listOrders(platform, actor.siteId, query));
  mountEndpoint(routes, endpoints.order, ({ platform, actor, id }) => orderDetail(platform, actor.siteId, id));
  mountEndpoint(routes, endpoints.trail, ({ platform, actor, id }) => orderTrail(platform, actor.siteId, id));
  mountEndpoint(routes, endpoints.cancelRest, async ({ platform, actor, id, body, change }) => {
    await change((current) => cancelRest(current, id, body.reason, body.lines, body.units));
    return orderDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.cancelOrder, async ({ platform, actor, id, body, change }) => {
    await change((current) => cancelOrder(current, id, body.reason));
    return orderDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.restoreRest, async ({ platform, actor, id, body, change }) => {
    await change((current) => restore(current, body.lines, id));
    return orderDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.cancellations, ({ body, change }) =>
    change((current) => cancelByNumber(current, body)),
  );
  mountEndpoint(routes, endpoints.unrelease, ({ body, change }) => change((current) => unreleaseLines(current, body)));
  mountEndpoint(routes, endpoints.splitOrder, async ({ platform, actor, id, body, change }) =>
    orderDetail(platform, actor.siteId, await change((current) => splitOrder(current, id, body))),
  );
  mountEndpoint(routes, endpoints.joinOrder, async ({ platform, actor, id, change }) =>
    orderDetail(platform, actor.siteId, await change((current) => joinOrder(current, id))),
  );
  mountEndpoint(routes, endpoints.tagOrders, ({ body, change }) => change((current) => tagOrders(current, body)));
  mountEndpoint(routes, endpoints.reserve, ({ id, change }) => change((current) => reserve(current, id, true)));
  mountEndpoint(routes, endpoints.unreserve, ({ id, change }) => change((current) => reserve(current, id, false)));
  mountEndpoint(routes, endpoints.changeOrders, ({ body, change }) => change((current) => changeOrders(current, body)));
  mountEndpoint(routes, endpoints.cancelOrders, ({ body, change }) =>
    change((current) => cancelOrders(current, body.orders, body.reason)),
  );
  mountEndpoint(routes, endpoints.restoreOrders, ({ body, change }) =>
    change((current) => restore(current, body.lines)),
  );
  mountEndpoint(routes, endpoints.enterOrder, ({ body, change }) => change((current) => enterOrder(current, body)));
  mountEndpoint(routes, endpoints.orderDraft, ({ platform, actor, id }) => draftOfOrder(platform.db, actor.siteId, id));
  mountEndpoint(routes, endpoints.customerChoices, ({ platform, actor, query }) =>
    customerChoices(platform.db, actor.siteId, query.find),
  );
  mountEndpoint(routes, endpoints.itemChoices, ({ platform, actor, query }) =>
    itemChoices(platform.db, actor.siteId, query.find),
  );
}
