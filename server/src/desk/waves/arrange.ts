import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { splitWaveBody, waveWayBody } from '@hand-relay/contract';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { gatheredNeeds } from './needs.ts';
import { lockWave, newWave, type WaveRow } from './release.ts';
import { endWaveIfDone } from './state.ts';
import { moveUnits } from './units.ts';
import { foreseen } from './writePlan.ts';

function mustBe(wave: WaveRow, ...states: WaveRow['state'][]): void {
  if (!states.includes(wave.state)) throw new Refusal('wave-state', { state: wave.state, number: wave.number });
}

/** How a wave is picked and by whom. What shapes runs can be changed only while it gathers. */
export async function changeWave(change: Change, waveId: string, body: z.output<typeof waveWayBody>): Promise<void> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  mustBe(
    wave,
    'gathering',
    ...(body.picking === undefined && body.cart === undefined ? (['planned', 'started'] as const) : []),
  );
  if (body.cart) {
    const [cart] = await rows(tx, sql`select 1 from cart_type where id = ${body.cart}`);
    if (!cart) throw notFound('cart', body.cart);
  }
  const { picking = null, team = null } = body;
  await tx.execute(sql`
    update wave set picking = coalesce(${picking}, picking), team = coalesce(${team}, team),
      cart_type_id = ${body.cart === undefined ? sql`cart_type_id` : sql`${body.cart}`},
      people = ${body.people === undefined ? sql`people` : sql`${body.people}::int`}, version = version + 1
    where id = ${waveId}`);
  if (team !== null)
    await tx.execute(
      sql`update run set team = ${team} where wave_id = ${waveId} and state in ('planned', 'waiting') and assigned_id is null`,
    );
  change.journal({ kind: 'wave-changed', waveId, facts: { wave: wave.number, ...body } });
  change.publish('waves', [waveId]);
  change.publish('runs', []);
}

/** Gives up the runs of a wave that nobody has begun. */
export async function dropRuns(change: Change, waveId: string): Promise<void> {
  await change.tx.execute(sql`
    with gone as (update run set state = 'cancelled' where wave_id = ${waveId} and state in ('planned', 'waiting') returning id)
    update pick k set state = 'out' from gone g where k.run_id = g.id and k.state = 'open'`);
}

/** A wave that is planned gathers again. */
export async function reopenWave(change: Change, waveId: string): Promise<void> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  mustBe(wave, 'planned');
  await unplan(change, waveId);
  change.journal({ kind: 'wave-sent-back', waveId, facts: { wave: wave.number } });
  change.publish('waves', [waveId]);
  change.publish('runs', []);
}

async function unplan(change: Change, waveId: string): Promise<void> {
  await dropRuns(change, waveId);
  await change.tx.execute(
    sql`update wave set state = 'gathering', foreseen = null, version = version + 1 where id = ${waveId}`,
  );
}

/** Puts waves that are not started into one of them. */
export async function mergeWaves(change: Change, into: string, others: readonly string[]): Promise<void> {
  const { tx, actor } = change;
  const ids = [...new Set([into, ...others])].sort();
  if (ids.length < 2) throw new Refusal('nothing-to-merge');
  const waves = new Map<string, WaveRow>();
  for (const id of ids) waves.set(id, await lockWave(tx, actor.siteId, id));
  for (const wave of waves.values()) mustBe(wave, 'gathering', 'planned');
  for (const wave of waves.values()) if (wave.state === 'planned') await unplan(change, wave.id);
  const target = waves.get(into)!;
  for (const wave of waves.values()) {
    if (wave.id === into) continue;
    const needs = await gatheredNeeds(tx, wave.id);
    await moveUnits(
      tx,
      wave.id,
      into,
      needs.map((n) => ({ line: n.line, lot: n.lot ?? '', units: n.units })),
    );
    await tx.execute(sql`update wave set state = 'cancelled', version = version + 1 where id = ${wave.id}`);
    change.journal({ kind: 'wave-merged', waveId: wave.id, facts: { wave: wave.number, into: target.number } });
  }
  await tx.execute(sql`update wave set version = version + 1 where id = ${into}`);
  change.journal({ kind: 'wave-merged', waveId: into, facts: { wave: target.number, into: target.number } });
  change.publish('waves', ids);
  change.publish('runs', []);
}

