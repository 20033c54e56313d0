import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { holdOrder, holdRules, liftHold, orderHoldsOf, saveHoldRule } from './hold.ts';

export function holdRoutes(doors: Doors): void {
  serve(doors, endpoints.holds, ({ platform, actor, id }) => orderHoldsOf(platform.db, actor, id));
  serve(doors, endpoints.holdOrder, ({ id, body, change }) => change((current) => holdOrder(current, id, body)));
  serve(doors, endpoints.liftHold, ({ id, body, change }) => change((current) => liftHold(current, id, body.reason)));
  serve(doors, endpoints.holdRules, ({ platform, actor }) => holdRules(platform.db, actor.siteId));
  serve(doors, endpoints.saveHoldRule, ({ body, change }) => change((current) => saveHoldRule(current, body)));
}
