import type { IntakeResult } from '@hand-relay/contract';
import type { OrderLayout } from '@hand-relay/core/reading/intake';

export type Layout = OrderLayout;

/** Orders of a file that importing it would make or change. */
export const toTake = (result: IntakeResult): number =>
  result.orders.filter((o) => o.outcome === 'new' || o.outcome === 'changed' || o.outcome === 'adapts').length;

/** Whether two files are tables with the same headings: what is said of one counts for the other. */
export const sameHeading = (a: IntakeResult | null, b: IntakeResult | null): boolean =>
  Boolean(a?.file && b?.file) && a!.file!.heading.join('\n') === b!.file!.heading.join('\n');

/**
 * How a file is read once a person changed something: what was found stays as it is shown, save what was only guessed.
 *
 * @param guesses columns of which nobody has said yet that their heading is right
 */
export function changedLayout(
  { matching, values, dates, decimals }: Layout,
  guesses: readonly string[],
  part: Partial<Layout>,
): Layout {
  const sure = Object.fromEntries(Object.entries(matching).filter(([column]) => !guesses.includes(column)));
  return {
    matching: { ...sure, ...part.matching },
    values: part.values ?? values,
    dates: part.dates ?? dates,
    decimals: part.decimals ?? decimals,
  };
}
