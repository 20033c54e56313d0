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

/** What differs, by pick. */
export type Exceptions = Record<string, Exception>;

/** What is asked about from the start: of goods with serial numbers somebody must say which. */
export const firstExceptions = (open: readonly RunPick[]): Exceptions =>
  Object.fromEntries(open.filter((p) => p.step.item.tracksSerial).map((p) => [p.step.id, exceptionOf(p)]));

/** Units that are short by what is ticked. */
export const shortOf = (open: readonly RunPick[], except: Exceptions): number =>
  open.reduce((n, { step }) => {
    const e = except[step.id];
    return n + (e ? Math.max(0, step.units - Number(e.units)) : 0);
  }, 0);

/** Exceptions as the server takes them. */
export const sentOf = (open: readonly RunPick[], except: Exceptions) =>
  open.flatMap(({ step }) => {
    const e = except[step.id];
    if (!e) return [];
    const units = Number(e.units);
    return [
      {
        pick: step.id,
        units,
        reason: units < step.units ? e.reason : null,
        note: e.note.trim(),
        serials: step.item.tracksSerial ? e.serials.slice(0, units) : [],
      },
    ];
  });
