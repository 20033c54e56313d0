import { useContext, useEffect, useRef, useState } from 'react';
import type { RunPick } from '@hand-relay/contract';
import { judgePick, type PickInput, type PickVerdict } from '@hand-relay/core/picking';
import { api, call, MeContext, remembered, troubleOf, words, type Trouble } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { play } from '../ui/index.ts';

/** What the device knows of a pick before the server has said so too. */
type Ahead = Pick<RunPick, 'progress' | 'state' | 'picked'>;

export interface Verdict {
  kind: 'done' | 'refused' | 'caution';
  text: string;
}

/**
 * A run on the device: inputs are judged here at once by the same function as on the server, then sent one after the
 * other. Where the server decides otherwise, it is said, and the run is read again.
 */
export function useRun(id: string) {
  const { data, error, refetch } = api.useRunQuery(id);
  const [undoPick] = api.useUndoPickMutation();
  const [ahead, setAhead] = useState<Record<string, Ahead>>({});
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const latest = useRef<Record<string, Ahead>>({});
  const queue = useRef<Promise<void>>(Promise.resolve());
  const waiting = useRef(0);
  const way = useContext(MeContext)?.way;
  /** A sound is heard where both the device and the site want it. */
  const sing = (sound: Parameters<typeof play>[0]) =>
    play(sound, remembered('sound') !== 'off' && (way?.sounds[sound] ?? true));
  const shown = useRef(true);
  useEffect(() => {
    shown.current = true;
    return () => void (shown.current = false);
  }, []);
  /** Reads the run again; what is still sent after the screen was left needs no reading. */
  const readAgain = async () => {
    if (shown.current) await refetch();
  };

  const picks = (data?.picks ?? []).map((p) => ({ ...p, ...ahead[p.step.id] }));
  // What is on hold is not picked now: the run goes on with the rest.
  const held = picks.filter((p) => p.state === 'open' && p.order.hold !== null);
  const open = picks.filter((p) => p.state === 'open' && p.order.hold === null);
  const current = open.find((p) => p.step.id === chosen) ?? open[0];

  const look = (next: Record<string, Ahead>) => {
    latest.current = next;
    setAhead(next);
  };
  /** Once all is sent, what the server has takes the place of what the device thought. */
  const settle = async () => {
    if (waiting.current > 0) return;
    await readAgain();
    if (waiting.current === 0) look({});
  };
  const refused = (trouble: Trouble) => {
    sing('refused');
    setVerdict({ kind: 'refused', text: words(trouble) });
    waiting.current = 0;
    look({});
    void readAgain();
  };
  const transmit = (pick: string, input: PickInput, here: PickVerdict) => {
    waiting.current += 1;
    queue.current = queue.current.then(async () => {
      if (waiting.current === 0) return;
      const answer = await call({ name: 'runInput', id, body: { pick, input } });
      if ('error' in answer) return refused(answer.error);
      const there = answer.data as { verdict: string; gotName?: string };
      if (there.verdict !== here.verdict)
        return refused({ code: 'pick-done', facts: {}, fields: [], requestId: '', status: 409 });
      if (here.verdict === 'refused' && there.gotName)
        setVerdict({ kind: 'refused', text: refusalWords({ ...here, got: there.gotName }) });
      waiting.current -= 1;
      await settle();
    });
  };

  const input = (what: PickInput) => {
    if (!current) return;
    const pick = { ...current, ...latest.current[current.step.id] };
    if (pick.state !== 'open') return;
    const judged = judgePick(pick.step, pick.progress, what, new Date().getUTCFullYear());
    transmit(pick.step.id, what, judged);
    if (judged.verdict === 'refused') {
      sing('refused');
      setVerdict({ kind: 'refused', text: refusalWords(judged) });
      return;
    }
    const done = judged.verdict === 'done';
    const next: Ahead = {
      progress: judged.progress,
      state: done ? (judged.units < pick.step.units ? 'short' : 'done') : 'open',
      picked: done ? judged.units : 0,
    };
    look({ ...latest.current, [pick.step.id]: next });
    sing(done && open.length === 1 ? 'finished' : 'accepted');
    setVerdict(
      done
        ? {
            kind: judged.units < pick.step.units ? 'caution' : 'done',
            text: i18n.t('floor.done', { units: judged.units, item: pick.step.item.name }),
          }
        : null,
    );
    if (done) setChosen(nextOpen(picks, pick.step.id));
  };
  const undo = async () => {
    await queue.current;
    const undone = await undoPick(id);
    if (undone.error) return setVerdict({ kind: 'refused', text: words(troubleOf(undone.error)) });
    look({});
    await readAgain();
    setChosen(undone.data?.pick ?? null);
    setVerdict({ kind: 'caution', text: i18n.t(undone.data?.pick ? 'floor.undone' : 'floor.nothingToUndo') });
  };
  return {
    run: data,
    error,
    refetch,
    picks,
    held,
    current,
    verdict,
    input,
    undo,
    choose: setChosen,
    /** Resolves when all that was done here has reached the server. */
    sent: () => queue.current,
  };
}

/** The next open pick in walking order after one, or the first that is left. */
function nextOpen(picks: RunPick[], after: string): string | null {
  const at = picks.findIndex((p) => p.step.id === after);
  const rest = [...picks.slice(at + 1), ...picks.slice(0, at)];
  return rest.find((p) => p.state === 'open' && p.order.hold === null)?.step.id ?? null;
}

function refusalWords(verdict: Extract<PickVerdict, { verdict: 'refused' }>): string {
  const { code, expected, got, units } = verdict;
  const word = i18n.exists(`what.${got}`) ? i18n.t(`what.${got}`) : got;
  return i18n.t(`refusal.${code}`, { expected, got: word, units });
}
