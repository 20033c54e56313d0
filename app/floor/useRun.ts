import { useContext, useEffect, useMemo, useRef, useState } from 'react';
import type { GotKind, RunDetail, RunPick } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import {
  freshProgress,
  judgePick,
  laneAdvice,
  lastDone,
  leavesNearlyNothing,
  nextOpen,
  otherBin,
  outcomeOf,
  restProgress,
  type PickInput,
  type PickProgress,
  type PickStep,
  type ShortReason,
} from '@hand-relay/core/handling/picking';
import { outbox, useOutbox, type Entry } from '../offline/index.ts';
import {
  api,
  MeContext,
  networkError,
  randomKey,
  remembered,
  serverNow,
  store,
  notify,
  words,
} from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { fetchPictures, play } from '../ui/index.ts';
import { countRefused, type Why } from './countRefused.ts';
import { laneWords } from './laneWords.ts';
import { onDevice } from './onDevice.ts';
import type { Verdict } from './verdict.ts';
import { useSetUp } from './useSetUp.ts';
import { namedRefusal, refusalWords, type Refused } from './refusalWords.ts';

/** A bin in which a pick should leave nearly nothing: whoever stands there sees whether that is so. */
export interface LeftOver {
  pick: string;
  bin: string;
  item: string;
  expected: number;
}

/** The same list as before where the same things are in it: a refused scan must not draw the whole run again. */
function useSame<T>(list: readonly T[]): readonly T[] {
  const [before, setBefore] = useState(list);
  if (before === list || (before.length === list.length && before.every((x, i) => x === list[i]))) return before;
  setBefore(list);
  return list;
}

/**
 * A run on the device: inputs are judged here at once by the same function as on the server, kept, and sent one after the
 * other, now or when there is a network again. Where the server decides otherwise, it is said, and the run is read again.
 */
