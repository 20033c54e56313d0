import { sql } from 'drizzle-orm';
import { forecast } from '@hand-relay/core/walking/labour';
import { freshProgress } from '@hand-relay/core/handling/picking';
import type { WavePlan } from '@hand-relay/core/walking/waves';
import { recordset, rows, type Change } from '../../platform/index.ts';
import { nextNumbers } from '../../stock/index.ts';
import type { Foreseen } from '../../tables/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { callSigns } from './callSigns.ts';
import type { Need, WaveHead } from './needs.ts';
import { cartForPlanning } from './problem.ts';
import { freeReservations } from './state.ts';

/** Priority of an order about which nobody said anything; lower ones are more urgent. */
const USUAL_PRIORITY = 5;

/** Stock or work moved while a plan was computed: it no longer fits. */
export class StalePlan extends Error {}

/** Runs of a plan as they count in what it foresees. */
export const plannedSums = ({ runs }: WavePlan) =>
  runs.map(({ seconds, distance, approach }) => ({ seconds, metres: distance + approach }));

/** What runs foresee, by the people that they were planned for. */
export function foreseen(runs: readonly { seconds: number; metres: number }[], people: number, now: Date): Foreseen {
  const { ends, early, late } = forecast(
    runs.map(({ seconds }) => ({ seconds })),
    Math.max(1, people),
  );
  const at = (seconds: number | null) => Math.round(now.getTime() + 1000 * (seconds ?? 0));
  return {
    seconds: Math.round(runs.reduce((n, r) => n + r.seconds, 0)),
    metres: runs.reduce((n, r) => n + r.metres, 0),
    people: Math.max(1, people),
    ends: at(ends),
    early: at(early),
    late: at(late),
  };
}

/**
 * Writes a plan's runs into a wave, with their positions and picks.
 *
 * @throws StalePlan when a bin holds less than open picks would take from it now
 */
