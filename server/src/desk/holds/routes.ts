import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { holdOrder, holdRules, liftHold, orderHoldsOf, saveHoldRule } from './hold.ts';
import { holdOrders, liftHolds, restoreHolds } from './many.ts';

export function holdRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.holds, ({ platform, actor, id }) => orderHoldsOf(platform.db, actor, id));
  mountEndpoint(routes, endpoints.holdOrder, ({ id, body, change }) =>
    change((current) => holdOrder(current, id, body)),
  );
  mountEndpoint(routes, endpoints.liftHold, ({ id, body, change }) =>
    change((current) => liftHold(current, id, body.reason)),
  );
  mountEndpoint(routes, endpoints.holdOrders, ({ body, change }) => change((current) => holdOrders(current, body)));
  mountEndpoint(routes, endpoints.liftHolds, ({ body, change }) => change((current) => liftHolds(current, body)));
  mountEndpoint(routes, endpoints.restoreHolds, ({ body, change }) =>
    change((current) => restoreHolds(current, body.holds)),
  );
  mountEndpoint(routes, endpoints.holdRules, ({ platform, actor }) => holdRules(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.saveHoldRule, ({ body, change }) => change((current) => saveHoldRule(current, body)));
}
