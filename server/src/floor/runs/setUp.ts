import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { setUpBody } from '@hand-relay/contract';
import { judgeSetUp, type CartPlace, type CartSetUp } from '@hand-relay/core/handling/picking';
import { anyOf, recordset, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { shareRun } from './arrange.ts';
import { lockRun, mustBeMine } from './lock.ts';

/** The cart of a run as it is set up; null where the site asks for none, or its goods lie together. */
export async function setUpOf(on: Db | Tx, siteId: string, runId: string): Promise<CartSetUp | null> {
  if ((await settingsOf(on, siteId)).setUp === 'none') return null;
  const [cart] = await rows<{ cart: string; size: number }>(
    on,
    sql`select r.cart_code as cart, t.positions as size from run r join cart c on c.site_id = r.site_id and c.code = r.cart_code
        join cart_type t on t.id = c.type_id where r.id = ${runId} and r.picking <> 'consolidate'`,
  );
  if (!cart) return null;
  const places = await rows<CartPlace>(
    on,
    sql`select q.order_id as "order", o.number, q.number as place, q.ready_at is not null as ready from run_position q
        join customer_order o on o.id = q.order_id where q.run_id = ${runId}
          and exists (select 1 from pick k where k.run_id = q.run_id and k.order_id = q.order_id and k.state <> 'out') order by q.number`,
  );
  return { ...cart, places };
}

/** An order gets its place on the cart, by what was scanned; or all get those of the plan, by one touch. */
export async function setUpCart(
  change: Change,
  runId: string,
  { text, chosen }: z.output<typeof setUpBody>,
): Promise<{ set: string[] }> {
  const { tx, actor, now } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustBeMine(run, actor.personId);
  const setUp = await setUpOf(tx, actor.siteId, runId);
  if (!setUp) throw new Refusal('nothing-to-set-up', { run: run.number });
  let given = setUp.places.filter((p) => !p.ready && p.place <= setUp.size);
  if (text !== null) {
    const verdict = judgeSetUp(setUp, chosen, text, now.getUTCFullYear());
    if (verdict.verdict === 'refused')
      throw new Refusal(verdict.code, { expected: verdict.expected, got: verdict.got });
    if (verdict.verdict === 'chosen') return { set: [] };
    const order = setUp.places.find((p) => p.order === verdict.order)!;
    await renumber(change, runId, [
      { order: verdict.order, place: verdict.place },
      ...(verdict.swapped ? [verdict.swapped] : []),
    ]);
    given = [{ ...order, place: verdict.place }];
  }
  await tx.execute(sql`
    update run_position set ready_at = ${now.toISOString()}
    where run_id = ${runId} and order_id = ${anyOf(given.map((p) => p.order))}`);
  change.journal(
    ...given.map((p) => ({
      kind: 'place-set',
      orderId: p.order,
      runId,
      waveId: run.waveId,
      facts: { run: run.number, cart: setUp.cart, place: p.place },
    })),
  );
  change.publish('picks', [runId]);
  return { set: given.map((p) => p.order) };
}

/** Gives orders of a run other places; two may change theirs for each other. */
async function renumber(change: Change, runId: string, places: { order: string; place: number }[]): Promise<void> {
  const given = sql`jsonb_to_recordset(${recordset(places)}) as g("order" text, place int)`;
  // A place is one order's: they step aside before they stand in each other's.
  await change.tx.execute(sql`
    with named as (
      update place p set code = q.place_id from run_position q join ${given} on q.order_id = g."order"
      where q.run_id = ${runId} and p.id = q.place_id)
    update run_position q set number = -q.number from ${given} where q.run_id = ${runId} and q.order_id = g."order"`);
  await change.tx.execute(sql`
    with named as (
      update place p set code = r.number || '-' || g.place from run_position q join run r on r.id = q.run_id join ${given} on q.order_id = g."order"
      where q.run_id = ${runId} and p.id = q.place_id),
    picks as (update pick k set position = g.place from ${given} where k.run_id = ${runId} and k.order_id = g."order")
    update run_position q set number = g.place from ${given} where q.run_id = ${runId} and q.order_id = g."order"`);
}

/**
 * What found no place on the cart waits as a run of its own.
 *
 * @throws Refusal 409 `nothing-to-leave` when all have a place, or none has
 */
export async function leaveBehind(change: Change, runId: string): Promise<{ run: string }> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustBeMine(run, actor.personId);
  const setUp = await setUpOf(tx, actor.siteId, runId);
  const open = setUp?.places.filter((p) => !p.ready).map((p) => p.order) ?? [];
  if (!setUp || open.length === 0 || open.length === setUp.places.length)
    throw new Refusal('nothing-to-leave', { run: run.number });
  const [picked] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state in ('done', 'short')
          and order_id = ${anyOf(open)}`,
  );
  if (picked!.picks > 0) throw new Refusal('run-begun', { run: run.number, picks: picked!.picks });
  return { run: await shareRun(change, run, open) };
}
