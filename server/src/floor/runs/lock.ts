import { sql } from 'drizzle-orm';
import type { Picking } from '@hand-relay/core/walking/waves';
import { notFound, Refusal, rows, type Tx } from '../../platform/index.ts';

/** A run that is being changed, locked until the change is done. */
export interface RunRow {
  id: string;
  number: string;
  state: 'planned' | 'waiting' | 'picking' | 'left' | 'done' | 'cancelled';
  pickerId: string | null;
  picker: string | null;
  assignedId: string | null;
  assigned: string | null;
  cart: string | null;
  waveId: string;
  positions: number;
  picking: Picking;
  /** The site's. */
  timeZone: string;
}

export async function lockRun(tx: Tx, siteId: string, id: string): Promise<RunRow> {
  const [run] = await rows<RunRow>(
    tx,
    sql`select r.id, r.number, r.state, r.picker_id as "pickerId", p.name as picker, r.assigned_id as "assignedId", a.name as assigned,
               r.cart_code as cart, r.wave_id as "waveId", r.positions, r.picking,
               (select time_zone from site where id = r.site_id) as "timeZone"
        from run r left join person p on p.id = r.picker_id left join person a on a.id = r.assigned_id where r.id = ${id} and r.site_id = ${siteId} for update of r`,
  );
  if (!run) throw notFound('run', id);
  return run;
}

/** Refuses a run that is not being picked, or that somebody else picks. */
export function mustBeMine(run: RunRow, personId: string): void {
  if (run.state !== 'picking') throw new Refusal('run-state', { run: run.number, state: run.state });
  if (run.pickerId !== personId) throw new Refusal('run-of-another', { run: run.number, picker: run.picker });
}
