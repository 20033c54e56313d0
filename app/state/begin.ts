import { api } from './api.ts';
import { readOrders } from './orderList.ts';
import type { Store } from './store.ts';

/**
 * Asks at once for what the first screen will need, while the fonts come and the router wakes: who is signed in, and
 * on the Desk its open orders. Whoever is not signed in is told so by the first and gets nothing by the second.
 *
 * @param address path and search of the page
 */
export function begin(store: Store, address: string): void {
  void store.dispatch(api.endpoints.me.initiate());
  const { pathname, searchParams } = new URL(address, 'http://here');
  if (pathname === '/desk' && searchParams.get('show') !== 'closed') void store.dispatch(readOrders('open'));
}
