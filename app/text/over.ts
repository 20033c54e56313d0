import i18next from 'i18next';
import { mass, number } from './format.ts';

/** What of a load is too much, and by how much: grams, cm³, millimetres or floor places. */
export function overWords({ what, by }: { what: string; by: number }): string {
  const amounts: Record<string, string> = {
    weight: mass(by),
    volume: `${(by / 1_000_000).toFixed(1)} m³`,
    size: `${number(Math.round(by))} mm`,
  };
  return i18next.t(`loads.over.${what}`, { amount: amounts[what] ?? number(by) });
}
