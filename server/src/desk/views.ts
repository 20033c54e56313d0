import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { keepViewBody, KeptView } from '@hand-relay/contract';
import { notFound, rows, type Actor, type Change, type Db, type Tx } from '../platform/index.ts';

/** A person's own views at a site. */
export async function viewsOf(on: Db | Tx, { personId, siteId }: Actor): Promise<{ views: KeptView[] }> {
  const views = await rows<KeptView>(
    on,
    sql`select id, list, name, settings from kept_view where person_id = ${personId} and site_id = ${siteId} order by name`,
  );
  return { views };
}

export async function keepView({ tx, actor, newId }: Change, view: z.output<typeof keepViewBody>) {
  await tx.execute(sql`
    insert into kept_view (id, person_id, site_id, list, name, settings)
    values (${newId()}, ${actor.personId}, ${actor.siteId}, ${view.list}, ${view.name}, ${JSON.stringify(view.settings)}::jsonb)
    on conflict (person_id, site_id, list, name) do update set settings = excluded.settings`);
  return viewsOf(tx, actor);
}

export async function dropView({ tx, actor }: Change, id: string) {
  const dropped = await rows(
    tx,
    sql`delete from kept_view where id = ${id} and person_id = ${actor.personId} returning id`,
  );
  if (dropped.length === 0) throw notFound('view', id);
  return viewsOf(tx, actor);
}
