import { sql } from 'drizzle-orm';
import { rows, type Platform } from '../../platform/index.ts';
import { POINTS_A_MM, type LabelDrawing, type LabelPart } from './labelDrawing.ts';
import { labelSizes } from './logisticLabel.ts';
import { words } from './words.ts';

interface Special {
  sku: string;
  name: string;
  unit: string;
  lot: string;
  bestBefore: string | null;
  units: number;
  chilled: boolean;
  hazard: string;
}

const EDGE = 14;
const LINE = 13;
/** Height of a line of a danger or of what must stay cold, in points. */
const SIGN = 30;

/**
 * The content label of a closed carton that holds chilled or dangerous goods: what it is, above all, and which goods and
 * lots these are.
 *
 * @returns null where nothing in it is chilled or dangerous
 */
export async function contentDrawing(
  { db }: Platform,
  siteId: string,
  cartonId: string,
  size: keyof typeof labelSizes,
): Promise<LabelDrawing | null> {
  const found = await rows<Special & { sscc: string; order: string; number: number }>(
    db,
    sql`
    select c.sscc, o.number as "order", c.number, i.sku, i.name, i.unit, k.lot, t.best_before::text as "bestBefore", sum(k.units)::int as units,
           i.temperature = 'chilled' as chilled, i.hazard
    from carton c join customer_order o on o.id = c.order_id join carton_line k on k.carton_id = c.id and k.units > 0
    join order_line l on l.id = k.line_id join item i on i.id = l.item_id left join lot t on t.item_id = i.id and t.lot = k.lot
    where c.id = ${cartonId} and c.site_id = ${siteId} and c.sscc is not null and (i.temperature = 'chilled' or i.hazard <> '')
    group by c.id, o.number, i.id, k.lot, t.best_before order by i.sku, k.lot`,
  );
  const [first] = found;
  if (!first) return null;
  const [width, height] = labelSizes[size];
  const inner = width - 2 * EDGE;
  const parts: LabelPart[] = [];
  let y = EDGE;
  const text = (value: string, points: number, more: { strong?: boolean; lines?: number } = {}) => {
    parts.push({ kind: 'text', text: value, x: EDGE, y, width: inner, size: points, ...more });
    y += points * 1.25 * (more.lines ?? 1);
  };
  if (found.some((g) => g.chilled)) text(words.keepCold, SIGN, { strong: true });
  for (const hazard of new Set(found.flatMap((g) => g.hazard || []))) text(hazard, 20, { strong: true, lines: 2 });
  y += 4;
  parts.push({ kind: 'line', x: EDGE, y, width: inner });
  y += 6;
  text(`${words.order} ${first.order} · ${words.carton} ${first.number} · ${words.sscc} ${first.sscc}`, 8);
  y += 4;
  // What has no room stands on the packing slip.
  const room = Math.floor((height - y - 6 * POINTS_A_MM) / (2 * LINE));
  for (const g of found.slice(0, room)) {
    text(`${g.units} ${g.unit} · ${g.sku} · ${g.name}`, 10, { strong: true });
    const lot = g.lot ? `${words.lot} ${g.lot}` : '';
    text([lot, g.bestBefore && `${words.bestBefore} ${g.bestBefore}`].filter(Boolean).join(', '), 8);
  }
  if (found.length > room) text(`+ ${found.length - room}`, 10);
  return { width, height, title: `${words.carton} ${first.number}`, parts };
}
