import { sql } from 'drizzle-orm';
import type { ReleasePreview } from '@hand-relay/contract';
import type { WavePlan } from '@hand-relay/core/waves';
import { recordset, Refusal, rows, type Actor, type Change, type Platform, type Tx } from '../platform/index.ts';
import { nextNumbers } from '../stock/index.ts';
import { allocate, type Allocation } from './demand.ts';
import { waveProblem } from './problem.ts';

function summarise({ lines }: Allocation, plan: WavePlan | null): ReleasePreview {
  const byOrder = new Map<string, Allocation['lines']>();
  for (const line of lines) byOrder.set(line.number, [...(byOrder.get(line.number) ?? []), line]);
  const given = lines.filter((l) => l.promise.units > 0);
  const groups = [...byOrder.values()];
  return {
    orders: groups.filter((g) => g.some((l) => l.promise.units > 0)).length,
    ordersComplete: groups.filter((g) => g.every((l) => l.promise.units === l.open)).length,
    lines: given.length,
    units: given.reduce((n, l) => n + l.promise.units, 0),
    runs: plan?.runs.length ?? 0,
    metres: plan?.runs.reduce((n, r) => n + r.distance, 0) ?? 0,
    weightG: given.reduce((n, l) => n + l.promise.units * l.weightG, 0),
    shorts: lines
      .filter((l) => l.promise.units < l.open)
      .map((l) => ({
        order: l.number,
        line: l.lineNumber,
        sku: l.sku,
        name: l.name,
        asked: l.open,
        gets: l.promise.units,
      })),
    nothing: [...byOrder].filter(([, g]) => g.every((l) => l.promise.units === 0)).map(([number]) => number),
  };
}

/** What a release of these orders would do: promises and runs, computed and not kept. */
export async function previewRelease(
  { db, compute }: Platform,
  actor: Actor,
  orderIds: string[],
): Promise<ReleasePreview> {
  const allocation = await allocate(db, actor.siteId, orderIds);
  if (allocation.lines.every((l) => l.promise.units === 0)) return summarise(allocation, null);
  const priorities = new Map(allocation.lines.map((l) => [l.order, l.priority]));
  const needs = allocation.lines.flatMap((l) =>
    l.promise.lots.map((part) => ({
      id: `${l.line} ${part.lot ?? ''}`,
      order: l.order,
      item: l.item,
      lot: part.lot,
      units: part.units,
      weightG: l.weightG,
      volumeCm3: l.volumeCm3,
    })),
  );
  const orders = [...priorities].map(([id, priority]) => ({ id, priority }));
  const plan = await compute.planWave(await waveProblem(db, actor.siteId, orders, needs));
  return summarise(allocation, plan);
}

/** Only one transaction at a time promises a site's stock. */
export async function lockStock(tx: Tx, siteId: string): Promise<void> {
  await tx.execute(sql`select 1 from site where id = ${siteId} for update`);
}

/**
 * Reserves stock for the orders lot by lot and puts them into a new wave. Lines that get nothing stay open.
 *
 * @throws Refusal 409 `nothing-to-release` when no line gets anything
 */
export async function release(
  change: Change,
  orderIds: string[],
): Promise<{ wave: string; number: number; preview: ReleasePreview }> {
  const { tx, actor, now } = change;
  await lockStock(tx, actor.siteId);
  const allocation = await allocate(tx, actor.siteId, orderIds);
  const given = allocation.lines.filter((l) => l.promise.units > 0);
  if (given.length === 0) throw new Refusal(409, 'nothing-to-release');
  const wave = change.newId();
  const [number] = await nextNumbers(change, 'wave', 1);
  await tx.execute(sql`
    insert into wave (id, site_id, number, state, created_at, created_by)
    values (${wave}, ${actor.siteId}, ${number}, 'gathering', ${now.toISOString()}, ${actor.personId})`);
  const parts = given.flatMap((l) =>
    l.promise.lots.map((part) => ({ line: l.line, item: l.item, lot: part.lot ?? '', units: part.units })),
  );
  // What was promised before the release is a part of the promise.
  await tx.execute(
    sql`delete from reservation where wave_id is null and line_id in (select jsonb_array_elements_text(${recordset(given.map((l) => l.line))}))`,
  );
  await tx.execute(sql`
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, firm)
    select ${wave}, line, ${actor.siteId}, item, lot, units, ${allocation.soft ? sql`0` : sql`units`}
    from jsonb_to_recordset(${recordset(parts)}) as r(line text, item text, lot text, units int)`);
  const lines = recordset(given.map((l) => ({ line: l.line, units: l.promise.units })));
  await tx.execute(sql`
    with given as (select * from jsonb_to_recordset(${lines}) as r(line text, units int)),
    kept as (insert into wave_line (wave_id, line_id, units) select ${wave}, line, units from given)
    update order_line l set released = l.released + g.units from given g where l.id = g.line`);
  const preview = summarise(allocation, null);
  const byOrder = new Map<string, { lines: number; units: number }>();
  for (const l of given) {
    const sum = byOrder.get(l.order) ?? { lines: 0, units: 0 };
    byOrder.set(l.order, { lines: sum.lines + 1, units: sum.units + l.promise.units });
  }
  change.journal(
    ...[...byOrder].map(([orderId, sum]) => ({
      kind: 'released',
      orderId,
      waveId: wave,
      facts: { wave: number, ...sum },
    })),
  );
  change.tell('orders', [...byOrder.keys()]);
  change.tell('waves', [wave]);
  change.tell('stock', []);
  return { wave, number: number!, preview };
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
  if (!wave) throw new Refusal(404, 'not-found', { what: 'wave', id });
  return wave;
}
