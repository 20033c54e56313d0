import { sql } from 'drizzle-orm';
import type { RaisedKind, SettledHow } from '@hand-relay/contract';
import { anyOf, rows, type Change } from '../../platform/index.ts';

export interface Raised {
  kind: RaisedKind;
  order?: string | null;
  line?: string | null;
  run?: string | null;
  pick?: string | null;
  /** Place id. */
  place?: string | null;
  item?: string | null;
  lot?: string;
  units?: number;
  reason?: string;
  note?: string;
  facts?: Record<string, unknown>;
}

/** Puts something that went wrong on the Desk's list, where it stands until somebody has dealt with it. */
export async function raiseException(change: Change, raised: Raised): Promise<void> {
  const { tx, actor, now } = change;
  const { order = null, line = null, run = null, pick = null, place = null, item = null } = raised;
  const id = change.newId();
  await tx.execute(sql`
    insert into exception (id, site_id, kind, at, person_id, order_id, line_id, run_id, pick_id, place_id, item_id, lot, units, reason, note, facts)
    values (${id}, ${actor.siteId}, ${raised.kind}, ${now.toISOString()}, ${actor.personId}, ${order}, ${line}, ${run}, ${pick}, ${place},
            ${item}, ${raised.lot ?? ''}, ${raised.units ?? 0}, ${raised.reason ?? ''}, ${raised.note ?? ''}, ${JSON.stringify(raised.facts ?? {})}::jsonb)`);
  change.publish('exceptions', [id]);
}

/** Of these orders, what is missing of no line any more, as it was released again or cancelled, is dealt with. */
export async function settleServed(change: Change, orders: readonly string[], how: SettledHow): Promise<void> {
  const { tx, actor, now } = change;
  const settled = await rows<{ id: string }>(
    tx,
    sql`
    update exception e set settled_at = ${now.toISOString()}, settled_by = ${actor.personId}, settled_how = ${how}
    where e.order_id = ${anyOf(orders)} and e.settled_at is null and e.kind in ('short', 'out')
      and not exists (select 1 from order_line l where l.order_id = e.order_id and (e.line_id is null or l.id = e.line_id)
                      and l.asked - l.cancelled > l.released)
    returning e.id`,
  );
  announceSettled(change, settled);
}

/** A bin was counted: what was taken from another bin for want of goods there needs nobody any more. */
export async function settleCounted(change: Change, at: { bin: string; item: string; lot: string }): Promise<void> {
  const { tx, actor, now } = change;
  const settled = await rows<{ id: string }>(
    tx,
    sql`update exception set settled_at = ${now.toISOString()}, settled_by = ${actor.personId}, settled_how = 'counted'
        where kind = 'elsewhere' and settled_at is null and place_id = ${at.bin} and item_id = ${at.item} and lot = ${at.lot} returning id`,
  );
  announceSettled(change, settled);
}

/** A cart that stood elsewhere than planned is empty. */
export async function settleCarts(change: Change, runs: readonly string[]): Promise<void> {
  const { tx, actor, now } = change;
  const settled = await rows<{ id: string }>(
    tx,
    sql`update exception set settled_at = ${now.toISOString()}, settled_by = ${actor.personId}, settled_how = 'packed'
        where kind = 'cart' and settled_at is null and run_id = ${anyOf(runs)} returning id`,
  );
  announceSettled(change, settled);
}

function announceSettled(change: Change, settled: readonly { id: string }[]): void {
  if (settled.length === 0) return;
  change.publish(
    'exceptions',
    settled.map((s) => s.id),
  );
}
