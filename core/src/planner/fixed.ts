import { z } from 'zod';
import { byPackRule } from '../handling/packing/index.ts';
import { parse, PlannerError } from './field.ts';
import { count, name } from './shared.ts';

const pieces = z.int('must be a whole number').min(1, 'must be 1 or more');

export const fixedRequest = z.strictObject({
  rule: z.strictObject({ item: name, perCarton: pieces, perPallet: pieces }),
  units: count,
});

export const fixedResult = z.object({ pallets: count, fullPallets: count, cartons: count, rest: count });

/** Pallets and cartons by a pack rule, as the planner's document asks it. */
export function fixedDocument(document: unknown): z.input<typeof fixedResult> {
  const { rule, units } = parse(fixedRequest, document);
  if (rule.perPallet % rule.perCarton !== 0)
    throw new PlannerError(`rule.perPallet: must be a multiple of perCarton, which is ${rule.perCarton}`);
  return byPackRule(rule, units);
}