/**
 * Makes a wave of its own out of orders of a gathering wave, or out of runs of a planned one.
 *
 * @throws Refusal 409 `nothing-to-split` when nothing, or all of it, would go
 */
export async function splitWave(
  change: Change,
  waveId: string,
  { orders, runs }: z.output<typeof splitWaveBody>,
): Promise<{ wave: string; number: number }> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  mustBe(wave, runs.length > 0 ? 'planned' : 'gathering');
  const moved =
    runs.length > 0
      ? await rows<{ line: string; lot: string; units: number; own: boolean }>(
          tx,
          sql`select k.line_id as line, k.lot, sum(k.units)::int as units, k.run_id = ${anyOf(runs)} as own
              from pick k join run r on r.id = k.run_id where r.wave_id = ${waveId} and r.state = 'planned' and k.state = 'open' group by 1, 2, 4`,
        )
      : (await gatheredNeeds(tx, waveId)).map((n) => ({
          line: n.line,
          lot: n.lot ?? '',
          units: n.units,
          own: orders.includes(n.order),
        }));
  const own = moved.filter((m) => m.own);
  if (own.length === 0 || own.length === moved.length) throw new Refusal('nothing-to-split');
  const made = await newWave(change);
  await tx.execute(sql`
    update wave w set state = o.state, picking = o.picking, cart_type_id = o.cart_type_id, team = o.team, people = o.people, entry_id = o.entry_id,
      day = o.day, foreseen = o.foreseen, rank = o.rank + 0.5 from wave o where w.id = ${made.wave} and o.id = ${waveId}`);
  await moveUnits(tx, waveId, made.wave, own);
  if (runs.length > 0)
    await tx.execute(sql`update run set wave_id = ${made.wave} where wave_id = ${waveId} and id = ${anyOf(runs)}`);
  if (runs.length > 0) for (const id of [waveId, made.wave]) await foreseeAnew(change, id);
  await tx.execute(sql`update wave set version = version + 1 where id = ${waveId}`);
  change.journal(
    { kind: 'wave-split', waveId, facts: { wave: wave.number, into: made.number } },
    { kind: 'wave-split', waveId: made.wave, facts: { wave: wave.number, into: made.number } },
  );
  await endWaveIfDone(change, waveId);
  change.publish('waves', [waveId, made.wave]);
  change.publish('runs', []);
  return made;
}

/** Each part of a wave that was split foresees its own runs, by the people that all were planned for. */
async function foreseeAnew({ tx, now }: Change, waveId: string): Promise<void> {
  const runs = await rows<{ seconds: number; metres: number; people: number }>(
    tx,
    sql`select r.seconds, r.metres + coalesce(r.approach, 0) as metres, coalesce((w.foreseen->>'people')::int, 1) as people
        from run r join wave w on w.id = r.wave_id where w.id = ${waveId} and r.state = 'planned'`,
  );
  const facts = foreseen(runs, runs[0]?.people ?? 1, now);
  await tx.execute(sql`update wave set foreseen = ${JSON.stringify(facts)}::jsonb where id = ${waveId}`);
}

/** Puts a wave before another in the order of working, or last. */
export async function placeWave(change: Change, waveId: string, before: string | null): Promise<void> {
  const { tx, actor } = change;
  const wave = await lockWave(tx, actor.siteId, waveId);
  const others = await rows<{ id: string }>(
    tx,
    sql`select id from wave where site_id = ${actor.siteId} and state in ('gathering', 'planned', 'started') and id <> ${waveId} order by rank, number for update`,
  );
  const ids = others.map((o) => o.id);
  const at = before === null ? ids.length : ids.indexOf(before);
  if (at < 0) throw notFound('wave', before!);
  ids.splice(at, 0, waveId);
  await tx.execute(sql`
    update wave w set rank = p.n from (select value as id, ordinality as n from jsonb_array_elements_text(${recordset(ids)}) with ordinality) p where w.id = p.id`);
  change.journal({ kind: 'wave-placed', waveId, facts: { wave: wave.number, place: at + 1 } });
  change.publish('waves', []);
}
