import type { TraceAnswer } from '@hand-relay/contract';
import { finish, newDocument } from './page.ts';
import { MARGIN, tablesOn } from './tables.ts';
import { words } from './words.ts';

const INK = '#1E2326';

/** Where goods came from, where they are and who got them, for a recall: to be read away from a screen. */
export function tracePaper(
  found: TraceAnswer,
  {
    of,
    site,
    now,
    timeZone,
    paper,
  }: { of: readonly string[]; site: string; now: Date; timeZone: string; paper: 'a4' | 'letter' },
): Promise<Buffer> {
  const form = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone });
  const when = (instant: string) => form.format(new Date(instant));
  const lotOf = (g: { lot: string; serial: string }) => [g.lot, g.serial].filter(Boolean).join(' ');
  const title = of.join(', ');
  const document = newDocument(paper === 'a4' ? 'A4' : 'LETTER', MARGIN, `${words.trace} ${title}`);
  document.font('strong').fontSize(20).fillColor(INK).text(title, MARGIN, MARGIN);
  document
    .font('text')
    .fontSize(11)
    .text(
      `${site}, ${form.format(now)}. ${words.onHand}: ${found.onHand}. ${words.shippedUnits}: ${found.shippedUnits}.${found.more ? ` ${words.newest}` : ''}`,
    );
  const table = tablesOn(document);
  table(
    words.whoGot,
    [
      { title: words.at, width: 0.18, of: (s) => when(s.at) },
      { title: words.customer, width: 0.36, of: (s) => `${s.customerNumber} ${s.address}` },
      { title: words.order, width: 0.12, of: (s) => s.order.number },
      { title: words.tracking, width: 0.16, of: (s) => s.tracking ?? s.shipment.number },
      { title: words.lot, width: 0.11, of: lotOf },
      { title: words.units, width: 0.07, right: true, of: (s) => s.units },
    ],
    found.shipped,
  );
  table(
    words.whereNow,
    [
      { title: words.place, width: 0.24, of: (b) => b.place },
      { title: words.item, width: 0.3, of: (b) => b.item },
      { title: words.lot, width: 0.16, of: lotOf },
      { title: words.bestBefore, width: 0.18, of: (b) => b.bestBefore ?? '' },
      { title: words.units, width: 0.12, right: true, of: (b) => b.units },
    ],
    found.now,
  );
  table(
    words.whatCame,
    [
      { title: words.at, width: 0.2, of: (m) => when(m.at) },
      { title: words.place, width: 0.2, of: (m) => m.to },
      { title: words.item, width: 0.3, of: (m) => m.item },
      { title: words.lot, width: 0.18, of: lotOf },
      { title: words.units, width: 0.12, right: true, of: (m) => m.units },
    ],
    found.moves.filter((m) => m.from === 'OUTSIDE'),
  );
  return finish(document);
}
