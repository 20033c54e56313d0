import { sql } from 'drizzle-orm';
import type { RunSummary } from '@hand-relay/contract';
import { mapFloor, type FloorMap, type Place } from '@hand-relay/core/walking/floor';
import { chain, takeUp, type ChainOptions, type Link } from '@hand-relay/core/walking/routing';
import { eitherWay } from '@hand-relay/core/walking/waves';
import { anyOf, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { standards, settingsOf } from '../../setup/settings/index.ts';
import { floorOf } from '../plan/index.ts';

/** Runs that are put into an order of their own; those after them come as they were planned. */
const AHEAD = 10;
/** Hours after which nobody stands any more where they scanned last. */
const STANDS = 4;

interface Chaining {
  options: ChainOptions<Place>;
  map: FloorMap;
}

/** How runs chain for somebody now: from where they scanned last, else from where runs begin; null where they do not. */
async function chainingFor(
  on: Db | Tx,
  siteId: string,
  person: string,
  now: Date,
): Promise<(Chaining & { across: boolean }) | null> {
  const { walking, carry } = await settingsOf(on, siteId);
  if (walking.between !== 'chain') return null;
  const { floor, start } = await floorOf(on, siteId);
  const map = mapFloor(floor);
  const [last] = await rows<{ at: Place }>(
    on,
    sql`select jsonb_build_object('aisle', b.aisle, 'y', b.y) as at from pick k join run r on r.id = k.run_id join place b on b.id = k.bin_id
        where r.site_id = ${siteId} and r.picker_id = ${person} and k.confirmed_at > ${new Date(now.getTime() - STANDS * 3_600_000).toISOString()}
        order by k.confirmed_at desc, k.sequence desc limit 1`,
  );
  const direction = eitherWay({ walking, carry }, map) ? 'alternate' : 'one';
  return {
    map,
    across: walking.acrossDepartures,
    options: { start: last?.at ?? start, distance: map.distance, direction },
  };
}

/** Runs as parts of a chain, those that are asked for. */
async function linksOf(on: Db | Tx, runs: readonly string[]): Promise<Map<string, Link<Place>>> {
  const found = await rows<{ id: string; metres: number; places: Place[] }>(
    on,
    sql`select r.id, r.metres, jsonb_agg(jsonb_build_object('aisle', b.aisle, 'y', b.y) order by k.sequence) as places
        from run r join pick k on k.run_id = r.id and k.state <> 'out' join place b on b.id = k.bin_id
        where r.id = ${anyOf(runs)} group by r.id`,
  );
  return new Map(
    found.map(({ id, metres, places }) => [id, { id, metres, from: places[0]!, to: places.at(-1)!, priority: 0 }]),
  );
}

/**
 * Waiting runs as somebody should take them: where runs chain, those as urgent as the first in the order of the least
 * walk. They leave with one departure, unless the site chains over several.
 */
export async function inChain(
  on: Db | Tx,
  siteId: string,
  person: string,
  waiting: RunSummary[],
  now: Date,
): Promise<RunSummary[]> {
  const chaining = waiting.length > 1 ? await chainingFor(on, siteId, person, now) : null;
  if (!chaining) return waiting;
  const alike = (run: RunSummary) =>
    run.priority === waiting[0]!.priority &&
    (chaining.across || run.leavesAt === waiting[0]!.leavesAt) &&
    run.assignedId === waiting[0]!.assignedId;
  const first = waiting.filter(alike).slice(0, AHEAD);
  const links = await linksOf(
    on,
    first.map((r) => r.id),
  );
  const { runs } = chain([...links.values()], chaining.options);
  const byId = new Map(first.map((r) => [r.id, r]));
  return [...runs.map(({ id }) => byId.get(id)!), ...waiting.filter((r) => !byId.has(r.id))];
}

/**
 * Where runs chain: turns a run that is taken up to the direction of the least walk over it and what waits after it, and
 * keeps how far it is to its first stop.
 *
 * @param after runs that wait for this person, in the order in which they are offered
 */
export async function walkUp(
  { tx, actor, now }: Change,
  run: string,
  after: readonly RunSummary[],
): Promise<{ backward: boolean } | null> {
  const chaining = await chainingFor(tx, actor.siteId, actor.personId, now);
  if (!chaining) return null;
  const next = after
    .filter((r) => r.id !== run)
    .slice(0, AHEAD)
    .map((r) => r.id);
  const links = await linksOf(tx, [run, ...next]);
  const own = links.get(run);
  if (!own) return null;
  const { backward, approach } = takeUp(
    own,
    next.flatMap((id) => links.get(id) ?? []),
    chaining.options,
  );
  if (backward)
    await tx.execute(sql`
      update pick k set sequence = o.n from (
        select id, row_number() over (order by sequence desc) as n from pick where run_id = ${run} and state <> 'out'
      ) o where k.id = o.id`);
  const path = backward
    ? sql`(select coalesce(jsonb_agg(p.corner order by p.n desc), '[]') from jsonb_array_elements(r.path) with ordinality p(corner, n))`
    : sql`r.path`;
  await tx.execute(sql`
    update run r set path = ${path}, seconds = r.seconds + (${approach}::float8 - coalesce(r.approach, 0)) / ${standards.speed}::float8, approach = ${approach}
    where r.id = ${run}`);
  return { backward };
}
