import { sql } from 'drizzle-orm';
import { allocateBeside, type Demand, type LinePromise, type Supply } from '@hand-relay/core/allocation';
import { recordset, rows, type Db, type Tx } from '../platform/index.ts';
import { wayOf } from '../ways/index.ts';

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
}

/** Chosen orders' open lines with what each is promised. */
export interface Allocation {
  /** `kept` is what was promised before, a part of the promise. */
  lines: (OpenLine & { promise: LinePromise; kept: LinePromise['lots'] })[];
  /** Whether what is released is reserved at the scan only. */
  soft: boolean;
}

/**
 * Promises the site's free stock to the open lines of orders. Reads only; who writes it does so in the same
 * transaction, under the site's lock.
 */
export async function allocate(on: Db | Tx, siteId: string, orderIds: string[]): Promise<Allocation> {
  const open = await rows<OpenLine>(
    on,
    sql`
    select o.id as "order", o.number, o.priority, o.due::text as due, o.ship_complete as "shipComplete",
           l.id as line, l.line as "lineNumber", i.id as item, i.sku, i.name, i.weight_g as "weightG",
           i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as "volumeCm3",
           l.asked - l.cancelled - l.released as open, c.min_shelf_days as "minShelfDays"
    from customer_order o join customer c on c.id = o.customer_id join order_line l on l.order_id = o.id join item i on i.id = l.item_id
    where o.site_id = ${siteId} and o.status = 'open' and o.id in (select jsonb_array_elements_text(${recordset(orderIds)}))
      and l.asked - l.cancelled - l.released > 0
    order by o.id, l.line`,
  );
  const way = await wayOf(on, siteId);
  // Where release does not reserve, what is released may count as taken all the same.
  const soft = way.reserve === 'scan' && way.countReleased;
  const supply = await rows<Supply>(
    on,
    sql`
    select t.item_id as item, nullif(t.lot, '') as lot, l.best_before::text as "bestBefore",
           ${soft ? sql`t.on_hand - t.reserved - coalesce(w.units, 0)` : sql`t.on_hand - t.reserved`}::int as units
    from stock_total t left join lot l on l.item_id = t.item_id and l.lot = t.lot
    ${
      soft
        ? sql`left join (select item_id, lot, sum(units - firm) as units from reservation where site_id = ${siteId} group by 1, 2) w
              on w.item_id = t.item_id and w.lot = t.lot`
        : sql``
    }
    where t.site_id = ${siteId} and ${soft ? sql`t.on_hand > t.reserved + coalesce(w.units, 0)` : sql`t.on_hand > t.reserved`}
      and t.item_id in (select jsonb_array_elements_text(${recordset([...new Set(open.map((l) => l.item))])}))`,
  );
  const kept = new Map<string, LinePromise['lots']>();
  const before = await rows<{ line: string; lot: string | null; units: number }>(
    on,
    sql`select line_id as line, nullif(lot, '') as lot, units from reservation
        where wave_id is null and units > 0 and line_id in (select jsonb_array_elements_text(${recordset(open.map((l) => l.line))}))`,
  );
  for (const { line, lot, units } of before) kept.set(line, [...(kept.get(line) ?? []), { lot, units }]);
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
  const promises = new Map(allocateBeside(kept, supply, [...orders.values()]).map((p) => [p.line, p]));
  return {
    lines: open.map((line) => ({ ...line, promise: promises.get(line.line)!, kept: kept.get(line.line) ?? [] })),
    soft: way.reserve === 'scan',
  };
}
