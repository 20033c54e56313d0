import { firstHoldRules } from '@hand-relay/contract';
import { judgeHolds } from '@hand-relay/core/holds';
import type { Scenario } from './scenario.ts';

/** A customer on credit stop: the one who ordered last. */
export function stoppedCustomer(world: Scenario): string {
  return world.orders.at(-1)!.customer;
}

/** Holds that the first rules lay on the scenario's orders. */
export function firstHolds(world: Scenario) {
  const rules = firstHoldRules.map((r, i) => ({ ...r, id: `hold-rule-${i + 1}` }));
  const stopped = stoppedCustomer(world);
  return world.orders.flatMap((order) => {
    const value = order.lines.reduce(
      (n, l) => n + l.quantity * l.item.packs.find((p) => p.level === l.pack)!.units * l.item.valueMinor,
      0,
    );
    const { street, postcode, city } = order.shipTo;
    const values = { creditStop: order.customer === stopped, value: value / 100, street, postcode, city };
    return judgeHolds(rules, values, []).add.map((id) => {
      const { text, stops, lifters } = rules.find((r) => r.id === id)!;
      return { orderId: `order-${order.number.toLowerCase()}`, ruleId: id, text, stops, lifters };
    });
  });
}
