import { sql, type SQL } from 'drizzle-orm';
import type { Language, LabelChoice, LabelSize, Labelled } from '@hand-relay/contract';
import { rows, type Db, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { labelSizes } from './logisticLabel.ts';
import { finish, newDocument } from './page.ts';
import { wordsIn } from './words.ts';

const EDGE = 36;

const LABEL = { width: 262, height: 100, gap: 8 };

/** Labels for bins, to print and cut: the code large, and as Code 128. */
export async function binLabels(
  { db }: Platform,
  siteId: string,
  aisle: string | undefined,
  paper: 'a4' | 'letter',
  language: Language | null = null,
): Promise<Buffer> {
  const words = wordsIn(language);
  const bins = await rows<{ bin: string; zone: string }>(
    db,
    sql`select p.code as bin, coalesce(z.name, '') as zone from place p left join zone z on z.id = p.zone_id
        where p.site_id = ${siteId} and p.kind = 'bin' and not p.retired and ${aisle === undefined ? sql`true` : sql`p.aisle = ${aisle}`} order by p.code limit 4000`,
  );
  const document = newDocument(paper === 'letter' ? 'LETTER' : 'A4', EDGE, words.binLabels);
  if (bins.length === 0) document.fontSize(12).text(words.noBins);
  const across = 2;
  const perPage = across * Math.floor((document.page.height - 2 * EDGE) / LABEL.height);
  bins.forEach(({ bin, zone }, i) => {
    if (i > 0 && i % perPage === 0) document.addPage();
    const place = i % perPage;
    const x = EDGE + (place % across) * (LABEL.width + LABEL.gap);
    const y = EDGE + Math.floor(place / across) * LABEL.height;
    document
      .rect(x, y, LABEL.width, LABEL.height - 6)
      .lineWidth(0.5)
      .dash(2, { space: 2 })
      .stroke('#888888')
      .undash();
    document
      .font('strong')
      .fontSize(30)
      .text(bin, x + 10, y + 6, { width: LABEL.width - 20, height: 36, ellipsis: true });
    document
      .font('text')
      .fontSize(8)
      .text(zone, x + 10, y + 40, { width: LABEL.width - 20 });
    const symbol: LinearSymbol = { kind: 'code128', text: bin, moduleMm: 0.38, heightMm: 12 };
    drawSymbol(document, symbol, x + 4, y + 53);
    document.fillColor('#000000');
  });
  return finish(document);
}

/** What a label says: a code in large letters, a name below, and what a scanner reads. */
interface Label extends LabelChoice {
  scan: string;
}

const place = (kind: string) => (siteId: string) =>
  sql`select code, code as scan, name from place where site_id = ${siteId} and kind = ${kind} and not retired order by code`;

const sources: Record<Labelled, (siteId: string) => SQL> = {
  carts: (siteId) =>
    sql`select c.code, c.code as scan, t.name from cart c join cart_type t on t.id = c.type_id where c.site_id = ${siteId} and not c.retired order by c.code`,
  'cart-places': (siteId) =>
    sql`select c.code || '-' || n as code, c.code || '-' || n as scan, t.name from cart c join cart_type t on t.id = c.type_id
        cross join generate_series(1, t.positions) n where c.site_id = ${siteId} and not c.retired order by c.code, n`,
  lanes: place('lane'),
  benches: place('bench'),
  doors: place('door'),
  'carton-types': () => sql`select code, code as scan, name from carton_type where not retired order by code`,
  items: () =>
    sql`select i.sku as code, coalesce((select min(g.gtin) from item_pack g where g.item_id = i.id and g.level = 'unit'), i.sku) as scan, i.name
        from item i where not i.service order by i.sku`,
  people: (siteId) =>
    sql`select p.badge as code, p.badge as scan, p.name from membership m join person p on p.id = m.person_id
        where m.site_id = ${siteId} and m.active and p.badge is not null order by p.name`,
};

/** What labels can be printed for, of one kind. */
export async function labelChoices(on: Db, siteId: string, what: Labelled): Promise<LabelChoice[]> {
  return (await rows<Label>(on, sources[what](siteId))).map(({ code, name }) => ({ code, name }));
}

/** Points of one label, and how many stand on a sheet of A4; a roll has one a page. */
const sizes: Record<LabelSize, { box: readonly [number, number]; across?: number; down?: number }> = {
  // Three by eight on A4, as sheets of labels are sold (70 × 37 mm).
  sheet: { box: [198.4, 104.9], across: 3, down: 8 },
  '62x29': { box: [175.7, 82.2] },
  '4x6': { box: labelSizes['4x6'] },
  a6: { box: labelSizes.a6 },
};

/**
 * Labels to stick on carts, places, lanes, benches, doors, carton types, items and people.
 *
 * @param codes which; all of their kind where there is none
 */
export async function labels(
  { db }: Platform,
  siteId: string,
  { what, codes, size }: { what: Labelled; codes: readonly string[]; size: LabelSize },
  language: Language | null,
): Promise<Buffer> {
  const words = wordsIn(language);
  const wanted = new Set(codes);
  const found = (await rows<Label>(db, sources[what](siteId))).filter((l) => wanted.size === 0 || wanted.has(l.code));
  const { box, across = 1, down = 1 } = sizes[size];
  const document = newDocument(size === 'sheet' ? 'A4' : [...box], 0, words.labels);
  if (found.length === 0) document.fontSize(12).text(words.noLabels, 20, 20);
  found.forEach((label, i) => {
    const on = i % (across * down);
    if (i > 0 && on === 0) document.addPage();
    draw(document, label, (on % across) * box[0], Math.floor(on / across) * box[1], box);
  });
  return finish(document);
}

/** As large as the label allows: the code above, the name, and the bars below. */
function draw(
  document: PDFKit.PDFDocument,
  { code, name, scan }: Label,
  x: number,
  y: number,
  [width, height]: readonly [number, number],
): void {
  const pad = Math.max(8, width * 0.05);
  const inner = width - 2 * pad;
  document.font('strong').fillColor('#000000');
  let letters = height * 0.3;
  while (letters > 9 && document.fontSize(letters).widthOfString(code) > inner) letters -= 1;
  document.fontSize(letters).text(code, x + pad, y + pad, { width: inner, align: 'center', lineBreak: false });
  const below = y + pad + letters * 1.25;
  document
    .font('text')
    .fontSize(Math.max(8, height * 0.07))
    .text(name, x + pad, below, { width: inner, align: 'center', height: height * 0.1, ellipsis: true });
  const top = below + height * 0.13;
  const symbol: LinearSymbol = { kind: 'code128', text: scan, moduleMm: 0.5, heightMm: 10 };
  const wide = symbolWidth(symbol);
  const room = width - 6;
  drawSymbol(
    document,
    {
      ...symbol,
      moduleMm: Math.min(0.5, (0.5 * room) / wide),
      heightMm: Math.max(6, (y + height - pad * 0.6 - top) / 2.8346),
    },
    x + (width - Math.min(wide, room)) / 2,
    top,
  );
}
