/** The places of a cart as they are seen from its front: counted from the top left, row by row. */
export interface CartFront {
  columns: number;
  rows: number;
}

/**
 * The grid of a cart's places.
 *
 * @param places how many it has
 * @param across how many are side by side; where nobody said, a front that is a little wider than high
 */
export function cartFront(places: number, across: number | null): CartFront {
  const columns = Math.min(places, across ?? Math.ceil(Math.sqrt(places * 1.2)));
  return { columns, rows: Math.ceil(places / columns) };
}
