import { sql, type SQL } from 'drizzle-orm';
import type { WaveNeed } from '@hand-relay/core/walking/waves';
import { iso, notFound, rows, type Db, type Tx } from '../../platform/index.ts';
import type { PlanOrder, WaveSettings } from './problem.ts';

/** Units of a line and lot that a wave must pick. */
export interface Need extends WaveNeed {
  line: string;
  priority: number;
  leavesAt: string | null;
}

export interface WaveHead extends WaveSettings {
  version: number;
  state: 'gathering' | 'planned' | 'started' | 'done' | 'cancelled';
  number: number;
}

export async function waveHead(on: Db | Tx, siteId: string, waveId: string): Promise<WaveHead> {
  const [wave] = await rows<WaveHead>(
    on,
    sql`select version, state, number, picking, cart_type_id as "cartTypeId", team, people from wave where id = ${waveId} and site_id = ${siteId}`,
  );
  if (!wave) throw notFound('wave', waveId);
  return wave;
}

/** What a wave has gathered: its reservations. */
export const gatheredNeeds = (on: Db | Tx, waveId: string): Promise<Need[]> =>
  needsOf(
    on,
    sql`select r.line_id as line, r.lot, r.units from reservation r where r.wave_id = ${waveId} and r.units > 0`,
  );

/** What runs of a wave that nobody has begun are to pick: their open picks. */
export const unbegunNeeds = (on: Db | Tx, waveId: string): Promise<Need[]> =>
  needsOf(
    on,
    sql`select k.line_id as line, k.lot, sum(k.units)::int as units from pick k join run r on r.id = k.run_id
        where r.wave_id = ${waveId} and r.state in ('planned', 'waiting') and k.state = 'open' group by 1, 2`,
  );

function needsOf(on: Db | Tx, parts: SQL): Promise<Need[]> {
  return rows<Need>(
    on,
    sql`
    select p.line || ' ' || p.lot as id, p.line, l.order_id as "order", l.item_id as item, nullif(p.lot, '') as lot, p.units,
           i.weight_g as "weightG", i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as "volumeCm3", i.handling,
           i.temperature = 'chilled' as chilled, o.priority, ${iso(sql`o.leaves_at`)} as "leavesAt"
    from (${parts}) p join order_line l on l.id = p.line join customer_order o on o.id = l.order_id join item i on i.id = l.item_id
    order by o.priority, o.id, l.line, p.lot`,
  );
}

export const ordersOf = (needs: readonly Need[]): PlanOrder[] => [
  ...new Map(needs.map((n) => [n.order, { id: n.order, priority: n.priority, leavesAt: n.leavesAt }])).values(),
];
