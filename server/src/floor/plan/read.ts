import { sql } from 'drizzle-orm';
import type { Floor, Place } from '@hand-relay/core/walking/floor';
import { rows, type Db, type Tx } from '../../platform/index.ts';

/** A site's floor, and where its runs begin and end. */
export async function floorOf(
  on: Db | Tx,
  siteId: string,
): Promise<{ floor: Floor; start: Place; finish: Place | null }> {
  const [site] = await rows<{ floor: Floor; start: Place; finish: Place | null }>(
    on,
    sql`select floor, start, finish from site where id = ${siteId}`,
  );
  return site!;
}

/** The bins of a site's floor that are in use, y in metres. */
export const binsThere = (on: Db | Tx, siteId: string): Promise<{ bin: string; aisle: string; y: number }[]> =>
  rows(
    on,
    sql`select code as bin, aisle, y from place
        where site_id = ${siteId} and kind = 'bin' and not retired and aisle is not null order by code`,
  );
