import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { saveViewBody, SavedView } from '@hand-relay/contract';
import { notFound, rows, type Actor, type Change, type Db, type Tx } from '../../platform/index.ts';

/** A person's own views at a site, and those that others share. */
export async function viewsOf(on: Db | Tx, { personId, siteId }: Actor): Promise<{ views: SavedView[] }> {
  const views = await rows<SavedView>(
    on,
    sql`select id, list, name, settings, shared, person_id = ${personId} as mine from saved_view
        where site_id = ${siteId} and (person_id = ${personId} or shared) order by name, person_id = ${personId} desc`,
  );
  return { views };
}

export async function saveView(change: Change, view: z.output<typeof saveViewBody>) {
  const { tx, actor, newId } = change;
  await tx.execute(sql`
    insert into saved_view (id, person_id, site_id, list, name, settings, shared)
    values (${newId()}, ${actor.personId}, ${actor.siteId}, ${view.list}, ${view.name}, ${JSON.stringify(view.settings)}::jsonb, ${view.shared})
    on conflict (person_id, site_id, list, name) do update set settings = excluded.settings, shared = excluded.shared`);
  change.publish('views', [actor.personId]);
  return viewsOf(tx, actor);
}

export async function deleteView(change: Change, id: string) {
  const { tx, actor } = change;
  const dropped = await rows(
    tx,
    sql`delete from saved_view where id = ${id} and person_id = ${actor.personId} returning id`,
  );
  if (dropped.length === 0) throw notFound('view', id);
  change.publish('views', [actor.personId]);
  return viewsOf(tx, actor);
}
