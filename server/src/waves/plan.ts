import { sql } from 'drizzle-orm';
import { freshProgress } from '@hand-relay/core/picking';
import type { WaveNeed, WavePlan } from '@hand-relay/core/waves';
import {
  change,
  notFound,
  recordset,
  Refusal,
  rows,
  type Actor,
  type Change,
  type Platform,
  type Repeat,
} from '../platform/index.ts';
import { nextNumbers } from '../stock/index.ts';
import { callSigns } from './callSigns.ts';
import { cartForPlanning, waveProblem } from './problem.ts';
import { lockWave } from './release.ts';
import { giveBackAll } from './state.ts';

interface Need extends WaveNeed {
  line: string;
  priority: number;
}

/** Times a plan is computed again because stock or work moved while it was computed. */
const ATTEMPTS = 3;

/**
 * Plans a wave: bins, runs and routes. The computing is done outside the transaction, in a thread of its own; the
 * writing checks that the wave and the bins are still as they were, else it computes again.
 */
export async function planWave(platform: Platform, actor: Actor, repeat: Repeat | null, waveId: string): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    const { version, state, number, needs } = await readNeeds(platform, actor.siteId, waveId);
    if (state !== 'gathering') {
      // A repeat of the request that planned it gets its answer; anybody else is told.
      await change(platform, actor, repeat, () => Promise.reject(new Refusal(409, 'wave-state', { state, number })));
      return;
    }
    const orders = [...new Map(needs.map((n) => [n.order, { id: n.order, priority: n.priority }])).values()];
    const plan = await platform.compute.planWave(await waveProblem(platform.db, actor.siteId, orders, needs));
    const kept = await change(platform, actor, repeat, async (current) => {
      const wave = await lockWave(current.tx, actor.siteId, waveId);
      if (wave.state !== 'gathering') throw new Refusal(409, 'wave-state', { state: wave.state, number: wave.number });
      if (wave.version !== version) throw new StalePlan();
      await writePlan(current, waveId, wave.number, plan, needs);
      return true;
    }).catch((error: unknown) => {
      if (error instanceof StalePlan) return false;
      throw error;
    });
    if (kept) return;
    if (attempt === ATTEMPTS) throw new Refusal(409, 'plan-stale');
  }
}

class StalePlan extends Error {}

async function readNeeds({ db }: Platform, siteId: string, waveId: string) {
  const [wave] = await rows<{ version: number; state: string; number: number }>(
    db,
    sql`select version, state, number from wave where id = ${waveId} and site_id = ${siteId}`,
  );
  if (!wave) throw notFound('wave', waveId);
  const needs = await rows<Need>(
    db,
    sql`
    select r.line_id || ' ' || r.lot as id, r.line_id as line, l.order_id as "order", r.item_id as item, nullif(r.lot, '') as lot,
           r.units, i.weight_g as "weightG", i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as "volumeCm3", o.priority
    from reservation r join order_line l on l.id = r.line_id join customer_order o on o.id = l.order_id join item i on i.id = r.item_id
    where r.wave_id = ${waveId} and r.units > 0 order by o.priority, o.id, l.line, r.lot`,
  );
  return { ...wave, needs };
}

async function writePlan(
  change: Change,
  waveId: string,
  waveNumber: number,
  plan: WavePlan,
  needs: Need[],
): Promise<void> {
  const { tx, actor } = change;
  const cart = await cartForPlanning(tx, actor.siteId);
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
    positions: cart.positions,
    metres: run.distance,
    path: run.path,
    stops: run.stops,
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
      return {
        id: change.newId(),
        run: runs[i]!.id,
        sequence: pick.sequence,
        order: need.order,
        line: need.line,
        item: need.item,
        lot: need.lot ?? '',
        bin: pick.bin,
        position: pick.position,
        units: pick.units,
      };
    }),
  );
  await tx.execute(sql`
    insert into run (id, site_id, wave_id, number, call_sign, state, positions, metres, path, stops)
    select id, ${actor.siteId}, ${waveId}, number, sign, 'planned', positions, metres, path, stops
    from jsonb_to_recordset(${recordset(runs)}) as r(id text, number text, sign text, positions int, metres float8, path jsonb, stops int)`);
  await tx.execute(sql`
    with p as (select * from jsonb_to_recordset(${recordset(positions)}) as r(run text, number int, "order" text, place text, code text)),
    placed as (insert into place (id, site_id, kind, code) select place, ${actor.siteId}, 'position', code from p returning id)
    insert into run_position (run_id, number, order_id, place_id) select p.run, p.number, p."order", p.place from p join placed on placed.id = p.place`);
  await tx.execute(sql`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, progress)
    select k.id, k.run, k.sequence, k."order", k.line, k.item, k.lot, b.id, k.position, k.units, ${JSON.stringify(freshProgress)}::jsonb
    from jsonb_to_recordset(${recordset(picks)}) as k(id text, run text, sequence int, "order" text, line text, item text, lot text, bin text, position int, units int)
    join place b on b.site_id = ${actor.siteId} and b.kind = 'bin' and b.code = k.bin`);
  const over = await rows<{ bin: string }>(
    tx,
    sql`
    select k.bin_id as bin from pick k where k.state = 'open' and k.bin_id in (select distinct k2.bin_id from pick k2 join run r on r.id = k2.run_id where r.wave_id = ${waveId})
    group by k.bin_id, k.item_id, k.lot
    having sum(k.units - k.picked) > coalesce((select sum(b.units) from balance b where b.place_id = k.bin_id and b.item_id = k.item_id and b.lot = k.lot), 0) limit 1`,
  );
  if (over.length > 0) throw new StalePlan();
  await giveBackMissing(change, waveId, plan, needOf);
  await tx.execute(sql`update wave set state = 'planned', version = version + 1 where id = ${waveId}`);
  change.journal({
    kind: 'wave-planned',
    waveId,
    facts: {
      wave: waveNumber,
      runs: runs.length,
      metres: Math.round(plan.runs.reduce((n, r) => n + r.distance, 0)),
      picks: picks.length,
    },
  });
  change.tell('waves', [waveId]);
  change.tell('runs', []);
  if (plan.missing.length > 0) change.tell('orders', []);
}

/** What is reserved and lies in no bin (it stands on a cart) cannot be picked in this wave: it goes back to Desk. */
async function giveBackMissing(
  change: Change,
  waveId: string,
  plan: WavePlan,
  needOf: Map<string, Need>,
): Promise<void> {
  if (plan.missing.length === 0) return;
  await giveBackAll(
    change.tx,
    plan.missing.map((m) => {
      const need = needOf.get(m.need)!;
      return { waveId, lineId: need.line, lot: need.lot ?? '', units: m.units };
    }),
  );
  for (const m of plan.missing) {
    const need = needOf.get(m.need)!;
    change.journal({ kind: 'no-bin', orderId: need.order, waveId, facts: { units: m.units, item: need.item } });
  }
}
