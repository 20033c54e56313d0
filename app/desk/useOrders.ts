import { useEffect, useMemo } from 'react';
import type { OrderRow, OutlookRow } from '@hand-relay/contract';
import { readOrders, readOutlook, useAppSelector, useAppDispatch } from '../state/index.ts';
import { viewOf, type Listed, type Listing } from './listing.ts';

const made = new WeakMap<OrderRow, Listed>();

/** A row with its outlook: the same object for as long as neither changed, so that it is not drawn again. */
function asListed(row: OrderRow, outlook: OutlookRow | null, changed: boolean): Listed {
  const before = made.get(row);
  if (before?.outlook === outlook && before.changed === changed) return before;
  const listed = { ...row, outlook, changed };
  made.set(row, listed);
  return listed;
}

/** Orders of the list with their outlook, read and computed when the listing asks for another set of them. */
export function useOrders(listing: Listing) {
  const send = useAppDispatch();
  const { rows, status, read, reading, total, trouble } = useAppSelector((s) => s.orderList);
  const outlook = useAppSelector((s) => s.outlook);
  const wanted = listing.show === 'closed' ? 'closed' : 'open';
  useEffect(() => {
    if ((!read && !reading) || status !== wanted) void send(readOrders(wanted));
    // Read once for each status; live events keep it fresh from there.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [wanted]);
  const view = JSON.stringify(viewOf(listing));
  const compute = () => void send(readOutlook(viewOf(listing)));
  useEffect(() => {
    // The list comes first: it can be read and worked with while the rest is computed.
    if (read && wanted === 'open' && view !== outlook.view) compute();
    // Computed once for each view; after that when a person asks for it.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [view, wanted, read]);
  const listed = useMemo(
    () =>
      Object.values(rows).map((row) => asListed(row, outlook.rows[row.id] ?? null, outlook.changed[row.id] ?? false)),
    [rows, outlook.rows, outlook.changed],
  );
  return { listed, read, reading, total, trouble, outlook, compute, again: () => void send(readOrders(wanted)) };
}
