import type { RunPick } from '@hand-relay/contract';
import type { ShortReason } from '@hand-relay/core/handling/picking';

/** What differs from the plan at one pick, as it is typed. */
export interface Exception {
  units: string;
  reason: ShortReason | null;
  note: string;
  serials: string[];
}

export type ExceptionFault = 'units' | 'reason' | 'serials';

/** An exception that says nothing else than the plan yet: as many serial numbers as are there, where no more are there. */
export const exceptionOf = ({ step }: RunPick): Exception => ({
  units: String(step.units),
  reason: null,
  note: '',
  serials: step.serialsInBin.length === step.units ? [...step.serialsInBin] : [],
});

/** What of an exception cannot be; nothing where there is none. */
export function faultsOf(
  { step }: RunPick,
  except: Exception | undefined,
): Partial<Record<keyof Exception, ExceptionFault>> {
  if (!except) return {};
  const { units: typed, reason, serials } = except;
  const units = /^\d+$/.test(typed.trim()) ? Number(typed) : -1;
  if (units < 0 || units > step.units) return { units: 'units' };
  const known = new Set(step.serialsInBin);
  const all = new Set(serials).size === units && serials.every((s) => known.has(s));
  return {
    ...(units < step.units && reason === null ? { reason: 'reason' } : {}),
    ...(step.item.tracksSerial && !all ? { serials: 'serials' } : {}),
  };
}
