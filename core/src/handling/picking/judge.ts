import { readCode, type Code } from '../../reading/codes/index.ts';
import type { Check, TouchReason } from '../../deciding/settings/index.ts';
import {
  awaited,
  cartonOf,
  otherBin,
  target,
  type Awaited,
  type PickInput,
  type PickProgress,
  type PickStep,
} from './step.ts';

export type PickRefusal =
  | 'wrong-bin'
  | 'wrong-item'
  | 'wrong-lot'
  | 'expired'
  | 'wrong-serial'
  | 'repeated-serial'
  | 'serial-taken'
  | 'wrong-position'
  | 'wrong-carton'
  | 'used-carton'
  | 'not-our-carton'
  | 'surplus'
  | 'bin-first'
  | 'item-first'
  | 'serial-needed'
  | 'scan-each'
  | 'scan-needed'
  | 'reason-needed'
  | 'not-a-count'
  | 'not-there'
  | 'held'
  | 'blocked'
  | 'not-awaited'
  | 'unknown-code';

export type PickVerdict =
  /** Taken; the step goes on. */
  | { verdict: 'accepted'; what: Awaited | 'count' | 'short'; progress: PickProgress }
  /** Taken; the step is complete with so many units. */
  | { verdict: 'done'; what: Awaited | 'count' | 'short'; progress: PickProgress; units: number }
  /** Refused; nothing changed but serials that another run took in the meantime. `expected` and `got` are facts for the words, `units` where a count is meant. */
  | { verdict: 'refused'; code: PickRefusal; expected: string; got: string; units?: number; progress: PickProgress };

/**
 * Says what an input means for a pick: the one function that device and server both ask.
 *
 * @param step what is to be picked
 * @param progress how far it has come
 * @param input what was scanned, pressed or typed
 * @param today the present day as an ISO date, for the century of dates in GS1 symbols and for goods that are out of date
 */
