import { sql } from 'drizzle-orm';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { orderSheet } from '@hand-relay/core/reading/intake';
import Papa from 'papaparse';
import { rows, type Platform } from '../../platform/index.ts';

/** An order file that this site would take as it is: its own customers and items, due tomorrow. */
export async function exampleFile({ db, clock }: Platform, siteId: string): Promise<string> {
  const [site] = await rows<{ zone: string }>(db, sql`select time_zone as zone from site where id = ${siteId}`);
  const customers = await rows<{
    number: string;
    name: string;
    street: string;
    postcode: string;
    city: string;
    country: string;
  }>(db, sql`select number, name, street, postcode, city, country from customer order by number limit 2`);
  const items = await rows<{ sku: string }>(
    db,
    sql`select i.sku from item i join stock_total t on t.item_id = i.id where t.site_id = ${siteId}
        group by i.sku having sum(t.on_hand - t.reserved) > 20 order by i.sku limit 3`,
  );
  const due = addDays(localDate(clock().getTime(), site?.zone ?? 'UTC'), 1);
  const lines = customers.flatMap((c, n) =>
    items.slice(0, 2 + n).map((item, i) => ({
      order: `EXAMPLE-${n + 1}`,
      channel: n === 0 ? 'web' : 'account',
      customer: c.number,
      reference: `PO ${4400 + n}`,
      due,
      priority: 5,
      ship_complete: 'no',
      ship_to_name: c.name,
      street: c.street,
      postcode: c.postcode,
      city: c.city,
      country: c.country,
      order_note: n === 0 ? 'Leave with the neighbour, if nobody is in' : '',
      line: i + 1,
      item: item.sku,
      quantity: 2 + i,
      pack: 'unit',
      line_note: '',
    })),
  );
  return Papa.unparse({ fields: orderSheet.columns.map((c) => c.name), data: lines }, { newline: '\r\n' }) + '\r\n';
}
