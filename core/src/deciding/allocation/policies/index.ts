/** How stock is shared out where it does not serve everybody. Apart from the computation, which is large. */
export const policies = ['priority', 'fair-share', 'most-orders'] as const;
export type Policy = (typeof policies)[number];