export function judgePick(step: PickStep, progress: PickProgress, input: PickInput, today: string): PickVerdict {
  const wait = awaited(step, progress);
  const refuse = (code: PickRefusal, expected: string, got: string, units?: number): PickVerdict => ({
    verdict: 'refused',
    code,
    expected,
    got,
    progress,
    ...(units === undefined ? {} : { units }),
  });
  const accept = (what: Awaited | 'count' | 'short', change: Partial<PickProgress>): PickVerdict => {
    const next = { ...progress, ...change };
    // Where the last check is not asked for, the one before it completes the step.
    return awaited(step, next).length === 0
      ? { verdict: 'done', what, progress: next, units: next.counted }
      : { verdict: 'accepted', what, progress: next };
  };
  const lot = progress.swapped ?? step.lot;

  if (step.stopped?.by === 'hold') return refuse('held', step.stopped.why, '');
  const elsewhere = progress.serials.filter((serial) => !step.serialsInBin.includes(serial));
  if (elsewhere.length > 0) {
    // Whoever confirms a serial number first has it; here it counts no more.
    const serials = progress.serials.filter((serial) => !elsewhere.includes(serial));
    const rest = { ...progress, serials, counted: serials.length };
    return { ...refuse('serial-taken', step.item.name, elsewhere.join(', ')), progress: rest };
  }
  if (input.kind === 'short') return judgeShort();
  if (step.stopped) return refuse('blocked', step.bin, step.stopped.why);
  if (input.kind === 'count') return judgeCount(input.units, input.why);
  if (input.kind === 'touch') {
    // With nothing left to check (the site may have said so in the meantime) putting it in ends the step.
    if (input.what === 'further') return judgeFurther();
    if (!wait.includes(input.what) && !(wait.length === 0 && (input.what === 'position' || input.what === 'carton')))
      return refuse('not-awaited', wait[0] ?? (step.carton ? 'carton' : 'position'), input.what);
    if (input.what === 'carton' && cartonOf(step, progress) === null) return refuse('not-awaited', 'carton', 'carton');
    const check = input.what === 'carton' ? 'position' : input.what;
    const barred = untouchable(check, input.why);
    if (barred) return barred;
    if (input.what === 'bin') return accept('bin', { bin: true, ...byTouch(check) });
    if (input.what === 'lot') return accept('lot', { lot: true, ...byTouch(check) });
    return finish(byTouch(check));
  }
  const unit = step.item.packs.find((p) => p.level === 'unit');
  const code = readCode(input.text, Number(today.slice(0, 4)), {
    bin: step.bin,
    bins: step.elsewhere.map((o) => o.bin),
    position: step.position,
    items: unit ? [{ sku: step.item.sku, gtin: unit.gtin }] : [],
    ...(step.carton ? { boxes: step.carton.boxes } : {}),
  });
  // A carton may be begun before the goods are counted; whoever puts them in scans it after.
  if (code.kind === 'count')
    return judgeCount(code.count === null ? target(step, progress) : code.count * (step.countedBy ?? 1));
  const toCarton = code.kind === 'box' || (code.kind === 'gs1' && code.sscc !== undefined);
  if (step.carton && (wait[0] === 'carton' || (toCarton && cartonOf(step, progress) === null)))
    return judgeCarton(code, input.text);
  if (wait.includes('bin') && (code.kind === 'bin' || !wait.includes('item'))) return judgeBin(code, input.text);
  if (wait.includes('item')) return judgeItem(code, input.text);
  if (wait[0] === 'lot') return judgeLot(code, input.text);
  return judgePosition(code, input.text);

  function finish(change: Partial<PickProgress> = {}): PickVerdict {
    const what = step.carton ? 'carton' : 'position';
    return { verdict: 'done', what, progress: { ...progress, ...change }, units: progress.counted };
  }

  function judgeShort(): PickVerdict {
    const { units, reason, rest = null, note = '' } = input as Extract<PickInput, { kind: 'short' }>;
    if (!Number.isInteger(units) || units < 0 || units >= step.units || units < progress.counted)
      return refuse('not-a-count', `${progress.counted}–${step.units - 1}`, String(units));
    if (rest && !otherBin(step, rest)) return refuse('not-there', step.item.name, rest.bin);
    const next = { ...progress, bin: true, found: units, reason, rest, note };
    if (units === 0) return { verdict: 'done', what: 'short', progress: next, units: 0 };
    return accept('short', next);
  }

  /** What bars a touch in place of a scan, as the site has it for whoever picks; nothing where it may be. */
  function untouchable(check: Check, why: TouchReason | undefined): PickVerdict | undefined {
    const rule = step.touch?.[check] ?? 'allowed';
    const expected = { bin: step.bin, item: step.item.name, lot: lot ?? '', position: positionCode(step.position) }[
      check
    ];
    if (rule === 'never') return refuse('scan-needed', expected, '');
    return rule === 'reason' && why === undefined ? refuse('reason-needed', expected, '') : undefined;
  }

  function byTouch(check: Check): Pick<PickProgress, 'touched'> {
    return { touched: [...progress.touched.filter((c) => c !== check), check] };
  }

  function judgeCount(units: number, why?: TouchReason): PickVerdict {
    if (wait.includes('bin') && !wait.includes('item')) return refuse('bin-first', step.bin, String(units));
    if (outOfDate(lot)) return refuse('expired', step.item.name, step.bestBefore!);
    if (step.how.counting === 'each') return refuse('scan-each', step.item.name, String(units));
    if (step.item.tracksSerial) return refuse('serial-needed', step.item.name, String(units));
    if (!Number.isInteger(units) || units < 0)
      return refuse('not-a-count', `0–${target(step, progress)}`, String(units));
    if (units > target(step, progress)) return refuse('surplus', step.item.name, String(units), target(step, progress));
    // Whoever scanned one of them has shown which goods these are; a number alone shows nothing.
    if (progress.seen || units === 0) return accept('count', { counted: units });
    return untouchable('item', why) ?? accept('count', { counted: units, ...byTouch('item') });
  }

  function judgeBin(got: Code, text: string): PickVerdict {
    if (got.kind === 'bin') return judgeBinScanned(got.bin);
    if (got.kind === 'gs1') return refuse('bin-first', step.bin, got.gtin ?? text);
    return refuse(got.kind === 'text' ? 'unknown-code' : 'not-awaited', step.bin, text);
  }

  function judgeBinScanned(bin: string): PickVerdict {
    if (bin === step.bin) return accept('bin', { bin: true });
    // Another bin that holds all of it is a choice where the site leaves it to the picker, and no mistake.
    const from = step.elsewhere.find((o) => o.bin === bin && o.lot === step.lot && o.units >= step.units);
    if (!step.otherBins || !from || progress.counted > 0 || progress.found !== null)
      return refuse('wrong-bin', step.bin, bin);
    const rest = { bin, lot: from.lot };
    return { verdict: 'done', what: 'bin', progress: { ...progress, found: 0, rest, moved: true }, units: 0 };
  }

  function judgeItem(got: Code, text: string): PickVerdict {
    if (step.item.tracksSerial && got.kind === 'text') return judgeSerial(got.text);
    if (got.kind === 'bin') return judgeBinScanned(got.bin);
    if (got.kind === 'position' || got.kind === 'cart')
      return refuse('item-first', step.item.name, text, target(step, progress) - progress.counted);
    if (step.item.tracksLot && got.kind === 'text' && suits(got.text)) return accept('lot', taken(got.text));
    if (got.kind !== 'gs1' || !got.gtin) {
      if (step.item.tracksLot && got.kind === 'text') return refuse('wrong-lot', lot ?? '', got.text);
      return refuse(got.kind === 'text' ? 'unknown-code' : 'not-awaited', step.item.name, text);
    }
    const pack = step.item.packs.find((p) => p.gtin === got.gtin);
    if (!pack) return refuse('wrong-item', step.item.name, got.gtin);
    // What the label itself says is out of date goes to nobody, whatever the books say of its lot.
    if (got.bestBefore !== undefined && got.bestBefore < today)
      return refuse('expired', step.item.name, got.bestBefore);
    if (step.item.tracksLot && got.lot !== undefined && !suits(got.lot)) return refuse('wrong-lot', lot ?? '', got.lot);
    if (outOfDate(got.lot ?? lot)) return refuse('expired', step.item.name, step.bestBefore!);
    if (step.item.tracksSerial)
      return got.serial === undefined ? accept('item', { seen: true }) : judgeSerial(got.serial);
    const lotScanned = step.item.tracksLot && got.lot !== undefined ? taken(got.lot) : {};
    if (step.how.counting === 'once')
      return accept('item', { counted: target(step, progress), seen: true, ...lotScanned });
    const units = pack.units * (got.count ?? 1);
    if (step.how.counting === 'each' && units > 1) return refuse('scan-each', step.item.name, got.gtin);
    if (progress.counted + units > target(step, progress))
      return refuse('surplus', step.item.name, String(progress.counted + units), target(step, progress));
    return accept('item', { counted: progress.counted + units, seen: true, ...lotScanned });
  }

  /** Whether the promised lot is out of date by the books. */
  function outOfDate(of: string | null): boolean {
    return of === step.lot && step.bestBefore !== null && step.bestBefore < today;
  }

  /** Whether a lot may be taken: the one promised, or another while none is told yet. */
  function suits(got: string): boolean {
    return got === lot || (!progress.lot && step.otherLots.includes(got));
  }

  function taken(got: string): Partial<PickProgress> {
    return { lot: true, swapped: got === step.lot ? null : got };
  }

  function judgeSerial(serial: string): PickVerdict {
    if (progress.serials.includes(serial)) return refuse('repeated-serial', step.item.name, serial);
    if (!step.serialsInBin.includes(serial)) return refuse('wrong-serial', step.item.name, serial);
    return accept('serial', { seen: true, counted: progress.counted + 1, serials: [...progress.serials, serial] });
  }

  function judgeLot(got: Code, text: string): PickVerdict {
    const code = got.kind === 'gs1' ? got.lot : got.kind === 'text' ? got.text : undefined;
    if (got.kind === 'gs1' && got.gtin) {
      if (!step.item.packs.some((p) => p.gtin === got.gtin)) return refuse('wrong-item', step.item.name, got.gtin);
      if (code === undefined)
        return refuse('surplus', step.item.name, String(progress.counted + 1), target(step, progress));
    }
    if (code === undefined) return refuse('not-awaited', lot ?? '', text);
    if (!suits(code)) return refuse('wrong-lot', lot ?? '', code);
    return outOfDate(code) ? refuse('expired', step.item.name, step.bestBefore!) : accept('lot', taken(code));
  }

  function judgePosition(got: Code, text: string): PickVerdict {
    const expected = positionCode(step.position);
    if (got.kind === 'position') {
      const code = positionCode(got);
      return code === expected ? finish() : refuse('wrong-position', expected, code);
    }
    if (got.kind === 'gs1' && got.gtin) {
      const pack = step.item.packs.find((p) => p.gtin === got.gtin);
      if (!pack) return refuse('wrong-item', expected, got.gtin);
      return refuse('surplus', step.item.name, String(progress.counted + pack.units), target(step, progress));
    }
    return refuse(got.kind === 'text' ? 'unknown-code' : 'not-awaited', expected, text);
  }

  function judgeCarton(got: Code, text: string): PickVerdict {
    const { others, boxes, prefix, sscc } = step.carton!;
    const now = cartonOf(step, progress);
    if (got.kind === 'box' && now === null)
      return boxes.includes(got.code)
        ? { verdict: 'accepted', what: 'carton', progress: { ...progress, box: got.code } }
        : refuse('unknown-code', step.carton!.box, got.code);
    if (got.kind !== 'gs1' || got.sscc === undefined) return judgeInsteadOfCarton(got, text);
    if (now !== null) return got.sscc === now ? finish() : refuse('wrong-carton', now, got.sscc);
    if (got.sscc === sscc || others.includes(got.sscc)) return refuse('used-carton', '', got.sscc);
    if (!got.sscc.startsWith(prefix)) return refuse('not-our-carton', '', got.sscc);
    return wait[0] === 'carton' ? finish({ sscc: got.sscc }) : accept('carton', { sscc: got.sscc });
  }

  /** What was scanned in place of the carton's number: more goods, other goods, or something else. */
  function judgeInsteadOfCarton(got: Code, text: string): PickVerdict {
    const expected = cartonOf(step, progress) ?? 'carton';
    if (got.kind !== 'gs1' || !got.gtin)
      return refuse(got.kind === 'text' ? 'unknown-code' : 'not-awaited', expected, text);
    const pack = step.item.packs.find((p) => p.gtin === got.gtin);
    if (!pack) return refuse('wrong-item', step.item.name, got.gtin);
    return refuse('surplus', step.item.name, String(progress.counted + pack.units), target(step, progress));
  }

  /** The open carton takes no more: with goods in hand that it still took, or before any are counted. */
  function judgeFurther(): PickVerdict {
    if (cartonOf(step, progress) === null) return refuse('not-awaited', wait[0] ?? 'carton', 'further');
    if (progress.counted === 0 || progress.counted >= target(step, progress))
      return { verdict: 'accepted', what: 'carton', progress: { ...progress, sscc: null, further: true } };
    return { verdict: 'done', what: 'carton', progress: { ...progress, full: true }, units: progress.counted };
  }
}

/** The code on a cart position's label. */
export function positionCode(position: { cart: string; number: number }): string {
  return `${position.cart}-${position.number}`;
}
