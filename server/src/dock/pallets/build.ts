import { sql } from 'drizzle-orm';
import type { StackVerdictAnswer } from '@hand-relay/contract';
import { judgeStack } from '@hand-relay/core/handling/pallets';
import { readCode } from '@hand-relay/core/reading/codes';
import { noteClosed, noteReopened } from '../../bench/packaging/index.ts';
import { anyOf, notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { nextNumbers, nextSscc } from '../../stock/index.ts';
import {
  cartonUnits,
  departureKey,
  palletRow,
  palletUnits,
  unitsOn,
  type PalletRow,
  type Unit,
} from '../units/index.ts';

/** What was put on so long ago is taken off by its own key. */
const UNDO_MS = 86_400_000;

/** How a pallet is planned, before it is begun. */
export type Planned = PalletRow['plan'];

/**
 * Begins a pallet.
 *
 * @throws Refusal 404 for no such type
 */
export async function openPallet(
  change: Change,
  { type, station, plan }: { type: string; station: string; plan: Planned },
): Promise<{ id: string; number: string }> {
  const { tx, actor, now } = change;
  const [known] = await rows<{ name: string }>(
    tx,
    sql`select name from pallet_type where id = ${type} and not retired`,
  );
  if (!known) throw notFound('pallet type', type);
  const id = change.newId();
  const [serial] = await nextNumbers(change, 'pallet', 1);
  const number = `P${String(serial).padStart(5, '0')}`;
  await tx.execute(sql`
    insert into pallet (id, site_id, number, type_id, state, plan, station, opened_at)
    values (${id}, ${actor.siteId}, ${number}, ${type}, 'open', ${JSON.stringify(plan)}::jsonb, ${station}, ${now.toISOString()})`);
  change.journal({ kind: 'pallet-opened', facts: { pallet: number, type: known.name, planned: plan.units.length } });
  change.publish('shipments', []);
  return { id, number };
}

/** Locks pallets, always in the order of their ids: after the orders of what is put onto them, as everywhere. */
async function lockPallets({ tx, actor }: Change, ids: readonly string[]): Promise<void> {
  await tx.execute(
    sql`select 1 from pallet where id = ${anyOf([...new Set(ids)])} and site_id = ${actor.siteId} order by id for update`,
  );
}

/** @throws Refusal 404 */
async function lockPallet(change: Change, id: string): Promise<PalletRow> {
  await lockPallets(change, [id]);
  return palletRow(change.tx, change.actor.siteId, id);
}

/**
 * The carton or pallet that an SSCC names, and the pallet that it is to go onto: the orders of the unit are locked, then
 * the pallet, the unit where that is one, and what it stands on now.
 *
 * @returns null for the unit where the number names none
 */
async function lockBoth(change: Change, sscc: string | undefined, palletId: string): Promise<[Unit | null, PalletRow]> {
  const { tx, actor } = change;
  const { siteId } = actor;
  const found = async (): Promise<Unit | null> =>
    sscc === undefined
      ? null
      : ((await cartonUnits(tx, siteId, sql`c.sscc = ${sscc}`))[0] ??
        (await palletUnits(tx, siteId, sql`p.sscc = ${sscc}`))[0] ??
        null);
  const seen = await found();
  if (seen)
    await tx.execute(sql`
      select 1 from customer_order where id in (select jsonb_array_elements_text(${JSON.stringify(seen.orders)}::jsonb)) order by id for update`);
  await lockPallets(change, [palletId, ...(seen ? [seen.id, seen.outer?.id ?? palletId] : [])]);
  // What both are now, with nobody else at them.
  return [await found(), await palletRow(tx, siteId, palletId)];
}

const isHeld = async ({ tx }: Change, { orders }: Unit): Promise<boolean> =>
  (
    await rows(
      tx,
      sql`select 1 from order_hold where order_id in (select jsonb_array_elements_text(${JSON.stringify(orders)}::jsonb))
            and lifted_at is null and 'shipping' = any(stops) limit 1`,
    )
  ).length > 0;

/** Pallets that a pallet stands on, up to the outermost. */
async function outersOf({ tx }: Change, id: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`with recursive up as (
          select outer_id as id from pallet where id = ${id} and outer_id is not null
          union select p.outer_id from up join pallet p on p.id = up.id where p.outer_id is not null
        ) select id from up`,
  );
  return found.map((f) => f.id);
}

