import { sql } from 'drizzle-orm';
import type { Db } from '@hand-relay/server';
import { site } from '../house.ts';
import { COMPANY_PREFIX } from '../scenario.ts';
import { writePast } from './writePast.ts';

export { writePast } from './writePast.ts';

const DAYS = 30;
const ORDERS_A_DAY = 40;
const WAVE = 10;
const RUN = 5;

/** The S10 number of a parcel with its check digit (UPU S10), over a serial number. */
const s10 = (serial: string) => `(select 'RR' || b || (case c when 10 then 0 when 11 then 5 else c end) || 'GB' from (
    select b, 11 - sum(substr(b, i, 1)::int * (array[8, 6, 4, 2, 3, 5, 9, 7])[i])::int % 11 as c
    from (select lpad((${serial})::text, 8, '0') as b) x, generate_series(1, 8) i group by b) y)`;

/** Counts from the oldest day on, so that numbers grow as time goes by. */
const nth = (each: number, within: string) => `((${DAYS} - d) * ${each} + ${within} + 1)`;

/**
 * Writes the 30 days behind the demo's main site, from which its figures and forecasts come. What is made afterwards
 * goes on with the numbers.
 */
export async function writeLastMonth(db: Db): Promise<void> {
  const serial = nth(ORDERS_A_DAY, 'n');
  await db.transaction(async (tx) => {
    const run = (statement: string) => tx.execute(sql.raw(statement));
    await writePast(run, {
      siteId: site.id,
      timeZone: site.timeZone,
      days: DAYS,
      ordersADay: ORDERS_A_DAY,
      week: true,
      wave: WAVE,
      run: RUN,
      names: {
        order: `'LA-' || (20000 - k)`,
        wave: nth(ORDERS_A_DAY / WAVE, `n / ${WAVE}`),
        run: `lpad(${nth(ORDERS_A_DAY / RUN, `n / ${RUN}`)}::text, 4, '0')`,
        shipment: `'S' || lpad(${serial}::text, 5, '0')`,
        tracking: `case service when 'fellhaul-pallet' then 'FH' || lpad(${serial}::text, 10, '0') when 'ownvan-tour' then null else ${s10(`40000000 + ${serial}`)} end`,
        serial,
      },
      ssccBase: `3${COMPANY_PREFIX}`,
    });
    const last = { wave: (DAYS * ORDERS_A_DAY) / WAVE, run: (DAYS * ORDERS_A_DAY) / RUN, all: DAYS * ORDERS_A_DAY };
    for (const [name, to] of [
      ['wave', last.wave],
      ['run', last.run],
      ['shipment', last.all],
      ['sscc', last.all],
    ] as const)
      await tx.execute(sql`insert into counter (site_id, name, last) values (${site.id}, ${name}, ${to})
        on conflict (site_id, name) do update set last = greatest(counter.last, ${to})`);
  });
}
