import { readCode } from '../../reading/codes/index.ts';
import type { Pack } from './step.ts';

/** Goods on a cart that go back into a bin. */
export interface PutAwayStep {
  bin: string;
  item: { sku: string; packs: Pack[] };
}

/** What was scanned so far, as it was read; `*` where it was touched. */
export interface PutAwayProgress {
  item: string | null;
  bin: string | null;
}

export type PutAwayRefusal = 'wrong-item' | 'wrong-bin' | 'unknown-code';

export type PutAwayVerdict =
  | { verdict: 'accepted' | 'done'; progress: PutAwayProgress }
  | { verdict: 'refused'; code: PutAwayRefusal; got: string; progress: PutAwayProgress };

/** A key pressed in place of a scan. */
export const TOUCHED = '*';

/**
 * Says what an input means for goods that go back: the goods first or the bin first, as they come to hand.
 *
 * @param input what was scanned, or which of the two was touched
 * @param thisYear for the century of dates in GS1 symbols
 */
export function judgePutAway(
  step: PutAwayStep,
  progress: PutAwayProgress,
  input: { kind: 'scan'; text: string } | { kind: 'touch'; what: 'item' | 'bin' },
  thisYear: number,
): PutAwayVerdict {
  const accept = (part: Partial<PutAwayProgress>): PutAwayVerdict => {
    const next = { ...progress, ...part };
    return { verdict: next.item !== null && next.bin !== null ? 'done' : 'accepted', progress: next };
  };
  if (input.kind === 'touch') return accept({ [input.what]: TOUCHED });
  const unit = step.item.packs.find((p) => p.level === 'unit');
  const code = readCode(input.text, thisYear, {
    bin: step.bin,
    items: unit ? [{ sku: step.item.sku, gtin: unit.gtin }] : [],
  });
  const refuse = (why: 'wrong-item' | 'wrong-bin' | 'unknown-code', got: string): PutAwayVerdict => ({
    verdict: 'refused',
    code: why,
    got,
    progress,
  });
  if (code.kind === 'bin') return code.bin === step.bin ? accept({ bin: input.text }) : refuse('wrong-bin', code.bin);
  if (code.kind === 'gs1' && code.gtin)
    return step.item.packs.some((p) => p.gtin === code.gtin)
      ? accept({ item: input.text })
      : refuse('wrong-item', code.gtin);
  return refuse('unknown-code', input.text);
}
