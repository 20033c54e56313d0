/** Stock of one lot that can still be promised. `lot` and `bestBefore` are null where the item has none. */
export interface Supply {
  item: string;
  lot: string | null;
  bestBefore: string | null;
  units: number;
}

export interface DemandLine {
  id: string;
  item: string;
  units: number;
  minShelfDays: number;
}

export interface Demand {
  id: string;
  /** 1 is served first. */
  priority: number;
  /** ISO date on which the goods leave. */
  shipDate: string;
  shipComplete: boolean;
  lines: DemandLine[];
}

export interface LinePromise {
  order: string;
  line: string;
  units: number;
  lots: { lot: string | null; units: number }[];
}

/** Days from one ISO date to another; negative when `to` lies before `from`. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);
}

/** Whether a lot is good for long enough after the day of shipping. */
export function lotServes(bestBefore: string | null, shipDate: string, minShelfDays: number): boolean {
  return bestBefore === null || daysBetween(shipDate, bestBefore) >= minShelfDays;
}

const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Promises stock to demand in the order of priority, ship date and id; within a line the lot that expires first is
 * taken first. An order that ships complete gets every line in full or nothing.
 *
 * @returns a row for every line, also where it gets nothing, in the order served
 */
export function allocateByPriority(supply: Supply[], demand: Demand[]): LinePromise[] {
  const lots = new Map<string, Supply[]>();
  for (const row of supply) lots.set(row.item, [...(lots.get(row.item) ?? []), { ...row }]);
  for (const rows of lots.values())
    rows.sort(
      (a, b) => byText(a.bestBefore ?? '9999-12-31', b.bestBefore ?? '9999-12-31') || byText(a.lot ?? '', b.lot ?? ''),
    );
  const served = [...demand].sort(
    (a, b) => a.priority - b.priority || byText(a.shipDate, b.shipDate) || byText(a.id, b.id),
  );
  return served.flatMap((order) => {
    const taken: { from: Supply; units: number }[] = [];
    const promises = order.lines.map((line): LinePromise => {
      let missing = line.units;
      const parts: LinePromise['lots'] = [];
      for (const lot of lots.get(line.item) ?? []) {
        if (missing === 0) break;
        if (lot.units === 0 || !lotServes(lot.bestBefore, order.shipDate, line.minShelfDays)) continue;
        const units = Math.min(missing, lot.units);
        lot.units -= units;
        missing -= units;
        taken.push({ from: lot, units });
        parts.push({ lot: lot.lot, units });
      }
      return { order: order.id, line: line.id, units: line.units - missing, lots: parts };
    });
    const complete = promises.every((p, i) => p.units === order.lines[i]!.units);
    if (!order.shipComplete || complete) return promises;
    for (const { from, units } of taken) from.units += units;
    return promises.map((p) => ({ ...p, units: 0, lots: [] }));
  });
}

/**
 * Promises as `allocateByPriority` does, to lines of which a part was promised before: that part is theirs, and only
 * what they lack is taken from the supply. An order that ships complete and cannot be completed gets nothing now; what
 * it was promised before is left as it is.
 *
 * @param kept what was promised before, by line
 */
export function allocateBeside(
  kept: ReadonlyMap<string, LinePromise['lots']>,
  supply: Supply[],
  demand: Demand[],
): LinePromise[] {
  const before = (line: string) => kept.get(line) ?? [];
  const sum = (lots: LinePromise['lots']) => lots.reduce((n, l) => n + l.units, 0);
  const lacking = demand.map((order) => ({
    ...order,
    lines: order.lines.map((line) => ({ ...line, units: Math.max(0, line.units - sum(before(line.id))) })),
  }));
  const more = new Map(allocateByPriority(supply, lacking).map((promise) => [promise.line, promise]));
  return lacking.flatMap((order) => {
    const whole = order.lines.every((line) => more.get(line.id)!.units === line.units);
    return order.lines.map((line): LinePromise => {
      if (order.shipComplete && !whole) return { order: order.id, line: line.id, units: 0, lots: [] };
      const lots = new Map(before(line.id).map((l) => [l.lot, l.units]));
      for (const { lot, units } of more.get(line.id)!.lots) lots.set(lot, (lots.get(lot) ?? 0) + units);
      const list = [...lots].map(([lot, units]) => ({ lot, units }));
      return { order: order.id, line: line.id, units: sum(list), lots: list };
    });
  });
}
