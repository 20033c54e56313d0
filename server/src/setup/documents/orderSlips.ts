import { sql } from 'drizzle-orm';
import { splitPacks } from '@hand-relay/core/handling/picking';
import { notFound, rows, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';
import type { Paper } from './pickList.ts';
import { wordsIn } from './words.ts';

interface Slip {
  number: string;
  reference: string;
  customer: string;
  notes: string[];
  name: string;
  street: string;
  postcode: string;
  city: string;
  country: string;
  leaves: string | null;
  departure: string | null;
  lines: { line: number; sku: string; name: string; unit: string; units: number; packs: number[]; note: string }[];
}

const EDGE = 42;
const WIDTH = 511;
const ROW = 20;

/**
 * A slip for each order of a wave before it is picked: its number to scan, who gets it, and what of it is in the wave. It
 * goes onto the cart with the goods.
 */
export async function waveSlips(
  { db }: Platform,
  siteId: string,
  waveId: string,
  { paper, language }: Paper,
): Promise<Buffer> {
  const words = wordsIn(language);
  const [wave] = await rows<{ number: number }>(
    db,
    sql`select number from wave where id = ${waveId} and site_id = ${siteId}`,
  );
  if (!wave) throw notFound('wave', waveId);
  const slips = await rows<Slip>(
    db,
    sql`
    select o.number, o.reference, c.name as customer, array(select n from unnest(array[o.note, c.wishes]) n where n <> '') as notes,
           o.ship_name as name, o.ship_street as street, o.ship_postcode as postcode, o.ship_city as city, o.ship_country as country,
           to_char(o.leaves_at at time zone s.time_zone, 'YYYY-MM-DD HH24:MI') as leaves, d.name as departure,
           jsonb_agg(jsonb_build_object('line', l.line, 'sku', i.sku, 'name', i.name, 'unit', i.unit, 'units', x.units, 'note', l.note,
             'packs', (select coalesce(jsonb_agg(g.units), '[]') from item_pack g where g.item_id = i.id)) order by l.line) as lines
    from wave_line x join order_line l on l.id = x.line_id join item i on i.id = l.item_id join customer_order o on o.id = l.order_id
    join customer c on c.id = o.customer_id join site s on s.id = o.site_id left join departure d on d.id = o.departure_id
    where x.wave_id = ${waveId} and x.units > 0 group by o.id, c.name, c.wishes, s.time_zone, d.name order by o.leaves_at nulls last, o.number`,
  );
  const document = newDocument(paper === 'letter' ? 'LETTER' : 'A4', EDGE, `${words.wave} ${wave.number}`);
  const bottom = document.page.height - 60;
  slips.forEach((slip, i) => {
    if (i > 0) document.addPage();
    document.font('strong').fontSize(26).fillColor('#000000').text(slip.number, EDGE, EDGE, { width: 300 });
    document
      .font('text')
      .fontSize(10)
      .text(
        [`${words.wave} ${wave.number}`, [slip.leaves, slip.departure].filter(Boolean).join(' ')]
          .filter(Boolean)
          .join('  ·  '),
      );
    const symbol: LinearSymbol = { kind: 'code128', text: `ORDER-${slip.number}`, moduleMm: 0.33, heightMm: 14 };
    drawSymbol(document, symbol, EDGE + WIDTH - symbolWidth(symbol), EDGE);
    document.fillColor('#000000').font('text').fontSize(8).text(words.shipTo, EDGE, 110);
    document.font('strong').fontSize(12).text(slip.name, { width: 260 });
    document.font('text').fontSize(11).text(slip.street).text(`${slip.postcode} ${slip.city}`).text(slip.country);
    document.fontSize(8).text(words.customer, 330, 110);
    document.font('strong').fontSize(12).text(slip.customer, 330, 120, { width: 220 });
    if (slip.reference)
      document.font('text').fontSize(10).text(`${words.reference}: ${slip.reference}`, { width: 220 });
    document.y = 190;
    for (const note of slip.notes)
      document.font('strong').fontSize(10).text(`${words.notes}: ${note}`, EDGE, document.y, { width: WIDTH });
    let y = document.y + 10;
    for (const line of slip.lines) {
      const height = ROW + (line.note ? 12 : 0);
      if (y + height > bottom) {
        document.addPage();
        y = EDGE;
      }
      const packs = splitPacks(line.units, line.packs);
      const inPacks = packs.some((p) => p.units > 1)
        ? packs.map((p) => (p.units === 1 ? `${p.count} ${line.unit}` : `${p.count} × ${p.units}`)).join(' + ')
        : '';
      document.font('text').fontSize(10).text(String(line.line), EDGE, y, { width: 24 });
      document.font('strong').text(line.sku, EDGE + 30, y, { width: 80, height: 13, ellipsis: true });
      document.font('text').text(line.name, EDGE + 114, y, { width: 230, height: 13, ellipsis: true });
      document.text(inPacks, EDGE + 348, y, { width: 84, height: 13, ellipsis: true, align: 'right' });
      document.font('strong').text(`${line.units} ${line.unit}`, EDGE + 436, y, { width: 75, align: 'right' });
      if (line.note)
        document
          .font('text')
          .fontSize(9)
          .text(line.note, EDGE + 114, y + 14, { width: 390, height: 11, ellipsis: true });
      document
        .moveTo(EDGE, y + height - 4)
        .lineTo(EDGE + WIDTH, y + height - 4)
        .lineWidth(0.3)
        .stroke('#888888');
      y += height;
    }
  });
  if (slips.length === 0) document.fontSize(12).text(`${words.wave} ${wave.number}`);
  return finish(document);
}
