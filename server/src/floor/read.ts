import { sql } from 'drizzle-orm';
import type { Floor, Place } from '@hand-relay/core/floor';
import { rows, type Db, type Tx } from '../platform/index.ts';

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
