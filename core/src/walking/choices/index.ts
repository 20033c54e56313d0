/**
 * Ways to pick. `single`: one order a run; `sort`: several orders, each into its own position of the cart;
 * `consolidate`: all together, sorted afterwards at the bench; `zones`: each area of the site by itself, the parts of an
 * order meeting at staging.
 */
export const pickings = ['single', 'sort', 'consolidate', 'zones'] as const;
export type Picking = (typeof pickings)[number];

/** What a site minds on the way. */
export interface Carry {
  /** Heavy goods are picked before others, fragile ones after. */
  heavyFirst: boolean;
  /** Chilled goods are picked last. */
  chilledLast: boolean;
  /** What lies above `HIGH_LEVEL` is picked in one stretch of the run. */
  highTogether: boolean;
}

/** How runs are walked. */
export interface Walking {
  /** Along the shortest walk, or by the numbers that the site's bins carry. */
  by: 'shortest' | 'sequence';
  /** Every run from the start and to the finish, or each from where the last one ended, without a walk back. */
  between: 'home' | 'chain';
  /** Where runs chain: walked either way round, whichever is the least walk over all, or always one way. */
  direction: 'alternate' | 'one';
  /** Where runs chain: also those of different departures, as long as they are as urgent otherwise. */
  acrossDepartures: boolean;
}
export const usualWalking: Walking = {
  by: 'shortest',
  between: 'home',
  direction: 'alternate',
  acrossDepartures: false,
};
