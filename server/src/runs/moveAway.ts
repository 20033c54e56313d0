import { sql } from 'drizzle-orm';
import { rows, type Change } from '../platform/index.ts';
import { reroute } from './arrange.ts';

interface Sent {
  id: string;
  run: string;
  number: string;
  wave: string;
  state: 'planned' | 'waiting' | 'picking';
  units: number;
  /** A bin that holds enough beside what others are sent there for; null where none does. */
  to: string | null;
  toCode: string | null;
}

/**
 * Sends picks that nobody has begun to other bins of the same item and lot, as far as their own bin does not hold enough
 * for them any more. Whoever stands before the bin already is left to see for themselves.
 *
 * @param holds units that still lie there
 */
export async function moveAway(
  change: Change,
  {
    bin,
    code,
    item,
    lot,
    holds,
    besides = '',
  }: { bin: string; code: string; item: string; lot: string; holds: number; besides?: string },
): Promise<void> {
  const { tx } = change;
  const sent = await rows<Omit<Sent, 'to' | 'toCode'>>(
    tx,
    sql`
    select k.id, r.id as run, r.number, r.wave_id as wave, r.state, k.units from pick k join run r on r.id = k.run_id
    where k.bin_id = ${bin} and k.item_id = ${item} and k.lot = ${lot} and k.state = 'open' and k.id <> ${besides}
      and r.state in ('planned', 'waiting', 'picking') and not coalesce((k.progress->>'bin')::boolean, false) and coalesce((k.progress->>'counted')::int, 0) = 0
      and not (r.state = 'picking' and k.sequence = (select min(f.sequence) from pick f where f.run_id = r.id and f.state = 'open'))
    order by r.state = 'picking' desc, r.number, k.sequence for update of k`,
  );
  let left = holds;
  const turned = new Set<string>();
  for (const pick of sent) {
    if (pick.units <= left) {
      left -= pick.units;
      continue;
    }
    const [to] = await rows<{ id: string; code: string }>(
      tx,
      sql`
      select p.id, p.code from balance s join place p on p.id = s.place_id and p.kind = 'bin' and p.blocked is null and p.id <> ${bin}
      join place o on o.id = ${bin} and o.site_id = p.site_id
      where s.item_id = ${item} and s.lot = ${lot} group by p.id, p.code, p.aisle, p.y, o.aisle, o.y
      having sum(s.units) - coalesce((select sum(k.units) from pick k where k.state = 'open' and k.bin_id = p.id and k.item_id = ${item} and k.lot = ${lot}), 0) >= ${pick.units}
      order by p.aisle <> o.aisle, abs(p.y - o.y), p.code limit 1`,
    );
    if (!to) continue;
    await tx.execute(sql`update pick set bin_id = ${to.id}, why = 'moved' where id = ${pick.id}`);
    change.journal({
      kind: 'bin-changed',
      runId: pick.run,
      waveId: pick.wave,
      facts: { run: pick.number, from: code, bin: to.code, units: pick.units },
    });
    if (pick.state !== 'picking') turned.add(pick.run);
    change.tell('runs', [pick.run]);
  }
  for (const run of turned) await reroute(change, run);
}
