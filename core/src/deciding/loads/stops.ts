/** Where an order is delivered. */
export interface Address {
  street: string;
  postcode: string;
  city: string;
  country: string;
}

const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** One delivery stop is one address: spaces, hyphens and case make no second one, nor does who receives there. */
export const addressKey = ({ street, postcode, city, country }: Address): string =>
  [country, postcode, city, street].map(plain).join('|');

/**
 * Numbers the stops of a load.
 *
 * @param orders with the stop that each has, or null where it joins now; numbers need not be without gaps
 * @returns the stop of each order, 1 for the first delivered, without gaps. An order that joins goes to the stop that its
 *   address has, or to a new one behind all others.
 */
export function numberStops(orders: readonly { address: Address; stop: number | null }[]): number[] {
  const known = new Map<string, number>();
  for (const { address, stop } of orders) {
    const key = addressKey(address);
    if (stop !== null) known.set(key, Math.min(stop, known.get(key) ?? Infinity));
  }
  let next = Math.max(0, ...known.values());
  for (const { address } of orders) {
    const key = addressKey(address);
    if (!known.has(key)) known.set(key, ++next);
  }
  // Two addresses with one number, as one was changed since, are two stops, the earlier one first.
  const ranks = new Map([...known].sort((a, b) => a[1] - b[1]).map(([key], i) => [key, i + 1]));
  return orders.map(({ address }) => ranks.get(addressKey(address))!);
}

/**
 * The part of a postcode that names a district: its first letters, or its first two digits where it begins with one
 * (common practice, no source). Empty where there is no postcode.
 */
export function areaOf(postcode: string): string {
  const code = postcode.trim().toUpperCase();
  return /^\p{L}+/u.exec(code)?.[0] ?? /^\d{1,2}/.exec(code)?.[0] ?? '';
}
