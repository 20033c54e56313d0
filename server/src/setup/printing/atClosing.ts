import { sql } from 'drizzle-orm';
import { allPacked, packingSlip } from '../documents/index.ts';
import { rows, type Actor, type Platform } from '../../platform/index.ts';
import { paperFor, settingsOf } from '../settings/index.ts';
import { labelOf, printOnce } from './jobs.ts';

/**
 * Prints what belongs to a carton that was just closed, each once and where its bench has a printer for it: its label, or
 * those of the whole shipment with the last carton, and the packing slip with the first or the last.
 *
 * @returns the printers; null where the site prints by hand, nothing is due yet, or no printer takes it
 */
export async function printAtClosing(
  platform: Platform,
  actor: Actor,
  { carton, bench }: { carton: string; bench: string },
): Promise<{ printer: string | null; slipPrinter: string | null }> {
  const { labels, slips } = await settingsOf(platform.db, actor.siteId);
  if (labels === 'hand' && slips === 'hand') return { printer: null, slipPrinter: null };
  const [shipment] = await rows<{ id: string; number: string; closed: string[]; complete: boolean }>(
    platform.db,
    sql`
    select s.id, s.number,
           array(select c.id from carton c where c.shipment_id = s.id and c.state = 'closed' order by c.closed_at, c.number) as closed,
           ${allPacked(sql`s.id`, sql`s.order_id`)} as complete
    from shipment s where s.id = (select shipment_id from carton where id = ${carton})`,
  );
  const { id, number, closed, complete } = shipment!;
  let printer: string | null = null;
  for (const one of labels === 'each' ? [carton] : labels === 'all' && complete ? closed : [])
    printer = await printOnce(platform, actor, {
      wanted: { kind: 'carton-label', of: one, station: bench, copies: 1 },
      unit: sql`select closed_at from carton where id = ${one}`,
      make: () => labelOf(platform, actor.siteId, one),
    });
  const withSlip = slips === 'first' ? closed[0] === carton : slips === 'last' && complete;
  const slipPrinter = withSlip
    ? await printOnce(platform, actor, {
        wanted: { kind: 'packing-slip', of: id, station: bench, copies: 1 },
        unit: sql`select closed_at from carton where id = ${carton}`,
        make: async () => {
          const { paper } = await paperFor(platform.db, actor.siteId, actor.personId);
          const pdf = await packingSlip(platform, actor.siteId, id, { paper, ahead: !complete });
          return { pdf, title: `Packing slip ${number}` };
        },
      })
    : null;
  return { printer, slipPrinter };
}
