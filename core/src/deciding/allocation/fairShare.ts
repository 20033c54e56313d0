import {
  byText,
  firstServed,
  goodUntil,
  NO_DATE,
  type Demand,
  type DemandLine,
  type Grants,
  type Supply,
} from './problem.ts';

interface Pool {
  bestBefore: string;
  units: number;
}

interface Asker {
  order: Demand;
  line: DemandLine;
  until: string;
}

/** Earlier day, then order id, then line id: who gets the odd unit. */
const oddUnit = (a: Asker, b: Asker) =>
  byText(a.order.shipDate, b.order.shipDate) || byText(a.order.id, b.order.id) || byText(a.line.id, b.line.id);

/** An item with its pools and those who ask for it, the laxest first; what is worked out again and again in arrays. */
interface Item {
  /** Units of each pool, and how many of the askers it suits. */
  pools: { units: number; suits: number }[];
  orders: Int32Array;
  lines: DemandLine[];
  asked: Float64Array;
  granted: Float64Array;
  /** Place of each asker among those who get an odd unit. */
  rank: Int32Array;
  /** 1 where the order gave back. */
  gone: Uint8Array;
}

function itemOf(lots: readonly Pool[], askers: readonly Asker[], orderAt: ReadonlyMap<Demand, number>): Item {
  const pools: Item['pools'] = [];
  let suits = 0;
  for (let i = 0; i < lots.length;) {
    const { bestBefore } = lots[i]!;
    while (suits < askers.length && askers[suits]!.until <= bestBefore) suits += 1;
    const next = askers[suits]?.until;
    let units = 0;
    for (; i < lots.length && (next === undefined || lots[i]!.bestBefore < next); i += 1) units += lots[i]!.units;
    pools.push({ units, suits });
  }
  const rank = new Int32Array(askers.length);
  const odd = askers.map((_, i) => i).sort((a, b) => oddUnit(askers[a]!, askers[b]!));
  odd.forEach((asker, place) => (rank[asker] = place));
  return {
    pools,
    orders: Int32Array.from(askers, (a) => orderAt.get(a.order)!),
    lines: askers.map((a) => a.line),
    asked: Float64Array.from(askers, (a) => a.line.units),
    granted: new Float64Array(askers.length),
    rank,
    gone: new Uint8Array(askers.length),
  };
}

/**
 * Shares an item among its lines, pool by pool: lots that suit the same lines are one pool, and the pool that suits the
 * fewest comes first. What lines accept is nested, so that pools follow their dates.
 */
function shareItem(item: Item): void {
  item.granted.fill(0);
  for (const { units, suits } of item.pools) shareOut(item, units, suits);
}

function shareOut({ asked, granted, rank, gone }: Item, pool: number, suits: number): void {
  let all = 0;
  for (let i = 0; i < suits; i++) if (!gone[i]) all += asked[i]! - granted[i]!;
  const given = Math.min(pool, all);
  if (given === 0) return;
  let odd = given;
  const left: { asker: number; rest: number }[] = [];
  for (let i = 0; i < suits; i++) {
    if (gone[i]) continue;
    const { whole, rest } = quota(given, asked[i]! - granted[i]!, all);
    granted[i]! += whole;
    odd -= whole;
    if (rest > 0) left.push({ asker: i, rest });
  }
  if (odd === 0) return;
  const before = (a: (typeof left)[number], b: (typeof left)[number]) =>
    b.rest - a.rest || rank[a.asker]! - rank[b.asker]!;
  for (const { asker } of firstOf(left, odd, before)) granted[asker]! += 1;
}

/** The first so many of a list in an order, in none of their own: by parting it around one of them (Hoare 1961). */
function firstOf<T>(list: T[], count: number, before: (a: T, b: T) => number): T[] {
  let [low, high] = [0, list.length - 1];
  while (low < high && count < list.length) {
    const pivot = list[(low + high) >> 1]!;
    let [i, j] = [low, high];
    while (i <= j) {
      while (before(list[i]!, pivot) < 0) i++;
      while (before(list[j]!, pivot) > 0) j--;
      if (i > j) break;
      [list[i], list[j]] = [list[j]!, list[i]!];
      i++;
      j--;
    }
    if (count - 1 <= j) high = j;
    else if (count - 1 >= i) low = i;
    else break;
  }
  return list.slice(0, count);
}

