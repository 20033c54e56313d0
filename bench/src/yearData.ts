import pg from 'pg';
import { writePast } from '@hand-relay/demo';

export interface YearSize {
  days: number;
  ordersADay: number;
}

/**
 * Writes what is left of days that are over, and the answers that devices of the last week may ask for again.
 *
 * @param url of a database that holds the demo
 */
export async function writeYear(url: string, { days, ordersADay }: YearSize): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await writePast((statement) => client.query(statement), {
    siteId: 'larkmoor',
    timeZone: 'Europe/London',
    days,
    ordersADay,
    week: false,
    wave: 100,
    run: 10,
    names: {
      order: `'YR-' || d || '-' || n`,
      wave: '1000000 + k / 100',
      run: `'Y' || d || '-' || n / 10`,
      shipment: `'YS' || k`,
      tracking: `'YT' || lpad(k::text, 10, '0')`,
      serial: 'k',
    },
    ssccBase: '9',
  });
  await client.query(`
    insert into idempotency (person_id, key, request, status, answer, at)
    select 'pico', id || w, 'runInput', 200, '{"verdict": "accepted"}', confirmed_at from pick, generate_series(1, 4) w
    where id like 'yk%' and confirmed_at > now() - interval '7 days'`);
  await client.query('vacuum analyze');
  await client.end();
}
