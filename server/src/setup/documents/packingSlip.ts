import { sql } from 'drizzle-orm';
import { rows, type Platform } from '../../platform/index.ts';
import { countryName } from './country.ts';
import { shipmentFacts } from './facts.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { pickedGoods, shipmentGoods } from './goods.ts';
import { finish, newDocument } from './page.ts';
import { words } from './words.ts';

interface SlipLine {
  line: number;
  sku: string;
  name: string;
  unit: string;
  asked: number;
  here: number;
  open: number;
  parts: { lot: string; serial: string; bestBefore: string | null; units: number }[];
}

const EDGE = 42;
const columns = [
  { title: words.line, x: EDGE, width: 30, align: 'left' },
  { title: words.item, x: 74, width: 70, align: 'left' },
  { title: words.description, x: 146, width: 222, align: 'left' },
  { title: words.asked, x: 372, width: 56, align: 'right' },
  { title: words.here, x: 432, width: 56, align: 'right' },
  { title: words.later, x: 492, width: 60, align: 'right' },
] as const;

/**
 * The packing slip of a shipment: what was asked, what is in it lot by lot, what stays open, and its cartons.
 *
 * @param options `ahead`: it goes into the first carton, while the others are not packed: all that was picked will be in
 *   the shipment, and its cartons are not known yet
 */
export async function packingSlip(
  platform: Platform,
  siteId: string,
  shipmentId: string,
  { paper, ahead = false }: { paper: 'a4' | 'letter'; ahead?: boolean },
): Promise<Buffer> {
  const head = await shipmentFacts(platform, siteId, shipmentId);
  const lines = await rows<SlipLine>(
    platform.db,
    sql`
    select l.line, i.sku, i.name, i.unit, l.asked - l.cancelled as asked, coalesce(sum(k.units), 0)::int as here,
           (l.asked - l.cancelled - l.shipped - case when ${head.confirmedAt === null} then coalesce(sum(k.units), 0) else 0 end)::int as open,
           coalesce(jsonb_agg(jsonb_build_object('lot', k.lot, 'serial', k.serial, 'bestBefore', t.best_before, 'units', k.units)
             order by k.lot, k.serial) filter (where k.lot <> '' or k.serial <> ''), '[]') as parts
    from order_line l join item i on i.id = l.item_id
    left join (
      select g.line_id, g.lot, g.serial, sum(g.units) as units from (${ahead ? pickedGoods(sql`${head.orderId}`) : shipmentGoods(sql`${shipmentId}`)}) g group by 1, 2, 3
    ) k on k.line_id = l.id
    left join lot t on t.item_id = l.item_id and t.lot = k.lot
    where l.order_id = ${head.orderId} group by l.id, i.sku, i.name, i.unit order by l.line`,
  );
  const document = newDocument(paper === 'letter' ? 'LETTER' : 'A4', EDGE, `${words.packingSlip} ${head.number}`);
  drawHead();
  drawTableHead();
  for (const line of lines) drawLine(line);
  if (head.cartons.length > 0 && !ahead) drawCartons();
  numberPages();
  return finish(document);

  function room(height: number, head: () => void) {
    if (document.y + height <= document.page.height - 62) return;
    document.addPage();
    document.y = EDGE;
    head();
  }

  function drawHead() {
    document.font('strong').fontSize(22).text(words.packingSlip, EDGE, EDGE);
    document
      .font('text')
      .fontSize(9)
      .text(`${[head.site, head.siteStreet, head.siteCity, countryName(head.siteCountry)].filter(Boolean).join(', ')}`);
    const symbol: LinearSymbol = { kind: 'code128', text: `ORDER-${head.order}`, moduleMm: 0.33, heightMm: 12 };
    drawSymbol(document, symbol, 553 - symbolWidth(symbol), EDGE);
    document.fillColor('#000000');
    const fact = (name: string, value: string, x: number, y: number) => {
      document.font('text').fontSize(8).text(name, x, y, { width: 160 });
      document
        .font('strong')
        .fontSize(11)
        .text(value || '–', x, y + 10, { width: 170, height: 14, ellipsis: true });
    };
    document.font('text').fontSize(8).text(words.shipTo, EDGE, 104);
    document.font('strong').fontSize(11).text(head.name, EDGE, 115, { width: 210 });
    document
      .font('text')
      .text(head.street, { width: 210 })
      .text(`${head.postcode} ${head.city}`, { width: 210 })
      .text(countryName(head.country));
    fact(words.order, head.order, 270, 104);
    fact(words.shipment, head.number, 420, 104);
    fact(words.reference, head.reference, 270, 134);
    fact(words.customer, head.customer, 420, 134);
    fact(words.carrier, [head.carrier, head.service].filter(Boolean).join(', '), 270, 164);
    fact(words.tracking, head.tracking ?? '', 420, 164);
    document.y = 206;
  }

  function drawTableHead() {
    const y = document.y;
    document.font('text').fontSize(8);
    for (const c of columns) document.text(c.title, c.x, y, { width: c.width, align: c.align });
    document
      .moveTo(EDGE, y + 13)
      .lineTo(553, y + 13)
      .lineWidth(0.8)
      .stroke('#000000');
    document.y = y + 18;
  }

  function drawLine(line: SlipLine) {
    const details = line.parts.map((p) => {
      if (p.serial) return `${words.serial} ${p.serial}`;
      return `${words.lot} ${p.lot}: ${p.units}${p.bestBefore ? `, ${words.bestBefore} ${p.bestBefore}` : ''}`;
    });
    room(18 + details.length * 11, drawTableHead);
    const y = document.y;
    const values = [
      String(line.line),
      line.sku,
      line.name,
      `${line.asked} ${line.unit}`,
      String(line.here),
      line.open > 0 ? String(line.open) : '',
    ];
    document.fontSize(10);
    let bottom = y;
    columns.forEach((c, i) => {
      document.font(i === 4 ? 'strong' : 'text').text(values[i]!, c.x, y, { width: c.width, align: c.align });
      bottom = Math.max(bottom, document.y);
    });
    document.y = bottom;
    document.font('text').fontSize(8);
    for (const detail of details) document.text(detail, columns[2].x, document.y, { width: 300 });
    document.y += 4;
  }

  function drawCartons() {
    room(30, () => undefined);
    document.moveTo(EDGE, document.y).lineTo(553, document.y).lineWidth(0.8).stroke('#000000');
    document
      .font('strong')
      .fontSize(11)
      .text(`${words.cartons}: ${head.cartons.length}`, EDGE, document.y + 8);
    document.font('text').fontSize(9);
    for (const c of head.cartons) {
      room(13, () => undefined);
      document.text(
        `${c.number}  ${c.type}  ${c.sscc ? `${words.sscc} ${c.sscc}` : ''}  ${c.weightG ? `${(c.weightG / 1000).toFixed(2)} ${words.kg}` : ''}`,
        EDGE,
      );
    }
  }

  function numberPages() {
    const { start, count } = document.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      document.switchToPage(i);
      document.page.margins.bottom = 0;
      document
        .font('text')
        .fontSize(8)
        .text(`${words.page} ${i + 1} ${words.of} ${count}`, EDGE, document.page.height - 30, {
          width: 511,
          align: 'right',
          lineBreak: false,
        });
    }
  }
}