/** Judges a scan at a pallet, and writes what it means. */
export async function stackInput(change: Change, palletId: string, text: string): Promise<StackVerdictAnswer> {
  const { tx, actor, now } = change;
  const code = readCode(text, now.getUTCFullYear());
  if (code.kind === 'command' && code.command === 'close') return closePallet(change, palletId);
  if (code.kind === 'command' && code.command === 'undo') return undo(change, palletId);
  const sscc = code.kind === 'gs1' ? code.sscc : undefined;
  const [unit, pallet] = await lockBoth(change, sscc, palletId);
  const on = await unitsOn(tx, actor.siteId, palletId);
  const verdict = judgeStack(
    {
      id: palletId,
      state: pallet.state,
      departure: on[0] && departureKey(on[0]),
      loadG: on.reduce((sum, u) => sum + u.weightG, 0),
      maxLoadG: pallet.maxLoadG,
      units: on.map((u) => u.id),
      planned: pallet.plan.units.map((u) => u.id),
      outers: await outersOf(change, palletId),
    },
    unit && {
      id: unit.id,
      state: unit.state,
      weightG: unit.weightG,
      departure: departureKey(unit),
      outer: unit.outer,
      held: await isHeld(change, unit),
    },
    text,
  );
  if (verdict.verdict === 'refused') {
    change.journal({
      kind: 'stack-refused',
      ...(unit?.orders.length === 1 ? { orderId: unit.orders[0]! } : {}),
      facts: { pallet: pallet.number, code: verdict.code, expected: verdict.expected, got: text },
    });
    return verdict;
  }
  await place(change, unit!, palletId);
  journalUnit(change, 'stacked', unit!, pallet.number);
  return { verdict: 'put', name: unit!.name, asPlanned: verdict.asPlanned, from: unit!.outer?.number ?? null };
}

/** Puts a unit onto a pallet, or takes it off: it stands on one at most. */
async function place({ tx }: Change, unit: Pick<Unit, 'id' | 'kind'>, pallet: string | null): Promise<void> {
  await tx.execute(
    unit.kind === 'carton'
      ? sql`update carton set pallet_id = ${pallet} where id = ${unit.id}`
      : sql`update pallet set outer_id = ${pallet} where id = ${unit.id}`,
  );
}

function journalUnit(change: Change, kind: 'stacked' | 'taken-off', unit: Unit, pallet: string): void {
  for (const orderId of unit.orders) change.journal({ kind, orderId, facts: { pallet, unit: unit.name } });
  change.publish('orders', unit.orders);
  change.publish('bench', unit.orders);
  change.publish('shipments', []);
}

/** Takes off again what was put on last. */
async function undo(change: Change, palletId: string): Promise<StackVerdictAnswer> {
  const { tx, actor, now } = change;
  const pallet = await lockPallet(change, palletId);
  const put = await rows<{ unit: string }>(
    tx,
    sql`select j.facts->>'unit' as unit from journal j where j.site_id = ${actor.siteId} and j.kind = 'stacked'
          and j.facts->>'pallet' = ${pallet.number} and j.at > ${new Date(now.getTime() - UNDO_MS).toISOString()}::timestamptz order by j.id desc`,
  );
  const on = await unitsOn(tx, actor.siteId, palletId);
  const unit = put.map((p) => on.find((u) => u.name === p.unit)).find((u) => u !== undefined);
  if (pallet.state !== 'open') return { verdict: 'refused', code: 'pallet-closed', expected: '', got: '' };
  if (!unit) return { verdict: 'refused', code: 'nothing-to-undo', expected: '', got: '' };
  await place(change, unit, null);
  journalUnit(change, 'taken-off', unit, pallet.number);
  return { verdict: 'taken-off', name: unit.name };
}

