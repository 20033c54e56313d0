import { oddDensity, type SheetError, type SheetName } from '@hand-relay/core/reading/sheets';
import type { Previewed } from './previewRows.ts';

/** Most that are told; a file with more has one cause. */
const MOST = 200;

/** Items whose sizes and weight cannot both be right: most often a unit of measure was mistaken. */
export function sizeWarnings(name: SheetName, good: Previewed['good']): SheetError[] {
  if (name !== 'items') return [];
  return good
    .flatMap(({ row, values }): SheetError[] => {
      const odd = values['service'] === true ? null : oddDensity(values);
      if (!odd) return [];
      const value = ['length_mm', 'width_mm', 'height_mm'].map((side) => String(values[side])).join(' × ');
      const litres = odd.litres < 10 ? Number(odd.litres.toPrecision(2)) : Math.round(odd.litres);
      return [{ row, column: 'length_mm', value, expected: 'another-unit', facts: { grams: odd.grams, litres } }];
    })
    .slice(0, MOST);
}
