import { sql } from 'drizzle-orm';
import type { StandinScales } from '@hand-relay/contract';
import { STANDIN_SCALE } from '@hand-relay/core/handling/weighing';
import { Refusal, rows, type Change, type Db } from '../platform/index.ts';

/** What the scale that ships with the product shows at each bench, and whether the bench uses it. */
export async function standinScales(db: Db, siteId: string): Promise<StandinScales> {
  const scales = await rows<StandinScales['scales'][number]>(
    db,
    sql`select p.code as bench, coalesce(s.grams, 0) as grams, coalesce(s.mode, 'steady') as mode, p.scale = ${STANDIN_SCALE} as used
        from place p left join scale_standin s on s.site_id = p.site_id and s.bench = p.code
        where p.site_id = ${siteId} and p.kind = 'bench' and not p.retired order by p.code`,
  );
  return { scales };
}

/** @throws Refusal 422 `unknown-bench` */
export async function setStandinScale(
  change: Change,
  { bench, grams, mode }: { bench: string; grams: number; mode: string },
): Promise<void> {
  const { tx, actor } = change;
  const set = await rows<{ bench: string }>(
    tx,
    sql`insert into scale_standin (site_id, bench, grams, mode)
        select p.site_id, p.code, ${grams}, ${mode} from place p
        where p.site_id = ${actor.siteId} and p.kind = 'bench' and p.code = ${bench}
        on conflict (site_id, bench) do update set grams = excluded.grams, mode = excluded.mode returning bench`,
  );
  if (set.length === 0) throw new Refusal('unknown-bench', { got: bench });
  change.publish('setup', []);
}
