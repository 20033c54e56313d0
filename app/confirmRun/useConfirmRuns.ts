import { useRef, useState } from 'react';
import { api, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { sentOf, type Exceptions } from './exception.ts';

/** What counts for all runs that are confirmed together. */
export interface ConfirmedAs {
  /** Where the carts are left; null for the lane that each run proposes. */
  lane: string | null;
  picker: string | null;
  /** What differs from the plan, by run and pick. */
  except: Record<string, Exceptions>;
}

/**
 * Confirms runs one after the other, each by itself: scans go on in between, and one that is refused keeps no other
 * from being confirmed.
 */
export function useConfirmRuns() {
  const send = useAppDispatch();
  const [ask] = api.useConfirmRunMutation();
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map());
  const stopped = useRef(false);

  const one = async (id: string, { lane, picker, except }: ConfirmedAs): Promise<string | null> => {
    const reading = send(api.endpoints.run.initiate(id, { forceRefetch: true, subscribe: false }));
    const { data: run, error } = await reading;
    if (!run) return words(troubleOf(error));
    const open = run.picks.filter((p) => p.state === 'open');
    const answer = await ask({
      id,
      lane: lane ?? run.proposedLane ?? run.lanes[0]?.code ?? '',
      cart: null,
      picker,
      except: sentOf(open, except[id] ?? {}),
    });
    return answer.error ? words(troubleOf(answer.error)) : null;
  };
  return {
    busy,
    done,
    failed,
    /** Ends after the run that is being confirmed. */
    cancel: () => {
      stopped.current = true;
    },
    /** @returns how many were confirmed */
    confirm: async (runs: readonly string[], as: ConfirmedAs): Promise<number> => {
      stopped.current = false;
      setBusy(true);
      setFailed(new Map());
      let count = 0;
      for (const id of runs) {
        if (stopped.current) break;
        const trouble = await one(id, as);
        if (trouble !== null) setFailed((before) => new Map([...before, [id, trouble]]));
        else {
          count += 1;
          setDone((before) => new Set([...before, id]));
        }
      }
      setBusy(false);
      return count;
    },
  };
}
