import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { releaseBody, releaseResult } from '@hand-relay/contract';
import { anyOf, recordset, Refusal, rows, type Change, type Tx } from '../../platform/index.ts';
import { settleServed } from '../exceptions/index.ts';
import { lockTotals, nextNumbers } from '../../stock/index.ts';
import { allocate, itemsOf } from './demand.ts';
import { sumsOf } from './sums.ts';

/** Only one transaction at a time promises a site's stock to orders; others may still take what nobody is promised. */
export async function lockStock(tx: Tx, siteId: string): Promise<void> {
  // Not against those who only refer to the site: they would wait for each other without need.
  await tx.execute(sql`select 1 from site where id = ${siteId} for no key update`);
}

/** Units that lines get exactly, by line. */
export const exactOf = ({ lines }: { lines: { line: string; units: number }[] }) =>
  new Map(lines.map((l) => [l.line, l.units]));

/** The wave that orders are released into: a new one, or one that still gathers. */
async function gathering(change: Change, id: string | null): Promise<{ wave: string; number: number }> {
  const { tx, actor } = change;
  if (id !== null) {
    const { state, number } = await lockWave(tx, actor.siteId, id);
    if (state !== 'gathering') throw new Refusal('wave-state', { state, number });
    await tx.execute(sql`update wave set version = version + 1 where id = ${id}`);
    return { wave: id, number };
  }
  return newWave(change);
}

/** Keeps others from changing what these orders ask while it is decided over. Named by id or by number. */
export async function lockOrders(
  tx: Tx,
  siteId: string,
  { ids = [], numbers = [] }: { ids?: readonly string[]; numbers?: readonly string[] },
): Promise<void> {
  await tx.execute(sql`
    select 1 from customer_order where site_id = ${siteId} and (id = ${anyOf(ids)}
      or number = ${anyOf(numbers)}) order by id for update`);
}

/** A wave that gathers and holds nothing yet, the last in the order of working. */
export async function newWave(change: Change): Promise<{ wave: string; number: number }> {
  const { tx, actor, now } = change;
  const wave = change.newId();
  const [number] = await nextNumbers(change, 'wave', 1);
  await tx.execute(sql`
    insert into wave (id, site_id, number, state, created_at, created_by, rank)
    select ${wave}, ${actor.siteId}, ${number}, 'gathering', ${now.toISOString()}, ${actor.personId},
           1 + coalesce((select max(rank) from wave where site_id = ${actor.siteId}), 0)`);
  return { wave, number: number! };
}

/**
 * Reserves stock for the orders lot by lot and puts them into a wave. Lines that get nothing stay open.
 *
 * @throws Refusal 409 `nothing-to-release` when no line gets anything
 */
export async function release(
  change: Change,
  body: Omit<z.output<typeof releaseBody>, 'start'>,
): Promise<z.input<typeof releaseResult>> {
  const { tx, actor } = change;
  await lockStock(tx, actor.siteId);
  await lockOrders(tx, actor.siteId, { ids: body.orders });
  await lockTotals(tx, actor.siteId, itemsOf(body.orders));
  const allocation = await allocate(tx, actor.siteId, body.orders, {
    exact: exactOf(body),
    toRelease: true,
    now: change.now,
  });
  const given = allocation.lines.filter((l) => l.allocation.units > 0);
  if (given.length === 0) throw new Refusal('nothing-to-release');
  const { wave, number } = await gathering(change, body.wave);
  const parts = given.flatMap((l) =>
    l.allocation.lots.map((part) => ({ line: l.line, item: l.item, lot: part.lot ?? '', units: part.units })),
  );
  // What was promised before the release is a part of the promise.
  await tx.execute(sql`delete from reservation where wave_id is null and line_id = ${anyOf(given.map((l) => l.line))}`);
  await tx.execute(sql`
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
    select ${wave}, line, ${actor.siteId}, item, lot, units, ${allocation.soft ? sql`0` : sql`units`}
    from jsonb_to_recordset(${recordset(parts)}) as r(line text, item text, lot text, units int)
    on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, hard_allocated = reservation.hard_allocated + excluded.hard_allocated`);
  const units = given.map((l) => ({ line: l.line, units: l.allocation.units }));
  const lines = recordset(units);
  await tx.execute(sql`
    with given as (select * from jsonb_to_recordset(${lines}) as r(line text, units int)),
    kept as (
      insert into wave_line as w (wave_id, line_id, units) select ${wave}, line, units from given
      on conflict (wave_id, line_id) do update set units = w.units + excluded.units
    )
    update order_line l set released = l.released + g.units, manually_allocated = null from given g where l.id = g.line`);
  const preview = sumsOf(allocation);
  const byOrder = new Map<string, { lines: number; units: number }>();
  for (const l of given) {
    const sum = byOrder.get(l.order) ?? { lines: 0, units: 0 };
    byOrder.set(l.order, { lines: sum.lines + 1, units: sum.units + l.allocation.units });
  }
  change.journal(
    ...[...byOrder].map(([orderId, sum]) => ({
      kind: 'released',
      orderId,
      waveId: wave,
      facts: { wave: number, ...sum },
    })),
  );
  await settleServed(change, [...byOrder.keys()], 'release');
  change.publish('orders', [...byOrder.keys()]);
  change.publish('waves', [wave]);
  change.publish('stock', []);
  return { wave, number, preview, given: units };
}

export interface WaveRow {
  id: string;
  number: number;
  state: 'gathering' | 'planned' | 'started' | 'done' | 'cancelled';
  version: number;
}

export async function lockWave(tx: Tx, siteId: string, id: string): Promise<WaveRow> {
  const [wave] = await rows<WaveRow>(
    tx,
    sql`select id, number, state, version from wave where id = ${id} and site_id = ${siteId} for update`,
  );
  if (!wave) throw new Refusal('not-found', { what: 'wave', id });
  return wave;
}
