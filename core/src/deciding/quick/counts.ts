/** A bin with goods for a line, and the serial numbers that lie there, where the item has them. */
export interface GoodsPlace {
  bin: string;
  lot: string;
  /** Units that nobody is sent there for. */
  there: number;
  serials: string[];
}

/** From where units of a line are fetched. */
export interface FetchPlace extends GoodsPlace {
  units: number;
}

export interface QuickLine {
  line: string;
  /** Units that are open, and how many of them there are. */
  asked: number;
  gets: number;
  tracksSerial: boolean;
  from: FetchPlace[];
  /** Where else it lies, of lots that keep long enough. */
  others: GoodsPlace[];
}

export interface QuickOrder {
  /** Why it cannot go; null where nothing holds it. */
  held: string | null;
  shipComplete: boolean;
  lines: QuickLine[];
}

/**
 * What was typed, by line: units, or serial numbers separated by commas or spaces; without an entry, as asked. By
 * `placeKey` the units out of one bin: where a line has one of these, its bins alone say how many.
 */
export type Typed = Readonly<Record<string, string>>;

export const placeKey = (line: string, { bin, lot }: Pick<GoodsPlace, 'bin' | 'lot'>): string =>
  `${line} ${bin} ${lot}`;

/** All places of a line: first from where it is fetched, then where else it lies. */
export const placesOf = (line: QuickLine): FetchPlace[] => [
  ...line.from,
  ...line.others.map((other) => ({ ...other, units: 0 })),
];

/** Whether somebody said of a line how many units come out of which bin. */
export const isByPlace = (line: QuickLine, typed: Typed): boolean =>
  placesOf(line).some((place) => typed[placeKey(line.line, place)] !== undefined);

export interface Counted {
  units: number;
  serials: string[];
  /** Why it cannot be so; null where it can. */
  wrong: 'number' | 'more-than-asked' | 'more-than-there' | 'serials' | null;
}

/** The units that a field says; null where it is no whole number. */
function unitsIn(text: string): number | null {
  const bare = text.trim();
  return bare !== '' && !/^\d+$/.test(bare) ? null : Number(bare);
}

/** What the field of one place says: without an entry what was planned there. */
export function countAt(line: QuickLine, place: FetchPlace, typed: Typed): Counted {
  const units = unitsIn(typed[placeKey(line.line, place)] ?? String(place.units));
  if (units === null) return { units: 0, serials: [], wrong: 'number' };
  return { units, serials: [], wrong: units > place.there ? 'more-than-there' : null };
}

const list = (text: string) => [...new Set(text.split(/[\s,;]+/).filter(Boolean))];

/** What a line's field says: without an entry all that is there of what is asked, serial numbers must be named. */
export function countOf(line: QuickLine, entries: Typed): Counted {
  const typed = entries[line.line];
  if (line.tracksSerial) {
    const serials = list(typed ?? '');
    const known = new Set(placesOf(line).flatMap((f) => f.serials));
    const wrong =
      serials.length > line.asked ? 'more-than-asked' : serials.some((s) => !known.has(s)) ? 'serials' : null;
    return { units: serials.length, serials, wrong };
  }
  if (isByPlace(line, entries)) {
    const counts = placesOf(line).map((place) => countAt(line, place, entries));
    const units = counts.reduce((sum, c) => sum + c.units, 0);
    const wrong = counts.find((c) => c.wrong)?.wrong ?? (units > line.asked ? 'more-than-asked' : null);
    return { units, serials: [], wrong };
  }
  if (typed === undefined) return { units: line.gets, serials: [], wrong: null };
  const units = unitsIn(typed);
  if (units === null) return { units: 0, serials: [], wrong: 'number' };
  const wrong = units > line.asked ? 'more-than-asked' : units > line.gets ? 'more-than-there' : null;
  return { units, serials: [], wrong };
}

/** Why an order cannot be confirmed as it stands; null where it can. */
export function whyNot(order: QuickOrder, typed: Typed): 'held' | 'wrong' | 'nothing' | 'ships-complete' | null {
  if (order.held !== null) return 'held';
  const counts = order.lines.map((l) => ({ line: l, ...countOf(l, typed) }));
  if (counts.some((c) => c.wrong !== null)) return 'wrong';
  if (counts.every((c) => c.units === 0)) return 'nothing';
  return order.shipComplete && counts.some((c) => c.units < c.line.asked) ? 'ships-complete' : null;
}

/** An order's picks as they are confirmed: out of the bins as was said, else each line's units out of the first bin first. */
export function picksOf(order: QuickOrder, typed: Typed) {
  return order.lines.flatMap((line) => {
    const counted = countOf(line, typed);
    const byPlace = isByPlace(line, typed);
    let rest = counted.units;
    return placesOf(line).flatMap((place) => {
      const { bin, lot, units, serials } = place;
      const own = counted.serials.filter((s) => serials.includes(s));
      const said = byPlace ? countAt(line, place, typed).units : Math.min(rest, units);
      const some = line.tracksSerial ? own.length : said;
      rest -= some;
      return some > 0 ? [{ line: line.line, bin, lot, units: some, serials: own }] : [];
    });
  });
}
