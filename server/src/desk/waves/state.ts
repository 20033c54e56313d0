import { sql } from 'drizzle-orm';
import { settleCarts } from '../exceptions/index.ts';
import { recordset, Refusal, rows, type Change, type Tx } from '../../platform/index.ts';
import { lockWave } from './release.ts';

/** Shows a planned wave's runs to pickers. */
export async function startWave(change: Change, waveId: string): Promise<void> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  if (wave.state !== 'planned') throw new Refusal('wave-state', { state: wave.state, number: wave.number });
  await tx.execute(sql`update wave set state = 'started', version = version + 1 where id = ${waveId}`);
  await tx.execute(sql`update run set state = 'waiting' where wave_id = ${waveId} and state = 'planned'`);
  change.journal({ kind: 'wave-started', waveId, facts: { wave: wave.number } });
  change.publish('waves', [waveId]);
  change.publish('runs', []);
}

/** Takes a wave back: its reservations are freed and its orders open again. Refused once a picker has begun. */
export async function cancelWave(change: Change, waveId: string): Promise<void> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  if (wave.state === 'done' || wave.state === 'cancelled')
    throw new Refusal('wave-state', { state: wave.state, number: wave.number });
  const begun = await rows<{ number: string; picker: string | null }>(
    tx,
    sql`select r.number, p.name as picker from run r left join person p on p.id = r.picker_id
        where r.wave_id = ${waveId} and r.state in ('picking', 'left', 'done') order by r.number`,
  );
  if (begun.length > 0) throw new Refusal('wave-begun', { runs: begun });
  await tx.execute(
    sql`update pick k set state = 'out' from run r where r.id = k.run_id and r.wave_id = ${waveId} and k.state = 'open'`,
  );
  await tx.execute(sql`update run set state = 'cancelled' where wave_id = ${waveId}`);
  const lines = await rows<{ order: string }>(
    tx,
    sql`
    with freed as (delete from reservation where wave_id = ${waveId} returning line_id, units),
    sums as (select line_id, sum(units) as units from freed group by line_id)
    update order_line l set released = l.released - s.units from sums s where l.id = s.line_id returning l.order_id as "order"`,
  );
  await tx.execute(sql`update wave set state = 'cancelled', version = version + 1 where id = ${waveId}`);
  const orders = [...new Set(lines.map((l) => l.order))];
  change.journal(
    { kind: 'wave-cancelled', waveId, facts: { wave: wave.number } },
    ...orders.map((orderId) => ({ kind: 'taken-back', orderId, facts: { wave: wave.number } })),
  );
  change.publish('orders', orders);
  change.publish('waves', [waveId]);
  change.publish('runs', []);
  change.publish('stock', []);
}

/** Ends a wave of which no run has anything left to do. */
export async function endWaveIfDone(change: Change, waveId: string): Promise<void> {
  const ended = await rows<{ number: number }>(
    change.tx,
    sql`update wave w set state = 'done', version = version + 1
        where w.id = ${waveId} and w.state = 'started'
          and not exists (select 1 from run r where r.wave_id = w.id and r.state in ('planned', 'waiting', 'picking', 'left'))
        returning number`,
  );
  if (!ended[0]) return;
  change.journal({ kind: 'wave-done', waveId, facts: { wave: ended[0].number } });
  change.publish('waves', [waveId]);
}

export interface Back {
  waveId: string;
  lineId: string;
  lot: string;
  units: number;
}

/**
 * Takes units of a pick that will not be picked back to Desk: the reservation is freed and the line is open again.
 */
export const freeReservation = (tx: Tx, back: Back): Promise<void> => freeReservations(tx, [back]);

/** The same for many; of one line and lot in one wave several times is allowed. */
export async function freeReservations(tx: Tx, backs: readonly Back[]): Promise<void> {
  if (backs.every((b) => b.units === 0)) return;
  await tx.execute(sql`
    with back as (
      select "waveId" as wave, "lineId" as line, lot, sum(units)::int as units
      from jsonb_to_recordset(${recordset(backs)}) as b("waveId" text, "lineId" text, lot text, units int) group by 1, 2, 3
    ), freed as (
      update reservation r set units = r.units - b.units, hard_allocated = least(r.hard_allocated, r.units - b.units) from back b
      where r.wave_id = b.wave and r.line_id = b.line and r.lot = b.lot
    ), of_wave as (select wave, line, sum(units) as units from back group by 1, 2),
    less as (update wave_line w set units = w.units - o.units from of_wave o where w.wave_id = o.wave and w.line_id = o.line),
    of_line as (select line, sum(units) as units from back group by 1)
    update order_line l set released = l.released - o.units from of_line o where l.id = o.line`);
}

/** Ends an order's runs whose carts are empty for good (no open carton could put goods back), so that the carts are free. */
export async function endEmptyRuns(change: Change, orderId: string): Promise<void> {
  // Two who empty one cart at once would each see the other's carton still open: one waits, and looks after.
  await change.tx.execute(sql`
    select 1 from run where state = 'left' and id in (select run_id from run_position where order_id = ${orderId}) order by id for update`);
  const ended = await rows<{ id: string; waveId: string }>(
    change.tx,
    sql`
    update run r set state = 'done' where r.state = 'left'
      and r.id in (select q.run_id from run_position q where q.order_id = ${orderId})
      and not exists (select 1 from run_position q join balance b on b.place_id = q.place_id where q.run_id = r.id)
      and not exists (select 1 from run_position q join carton c on c.order_id = q.order_id where q.run_id = r.id and c.state = 'open')
    returning r.id, r.wave_id as "waveId"`,
  );
  await settleCarts(
    change,
    ended.map((r) => r.id),
  );
  for (const run of ended) {
    await endWaveIfDone(change, run.waveId);
    change.publish('runs', [run.id]);
  }
  if (ended.length > 0) change.publish('bench', [orderId]);
}
