import { useRef, useState } from 'react';
import { judgePack, type PackInput } from '@hand-relay/core/handling/packing';
import { api, readNow, remembered, thisYear, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { i18n, number } from '../text/index.ts';
import { play } from '../ui/index.ts';
import { thisBench } from './BenchChoice.tsx';

/** What was last said of what a packer did. */
export interface Said {
  kind: 'done' | 'refused' | 'caution';
  text: string;
  /** A carton was closed: the lane it goes to, said larger than all else. */
  lane?: boolean;
}

/**
 * Inputs of a packer at an order. A scanner is faster than the way to the server: scans wait for one another, each is
 * judged by what the one before it left, and none is lost.
 */
export function usePackInputs(id: string) {
  const dispatch = useAppDispatch();
  const [send] = api.usePackInputMutation();
  const queue = useRef<Promise<void>>(Promise.resolve());
  const [said, setSaid] = useState<Said | null>(null);
  // A number from the sheet of quantities, until the item that it counts is scanned.
  const times = useRef<number | null | undefined>(undefined);
  const sound = remembered('sound') !== 'off';
  const refuse = (text: string) => {
    play('refused', sound);
    setSaid({ kind: 'refused', text });
  };
  const judge = async (given: PackInput) => {
    const read = await dispatch(readNow('benchOrder', id));
    if ('error' in read) return refuse(words(read.error));
    const latest = read.data;
    const what = given.kind === 'scan' && times.current !== undefined ? { ...given, times: times.current } : given;
    times.current = undefined;
    const here = judgePack(latest.bench, what, thisYear());
    if (here.verdict === 'refused' && here.code === 'count-of-which') {
      times.current = here.units ?? null;
      play('accepted', sound);
      const units = here.units ?? i18n.t('bench.allOf');
      return setSaid({ kind: 'caution', text: i18n.t('bench.countNext', { units }) });
    }
    if (here.verdict === 'refused') refuse(i18n.t(`refusal.${here.code}`, { ...here }));
    const answer = await send({ id, bench: thisBench(latest.benches), input: what });
    if (answer.error) return refuse(words(troubleOf(answer.error)));
    const done = answer.data;
    if (done.verdict === 'refused') {
      if (here.verdict !== 'refused') refuse(i18n.t(`refusal.${done.code ?? ''}`, { ...done }));
      return;
    }
    play(done.verdict === 'close' ? 'finished' : 'accepted', sound);
    const before = latest.bench.carton?.contents.reduce((n, c) => n + c.units, 0) ?? 0;
    setSaid({ kind: 'done', text: verdictWords(done, before), lane: done.verdict === 'close' });
  };
  const input = (what: PackInput) => {
    // One that fails unexpectedly must not hold up those behind it.
    queue.current = queue.current.catch(() => undefined).then(() => judge(what));
  };
  return { said, input };
}

/** @param before units that were in the carton already */
function verdictWords(
  done: {
    verdict: string;
    units?: number | undefined;
    sscc?: string | undefined;
    lane?: string | null | undefined;
    printer?: string | null | undefined;
  },
  before: number,
): string {
  if (done.verdict === 'open') return i18n.t('bench.opened');
  if (done.verdict === 'discard') return i18n.t('bench.discarded');
  if (done.verdict === 'put')
    return i18n.t('bench.putDone', { units: number(done.units ?? 0), all: number(before + (done.units ?? 0)) });
  const closed = i18n.t(done.lane ? 'bench.closed' : 'bench.closedNoLane', { sscc: done.sscc, lane: done.lane });
  return done.printer ? `${closed} ${i18n.t('bench.printed', { printer: done.printer })}` : closed;
}
