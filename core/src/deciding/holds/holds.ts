import { demandKinds } from '../../handling/shipping/index.ts';
import { meets, type ConditionField, type Conditions, type Values } from '../conditions/index.ts';

/** What a hold can stop. */
export const stages = ['release', 'picking', 'packing', 'shipping'] as const;
export type Stage = (typeof stages)[number];

/** What a hold's conditions can be put on: the order, its customer, and its lines, of which one is enough. */
export const holdFields = [
  { name: 'number', kind: 'text' },
  { name: 'channel', kind: 'choice' },
  { name: 'kind', kind: 'choice', of: demandKinds },
  { name: 'reference', kind: 'text' },
  { name: 'due', kind: 'date' },
  { name: 'departure', kind: 'text' },
  { name: 'carrier', kind: 'text' },
  { name: 'service', kind: 'text' },
  { name: 'tags', kind: 'text' },
  { name: 'priority', kind: 'number' },
  { name: 'value', kind: 'number' },
  { name: 'lines', kind: 'number' },
  { name: 'units', kind: 'number' },
  { name: 'note', kind: 'text' },
  { name: 'street', kind: 'text' },
  { name: 'postcode', kind: 'text' },
  { name: 'city', kind: 'text' },
  { name: 'country', kind: 'text' },
  { name: 'customer', kind: 'text' },
  { name: 'customerName', kind: 'text' },
  { name: 'class', kind: 'choice' },
  { name: 'creditStop', kind: 'yes-no' },
  { name: 'item', kind: 'text' },
  { name: 'itemName', kind: 'text' },
  { name: 'temperature', kind: 'choice', of: ['ambient', 'chilled'] },
  { name: 'handling', kind: 'choice', of: ['easy', 'heavy', 'two-person', 'fragile'] },
] as const satisfies readonly ConditionField[];

/** A hold as a rule of the site: where its conditions hold, it keeps an order from going on. */
export interface HoldRule {
  id: string;
  conditions: Conditions;
}

/** A hold that a rule laid on an order before; `lifted` says that a person let it go. */
export interface LaidHold {
  id: string;
  rule: string;
  lifted: boolean;
}

/**
 * What rules mean for an order now: which of them now hold it, and which holds have lost their reason. What a person
 * has lifted is not laid on again by the same rule.
 */
export function judgeHolds(
  rules: readonly HoldRule[],
  values: Values,
  laid: readonly LaidHold[],
): { add: string[]; gone: string[] } {
  const holding = new Set(rules.filter((r) => meets(r.conditions, holdFields, values)).map((r) => r.id));
  const there = new Set(laid.map((h) => h.rule));
  return {
    add: [...holding].filter((rule) => !there.has(rule)),
    gone: laid.filter((h) => !h.lifted && !holding.has(h.rule)).map((h) => h.id),
  };
}
