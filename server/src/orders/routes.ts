import { createHash } from 'node:crypto';
import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { cancelByNumber, cancelOrder } from './adapt.ts';
import { cancelRest, restore } from './cancel.ts';
import { orderDetail, orderTrail } from './detail.ts';
import { exampleFile } from './example.ts';
import { intake } from './intake.ts';
import { listOrders } from './list.ts';
import { reserve } from './reserve.ts';
import { joinOrder, splitOrder } from './split.ts';
import { tagOrders } from './tags.ts';
import { takeBackLines } from './takeBack.ts';

export function orderRoutes(doors: Doors): void {
  serve(doors, endpoints.orderExample, async ({ platform, actor, res }) => {
    res
      .attachment('orders-example.csv')
      .type('text/csv')
      .send(await exampleFile(platform, actor.siteId));
  });
  serve(doors, endpoints.orders, ({ platform, actor, query }) => listOrders(platform, actor.siteId, query));
  serve(doors, endpoints.order, ({ platform, actor, id }) => orderDetail(platform, actor.siteId, id));
  serve(doors, endpoints.trail, ({ platform, actor, id }) => orderTrail(platform, actor.siteId, id));
  serve(doors, endpoints.intake, ({ platform, actor, body, req }) => {
    const hash = createHash('sha256').update(JSON.stringify(req.body)).digest('base64url');
    return intake(platform, actor, { key: req.get('idempotency-key')!, request: `intake ${hash}` }, body);
  });
  serve(doors, endpoints.cancelRest, async ({ platform, actor, id, body, change }) => {
    await change((current) => cancelRest(current, id, body.reason, body.lines));
    return orderDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.cancelOrder, async ({ platform, actor, id, body, change }) => {
    await change((current) => cancelOrder(current, id, body.reason));
    return orderDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.restoreRest, async ({ platform, actor, id, body, change }) => {
    await change((current) => restore(current, id, body.lines));
    return orderDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.cancellations, ({ body, change }) => change((current) => cancelByNumber(current, body)));
  serve(doors, endpoints.takeBack, ({ body, change }) => change((current) => takeBackLines(current, body)));
  serve(doors, endpoints.splitOrder, async ({ platform, actor, id, body, change }) =>
    orderDetail(platform, actor.siteId, await change((current) => splitOrder(current, id, body))),
  );
  serve(doors, endpoints.joinOrder, async ({ platform, actor, id, change }) =>
    orderDetail(platform, actor.siteId, await change((current) => joinOrder(current, id))),
  );
  serve(doors, endpoints.tagOrders, ({ body, change }) => change((current) => tagOrders(current, body)));
  serve(doors, endpoints.reserve, ({ id, change }) => change((current) => reserve(current, id, true)));
  serve(doors, endpoints.unreserve, ({ id, change }) => change((current) => reserve(current, id, false)));
}
