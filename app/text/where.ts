/** Where goods are: the carts that have them with their lanes, else the lane that is planned; a dash where neither is known. */
export function whereOf({ lane, carts }: { lane: string | null; carts: { cart: string; lane: string }[] }): string {
  return carts.length > 0 ? carts.map((c) => `${c.lane} (${c.cart})`).join(', ') : (lane ?? '–');
}
