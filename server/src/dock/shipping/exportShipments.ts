import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { sql } from 'drizzle-orm';
import type { Response } from 'express';
import Papa from 'papaparse';
import type { z } from 'zod';
import type { shipmentExport, shipmentExportQuery } from '@hand-relay/contract';
import { iso, rows, type Platform } from '../../platform/index.ts';
import { shipmentGoods } from '../../setup/documents/index.ts';

type Exported = z.input<typeof shipmentExport>['shipments'][number];
type Range = z.output<typeof shipmentExportQuery>;

/** Shipments that are read at once: a year of them does not fit into the memory of a server. */
const PAGE = 500;

/** Confirmed shipments with what they held, by the site's day of confirmation, in the order in which they left. */
async function* shipmentPages({ db }: Platform, siteId: string, { from, to }: Range): AsyncGenerator<Exported[]> {
  let last: { confirmedAt: string; shipment: string } | undefined;
  const [site] = await rows<{ begins: string; ends: string }>(
    db,
    sql`select ${iso(sql`(${from ?? '0001-01-01'}::date::timestamp at time zone time_zone)`)} as begins,
               ${iso(sql`((${to ?? '9999-12-30'}::date + 1)::timestamp at time zone time_zone)`)} as ends from site where id = ${siteId}`,
  );
  for (;;) {
    const page = await rows<Exported & { exactly: string }>(
      db,
      sql`
      with page as (
        select * from shipment where site_id = ${siteId} and state = 'confirmed' and confirmed_at >= ${site!.begins}::timestamptz and confirmed_at < ${site!.ends}::timestamptz
          and (confirmed_at, number) > (${last?.confirmedAt ?? '-infinity'}::timestamptz, ${last?.shipment ?? ''})
        order by confirmed_at, number limit ${PAGE}
      )
      select s.number as shipment, s.confirmed_at::text as exactly, o.number as "order", o.kind, o.kind = 'order' as invoice, o.reference, c.number as customer, ${iso(sql`s.confirmed_at`)} as "confirmedAt",
             coalesce(k.name, '') as carrier, coalesce(v.name, '') as service, coalesce(s.tracking, '') as tracking,
             coalesce((select jsonb_agg(jsonb_build_object('sscc', u.sscc, 'type', t.code, 'weightG', u.weight_g) order by u.number)
              from carton u join carton_type t on t.id = u.type_id where u.shipment_id = s.id), '[]') as cartons,
             coalesce((select jsonb_agg(jsonb_build_object('line', l.line, 'sku', i.sku, 'units', x.units, 'lots', coalesce((
                select jsonb_agg(jsonb_build_object('lot', q.lot, 'serial', q.serial, 'sscc', q.sscc, 'units', q.units) order by q.number, q.lot, q.serial)
                from (${shipmentGoods(sql`s.id`)}) q where q.line_id = l.id), '[]')) order by l.line)
              from shipment_line x join order_line l on l.id = x.line_id join item i on i.id = l.item_id where x.shipment_id = s.id), '[]') as lines
      from page s join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
      left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id
      order by s.confirmed_at, s.number`,
    );
    const end = page.at(-1);
    if (!end) return;
    last = { confirmedAt: end.exactly, shipment: end.shipment };
    yield page.map(({ exactly: _, ...shipment }) => shipment);
  }
}

/** Columns of the CSV file: a row for each lot, serial number and carton of a line. */
const fields = [
  'shipment',
  'order',
  'kind',
  'invoice',
  'reference',
  'customer',
  'confirmed_at',
  'carrier',
  'service',
  'tracking',
  'line',
  'item',
  'units',
  'lot',
  'serial',
  'sscc',
];

const cells = (s: Exported): (string | number)[][] =>
  s.lines.flatMap((l) =>
    l.lots.map((part) => [
      s.shipment,
      s.order,
      s.kind,
      s.invoice ? 'yes' : 'no',
      s.reference,
      s.customer,
      s.confirmedAt,
      s.carrier,
      s.service,
      s.tracking,
      l.line,
      l.sku,
      part.units,
      part.lot,
      part.serial,
      part.sscc,
    ]),
  );

const csv = (data: (string | number)[][]): string =>
  data.length === 0 ? '' : Papa.unparse(data, { newline: '\r\n', escapeFormulae: true }) + '\r\n';

async function* asCsv(pages: AsyncIterable<Exported[]>): AsyncGenerator<string> {
  yield csv([fields]);
  for await (const page of pages) yield csv(page.flatMap(cells));
}

async function* asJson(pages: AsyncIterable<Exported[]>): AsyncGenerator<string> {
  yield '{"shipments":[';
  let first = true;
  for await (const page of pages) {
    yield (first ? '' : ',') + page.map((s) => JSON.stringify(s)).join(',');
    first = false;
  }
  yield ']}';
}

/** Pages of which the first is read already. */
async function begun<T>(pages: AsyncGenerator<T>): Promise<AsyncGenerator<T>> {
  const first = await pages.next();
  return (async function* () {
    if (first.done) return;
    yield first.value;
    yield* pages;
  })();
}

/**
 * Sends confirmed shipments page by page, as the reader takes them.
 *
 * @param range days of the site, both included; without them all that there is
 */
export async function sendShipments(
  platform: Platform,
  siteId: string,
  range: Range,
  res: Response,
  as: 'csv' | 'json',
): Promise<void> {
  // The first page is read before anything is said: until then a fault is answered in words.
  const pages = await begun(shipmentPages(platform, siteId, range));
  const days = [range.from, range.to].filter(Boolean).join('-to-');
  const name = `shipments${days ? `-${days}` : ''}.${as}`;
  if (as === 'csv') res.attachment(name).type('text/csv');
  else res.setHeader('Content-Disposition', `inline; filename="${name}"`).type('application/json');
  await pipeline(Readable.from((as === 'csv' ? asCsv : asJson)(pages)), res).catch((error: unknown) => {
    // Whoever asked went away.
    if ((error as { code?: string }).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  });
}