/** Whole part and remainder of `given × lacks / all`; a product too large to be exact is reckoned in big numbers. */
function quota(given: number, lacks: number, all: number): { whole: number; rest: number } {
  const product = given * lacks;
  if (product <= Number.MAX_SAFE_INTEGER) {
    const rest = product % all;
    return { whole: (product - rest) / all, rest };
  }
  const exact = BigInt(given) * BigInt(lacks);
  return { whole: Number(exact / BigInt(all)), rest: Number(exact % BigInt(all)) };
}

/**
 * Gives each line of a short item its share in proportion to what it asks, in whole units by largest remainder
 * (Hamilton's method). Orders that ship complete and cannot be filled give back one at a time, the one served last
 * first, and the shares of the items that it asked for are worked out again after each.
 */
export function fairShare(supply: Supply[], demand: Demand[]): Grants {
  const lots = new Map<string, Pool[]>();
  for (const row of supply) {
    const list = lots.get(row.item) ?? [];
    list.push({ bestBefore: row.bestBefore ?? NO_DATE, units: row.units });
    lots.set(row.item, list);
  }
  const askers = new Map<string, Asker[]>();
  for (const order of demand)
    for (const line of order.lines) {
      const list = askers.get(line.item) ?? [];
      list.push({ order, line, until: goodUntil(order, line) });
      askers.set(line.item, list);
    }
  for (const list of lots.values()) list.sort((a, b) => byText(a.bestBefore, b.bestBefore));
  for (const list of askers.values()) list.sort((a, b) => byText(a.until, b.until));
  // Orders by number, those that ship complete first, in the order in which they give back.
  const complete = demand.filter((o) => o.shipComplete).sort((a, b) => firstServed(b, a));
  const orderAt = new Map([...complete, ...demand.filter((o) => !o.shipComplete)].map((o, i) => [o, i]));
  const items = new Map<string, Item>();
  const lacking = new Int32Array(demand.length);
  const unfilled = new FirstOf(complete.length);
  /** Shares an item out, and keeps count of the lines that each order lacks something of. */
  const share = (item: Item, counted: boolean) => {
    const { asked, granted, orders, gone } = item;
    const full = (i: number) => granted[i] === asked[i];
    const was = counted ? granted.slice() : null;
    shareItem(item);
    for (let i = 0; i < asked.length; i++) {
      if (gone[i]) continue;
      const order = orders[i]!;
      const before = was ? was[i] === asked[i] : true;
      if (before === full(i)) continue;
      lacking[order]! += before ? 1 : -1;
      if (order < complete.length) unfilled.set(order, lacking[order]! > 0);
    }
  };
  for (const [name, list] of askers) {
    const item = itemOf(lots.get(name) ?? [], list, orderAt);
    items.set(name, item);
    share(item, false);
  }
  for (let gives = unfilled.first(); gives >= 0; gives = unfilled.first()) {
    unfilled.end(gives);
    for (const name of new Set(complete[gives]!.lines.map((l) => l.item))) {
      const item = items.get(name)!;
      for (let i = 0; i < item.orders.length; i++) if (item.orders[i] === gives) item.gone[i] = 1;
      share(item, true);
    }
  }
  const grants: Grants = new Map();
  for (const { lines, granted, gone } of items.values())
    lines.forEach((line, i) => grants.set(line, gone[i] ? 0 : granted[i]!));
  return grants;
}

/** Numbers that are in or out, of which the first that is in is asked for again and again. */
class FirstOf {
  private readonly inside: Uint8Array;
  private readonly over: Uint8Array;
  private at = 0;

  constructor(size: number) {
    this.inside = new Uint8Array(size);
    this.over = new Uint8Array(size);
  }

  set(number: number, inside: boolean): void {
    this.inside[number] = inside && !this.over[number] ? 1 : 0;
    if (inside && number < this.at) this.at = number;
  }

  /** A number is out for good. */
  end(number: number): void {
    this.over[number] = 1;
    this.inside[number] = 0;
  }

  /** The first that is in, or -1. */
  first(): number {
    while (this.at < this.inside.length && !this.inside[this.at]) this.at++;
    return this.at < this.inside.length ? this.at : -1;
  }
}
