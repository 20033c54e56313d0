import { sql } from 'drizzle-orm';
import { STANDIN_SCALE } from '@hand-relay/core/handling/weighing';
import { z } from 'zod';
import { Refusal, rows, type Db, type Platform } from '../../platform/index.ts';

/** A scale that does not answer for so long is silent: the packer types the weight. */
const PATIENCE_MS = 2_000;
/** What a scale answers by HTTP; `steady` may be left out by one that only answers steady weights. */
const reading = z.object({ grams: z.number(), steady: z.boolean().default(true) });
type Reading = z.infer<typeof reading>;

/**
 * What the scale of a bench shows now, in grams. A scale is asked at the address that its bench has: GET, answered by
 * JSON with `grams` and `steady`.
 *
 * @throws Refusal 422 `unknown-bench`, 409 `no-scale`, `scale-unsteady`, 502 `scale-silent`
 */
export async function readScale({ db, standins }: Platform, siteId: string, bench: string): Promise<{ grams: number }> {
  const [place] = await rows<{ scale: string }>(
    db,
    sql`select scale from place where site_id = ${siteId} and kind = 'bench' and code = ${bench}`,
  );
  if (!place) throw new Refusal('unknown-bench', { got: bench });
  if (place.scale === '' || (place.scale === STANDIN_SCALE && !standins)) throw new Refusal('no-scale', { bench });
  const shown = place.scale === STANDIN_SCALE ? await standinShows(db, siteId, bench) : await ask(place.scale);
  if (!shown) throw new Refusal('scale-silent', { bench });
  if (!shown.steady) throw new Refusal('scale-unsteady', { bench });
  return { grams: Math.round(shown.grams) };
}

/** Null where it does not answer, or answers something else. */
async function ask(address: string): Promise<Reading | null> {
  try {
    const answer = await fetch(address, { signal: AbortSignal.timeout(PATIENCE_MS), redirect: 'error' });
    if (!answer.ok) return null;
    return reading.safeParse(await answer.json()).data ?? null;
  } catch {
    // Off, out of reach, or no scale: all one to who stands before it.
    return null;
  }
}

async function standinShows(db: Db, siteId: string, bench: string): Promise<Reading | null> {
  const [scale] = await rows<{ grams: number; mode: string }>(
    db,
    sql`select grams, mode from scale_standin where site_id = ${siteId} and bench = ${bench}`,
  );
  if (scale?.mode === 'silent') return null;
  return { grams: scale?.grams ?? 0, steady: scale?.mode !== 'unsteady' };
}
