import { readCode } from '@hand-relay/core/reading/codes';
import { thisYear } from '../state/index.ts';
import { useScans } from '../ui/index.ts';

/** Takes numbers from the sheet of quantities, null for "all", where a quantity is awaited; every other code is not for it. */
export function useCountCodes(onCount: (units: number | null) => void, enabled = true): void {
  useScans(
    (text) => {
      const code = readCode(text, thisYear());
      if (code.kind !== 'count') return false;
      onCount(code.count);
      return true;
    },
    { enabled },
  );
}
