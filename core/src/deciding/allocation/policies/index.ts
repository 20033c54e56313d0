/**
 * How stock is shared out where it does not serve everybody, as the planner's format has it. Apart from the computation,
 * which is large.
 */
export const policies = ['priority', 'fair-share', 'most-orders'] as const;
export type Policy = (typeof policies)[number];

/** In which order orders are served, beside their priority. */
export const servings = ['customer-class', 'ship-date', 'order-age'] as const;
export type Serving = (typeof servings)[number];

/** What the Desk offers: in an order of serving, in proportion, or by search. */
export const deskPolicies = ['priority', ...servings, 'fair-share', 'most-orders'] as const;
export type DeskPolicy = (typeof deskPolicies)[number];
