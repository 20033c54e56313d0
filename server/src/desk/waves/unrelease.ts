import { sql } from 'drizzle-orm';
import { unrelease, type Unpicked } from '@hand-relay/core/walking/waves';
import { anyOf, recordset, rows, type Change, type Tx } from '../../platform/index.ts';
import { endWaveIfDone, freeReservations } from './state.ts';

type Source = Unpicked & { waveId: string; lot: string; pick: string | null; run: string | null };

/** What of these lines is released and not picked, and where: gathered in waves, or open picks of runs. */
function unpickedOf(tx: Tx, lines: readonly string[], wave: string | null): Promise<Source[]> {
  const chosen = anyOf(lines);
  const ofWave = wave === null ? sql`` : sql`and w.id = ${wave}`;
  return rows<Source>(
    tx,
    sql`
    select r.line_id as line, 'gathering' as state, w.number as wave, 0 as sequence, r.units, w.id as "waveId", r.lot,
           null as pick, null as run
    from reservation r join wave w on w.id = r.wave_id
    where r.line_id = ${chosen} and w.state = 'gathering' and r.units > 0 ${ofWave}
    union all
    select * from (
      select k.line_id, r.state, w.number, k.sequence, k.units, w.id, k.lot, k.id, k.run_id
      from pick k join run r on r.id = k.run_id join wave w on w.id = r.wave_id
      where k.line_id = ${chosen} and k.state = 'open' and r.state in ('planned', 'waiting', 'picking') ${ofWave}
      order by k.id for update of k
    ) open`,
  );
}

/**
 * Takes released units that nobody has picked back to Desk, and ends runs and waves of which nothing is left.
 *
 * @param wanted units by line
 * @param options `begun`: whether runs being picked may lose stops too; `wave`: only out of this one
 * @returns what was taken, by line
 */
export async function unreleaseUnits(
  change: Change,
  wanted: ReadonlyMap<string, number>,
  { begun, wave = null }: { begun: boolean; wave?: string | null },
): Promise<Map<string, number>> {
  const { tx } = change;
  const lines = [...wanted].filter(([, units]) => units > 0).map(([line]) => line);
  if (lines.length === 0) return new Map();
  const taken = unrelease(wanted, await unpickedOf(tx, lines, wave), { begun });
  const picks = taken.filter(({ from }) => from.pick !== null);
  // Whoever has counted more than is asked now counts again: what is too much stays in the bin.
  await tx.execute(sql`
    update pick k set units = case when k.units > b.units then k.units - b.units else k.units end,
      state = case when k.units > b.units then k.state else 'out' end,
      progress = case when coalesce((k.progress->>'counted')::int, 0) > k.units - b.units and k.units > b.units then '{}'::jsonb else k.progress end
    from jsonb_to_recordset(${recordset(picks.map(({ from, units }) => ({ pick: from.pick, units })))}) as b(pick text, units int)
    where k.id = b.pick`);
  await freeReservations(
    tx,
    taken.map(({ from, units }) => ({ waveId: from.waveId, lineId: from.line, lot: from.lot, units })),
  );
  const waves = [...new Set(taken.map(({ from }) => from.waveId))];
  // A plan that is being computed for a wave must not be written over what was taken out of it.
  await tx.execute(sql`
    update wave set version = version + 1 where state = 'gathering' and id = ${anyOf(waves)}`);
  await endEmptyWaves(change, waves);
  await endRuns(change, [...new Set(picks.map(({ from }) => from.run!))]);
  if (waves.length > 0) change.publish('waves', waves);
  const sums = new Map<string, number>();
  for (const { from, units } of taken) sums.set(from.line, (sums.get(from.line) ?? 0) + units);
  return sums;
}

/** A wave that nobody has begun and that holds nothing any more is cancelled. */
async function endEmptyWaves({ tx }: Change, waves: string[]): Promise<void> {
  await tx.execute(sql`
    update wave w set state = 'cancelled' where w.state in ('gathering', 'planned') and w.id = ${anyOf(waves)}
      and not exists (select 1 from reservation r where r.wave_id = w.id and r.units > 0)`);
}

/** Ends runs of which nothing is left to do, and tells the devices that have the others. */
async function endRuns(change: Change, runs: string[]): Promise<void> {
  if (runs.length === 0) return;
  const empty = await rows<{ wave: string }>(
    change.tx,
    sql`update run r set state = 'cancelled' where r.id = ${anyOf(runs)}
          and r.state in ('planned', 'waiting', 'picking') and not exists (select 1 from pick k where k.run_id = r.id and k.state <> 'out')
        returning r.wave_id as wave`,
  );
  for (const wave of new Set(empty.map((e) => e.wave))) await endWaveIfDone(change, wave);
  change.publish('runs', runs);
}
