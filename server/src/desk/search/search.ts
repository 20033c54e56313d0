import { sql } from 'drizzle-orm';
import type { FoundKind, SearchAnswer, SearchHit } from '@hand-relay/contract';
import { readCode } from '@hand-relay/core/reading/codes';
import { readSearch } from '@hand-relay/core/reading/search';
import { rows, type Actor, type Platform } from '../../platform/index.ts';
import { sources } from './sources.ts';

/** Hits of each kind; more where only one kind is asked for. */
const FEW = 5;
const MANY = 50;

/**
 * Finds what has a text in its number or name, open and closed, as far as somebody may see it.
 *
 * @param text what is looked for; `kind` where only that kind is
 * @returns groups, the one with the best match first; none where the text has no letter and no digit
 */
export async function search(
  { db, clock }: Pick<Platform, 'db' | 'clock'>,
  { siteId, rights }: Actor,
  { text: typed, kind }: { text: string; kind?: FoundKind | undefined },
): Promise<SearchAnswer> {
  const text = insideOf(typed, clock().getUTCFullYear());
  const { key } = readSearch(text);
  if (key === '') return { groups: [] };
  const most = kind ? MANY : FEW;
  const asked = sources.filter(
    (s) =>
      (kind === undefined || s.kind === kind) &&
      (s.needs.length === 0 || s.needs.some((right) => rights.has(right))) &&
      !(s.many && key.length < 2),
  );
  const found = await Promise.all(
    asked.map(async (source) => {
      const hits = await rows<SearchHit & { rank: number; open: boolean }>(
        db,
        sql`select id, within, title, about, nullif(state, '') as state, day, rank, open from (${source.select({ siteId, text })}) f
            order by rank, open desc, at desc nulls last, title limit ${most + 1}`,
      );
      return { kind: source.kind, hits, best: hits[0] && hits[0].rank * 2 + (hits[0].open ? 0 : 1) };
    }),
  );
  return {
    groups: found
      .filter((g) => g.best !== undefined)
      // Equally good ones stay in the order of the sources.
      .sort((a, b) => a.best! - b.best!)
      .map(({ kind: of, hits }) => ({
        kind: of,
        hits: hits.slice(0, most).map(({ rank: _, open: __, ...hit }) => hit),
        more: hits.length > most,
      })),
  };
}

/** What a barcode is about: of a GS1 code the number of the unit or the item, of one of ours the order or the run. */
function insideOf(text: string, year: number): string {
  // As a label shows it to people: with brackets, and spaces between.
  const code = readCode(text.startsWith('(') ? text.replaceAll(' ', '') : text, year);
  if (code.kind === 'gs1') return code.sscc ?? code.gtin ?? code.serial ?? code.lot ?? text;
  return code.kind === 'order' || code.kind === 'run' ? code.number : text;
}
