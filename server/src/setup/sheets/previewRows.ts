import {
  compareRows,
  keyOf,
  sheets,
  type ReadRow,
  type Row,
  type RowOutcome,
  type SheetError,
  type SheetName,
} from '@hand-relay/core/reading/sheets';
import type { SheetPreview } from '@hand-relay/contract';
import type { Actor, Db, ReadFile, Tx } from '../../platform/index.ts';
import { kinds } from './kinds/index.ts';

export interface Previewed {
  /** Rows that are new or changed and have no fault, in the order of the file. */
  good: Extract<RowOutcome, { outcome: 'new' | 'changed' }>[];
  same: number;
  errors: SheetError[];
  there: ReadonlyMap<string, Row>;
}

/** Looks at rows of a sheet: what is new, changed, the same, and wrong. */
export async function previewRows(
  on: Db | Tx,
  actor: Actor,
  name: SheetName,
  rows: readonly ReadRow[],
): Promise<Previewed> {
  const sheet = sheets[name];
  const kind = kinds[name];
  const asked = rows.map((row) => row.values);
  const there = new Map((await kind.read(on, actor.siteId, asked)).map((row) => [keyOf(sheet, row), row]));
  const compared = compareRows(sheet, rows, there);
  const touched = compared.filter((r): r is Previewed['good'][number] => r.outcome !== 'same');
  const errors = await kind.faults(on, actor.siteId, touched);
  const faulty = new Set(errors.map((e) => e.row));
  errors.push(
    ...((await kind.beyond?.(
      on,
      actor,
      touched.filter((r) => !faulty.has(r.row)),
    )) ?? []),
  );
  const bad = new Set(errors.map((e) => e.row));
  return {
    good: touched.filter((r) => !bad.has(r.row)),
    same: compared.length - touched.length,
    errors,
    there,
  };
}

const SHOWN = 200;

/** What a person sees of it before anything is written. */
export function withCounts(
  looked: Previewed,
  { heading, encoding, matching, guesses, samples, errors }: ReadFile,
  warnings: SheetError[],
): SheetPreview {
  const all = [...errors, ...looked.errors].sort((a, b) => a.row - b.row);
  return {
    heading,
    encoding,
    matching,
    guesses,
    samples,
    counts: {
      new: looked.good.filter((r) => r.outcome === 'new').length,
      changed: looked.good.filter((r) => r.outcome === 'changed').length,
      same: looked.same,
      errors: all.length,
    },
    rows: looked.good.slice(0, SHOWN).map((r) => ({
      row: r.row,
      outcome: r.outcome,
      values: r.values,
      differences: r.outcome === 'changed' ? r.differences : [],
    })),
    errors: all,
    warnings,
  };
}
