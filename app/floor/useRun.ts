import { useContext, useEffect, useMemo, useState } from 'react';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { freshProgress, judgePick, type PickInput, type PickVerdict } from '@hand-relay/core/picking';
import { outbox, useOutbox, type After, type Entry } from '../offline/index.ts';
import { api, MeContext, randomKey, remembered, words } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { play } from '../ui/index.ts';

export interface Verdict {
  kind: 'done' | 'refused' | 'caution';
  text: string;
}

/** Picks as they are on the device: as the server said last, and over that what was done here since. */
function withAfter(picks: readonly RunPick[], entries: readonly Entry[]): RunPick[] {
  const after = new Map<string, Extract<After, { kind: 'pick' }>>();
  for (const e of entries) if (e.after?.kind === 'pick') after.set(e.after.pick, e.after);
  return picks.map((p) => {
    const mine = after.get(p.step.id);
    return mine ? { ...p, progress: mine.progress, state: mine.state, picked: mine.picked } : p;
  });
}

/** The pick that was done last: here, or before that as the server tells. */
function lastDone(picks: readonly RunPick[], entries: readonly Entry[]): RunPick | null {
  const done = picks.filter((p) => p.state === 'done' || p.state === 'short');
  const here = [...entries].reverse().flatMap((e) => (e.after?.kind === 'pick' ? [e.after.pick] : []));
  for (const id of here) {
    const pick = done.find((p) => p.step.id === id);
    if (pick) return pick;
  }
  return done.reduce<RunPick | null>(
    (last, p) => (last && (last.confirmedAt ?? '') >= (p.confirmedAt ?? '') ? last : p),
    null,
  );
}

/**
 * A run on the device: inputs are judged here at once by the same function as on the server, kept, and sent one after the
 * other, now or when there is a network again. Where the server decides otherwise, it is said, and the run is read again.
 */
export function useRun(id: string) {
  const { data, error, refetch } = api.useRunQuery(id, { refetchOnMountOrArgChange: true });
  const { entries: all } = useOutbox();
  const entries = useMemo(() => all.filter((e) => e.ask.id === id), [all, id]);
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const way = useContext(MeContext)?.way;
  /** A sound is heard where both the device and the site want it. */
  const sing = (sound: Parameters<typeof play>[0]) =>
    play(sound, remembered('sound') !== 'off' && (way?.sounds[sound] ?? true));
  useEffect(
    () =>
      outbox.listen((event) => {
        if (event.entry.ask.id !== id) return;
        if (event.kind === 'lost') {
          sing('refused');
          setVerdict({ kind: 'refused', text: words(event.trouble) });
          void refetch();
          return;
        }
        const answer = event.data as { gotName?: string; what?: string } & Record<string, unknown>;
        if (event.entry.verdict === 'refused' && answer.gotName)
          setVerdict({
            kind: 'refused',
            text: refusalWords({ ...(answer as unknown as Refused), got: answer.gotName }),
          });
      }),
    // What is sung depends on nothing that changes while a run is open.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [id],
  );

  const picks = useMemo(() => withAfter(data?.picks ?? [], entries), [data, entries]);
  const left = entries.flatMap((e) => (e.after?.kind === 'left' ? [e.after.lane] : [])).at(-1);
  const run: RunDetail | undefined =
    data && left !== undefined ? { ...data, run: { ...data.run, state: 'left', lane: left } } : data;
  // What is on hold is not picked now: the run goes on with the rest.
  const held = picks.filter((p) => p.state === 'open' && p.order.hold !== null);
  const open = picks.filter((p) => p.state === 'open' && p.order.hold === null);
  const current = open.find((p) => p.step.id === chosen) ?? open[0];

  const input = (what: PickInput) => {
    // Of two scans in one breath the second must see what the first did: what is kept is asked, not what is drawn.
    const mine = outbox.snapshot().entries.filter((e) => e.ask.id === id);
    const now = withAfter(data?.picks ?? [], mine);
    const pick = now.find((p) => p.step.id === current?.step.id);
    if (!pick || pick.state !== 'open') return;
    const judged = judgePick(pick.step, pick.progress, what, new Date().toISOString().slice(0, 10));
    const done = judged.verdict === 'done';
    const state = done ? (judged.units < pick.step.units ? 'short' : 'done') : 'open';
    outbox.add({
      key: randomKey(),
      ask: { name: 'runInput', id, body: { pick: pick.step.id, input: what } },
      verdict: judged.verdict,
      after:
        judged.verdict === 'refused'
          ? null
          : { kind: 'pick', pick: pick.step.id, progress: judged.progress, state, picked: done ? judged.units : 0 },
      about: aboutOf(data!, pick, judged.progress.counted),
    });
    if (judged.verdict === 'refused') {
      sing('refused');
      setVerdict({ kind: 'refused', text: refusalWords(judged) });
      return;
    }
    sing(done && open.length === 1 ? 'finished' : 'accepted');
    setVerdict(
      done
        ? {
            kind: judged.units < pick.step.units ? 'caution' : 'done',
            text: i18n.t('floor.done', { units: judged.units, item: pick.step.item.name }),
          }
        : null,
    );
    if (done) setChosen(nextOpen(now, pick.step.id));
  };
  const undo = () => {
    const last = lastDone(picks, entries);
    if (!last) return setVerdict({ kind: 'caution', text: i18n.t('floor.nothingToUndo') });
    outbox.add({
      key: randomKey(),
      ask: { name: 'undoPick', id },
      verdict: null,
      after: { kind: 'pick', pick: last.step.id, progress: freshProgress, state: 'open', picked: 0 },
      about: aboutOf(data!, last, last.picked),
    });
    setChosen(last.step.id);
    setVerdict({ kind: 'caution', text: i18n.t('floor.undone') });
  };
  /** The cart stands in a lane: the work passes on, as soon as the server hears of it. */
  const leave = (code: string) => {
    const lane = data?.lanes.find((l) => l.code.toUpperCase() === code.trim().toUpperCase());
    if (!lane) {
      sing('refused');
      return setVerdict({ kind: 'refused', text: i18n.t('refusal.not-a-lane', { got: code }) });
    }
    setVerdict(null);
    outbox.add({
      key: randomKey(),
      ask: { name: 'leaveRun', id, body: { lane: lane.code } },
      verdict: null,
      after: { kind: 'left', lane: lane.code },
      about: { run: data!.run.number, bin: lane.code, item: '', units: 0 },
    });
  };
  return { run, error, refetch, picks, held, current, verdict, input, undo, leave, choose: setChosen };
}

const aboutOf = ({ run }: RunDetail, { step }: RunPick, units: number) => ({
  run: run.number,
  bin: step.bin,
  item: step.item.name,
  units,
});

/** The next open pick in walking order after one, or the first that is left. */
function nextOpen(picks: RunPick[], after: string): string | null {
  const at = picks.findIndex((p) => p.step.id === after);
  const rest = [...picks.slice(at + 1), ...picks.slice(0, at)];
  return rest.find((p) => p.state === 'open' && p.order.hold === null)?.step.id ?? null;
}

type Refused = Extract<PickVerdict, { verdict: 'refused' }>;

function refusalWords({ code, expected, got, units }: Refused): string {
  const word = i18n.exists(`what.${got}`) ? i18n.t(`what.${got}`) : got;
  return i18n.t(`refusal.${code}`, { expected, got: word, units });
}