/** @throws Refusal 404 where it does not stand on it, 409 `pallet-closed` */
export async function takeOff(change: Change, palletId: string, unitId: string): Promise<void> {
  const pallet = await lockPallet(change, palletId);
  if (pallet.state !== 'open') throw new Refusal('pallet-closed', { pallet: pallet.number });
  const unit = (await unitsOn(change.tx, change.actor.siteId, palletId)).find((u) => u.id === unitId);
  if (!unit) throw notFound('unit', unitId);
  await place(change, unit, null);
  journalUnit(change, 'taken-off', unit, pallet.number);
}

/** Closes a pallet: it gets its number. An empty one is discarded. */
async function closePallet(change: Change, palletId: string): Promise<StackVerdictAnswer> {
  const { tx, actor, now } = change;
  const pallet = await lockPallet(change, palletId);
  if (pallet.state !== 'open') return { verdict: 'refused', code: 'pallet-closed', expected: '', got: '' };
  const on = await unitsOn(tx, actor.siteId, palletId);
  change.publish('shipments', []);
  if (on.length === 0) {
    await tx.execute(sql`delete from pallet where id = ${palletId}`);
    change.journal({ kind: 'pallet-discarded', facts: { pallet: pallet.number } });
    return { verdict: 'discard' };
  }
  const sscc = await nextSscc(change);
  const weightG = pallet.tareG + on.reduce((sum, u) => sum + u.weightG, 0);
  await tx.execute(sql`
    update pallet set state = 'closed', sscc = ${sscc}, weight_g = ${weightG}, closed_at = ${now.toISOString()}, closed_by = ${actor.personId}
    where id = ${palletId}`);
  await noteClosed(change, 'pallet', palletId);
  const facts = { pallet: pallet.number, sscc, weightG, units: on.length };
  for (const orderId of new Set(on.flatMap((u) => u.orders))) change.journal({ kind: 'pallet-closed', orderId, facts });
  return { verdict: 'close', sscc, name: pallet.number };
}

/** A closed pallet that stands on nothing, whose label is void from now on. */
async function voidOf(change: Change, palletId: string): Promise<PalletRow> {
  const pallet = await lockPallet(change, palletId);
  if (pallet.outer) throw new Refusal('on-pallet', { pallet: pallet.outer.number });
  if (pallet.state !== 'closed') throw new Refusal('pallet-state', { pallet: pallet.number, state: pallet.state });
  await change.tx.execute(sql`
    insert into void_label (sscc, site_id, name, at) values (${pallet.sscc}, ${change.actor.siteId}, ${pallet.number}, ${change.now.toISOString()})`);
  await noteReopened(change, palletId);
  change.publish('shipments', []);
  return pallet;
}

/** Opens a closed pallet again; closed once more it gets another number. */
export async function reopenPallet(change: Change, palletId: string): Promise<void> {
  const pallet = await voidOf(change, palletId);
  await change.tx.execute(
    sql`update pallet set state = 'open', sscc = null, weight_g = null, closed_at = null, closed_by = null where id = ${palletId}`,
  );
  change.journal({ kind: 'pallet-reopened', facts: { pallet: pallet.number, sscc: pallet.sscc } });
}

/** Breaks up a pallet: all that stood on it stands alone. The trail of each order keeps that it was on it. */
export async function breakPallet(change: Change, palletId: string): Promise<void> {
  const pallet = await voidOf(change, palletId);
  for (const unit of await unitsOn(change.tx, change.actor.siteId, palletId)) {
    await place(change, unit, null);
    journalUnit(change, 'taken-off', unit, pallet.number);
  }
  await change.tx.execute(sql`delete from pallet where id = ${palletId}`);
  change.journal({ kind: 'pallet-broken', facts: { pallet: pallet.number, sscc: pallet.sscc } });
}
