import { sql } from 'drizzle-orm';
import { printedElements } from '@hand-relay/core/reading/gs1';
import { notFound, Refusal, rows, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';
import { words } from './words.ts';

interface Label {
  sscc: string | null;
  number: number;
  of: number;
  weightG: number;
  site: string;
  siteStreet: string;
  siteCity: string;
  order: string;
  name: string;
  street: string;
  postcode: string;
  city: string;
  country: string;
  carrier: string | null;
  service: string | null;
  lane: string | null;
}

/** Points: 4 × 6 inches, and A6. */
export const labelSizes = { '4x6': [288, 432], a6: [297.64, 419.53] } as const;

/** Narrowest bar and height that GS1 asks of a logistic label. */
const MODULE_MM = 0.495;
const SSCC_HEIGHT_MM = 32;

/** The label of a closed carton: who it is for, what it is, and its SSCC as GS1-128. */
export async function cartonLabel(
  { db }: Platform,
  siteId: string,
  cartonId: string,
  size: keyof typeof labelSizes,
): Promise<Buffer> {
  const [label] = await rows<Label>(
    db,
    sql`
    select c.sscc, c.number, (select count(*)::int from carton x where x.shipment_id = c.shipment_id) as of, c.weight_g as "weightG",
           s.name as site, s.street as "siteStreet", s.city as "siteCity", o.number as "order", o.ship_name as name, o.ship_street as street,
           o.ship_postcode as postcode, o.ship_city as city, o.ship_country as country, k.name as carrier, v.name as service, lane.code as lane
    from carton c join site s on s.id = c.site_id join customer_order o on o.id = c.order_id left join departure d on d.id = o.departure_id
    left join place lane on lane.id = coalesce(o.lane_id, d.lane_id) left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    where c.id = ${cartonId} and c.site_id = ${siteId}`,
  );
  if (!label) throw notFound('carton', cartonId);
  if (!label.sscc) throw new Refusal('carton-open', { carton: label.number });

  const [width, height] = labelSizes[size];
  const edge = 14;
  const inner = width - 2 * edge;
  const document = newDocument([width, height], 0, `${words.sscc} ${label.sscc}`);
  const line = (y: number) =>
    document
      .moveTo(edge, y)
      .lineTo(width - edge, y)
      .lineWidth(0.8)
      .stroke('#000000');
  const pair = (name: string, value: string, x: number, y: number, w: number) => {
    document.font('text').fontSize(7).fillColor('#000000').text(name, x, y, { width: w });
    document
      .font('strong')
      .fontSize(12)
      .text(value, x, y + 9, { width: w, height: 15, ellipsis: true });
  };

  document
    .font('text')
    .fontSize(7)
    .text(`${words.from} ${label.site}, ${label.siteStreet}, ${label.siteCity}`, edge, 14, {
      width: inner,
      height: 9,
      ellipsis: true,
    });
  line(27);
  document.fontSize(7).text(words.shipTo, edge, 33);
  document.font('strong').fontSize(15).text(label.name, edge, 43, { width: inner, height: 36, ellipsis: true });
  document.font('text').fontSize(12).text(label.street, { width: inner, height: 15, ellipsis: true });
  document.text(`${label.postcode} ${label.city}`, { width: inner, height: 15, ellipsis: true });
  document.font('strong').text(label.country);
  line(132);
  const third = inner / 3;
  pair(words.order, label.order, edge, 138, third * 1.4);
  pair(words.carton, `${label.number} ${words.of} ${label.of}`, edge + third * 1.4, 138, third * 0.7);
  pair(words.weight, `${(label.weightG / 1000).toFixed(2)} ${words.kg}`, edge + third * 2.1, 138, third * 0.9);
  line(168);
  pair(words.carrier, [label.carrier, label.service].filter(Boolean).join(', ') || '–', edge, 174, third * 2);
  pair(words.lane, label.lane ?? '–', edge + third * 2.1, 174, third * 0.9);
  line(204);

  let y = 210;
  const order = orderSymbol(label.order, width);
  if (order) {
    drawSymbol(document, order, (width - symbolWidth(order)) / 2, y);
    y += 46;
    document.font('text').fontSize(9).fillColor('#000000').text(order.text, 0, y, { width, align: 'center' });
    y += 16;
  }
  const sscc: LinearSymbol = {
    kind: 'gs1-128',
    text: printedElements([{ ai: '00', value: label.sscc }]),
    moduleMm: MODULE_MM,
    heightMm: SSCC_HEIGHT_MM,
  };
  const top = height - 16 - 14 - SSCC_HEIGHT_MM * 2.8346;
  drawSymbol(document, sscc, (width - symbolWidth(sscc)) / 2, Math.max(y, top));
  document
    .font('text')
    .fontSize(11)
    .fillColor('#000000')
    .text(sscc.text, 0, height - 26, { width, align: 'center' });
  return finish(document);
}

/** The customer order number as GS1-128, where it is of its form and narrow enough for the label. */
function orderSymbol(order: string, width: number): LinearSymbol | null {
  if (!/^[\w./-]{1,30}$/.test(order)) return null;
  const symbol: LinearSymbol = {
    kind: 'gs1-128',
    text: printedElements([{ ai: '400', value: order }]),
    moduleMm: MODULE_MM,
    heightMm: 15,
  };
  return symbolWidth(symbol) <= width ? symbol : null;
}