export function useRun(id: string) {
  const { data, error, refetch } = api.useRunQuery(id, { refetchOnMountOrArgChange: true });
  const { entries: all } = useOutbox();
  const entries = useSame(useMemo(() => all.filter((e) => e.ask.id === id && e.after !== null), [all, id]));
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [leftOver, setLeftOver] = useState<LeftOver | null>(null);
  /** A lane that was scanned in place of the planned one, once. */
  const [otherLane, setOtherLane] = useState<string | null>(null);
  /** Photos of what was found wrong, until the report itself is made. */
  const photos = useRef(new Map<string, string>());
  const me = useContext(MeContext);
  const settings = me?.settings;
  /** A sound is heard where both the device and the site want it. */
  const playSound = (sound: Parameters<typeof play>[0]) =>
    play(sound, remembered('sound') !== 'off' && (settings?.sounds[sound] ?? true));
  useEffect(
    () =>
      outbox.listen((event) => {
        if (event.entry.ask.id !== id) return false;
        if (event.kind === 'lost') {
          playSound('refused');
          setVerdict({ kind: 'refused', text: words(event.trouble) });
          void refetch();
          return true;
        }
        const answer = event.data as { gotName?: string; gotKind?: GotKind } & Record<string, unknown>;
        const { gotName, gotKind } = answer;
        if (event.entry.verdict === 'refused' && gotName) {
          const refused = answer as unknown as Refused;
          setVerdict({
            kind: 'refused',
            text: gotKind
              ? namedRefusal(refused, { kind: gotKind, name: gotName }, event.entry.about.bin)
              : refusalWords({ ...refused, got: gotName }),
          });
        }
        return true;
      }),
    // What is sung depends on nothing that changes while a run is open.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [id],
  );

  const pictures = useMemo(() => (data?.picks ?? []).map((p) => p.picture).join(' '), [data]);
  useEffect(() => void fetchPictures(pictures.split(' ')), [pictures]);
  const picks = useMemo(() => onDevice(data?.picks ?? [], entries), [data, entries]);
  const left = entries.flatMap((e) => (e.after?.kind === 'left' ? [e.after.lane] : [])).at(-1);
  const run: RunDetail | undefined =
    data && left !== undefined ? { ...data, run: { ...data.run, state: 'left', lane: left } } : data;
  // What is on hold is not picked now: the run goes on with the rest.
  const held = picks.filter((p) => p.state === 'open' && p.order.hold !== null);
  const open = picks.filter((p) => p.state === 'open' && p.order.hold === null);
  const current = open.find((p) => p.step.id === chosen) ?? open[0];

  const add = (entry: Parameters<typeof outbox.add>[0]) => outbox.add(entry);
  const input = (what: PickInput) => {
    // Of two scans in one breath the second must see what the first did: what is kept is asked, not what is drawn.
    const mine = outbox.snapshot().entries.filter((e) => e.ask.id === id);
    const now = onDevice(data?.picks ?? [], mine);
    const pick = now.find((p) => p.step.id === current?.step.id);
    if (!pick || pick.state !== 'open') return;
    const judged = judgePick(pick.step, pick.progress, what, localDate(serverNow(), me?.site.timeZone ?? 'UTC'));
    const done = judged.verdict === 'done';
    const outcome = judged.verdict === 'done' ? outcomeOf(pick.step, judged.progress, judged.units) : null;
    const units = outcome?.picked ?? 0;
    const rest = outcome?.rest ? restPick(pick, judged.progress, outcome.rest) : null;
    const missing = done ? pick.step.units - units : 0;
    add({
      key: randomKey(),
      ask: { name: 'runInput', id, body: { pick: pick.step.id, input: what } },
      verdict: judged.verdict,
      after:
        judged.verdict === 'refused' && judged.progress === pick.progress
          ? null
          : {
              kind: 'pick',
              pick: pick.step.id,
              progress: judged.progress,
              state: outcome?.state ?? 'open',
              picked: units,
              ...(rest && outcome ? { rest, units: outcome.keeps } : {}),
            },
      about: aboutOf(data!, pick, judged.progress.counted),
    });
    if (judged.verdict === 'refused') {
      playSound('refused');
      setVerdict({ kind: 'refused', text: refusalWords(judged) });
      return;
    }
    playSound(done && open.length === 1 && !rest ? 'finished' : 'accepted');
    if (judged.what === 'bin') setLeftOver(null);
    setVerdict(
      !done
        ? null
        : judged.progress.moved
          ? { kind: 'done', text: i18n.t('floor.movedTo', { bin: rest?.step.bin }) }
          : rest
            ? {
                kind: 'caution',
                text: judged.progress.full
                  ? i18n.t('floor.restInto', { units: rest.step.units })
                  : i18n.t('floor.restFrom', { units: rest.step.units, bin: rest.step.bin }),
              }
            : {
                kind: missing > 0 ? 'caution' : 'done',
                text: i18n.t('floor.done', { units, item: pick.step.item.name }),
              },
    );
    if (!done) return;
    setChosen(rest ? rest.step.id : nextOpen(now.map(turnOf), pick.step.id));
    const photo = photos.current.get(pick.step.id);
    if (photo !== undefined && missing > 0) {
      photos.current.delete(pick.step.id);
      addOnly(pick, { name: 'keepPhoto', id, body: { pick: pick.step.id, data: photo } });
    }
    setLeftOver(
      outcome && leavesNearlyNothing(pick.remains, settings?.nearlyEmpty ?? -1, outcome)
        ? { pick: pick.step.id, bin: pick.step.bin, item: pick.step.item.name, expected: pick.remains }
        : null,
    );
  };
  /** A scan that may not be made here at all: said at once, and counted like any other error that was caught. */
  const refuse = (pick: RunPick | null, why: Why) => {
    countRefused({ run: id, number: data!.run.number, of: pick?.step.id ?? null }, why);
    playSound('refused');
    setVerdict({ kind: 'refused', text: words({ ...networkError, ...why }) });
  };
  /** What changes nothing of the run on the device. */
  const addOnly = (pick: RunPick, ask: Entry['ask'], after: Entry['after'] = null) =>
    add({ key: randomKey(), ask, verdict: null, after, about: aboutOf(data!, pick, 0) });
  const pickOf = (pick: string) => picks.find((p) => p.step.id === pick);
  /** One touch, or a number, for what is left where nearly nothing should be. */
  const sayLeft = (units: number) => {
    const pick = leftOver && pickOf(leftOver.pick);
    setLeftOver(null);
    if (!leftOver || !pick) return;
    const { expected } = leftOver;
    addOnly(pick, { name: 'binLeft', id, body: { pick: leftOver.pick, expected, units } });
    setVerdict({ kind: 'done', text: i18n.t('floor.leftSaid', { units, bin: leftOver.bin }) });
  };
  /** Takes a pick out of turn, or puts one off: the rest is rerouted. */
  const turnTo = (next: string, last?: string) => {
    const pick = pickOf(next);
    setChosen(next);
    setVerdict(null);
    if (pick)
      addOnly(
        pick,
        { name: 'walkFrom', id, body: { pick: next, ...(last ? { last } : {}) } },
        { kind: 'order', next, ...(last ? { last } : {}) },
      );
  };
  const later = (pick: string) => {
    const next = nextOpen(picks.map(turnOf), pick);
    if (next && next !== pick) turnTo(next, pick);
    else setVerdict({ kind: 'caution', text: i18n.t('floor.lastOne') });
  };
  /** An order leaves the run: what of it lies on the cart is put back by a trip of its own. */
  const takeOut = (
    order: RunPick['order'],
    problem?: { pick: string; reason: ShortReason; units: number; note: string },
  ) => {
    const pick = picks.find((p) => p.order.id === order.id);
    if (!pick) return;
    addOnly(
      pick,
      { name: 'takeOut', id, body: { order: order.id, ...(problem ? { problem } : {}) } },
      { kind: 'out', order: order.id },
    );
    const photo = problem && photos.current.get(problem.pick);
    const about = problem && pickOf(problem.pick);
    if (photo !== undefined && about) {
      photos.current.delete(about.step.id);
      addOnly(about, { name: 'keepPhoto', id, body: { pick: about.step.id, data: photo } });
    }
    setChosen(null);
    setVerdict({ kind: 'caution', text: i18n.t('floor.isOut', { order: order.number }) });
    const touched = picks.some((p) => p.order.id === order.id && p.state !== 'open');
    if (!touched && picks.some((p) => p.order.id !== order.id))
      store.dispatch(
        notify({
          kind: 'done',
          text: i18n.t('floor.isOut', { order: order.number }),
          undo: { name: 'putIn', id, body: { orders: [order.id] } },
        }),
      );
  };
  const undo = () => {
    setLeftOver(null);
    // What was counted and is not confirmed yet comes first: it is what the hand did last.
    if (current && current.progress.counted > 0) {
      addOnly(
        current,
        { name: 'undoPick', id, body: { begun: current.step.id } },
        { kind: 'pick', pick: current.step.id, progress: freshProgress, state: 'open', picked: 0 },
      );
      return setVerdict({ kind: 'caution', text: i18n.t('floor.undone') });
    }
    const here = entries.flatMap((e) => (e.after?.kind === 'pick' ? [e.after.pick] : []));
    const last = lastDone(picks.map(turnOf), here)?.pick;
    if (!last) return setVerdict({ kind: 'caution', text: i18n.t('floor.nothingToUndo') });
    const rest = picks.find((p) => p.step.id === `${last.step.id}.r` && p.state === 'open');
    add({
      key: randomKey(),
      ask: { name: 'undoPick', id },
      verdict: null,
      after: {
        kind: 'pick',
        pick: last.step.id,
        progress: freshProgress,
        state: 'open',
        picked: 0,
        ...(rest ? { units: last.step.units + rest.step.units, drop: rest.step.id } : {}),
      },
      about: aboutOf(data!, last, last.picked),
    });
    setChosen(last.step.id);
    setVerdict({ kind: 'caution', text: i18n.t('floor.undone') });
  };
  /** The cart stands in a lane: the work passes on, as soon as the server hears of it. */
  const leave = (code: string) => {
    const lane = data?.lanes.find((l) => l.code.toUpperCase() === code.trim().toUpperCase());
    if (!lane) return refuse(null, { code: 'not-a-lane', facts: { got: code } });
    // Another lane than planned, or one that is full, is no mistake once it is said twice.
    const advice = laneAdvice(data?.lanes ?? [], lane.code, data?.proposedLane ?? null);
    if (advice && otherLane !== lane.code) {
      setOtherLane(lane.code);
      return setVerdict({ kind: 'caution', text: laneWords(lane, advice, data?.proposedLane ?? '') });
    }
    setVerdict(null);
    add({
      key: randomKey(),
      ask: { name: 'leaveRun', id, body: { lane: lane.code } },
      verdict: null,
      after: { kind: 'left', lane: lane.code },
      about: { run: data!.run.number, bin: lane.code, item: '', units: 0 },
    });
  };
  const setUp = useSetUp({
    id,
    setUp: data?.setUp ?? null,
    entries,
    number: data?.run.number ?? '',
    say: setVerdict,
    playSound: playSound,
  });
  return {
    run,
    setUp,
    error,
    refetch,
    picks,
    held,
    current,
    verdict,
    leftOver,
    input,
    refuse,
    undo,
    leave,
    turnTo,
    later,
    takeOut,
    sayLeft,
    keepPhoto: (pick: string, data: string) => void photos.current.set(pick, data),
  };
}

/** The pick of what was not found in its bin and is taken from another, as the device shows it. */
function restPick(pick: RunPick, progress: PickProgress, step: PickStep): RunPick | null {
  const same = { ...pick, step, progress: restProgress(progress), picked: 0, confirmedAt: null };
  if (progress.full) return { ...same, askedIn: 'unit' };
  const from = otherBin(pick.step, { bin: step.bin, lot: step.lot });
  if (!from) return null;
  return {
    ...same,
    state: 'open',
    at: from.at,
    remains: Math.max(0, from.units - step.units),
    bestBefore: step.bestBefore,
    why: 'hand',
    zone: '',
    lookAlike: null,
  };
}

/** A pick as far as its turn goes. */
const turnOf = (pick: RunPick) => ({
  id: pick.step.id,
  open: pick.state === 'open',
  held: pick.order.hold !== null,
  confirmedAt: pick.confirmedAt,
  pick,
});

const aboutOf = ({ run }: RunDetail, { step }: RunPick, units: number) => ({
  run: run.number,
  bin: step.bin,
  item: step.item.name,
  units,
});
