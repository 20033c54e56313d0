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

interface Share {
  asker: Asker;
  whole: number;
  rest: number;
}

/** Whole parts and remainders of `given × lacks / all`; a product too large to be exact is reckoned in big numbers. */
function quota(asker: Asker, given: number, lacks: number, all: number): Share {
  const product = given * lacks;
  if (product <= Number.MAX_SAFE_INTEGER) {
    const rest = product % all;
    return { asker, whole: (product - rest) / all, rest };
  }
  const exact = BigInt(given) * BigInt(lacks);
  return { asker, whole: Number(exact / BigInt(all)), rest: Number(exact % BigInt(all)) };
}

/**
 * Shares an item among its lines, pool by pool: lots that suit the same lines are one pool, and the pool that suits the
 * fewest comes first. What lines accept is nested, so that pools follow their dates.
 *
 * @param lots by date
 * @param askers the laxest first
 */
function shareItem(lots: readonly Pool[], askers: readonly Asker[], grants: Grants): void {
  for (const a of askers) grants.set(a.line, 0);
  let suits = 0;
  for (let i = 0; i < lots.length;) {
    const { bestBefore } = lots[i]!;
    while (suits < askers.length && askers[suits]!.until <= bestBefore) suits += 1;
    const next = askers[suits]?.until;
    let pool = 0;
    for (; i < lots.length && (next === undefined || lots[i]!.bestBefore < next); i += 1) pool += lots[i]!.units;
    shareOut(pool, askers.slice(0, suits), grants);
  }
}

function shareOut(pool: number, askers: readonly Asker[], grants: Grants): void {
  const all = askers.reduce((n, a) => n + a.line.units - grants.get(a.line)!, 0);
  const given = Math.min(pool, all);
  if (given === 0) return;
  const shares = askers.map((a) => quota(a, given, a.line.units - grants.get(a.line)!, all));
  let odd = given - shares.reduce((n, s) => n + s.whole, 0);
  if (odd > 0) shares.sort((a, b) => b.rest - a.rest || oddUnit(a.asker, b.asker));
  for (const { asker, whole } of shares) {
    grants.set(asker.line, grants.get(asker.line)! + whole + (odd > 0 ? 1 : 0));
    odd -= 1;
  }
}

/**
 * Gives each line of a short item its share in proportion to what it asks, in whole units by largest remainder
 * (Hamilton's method). Orders that ship complete and cannot be filled give back one at a time, the one served last
 * first, and the shares are worked out again after each.
 */
export function fairShare(supply: Supply[], demand: Demand[]): Grants {
  const lots = new Map<string, Pool[]>();
  for (const row of supply) {
    const list = lots.get(row.item) ?? [];
    list.push({ bestBefore: row.bestBefore ?? NO_DATE, units: row.units });
    lots.set(row.item, list);
  }
  const askers = new Map<string, Asker[]>();
  const grants: Grants = new Map();
  for (const order of demand)
    for (const line of order.lines) {
      const list = askers.get(line.item) ?? [];
      list.push({ order, line, until: goodUntil(order, line) });
      askers.set(line.item, list);
      grants.set(line, 0);
    }
  for (const list of lots.values()) list.sort((a, b) => byText(a.bestBefore, b.bestBefore));
  for (const list of askers.values()) list.sort((a, b) => byText(a.until, b.until));
  const share = (item: string) => shareItem(lots.get(item) ?? [], askers.get(item)!, grants);
  for (const item of askers.keys()) share(item);
  const complete = demand.filter((o) => o.shipComplete).sort((a, b) => firstServed(b, a));
  const filled = (order: Demand) => order.lines.every((line) => grants.get(line) === line.units);
  let waiting = complete;
  for (;;) {
    const gives = waiting.find((order) => !filled(order));
    if (!gives) return grants;
    waiting = waiting.filter((order) => order !== gives);
    for (const item of new Set(gives.lines.map((l) => l.item))) {
      askers.set(
        item,
        askers.get(item)!.filter((a) => a.order !== gives),
      );
      share(item);
    }
    for (const line of gives.lines) grants.set(line, 0);
  }
}