export async function writeRuns(
  change: Change,
  {
    wave,
    waveId,
    plan,
    needs,
    state,
  }: { wave: WaveHead; waveId: string; plan: WavePlan; needs: readonly Need[]; state: 'planned' | 'waiting' },
): Promise<{ runs: number; picks: number }> {
  const { tx, actor } = change;
  const cart = await cartForPlanning(tx, actor.siteId, wave.cartTypeId);
  const { walking: settings } = await settingsOf(tx, actor.siteId);
  const numbers = await nextNumbers(change, 'run', plan.runs.length);
  const taken = await rows<{ sign: string }>(
    tx,
    sql`select call_sign as sign from run where site_id = ${actor.siteId} and state not in ('done', 'cancelled')`,
  );
  const signs = callSigns(plan.runs.length, new Set(taken.map((t) => t.sign)), numbers[0] ?? 0);
  const needOf = new Map(needs.map((n) => [n.id, n]));
  const runs = plan.runs.map((run, i) => ({
    id: change.newId(),
    number: String(numbers[i]!).padStart(4, '0'),
    sign: signs[i]!,
    positions: Math.max(wave.picking === 'consolidate' ? 1 : cart.positions, run.orders.length),
    metres: run.distance,
    bound: run.lowerBound,
    proven: run.proven,
    path: run.path,
    stops: run.stops,
    seconds: run.seconds,
    approach: settings.between === 'chain' ? run.approach : null,
    area: run.area,
    rank: i,
  }));
  const positions = plan.runs.flatMap((run, i) =>
    run.orders.map((order, p) => ({
      run: runs[i]!.id,
      number: p + 1,
      order,
      place: `position-${runs[i]!.id}-${p + 1}`,
      code: `${runs[i]!.number}-${p + 1}`,
    })),
  );
  const picks = plan.runs.flatMap((run, i) =>
    run.picks.map((pick) => {
      const need = needOf.get(pick.need)!;
      const { sequence, bin, position, units, why, saves } = pick;
      const { order, line, item } = need;
      return {
        id: change.newId(),
        run: runs[i]!.id,
        sequence,
        order,
        line,
        item,
        lot: need.lot ?? '',
        bin,
        position,
        units,
        why,
        saves,
      };
    }),
  );
  await tx.execute(sql`
    insert into run (id, site_id, wave_id, number, call_sign, state, positions, metres, path, stops, team, rank, picking, area, lower_bound, proven, seconds, approach)
    select id, ${actor.siteId}, ${waveId}, number, sign, ${state}, positions, metres, path, stops, ${wave.team}, rank, ${wave.picking}, area, bound, proven, seconds, approach
    from jsonb_to_recordset(${recordset(runs)}) as r(id text, number text, sign text, positions int, metres float8, path jsonb, stops int,
      rank float8, area text, bound float8, proven boolean, seconds float8, approach float8)`);
  await tx.execute(sql`
    with p as (select * from jsonb_to_recordset(${recordset(positions)}) as r(run text, number int, "order" text, place text, code text)),
    placed as (insert into place (id, site_id, kind, code) select place, ${actor.siteId}, 'position', code from p returning id)
    insert into run_position (run_id, number, order_id, place_id) select p.run, p.number, p."order", p.place from p join placed on placed.id = p.place`);
  // A run is as urgent as the most urgent of its orders: it is offered first, and its cart goes to the express lane.
  await tx.execute(sql`
    update run r set priority = ${USUAL_PRIORITY} - p.least from (
      select q.run_id, min(o.priority) as least from run_position q join run n on n.id = q.run_id and n.wave_id = ${waveId}
      join customer_order o on o.id = q.order_id group by 1) p where r.id = p.run_id and p.least < ${USUAL_PRIORITY}`);
  await tx.execute(sql`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, progress, why, saves)
    select k.id, k.run, k.sequence, k."order", k.line, k.item, k.lot, b.id, k.position, k.units, ${JSON.stringify(freshProgress)}::jsonb, k.why, k.saves
    from jsonb_to_recordset(${recordset(picks)}) as k(id text, run text, sequence int, "order" text, line text, item text, lot text, bin text,
      position int, units int, why text, saves real)
    join place b on b.site_id = ${actor.siteId} and b.kind = 'bin' and b.code = k.bin`);
  await mustHold(change, waveId);
  await giveBackMissing(change, waveId, plan, needOf);
  for (const { order, ...facts } of plan.split) change.journal({ kind: 'order-larger', orderId: order, waveId, facts });
  return { runs: runs.length, picks: picks.length };
}

async function mustHold({ tx }: Change, waveId: string): Promise<void> {
  const over = await rows<{ bin: string }>(
    tx,
    sql`
    select k.bin_id as bin from pick k where k.state = 'open' and k.bin_id in (select distinct k2.bin_id from pick k2 join run r on r.id = k2.run_id where r.wave_id = ${waveId})
    group by k.bin_id, k.item_id, k.lot
    having sum(k.units - k.picked) > coalesce((select sum(b.units) from balance b where b.place_id = k.bin_id and b.item_id = k.item_id and b.lot = k.lot), 0) limit 1`,
  );
  if (over.length > 0) throw new StalePlan();
}

/** What is reserved and lies in no bin (it stands on a cart) cannot be picked in this wave: it goes back to Desk. */
async function giveBackMissing(
  change: Change,
  waveId: string,
  { missing }: WavePlan,
  needOf: ReadonlyMap<string, Need>,
): Promise<void> {
  if (missing.length === 0) return;
  await freeReservations(
    change.tx,
    missing.map((m) => {
      const need = needOf.get(m.need)!;
      return { waveId, lineId: need.line, lot: need.lot ?? '', units: m.units };
    }),
  );
  for (const m of missing) {
    const need = needOf.get(m.need)!;
    change.journal({ kind: 'no-bin', orderId: need.order, waveId, facts: { units: m.units, item: need.item } });
  }
  change.publish('orders', []);
}
