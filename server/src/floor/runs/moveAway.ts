import { sql } from 'drizzle-orm';
import { replacementBin, type At } from '@hand-relay/core/handling/picking';
import { rows, type Change, type Tx } from '../../platform/index.ts';
import { reroute } from './arrange.ts';

interface Sent {
  id: string;
  run: string;
  number: string;
  wave: string;
  state: 'planned' | 'waiting' | 'picking';
  units: number;
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
  const sent = await rows<Sent>(
    tx,
    sql`
    select k.id, r.id as run, r.number, r.wave_id as wave, r.state, k.units from pick k join run r on r.id = k.run_id
    where k.bin_id = ${bin} and k.item_id = ${item} and k.lot = ${lot} and k.state = 'open' and k.id <> ${besides}
      and r.state in ('planned', 'waiting', 'picking') and not coalesce((k.progress->>'bin')::boolean, false) and coalesce((k.progress->>'counted')::int, 0) = 0
      and not (r.state = 'picking' and k.sequence = (select min(f.sequence) from pick f where f.run_id = r.id and f.state = 'open'))
    order by r.state = 'picking' desc, r.number, k.sequence for update of k`,
  );
  const [from] = await rows<At>(tx, sql`select aisle, y from place where id = ${bin}`);
  let left = holds;
  const turned = new Set<string>();
  for (const pick of sent) {
    if (pick.units <= left) {
      left -= pick.units;
      continue;
    }
    const to = replacementBin(await otherBins(tx, { bin, item, lot }), from!, pick.units);
    if (!to) continue;
    await tx.execute(sql`update pick set bin_id = ${to.id}, why = 'moved' where id = ${pick.id}`);
    change.journal({
      kind: 'bin-changed',
      runId: pick.run,
      waveId: pick.wave,
      facts: { run: pick.number, from: code, bin: to.bin, units: pick.units },
    });
    if (pick.state !== 'picking') turned.add(pick.run);
    change.publish('picks', [pick.run]);
  }
  for (const run of turned) await reroute(change, run);
}

/** Other bins of an item and lot that nothing blocks, with what of it nobody is sent there for. */
const otherBins = (tx: Tx, { bin, item, lot }: { bin: string; item: string; lot: string }) =>
  rows<At & { id: string; bin: string; units: number }>(
    tx,
    sql`select p.id, p.code as bin, p.aisle, p.y, (sum(s.units) - coalesce((
                 select sum(k.units) from pick k where k.state = 'open' and k.bin_id = p.id and k.item_id = ${item} and k.lot = ${lot}), 0))::int as units
        from balance s join place p on p.id = s.place_id and p.kind = 'bin' and p.blocked is null and p.id <> ${bin}
        join place o on o.id = ${bin} and o.site_id = p.site_id
        where s.item_id = ${item} and s.lot = ${lot} group by p.id, p.code, p.aisle, p.y`,
  );
