import { firstHoldRules } from '@hand-relay/contract';
import { judgeHolds } from '@hand-relay/core/deciding/holds';
import type { Scenario } from './scenario.ts';

/** A customer on credit stop: the one who ordered last. */
export function stoppedCustomer(world: Scenario): string {
  return world.orders.at(-1)!.customer;
}

/** The rules with which a site begins, each site its own. */
export const rulesOf = (siteId: string) =>
  firstHoldRules.map((r, i) => ({ ...r, id: `hold-rule-${siteId}-${i + 1}`, siteId }));

/** Holds that the first rules of a site lay on its orders. */
export function firstHolds(siteId: string, orders: Scenario['orders'], stopped: string) {
  const rules = rulesOf(siteId);
  return orders.flatMap((order) => {
    const value = order.lines.reduce(
      (n, l) => n + l.quantity * l.item.packs.find((p) => p.level === l.pack)!.units * l.item.valueMinor,
      0,
    );
    const { street, postcode, city } = order.shipTo;
    const values = { creditStop: order.customer === stopped, value: value / 100, street, postcode, city };
    return judgeHolds(rules, values, []).add.map((id) => {
      const { text, stops, lifters } = rules.find((r) => r.id === id)!;
      return {
        id: `hold-${order.number.toLowerCase()}-${id}`,
        siteId,
        orderId: `order-${order.number.toLowerCase()}`,
        ruleId: id,
        text,
        stops,
        lifters,
      };
    });
  });
}
