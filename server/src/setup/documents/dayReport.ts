import type { DayReport } from '@hand-relay/contract';
import { finish, newDocument } from './page.ts';
import { MARGIN, tablesOn } from './tables.ts';
import { words } from './words.ts';

const INK = '#1E2326';

/** A day of a site on paper: what left by departure, who did what, what was short, waves foreseen and actual. */
export function dayReport(
  report: DayReport,
  { site, day, timeZone, paper }: { site: string; day: string; timeZone: string; paper: 'a4' | 'letter' },
): Promise<Buffer> {
  const clockForm = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone });
  const clock = (instant: string | null) => (instant ? clockForm.format(new Date(instant)) : '–');
  const minutes = (seconds: number) => (seconds > 0 ? Math.round(seconds / 60) : '–');
  const document = newDocument(paper === 'a4' ? 'A4' : 'LETTER', MARGIN, `${words.day} ${day}`);
  document.font('strong').fontSize(20).fillColor(INK).text(`${site}, ${day}`, MARGIN, MARGIN);
  document
    .font('text')
    .fontSize(11)
    .text(
      `${report.shipments} ${words.shipments}, ${report.cartons} ${words.cartons.toLowerCase()}, ${Math.round(report.weightG / 1000)} ${words.kg}`,
    );
  const table = tablesOn(document);
  table(
    words.departures,
    [
      { title: words.at, width: 0.12, of: (d) => clock(d.leavesAt) },
      { title: words.departure, width: 0.33, of: (d) => d.name || '–' },
      { title: words.orders, width: 0.11, right: true, of: (d) => d.orders },
      { title: words.inFull, width: 0.11, right: true, of: (d) => d.full },
      { title: words.partial, width: 0.11, right: true, of: (d) => d.partial },
      { title: words.late, width: 0.11, right: true, of: (d) => d.late },
      { title: words.notLeft, width: 0.11, right: true, of: (d) => d.open },
    ],
    report.departures,
  );
  table(
    words.people,
    [
      { title: words.person, width: 0.26, of: (p) => p.person },
      { title: words.picksTitle, width: 0.1, right: true, of: (p) => p.picks },
      { title: words.units, width: 0.1, right: true, of: (p) => p.units },
      { title: words.minutes, width: 0.11, right: true, of: (p) => minutes(p.seconds) },
      { title: words.expected, width: 0.11, right: true, of: (p) => minutes(p.picks > 0 ? p.expected : 0) },
      { title: words.refused, width: 0.11, right: true, of: (p) => p.refused },
      { title: words.packed, width: 0.1, right: true, of: (p) => p.packed },
      { title: words.confirmed, width: 0.11, right: true, of: (p) => p.shipments },
    ],
    report.people,
  );
  table(
    words.shorts,
    [
      { title: words.bin, width: 0.14, of: (s) => s.bin },
      { title: words.item, width: 0.14, of: (s) => s.sku },
      { title: words.description, width: 0.36, of: (s) => s.item },
      { title: words.reason, width: 0.2, of: (s) => s.reason.replaceAll('-', ' ') },
      { title: words.units, width: 0.16, right: true, of: (s) => s.units },
    ],
    report.shorts,
  );
  table(
    words.waves,
    [
      { title: words.wave, width: 0.2, of: (w) => w.number },
      { title: words.orders, width: 0.2, right: true, of: (w) => w.orders },
      { title: words.foreseen, width: 0.3, right: true, of: (w) => clock(w.foreseen) },
      { title: words.lastPick, width: 0.3, right: true, of: (w) => clock(w.ended) },
    ],
    report.waves,
  );
  return finish(document);
}
