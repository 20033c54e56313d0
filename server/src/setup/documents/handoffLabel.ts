import { sql } from 'drizzle-orm';
import { notFound, rows, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { labelSizes } from './logisticLabel.ts';
import { finish, newDocument } from './page.ts';
import { words } from './words.ts';

interface Handoff {
  number: string;
  callSign: string;
  cart: string | null;
  lane: string | null;
  picker: string | null;
  leaves: string | null;
  orders: { number: string; position: number; units: number }[];
}

/** Orders that a label has lines for. */
const LINES = 12;

/** The label on a cart that is handed on: its call sign for calling, its run to scan, and which order lies where. */
export async function handoffLabel(
  { db }: Platform,
  siteId: string,
  runId: string,
  size: keyof typeof labelSizes,
): Promise<Buffer> {
  const [run] = await rows<Handoff>(
    db,
    sql`
    select r.number, r.call_sign as "callSign", coalesce(r.cart_code, r.call_sign) as cart, lane.code as lane, p.name as picker,
           to_char((select min(o.leaves_at) from run_position q join customer_order o on o.id = q.order_id where q.run_id = r.id) at time zone s.time_zone, 'HH24:MI') as leaves,
           (select jsonb_agg(jsonb_build_object('number', o.number, 'position', q.number, 'units', k.units) order by q.number)
            from run_position q join customer_order o on o.id = q.order_id cross join lateral (
              select coalesce(sum(picked), 0)::int as units from pick where run_id = q.run_id and order_id = q.order_id and state <> 'out') k
            where q.run_id = r.id and k.units > 0) as orders
    from run r join site s on s.id = r.site_id left join place lane on lane.id = r.lane_id left join person p on p.id = r.picker_id
    where r.id = ${runId} and r.site_id = ${siteId}`,
  );
  if (!run) throw notFound('run', runId);
  const [width, height] = labelSizes[size];
  const edge = 14;
  const inner = width - 2 * edge;
  const document = newDocument([width, height], 0, `${words.run} ${run.number}`);
  document.font('strong').fontSize(run.callSign.length > 7 ? 44 : 58);
  document.text(run.callSign, edge, 12, { width: inner, height: 66, align: 'center', lineBreak: false });
  document
    .fontSize(15)
    .text([run.cart, run.lane, run.leaves].filter(Boolean).join('  ·  '), edge, 84, { width: inner, align: 'center' });
  const symbol: LinearSymbol = { kind: 'code128', text: `RUN-${run.number}`, moduleMm: 0.5, heightMm: 20 };
  drawSymbol(document, symbol, (width - symbolWidth(symbol)) / 2, 110);
  document
    .font('text')
    .fontSize(10)
    .fillColor('#000000')
    .text(symbol.text, edge, 172, { width: inner, align: 'center' });
  let y = 194;
  const orders = run.orders ?? [];
  for (const order of orders.slice(0, LINES)) {
    document.font('strong').fontSize(12).text(String(order.position), edge, y, { width: 24 });
    document.text(order.number, edge + 28, y, { width: inner - 100, height: 15, ellipsis: true });
    document.font('text').text(`${order.units} ${words.units}`, edge, y, { width: inner, align: 'right' });
    y += 17;
  }
  if (orders.length > LINES) document.text(`+ ${orders.length - LINES}`, edge, y);
  document
    .font('text')
    .fontSize(9)
    .text([words.run, run.number, run.picker ?? ''].join(' '), edge, height - 22, { width: inner, height: 11 });
  return finish(document);
}
