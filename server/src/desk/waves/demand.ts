import { sql, type SQL } from 'drizzle-orm';
import { allocateBeside, type Demand, type LineAllocation, type Supply } from '@hand-relay/core/deciding/allocation';
import { anyOf, iso, rows, type Db, type Tx } from '../../platform/index.ts';
import { freeStock, localDay, shelfDays } from '../../stock/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

interface OpenLine {
  order: string;
  number: string;
  priority: number;
  due: string;
  shipComplete: boolean;
  line: string;
  lineNumber: number;
  item: string;
  sku: string;
  name: string;
  weightG: number;
  volumeCm3: number;
  open: number;
  minShelfDays: number;
  manual: number | null;
  handling: string;
  departure: string | null;
  leavesAt: string | null;
}

/** Chosen orders' open lines with what each is promised. */
export interface Allocation {
  /** `reserved` is what was reserved before, a part of the allocation. */
  lines: (OpenLine & { allocation: LineAllocation; reserved: LineAllocation['lots'] })[];
  /** Whether what is released is reserved at the scan only. */
  soft: boolean;
}

/** The items that orders ask, as a query of their ids. */
export const itemsOf = (orderIds: readonly string[]): SQL =>
  sql`select item_id from order_line where order_id = ${anyOf(orderIds)}`;

/**
 * Promises the site's free stock to the open lines of orders. Reads only; who writes it does so in the same
 * transaction, under the site's lock and that of the items' totals.
 *
 * @param options `exact`: units that lines get, whatever was allocated to them manually before; `toRelease`: orders on hold stay out; `now`: an order
 *   that is overdue ships today at the earliest
 */
export async function allocate(
  on: Db | Tx,
  siteId: string,
  orderIds: string[],
  { exact = new Map(), toRelease, now }: { exact?: ReadonlyMap<string, number>; toRelease: boolean; now: Date },
): Promise<Allocation> {
  const open = await rows<OpenLine>(
    on,
    sql`
    select o.id as "order", o.number, o.priority, greatest(o.due, ${localDay(siteId, now)})::text as due, o.ship_complete as "shipComplete",
           l.id as line, l.line as "lineNumber", i.id as item, i.sku, i.name, i.weight_g as "weightG",
           i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as "volumeCm3",
           l.asked - l.cancelled - l.released as open, ${shelfDays(sql`i.id`)} as "minShelfDays", l.manually_allocated as manual, i.handling, d.name as departure,
           ${iso(sql`o.leaves_at`)} as "leavesAt"
    from customer_order o join customer c on c.id = o.customer_id join order_line l on l.order_id = o.id join item i on i.id = l.item_id
    left join departure d on d.id = o.departure_id
    where o.site_id = ${siteId} and o.status = 'open' and o.id = ${anyOf(orderIds)}
      and l.asked - l.cancelled - l.released > 0
      and (not ${toRelease} or not exists (select 1 from order_hold h where h.order_id = o.id and h.lifted_at is null and 'release' = any(h.stops)))
    order by o.id, l.line`,
  );
  const settings = await settingsOf(on, siteId);
  // Where release does not reserve, what is released may count as taken all the same.
  const soft = settings.reserve === 'scan' && settings.countReleased;
  const supply = await rows<Supply>(
    on,
    sql`select f.item_id as item, nullif(f.lot, '') as lot, f.best_before::text as "bestBefore", f.units
        from (${freeStock(siteId, soft)}) f
        where f.units > 0 and f.item_id = ${anyOf([...new Set(open.map((l) => l.item))])}`,
  );
  const reserved = new Map<string, LineAllocation['lots']>();
  const before = await rows<{ line: string; lot: string | null; units: number }>(
    on,
    sql`select line_id as line, nullif(lot, '') as lot, units from reservation
        where wave_id is null and units > 0 and line_id = ${anyOf(open.map((l) => l.line))}`,
  );
  for (const { line, lot, units } of before) reserved.set(line, [...(reserved.get(line) ?? []), { lot, units }]);
  const orders = new Map<string, Demand>();
  for (const line of open) {
    const demand = orders.get(line.order) ?? {
      id: line.order,
      priority: line.priority,
      shipDate: line.due,
      shipComplete: line.shipComplete,
      lines: [],
    };
    demand.lines.push({ id: line.line, item: line.item, units: line.open, minShelfDays: line.minShelfDays });
    orders.set(line.order, demand);
  }
  const manual = new Map(
    open.flatMap((l) => {
      const units = exact.get(l.line) ?? l.manual;
      return units === null ? [] : [[l.line, Math.min(units, l.open)] as const];
    }),
  );
  const settled = { reserved, manual };
  const { promises: list } = allocateBeside(settled, supply, [...orders.values()]);
  const promises = new Map(list.map((p) => [p.line, p]));
  return {
    lines: open.map((line) => ({
      ...line,
      allocation: promises.get(line.line)!,
      reserved: reserved.get(line.line) ?? [],
    })),
    soft: settings.reserve === 'scan',
  };
}
