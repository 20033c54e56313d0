import { sql, type SQL } from 'drizzle-orm';
import type { Language } from '@hand-relay/contract';
import { splitPacks } from '@hand-relay/core/handling/picking';
import type { Picking } from '@hand-relay/core/walking/waves';
import { notFound, rows, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';
import { wordsIn, type Words } from './words.ts';

interface Run {
  id: string;
  number: string;
  picking: Picking;
  sign: string;
  metres: number;
  stops: number;
  seconds: number;
  wave: number;
  picker: string;
  /** Of who picks it; null where that is open or they never chose one. */
  language: Language | null;
  orders: { place: number; number: string; customer: string; notes: string[] }[];
  picks: {
    bin: string;
    sku: string;
    name: string;
    unit: string;
    lot: string;
    units: number;
    /** Null where it has none on the cart. */
    position: number | null;
    order: string;
    gtin: string | null;
    packs: number[];
  }[];
}

/** On what it is printed, and the language of who asks for it. */
export interface Paper {
  paper: 'a4' | 'letter';
  language: Language | null;
}

const EDGE = 36;
const BAR_MM = 7;
const ROW = 44;
const at = { step: EDGE, bin: 60, item: 190, units: 410, position: 452, order: 486, done: 540 };

/** Pick lists of runs, each on pages of its own, behind a page that sums the wave up. */
export async function wavePaper(
  platform: Platform,
  siteId: string,
  waveId: string,
  { paper, language }: Paper,
): Promise<Buffer> {
  const words = wordsIn(language);
  const runs = await runsOf(platform, siteId, sql`r.wave_id = ${waveId} and r.state <> 'cancelled'`);
  const [wave] = await rows<{
    number: number;
    orders: number;
    lines: number;
    units: number;
    leaves: string | null;
    zone: string;
  }>(
    platform.db,
    sql`select w.number, count(distinct l.order_id)::int as orders, count(x.line_id)::int as lines, coalesce(sum(x.units), 0)::int as units,
               to_char(min(o.leaves_at) at time zone s.time_zone, 'YYYY-MM-DD HH24:MI') as leaves, s.time_zone as zone
        from wave w join site s on s.id = w.site_id left join wave_line x on x.wave_id = w.id left join order_line l on l.id = x.line_id
        left join customer_order o on o.id = l.order_id where w.id = ${waveId} and w.site_id = ${siteId} group by w.id, s.time_zone`,
  );
  if (!wave) throw notFound('wave', waveId);
  const document = newDocument(paper === 'letter' ? 'LETTER' : 'A4', EDGE, `${words.wave} ${wave.number}`);
  document.font('strong').fontSize(24).text(`${words.wave} ${wave.number}`, EDGE, EDGE);
  const sums = [
    [words.orders, wave.orders],
    [words.lines, wave.lines],
    [words.units, wave.units],
    [words.runs, runs.length],
    [words.walk, `${Math.round(runs.reduce((n, r) => n + r.metres, 0))} m`],
    [words.work, `${Math.round(runs.reduce((n, r) => n + r.seconds, 0) / 60)} min`],
    [words.leaves, wave.leaves ?? '–'],
  ];
  document.moveDown(0.6).fontSize(11);
  for (const [name, value] of sums) {
    const y = document.y;
    document.font('text').text(String(name), EDGE, y, { width: 120 });
    document.font('strong').text(String(value), 160, y);
  }
  document.moveDown(1);
  for (const run of runs) {
    if (document.y > document.page.height - 100) document.addPage();
    const y = document.y;
    const symbol = runSymbol(run.number);
    document
      .font('strong')
      .fontSize(12)
      .text(`${run.number}  ${run.sign}`, EDGE, y + 4, { width: 150 });
    document
      .font('text')
      .fontSize(10)
      .text(`${work(run, words).join(', ')}, ${Math.round(run.metres)} m`, 190, y + 6, { width: 170 });
    drawSymbol(document, symbol, 559 - symbolWidth(symbol), y);
    document.fillColor('#000000');
    document.y = y + 32;
  }
  for (const run of runs) {
    document.addPage();
    drawRun(document, run, wordsIn(run.language ?? language));
  }
  return finish(document);
}

/** The pick list of one run: its stops in walking order, with barcodes of run, bins and items. */
export async function pickList(
  platform: Platform,
  siteId: string,
  runId: string,
  { paper, language }: Paper,
): Promise<Buffer> {
  const [run] = await runsOf(platform, siteId, sql`r.id = ${runId}`);
  if (!run) throw notFound('run', runId);
  const words = wordsIn(run.language ?? language);
  const document = newDocument(paper === 'letter' ? 'LETTER' : 'A4', EDGE, `${words.run} ${run.number}`);
  drawRun(document, run, words);
  return finish(document);
}

async function runsOf({ db }: Platform, siteId: string, only: SQL): Promise<Run[]> {
  const found = await rows<Run>(
    db,
    sql`
    select r.id, r.number, r.picking, r.call_sign as sign, r.metres, r.stops, r.seconds, w.number as wave, coalesce(p.name, a.name, r.team) as picker,
           coalesce(p.language, a.language) as language, k.picks, q.orders
    from run r join wave w on w.id = r.wave_id left join person p on p.id = r.picker_id left join person a on a.id = r.assigned_id
    join lateral (
      select coalesce(jsonb_agg(jsonb_build_object('bin', b.code, 'sku', i.sku, 'name', i.name, 'unit', i.unit, 'lot', k.lot, 'units', k.units,
        'position', k.position, 'order', o.number, 'gtin', (select min(g.gtin) from item_pack g where g.item_id = i.id and g.level = 'unit'),
        'packs', (select coalesce(jsonb_agg(g.units), '[]') from item_pack g where g.item_id = i.id)) order by k.sequence), '[]') as picks
      from pick k join place b on b.id = k.bin_id join item i on i.id = k.item_id join customer_order o on o.id = k.order_id
      where k.run_id = r.id and k.state <> 'out'
    ) k on true
    join lateral (
      select coalesce(jsonb_agg(jsonb_build_object('place', q.number, 'number', o.number, 'customer', c.name,
        'notes', array(select n from unnest(array[o.note, c.wishes]) n where n <> '')) order by q.number), '[]') as orders
      from run_position q join customer_order o on o.id = q.order_id join customer c on c.id = o.customer_id where q.run_id = r.id
    ) q on true
    where r.site_id = ${siteId} and ${only} order by r.rank, r.number`,
  );
  return found.map((run) => (run.picking === 'consolidate' ? { ...run, picks: together(run.picks) } : run));
}

/** What is taken from one bin for several orders stands in one row, without their places. */
function together(picks: Run['picks']): Run['picks'] {
  const joined = new Map<string, Run['picks'][number]>();
  for (const pick of picks) {
    const key = `${pick.bin} ${pick.sku} ${pick.lot}`;
    const units = (joined.get(key)?.units ?? 0) + pick.units;
    joined.set(key, { ...pick, units, position: null, order: '' });
  }
  return [...joined.values()];
}

/** How many picks and stops a run has. */
const work = (run: Run, words: Words): string[] => [
  `${run.picks.length} ${run.picks.length === 1 ? words.pick : words.picks}`,
  `${run.stops} ${run.stops === 1 ? words.stop : words.stops}`,
];

const runSymbol = (number: string): LinearSymbol => ({
  kind: 'code128',
  text: `RUN-${number}`,
  moduleMm: 0.3,
  heightMm: 8,
});

/** Units as they are taken: whole packs first. */
function asPacks({ units, unit, packs }: Run['picks'][number]): string {
  const parts = splitPacks(units, packs);
  if (parts.every((p) => p.units === 1)) return unit;
  return parts.map((p) => (p.units === 1 ? `${p.count} ${unit}` : `${p.count} × ${p.units}`)).join(' + ');
}

/** Orders of a run with their place on the cart, customer, notes, and their number to scan; below `y`. */
function drawOrders(document: PDFKit.PDFDocument, { orders }: Run, words: Words, top: number, bottom: number): number {
  let y = top;
  for (const { place, number, customer, notes } of orders) {
    const lines = notes.length > 0 ? [`${words.notes}: ${notes.join(' · ')}`] : [];
    const height = 26 + 11 * lines.length;
    if (y + height > bottom) {
      document.addPage();
      y = EDGE;
    }
    document
      .font('strong')
      .fontSize(12)
      .text(String(place), EDGE, y + 4, { width: 22 });
    document.fontSize(11).text(number, at.bin, y + 4, { width: 126, height: 14, ellipsis: true });
    document
      .font('text')
      .fontSize(10)
      .text(customer, at.item, y + 5, { width: 190, height: 13, ellipsis: true });
    bars(document, `ORDER-${number}`, 400, y, 0.25, 150);
    for (const [i, line] of lines.entries())
      document
        .font('text')
        .fontSize(9)
        .text(line, at.bin, y + 24 + 11 * i, { width: 490, height: 11, ellipsis: true });
    y += height;
  }
  return y + 8;
}

function drawRun(document: PDFKit.PDFDocument, run: Run, words: Words): void {
  const bottom = document.page.height - 50;
  const head = (first: boolean) => {
    document.font('strong').fontSize(20).text(`${words.run} ${run.number}  ${run.sign}`, EDGE, EDGE, { width: 330 });
    const symbol = { ...runSymbol(run.number), heightMm: 12 };
    drawSymbol(document, symbol, 559 - symbolWidth(symbol), EDGE);
    document.fillColor('#000000').font('text').fontSize(10);
    if (first)
      document.text(
        [`${words.wave} ${run.wave}`, run.picker, ...work(run, words), `${Math.round(run.metres)} m`]
          .filter(Boolean)
          .join('  ·  '),
        EDGE,
        EDGE + 30,
        { width: 330 },
      );
    const y = first ? drawOrders(document, run, words, EDGE + 52, bottom) : EDGE + 52;
    document.font('text').fontSize(8).fillColor('#000000');
    document.text(words.bin, at.bin, y);
    document.text(words.item, at.item, y);
    document.text(words.units, at.units, y);
    document.text(words.place, at.position, y);
    document.text(words.order, at.order, y);
    document
      .moveTo(EDGE, y + 12)
      .lineTo(559, y + 12)
      .lineWidth(0.8)
      .stroke('#000000');
    return y + 16;
  };
  let y = head(true);
  run.picks.forEach((pick, i) => {
    if (y + ROW > bottom) {
      document.addPage();
      y = head(false);
    }
    document
      .font('text')
      .fontSize(9)
      .text(String(i + 1), at.step, y + 4);
    document.font('strong').fontSize(13).text(pick.bin, at.bin, y, { width: 126, height: 16, ellipsis: true });
    bars(document, pick.bin, at.bin, y + 17, 0.2, 124);
    document.font('strong').fontSize(10).text(pick.sku, at.item, y, { width: 90, height: 12, ellipsis: true });
    document
      .font('text')
      .fontSize(8)
      .text([pick.name, pick.lot && `${words.lot} ${pick.lot}`].filter(Boolean).join(', '), at.item + 74, y + 1, {
        width: 140,
        height: 18,
        ellipsis: true,
      });
    bars(document, pick.gtin ?? pick.sku, at.item, y + 17, 0.25, 210);
    document.font('strong').fontSize(14).text(String(pick.units), at.units, y, { width: 36 });
    document
      .font('text')
      .fontSize(8)
      .text(asPacks(pick), at.units, y + 17, { width: 72, height: 10, ellipsis: true });
    document
      .font('strong')
      .fontSize(14)
      .text(String(pick.position ?? '–'), at.position, y, { width: 28 });
    document
      .font('text')
      .fontSize(8)
      .text(pick.order, at.order, y + 2, { width: 54, height: 22, ellipsis: true });
    document.rect(at.done, y, 14, 14).lineWidth(0.8).stroke('#000000');
    document
      .moveTo(EDGE, y + ROW - 5)
      .lineTo(559, y + ROW - 5)
      .lineWidth(0.3)
      .stroke('#888888');
    y += ROW;
  });
}

/** Bars of a code as wide as there is room, or none where they would be too fine to be read. */
function bars(document: PDFKit.PDFDocument, text: string, x: number, y: number, moduleMm: number, room: number): void {
  const symbol: LinearSymbol = { kind: 'code128', text, moduleMm, heightMm: BAR_MM };
  const width = symbolWidth(symbol);
  const fitted = width > room ? { ...symbol, moduleMm: (moduleMm * room) / width } : symbol;
  if (fitted.moduleMm < 0.17) return;
  drawSymbol(document, fitted, x - 10 * fitted.moduleMm * (72 / 25.4), y);
  document.fillColor('#000000');
}
