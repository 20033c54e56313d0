/** From where units of a line are fetched; serial numbers that lie there, where the item has them. */
export interface FetchPlace {
  bin: string;
  lot: string;
  units: number;
  serials: string[];
}

export interface QuickLine {
  line: string;
  /** Units that are open, and how many of them there are. */
  asked: number;
  gets: number;
  tracksSerial: boolean;
  from: FetchPlace[];
}

export interface QuickOrder {
  /** Why it cannot go; null where nothing holds it. */
  held: string | null;
  shipComplete: boolean;
  lines: QuickLine[];
}

/** What was typed for lines: units, or serial numbers separated by commas or spaces. Without an entry, as asked. */
export type Typed = Readonly<Record<string, string>>;

export interface Counted {
  units: number;
  serials: string[];
  /** Why it cannot be so; null where it can. */
  wrong: 'number' | 'more-than-asked' | 'more-than-there' | 'serials' | null;
}

const list = (text: string) => [...new Set(text.split(/[\s,;]+/).filter(Boolean))];

/** What a line's field says: without an entry all that is there of what is asked, serial numbers must be named. */
export function countOf(line: QuickLine, typed: string | undefined): Counted {
  if (line.tracksSerial) {
    const serials = list(typed ?? '');
    const known = new Set(line.from.flatMap((f) => f.serials));
    const wrong =
      serials.length > line.asked ? 'more-than-asked' : serials.some((s) => !known.has(s)) ? 'serials' : null;
    return { units: serials.length, serials, wrong };
  }
  if (typed === undefined) return { units: line.gets, serials: [], wrong: null };
  const text = typed.trim();
  if (text !== '' && !/^\d+$/.test(text)) return { units: 0, serials: [], wrong: 'number' };
  const units = Number(text);
  const wrong = units > line.asked ? 'more-than-asked' : units > line.gets ? 'more-than-there' : null;
  return { units, serials: [], wrong };
}

/** Why an order cannot be confirmed as it stands; null where it can. */
export function whyNot(order: QuickOrder, typed: Typed): 'held' | 'wrong' | 'nothing' | 'ships-complete' | null {
  if (order.held !== null) return 'held';
  const counts = order.lines.map((l) => ({ line: l, ...countOf(l, typed[l.line]) }));
  if (counts.some((c) => c.wrong !== null)) return 'wrong';
  if (counts.every((c) => c.units === 0)) return 'nothing';
  return order.shipComplete && counts.some((c) => c.units < c.line.asked) ? 'ships-complete' : null;
}

/** An order's picks as they are confirmed: each line's units out of its bins, the first bin first. */
export function picksOf(order: QuickOrder, typed: Typed) {
  return order.lines.flatMap((line) => {
    const counted = countOf(line, typed[line.line]);
    let rest = counted.units;
    return line.from.flatMap(({ bin, lot, units, serials }) => {
      const own = counted.serials.filter((s) => serials.includes(s));
      const some = line.tracksSerial ? own.length : Math.min(rest, units);
      rest -= some;
      return some > 0 ? [{ line: line.line, bin, lot, units: some, serials: own }] : [];
    });
  });
}
