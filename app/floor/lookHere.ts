import type { RunPick } from '@hand-relay/contract';
import { gtin14 } from '@hand-relay/core/reading/gs1';
import { readCode } from '@hand-relay/core/reading/codes';
import { thisYear } from '../state/index.ts';

/** Picks of a run that a code names: those at a bin, of an item, or for an order. What a device knows offline. */
export function lookHere(picks: readonly RunPick[], text: string): RunPick[] {
  const typed = text.trim().toUpperCase();
  const code = readCode(text, thisYear());
  const gtin = code.kind === 'gs1' ? code.gtin : gtin14(typed);
  const order = code.kind === 'order' ? code.number.toUpperCase() : typed;
  return picks.filter(
    ({ step, order: { number } }) =>
      step.bin.toUpperCase() === typed ||
      step.item.sku.toUpperCase() === typed ||
      (gtin !== undefined && step.item.packs.some((p) => p.gtin === gtin)) ||
      number.toUpperCase() === order,
  );
}
