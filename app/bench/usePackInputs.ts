import { useRef, useState } from 'react';
import type { BenchOrder } from '@hand-relay/contract';
import { judgePack, withInHand, type PackInput } from '@hand-relay/core/handling/packing';
import { api, readNow, remembered, thisYear, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { i18n, mass, number } from '../text/index.ts';
import { play, type Said } from '../ui/index.ts';
import { thisBench } from './BenchChoice.tsx';

/**
 * Inputs of a packer at an order. A scanner is faster than the way to the server: scans wait for one another, each is
 * judged by what the one before it left, and none is lost.
 */
export function usePackInputs(id: string) {
  const dispatch = useAppDispatch();
  const [send] = api.usePackInputMutation();
  const [unpack] = api.useUnpackMutation();
  const queue = useRef<Promise<void>>(Promise.resolve());
  // What was in the open carton before the last goods were put in.
  const before = useRef<Inside | null>(null);
  const [said, setSaid] = useState<Said | null>(null);
  // The carton that goods go into on this device: others may have another one in hand.
  const [inHand, setInHand] = useState<string | null>(null);
  const held = useRef<string | null>(null);
  const takeInHand = (carton: string | null) => {
    held.current = carton;
    setInHand(carton);
  };
  // A number from the sheet of quantities, until the item that it counts is scanned.
  const times = useRef<number | null | undefined>(undefined);
  const sound = remembered('sound') !== 'off';
  const refuse = (text: string) => {
    play('refused', sound);
    setSaid({ kind: 'refused', text });
  };
  /** The order as it is now, with this device's carton in hand; null where that cannot be read, which is said. */
  const readOrder = async (): Promise<BenchOrder | null> => {
    const read = await dispatch(readNow('benchOrder', id));
    if ('data' in read) return { ...read.data, bench: withInHand(read.data.bench, held.current) };
    refuse(words(read.error));
    return null;
  };
  const judge = async (given: PackInput) => {
    const latest = await readOrder();
    if (!latest) return;
    const what = given.kind === 'scan' && times.current !== undefined ? { ...given, times: times.current } : given;
    times.current = undefined;
    const here = judgePack(latest.bench, what, thisYear());
    if (here.verdict === 'refused' && here.code === 'count-of-which') {
      times.current = here.units ?? null;
      play('accepted', sound);
      const units = here.units ?? i18n.t('bench.allOf');
      return setSaid({ kind: 'caution', text: i18n.t('bench.countNext', { units }) });
    }
    if (here.verdict === 'refused') refuse(refusalWords(here));
    const answer = await send({ id, bench: thisBench(latest.benches), input: what, carton: latest.bench.carton?.id });
    if (answer.error) return refuse(words(troubleOf(answer.error)));
    const done = answer.data;
    if (done.verdict === 'refused') {
      if (here.verdict !== 'refused') refuse(refusalWords(done));
      return;
    }
    if (done.verdict === 'open' || done.verdict === 'take') takeInHand(done.carton ?? null);
    if (done.verdict === 'close' || done.verdict === 'discard') takeInHand(null);
    if (done.verdict === 'weigh' && !done.asExpected) {
      const { expectedG, toleranceG } = latest.bench.carton!.weight;
      return refuse(
        refusalWords({ code: 'weight-off', expected: String(expectedG), got: String(done.grams), units: toleranceG }),
      );
    }
    play(done.verdict === 'close' || done.verdict === 'stand' ? 'finished' : 'accepted', sound);
    const there = latest.bench.carton?.contents.reduce((n, c) => n + c.units, 0) ?? 0;
    before.current = done.verdict === 'put' ? insideOf(latest) : null;
    setSaid({ kind: 'done', text: verdictWords(done, there, latest.bench), loud: done.verdict === 'close' });
  };
  /** Takes out again what was put in last. */
  const takeBack = async () => {
    const latest = await readOrder();
    if (!latest) return;
    const now = insideOf(latest);
    const old = before.current;
    before.current = null;
    if (!now || now.carton !== old?.carton) return refuse(i18n.t('bench.nothingToUndo'));
    for (const content of now.contents) {
      const { item, lot, serial } = content;
      const had = old.contents.find((c) => c.item === item && c.lot === lot && c.serial === serial)?.units ?? 0;
      if (content.units <= had) continue;
      const done = await unpack({ id: now.carton, item, lot, serial, units: content.units - had });
      if (done.error) return refuse(words(troubleOf(done.error)));
    }
    play('accepted', sound);
    setSaid({ kind: 'done', text: i18n.t('bench.undone') });
  };
  const inTurn = (work: () => Promise<void>) => {
    // One that fails unexpectedly must not hold up those behind it.
    queue.current = queue.current.catch(() => undefined).then(work);
  };
  const say = (what: Said) => {
    if (what.kind === 'refused') play('refused', sound);
    setSaid(what);
  };
  return {
    said,
    say,
    inHand,
    takeInHand,
    readOrder,
    input: (what: PackInput) => inTurn(() => judge(what)),
    undo: () => inTurn(takeBack),
    /** Does what is worked out when its turn comes: by then all that was scanned before is in. */
    command: (work: (put: (what: PackInput) => Promise<void>) => Promise<void>) => inTurn(() => work(judge)),
  };
}

/** The open carton with what is in it, by lot and serial number. */
interface Inside {
  carton: string;
  contents: BenchOrder['cartons'][number]['contents'];
}

function insideOf({ bench, cartons }: BenchOrder): Inside | null {
  const open = cartons.find((c) => c.id === bench.carton?.id);
  return open ? { carton: open.id, contents: open.contents } : null;
}

/** A refusal in words; weights are read in the units of mass. */
function refusalWords({
  code,
  ...facts
}: {
  code?: string | undefined;
  expected?: string | undefined;
  got?: string | undefined;
  units?: number | undefined;
}): string {
  if (code !== 'weight-off') return i18n.t(`refusal.${code ?? ''}`, facts);
  const [expected, got, tolerance] = [facts.expected, facts.got, facts.units].map((g) => mass(Number(g)));
  return i18n.t('refusal.weight-off', { expected, got, tolerance });
}

/**
 * @param before units that were in the carton already
 * @param bench before it was done
 */
function verdictWords(
  done: {
    verdict: string;
    number?: number | undefined;
    grams?: number | undefined;
    units?: number | undefined;
    sscc?: string | undefined;
    lane?: string | null | undefined;
    printer?: string | null | undefined;
    slipPrinter?: string | null | undefined;
  },
  before: number,
  bench: BenchOrder['bench'],
): string {
  if (done.verdict === 'open') {
    const beside = [bench.carton, ...bench.others].filter((c) => c && c.contents.length > 0).map((c) => c!.number);
    return beside.length > 0
      ? i18n.t('bench.openedBeside', { number: done.number, others: beside.sort((a, b) => a - b).join(', ') })
      : i18n.t('bench.opened');
  }
  if (done.verdict === 'take') return i18n.t('bench.taken', { number: done.number });
  if (done.verdict === 'weigh') return i18n.t('bench.weighed', { mass: mass(done.grams ?? 0) });
  if (done.verdict === 'discard') return i18n.t('bench.discarded');
  if (done.verdict === 'put')
    return i18n.t('bench.putDone', { units: number(done.units ?? 0), all: number(before + (done.units ?? 0)) });
  if (done.verdict === 'stand') return i18n.t('bench.inLane', { lane: done.lane });
  return [
    i18n.t(done.lane ? 'bench.closed' : 'bench.closedNoLane', { sscc: done.sscc, lane: done.lane }),
    done.printer && i18n.t('bench.printed', { printer: done.printer }),
    done.slipPrinter && i18n.t('bench.slipPrinted', { printer: done.slipPrinter }),
  ]
    .filter(Boolean)
    .join(' ');
}
