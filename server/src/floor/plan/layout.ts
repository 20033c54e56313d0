import { isDeepStrictEqual } from 'node:util';
import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { FloorLayout, layoutBody, layoutChanged, zoneBinsBody } from '@hand-relay/contract';
import { mapFloor } from '@hand-relay/core/walking/floor';
import { notFound, recordset, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { floorOf } from './read.ts';

/** A site's layout as data. */
export async function layoutOf(on: Db | Tx, siteId: string): Promise<FloorLayout> {
  const { floor, start, finish } = await floorOf(on, siteId);
  return {
    aisles: floor.aisles,
    crossAisles: floor.crossAisles,
    blocked: floor.blocked ?? [],
    start,
    finish,
  };
}

/**
 * Changes the layout, and says how many waves were planned on the one before.
 *
 * @throws Refusal 422 `no-floor` when it is no floor, 409 `bins-off-floor` when bins would lie off it,
 *   `floor-moved` when it is not any more as it should have been
 */
export async function changeLayout(
  change: Change,
  { was, ...next }: z.output<typeof layoutBody>,
): Promise<z.output<typeof layoutChanged>> {
  const { tx, actor } = change;
  await tx.execute(sql`select 1 from site where id = ${actor.siteId} for update`);
  const before = await layoutOf(tx, actor.siteId);
  if (was && !isDeepStrictEqual(before, was)) throw new Refusal('floor-moved');
  const { start, finish, ...floor } = next;
  try {
    const map = mapFloor(floor);
    for (const place of finish ? [start, finish] : [start]) map.distance(place, place);
    if (finish && map.distance(start, finish) === Infinity)
      throw new RangeError('The finish cannot be reached from the start.');
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Refusal('no-floor', { why: error.message });
  }
  const off = await rows<{ bin: string }>(
    tx,
    sql`select code as bin from place where site_id = ${actor.siteId} and kind = 'bin' and not retired
        and (aisle not in (select a->>'id' from jsonb_array_elements(${recordset(floor.aisles)}) a)
             or y not between ${floor.crossAisles[0]!} and ${floor.crossAisles.at(-1)!}) order by code limit 5`,
  );
  if (off.length > 0) throw new Refusal('bins-off-floor', { bins: off.map((b) => b.bin).join(', ') });
  await tx.execute(sql`
    update site set floor = ${JSON.stringify(floor)}::jsonb, start = ${JSON.stringify(start)}::jsonb,
      finish = ${finish === null ? sql`null` : sql`${JSON.stringify(finish)}::jsonb`} where id = ${actor.siteId}`);
  const [waves] = await rows<{ n: number }>(
    tx,
    sql`select count(distinct r.wave_id)::int as n from run r where r.site_id = ${actor.siteId} and r.state in ('planned', 'waiting')`,
  );
  change.journal({ kind: 'floor-changed', facts: { before, after: next } });
  change.publish('setup', []);
  change.publish('waves', []);
  return { before, waves: waves!.n };
}

/** Puts bins into a zone. */
export async function zoneBins(
  change: Change,
  { bins, zone }: z.output<typeof zoneBinsBody>,
): Promise<{ changed: number }> {
  const { tx, actor } = change;
  const [found] = await rows<{ id: string }>(
    tx,
    sql`select id from zone where site_id = ${actor.siteId} and code = ${zone} and not retired`,
  );
  if (!found) throw notFound('zone', zone);
  const changed = await rows<{ code: string }>(
    tx,
    sql`update place set zone_id = ${found.id} where site_id = ${actor.siteId} and kind = 'bin' and code in (select jsonb_array_elements_text(${recordset(bins)}))
        and zone_id is distinct from ${found.id} returning code`,
  );
  change.journal({ kind: 'bins-zoned', facts: { zone, bins: changed.length } });
  change.publish('setup', []);
  return { changed: changed.length };
}

/**
 * Gives the floor the cross aisles that new aisles bring, before they are there. Aisles that ended at the last cross
 * aisle still end where they did.
 */
export async function addCrossAisles({ tx, actor }: Change, crossAisles: readonly number[]): Promise<void> {
  await tx.execute(sql`select 1 from site where id = ${actor.siteId} for update`);
  const { floor } = await floorOf(tx, actor.siteId);
  const last = floor.crossAisles.at(-1);
  const longer = floor.aisles.length > 0 && last !== undefined && crossAisles.at(-1)! > last;
  const next = {
    ...floor,
    crossAisles,
    aisles: longer ? floor.aisles.map((a) => ({ ...a, to: a.to ?? last })) : floor.aisles,
  };
  await tx.execute(sql`update site set floor = ${JSON.stringify(next)}::jsonb where id = ${actor.siteId}`);
}
