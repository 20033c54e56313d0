import { dropOld } from '../src/setup/backup/index.ts';
import { openTest, type TestRelay } from './relay.ts';
import { startWave } from './steps.ts';

describe('what is of no use any more', () => {
  let relay: TestRelay;
  beforeAll(async () => {
    relay = await openTest();
  });
  afterAll(() => relay.close());
  const count = async (table: string) =>
    (await relay.query<{ n: number }>(`select count(*)::int as n from ${table}`))[0]!.n;

  it('goes after its time, in parts; what is younger, waits or runs stays', async () => {
    const desk = await relay.as('maren');
    const [order] = await relay.query<{ id: string }>(`select id from customer_order where status = 'open' limit 1`);
    await startWave(desk, [order!.id]);
    const journal = await count('journal');
    await relay.query(
      `insert into idempotency (person_id, key, request, status, at)
       select 'maren', 'old ' || n, 'r', 200, now() + interval '1 hour' - (n || ' days')::interval from generate_series(0, 4999) n`,
    );
    const job = (id: string, state: string, days: number) =>
      relay.query(
        `insert into job (id, site_id, kind, of_id, person_id, state, at) values ('${id}', 'larkmoor', 'import', '${id}', 'maren', '${state}', now() - interval '${days} days')`,
      );
    await job('ended long ago', 'done', 40);
    await job('ended lately', 'done', 20);
    await job('still at it', 'running', 40);
    const print = (id: string, state: string, days: number) =>
      relay.query(
        `insert into print_job (id, site_id, at, person_id, station, printer, title, document, copies, needs, pdf, state)
         values ('${id}', 'larkmoor', now() - interval '${days} days', 'maren', 's', 'p', 't', 'd', 1, '{}', '', '${state}')`,
      );
    await print('printed', 'printed', 40);
    await print('waits', 'waiting', 40);
    for (const days of [40, 20])
      await relay.query(
        `insert into order_import (id, site_id, at, person_id, document, sender, source, new, changed, same, faults, errors, orders)
         values ('${days} days ago', 'larkmoor', now() - interval '${days} days', 'maren', 'f.csv', '', 'screen', 0, 0, 0, 0, '[]', '[]')`,
      );
    await relay.query(
      `insert into packaging_due (unit_id, site_id, type_id, day, posted_at) values
         ('posted', 'larkmoor', 'box-s', '2026-01-01', now() - interval '40 days'), ('due', 'larkmoor', 'box-s', '2026-01-01', null)`,
    );
    const gone = await dropOld(relay.platform, 30);
    expect(gone).toEqual({
      idempotency: 4992,
      replan_draft: 0,
      job: 1,
      order_import: 1,
      print_job: 1,
      packaging_due: 1,
    });
    expect(await relay.query(`select unit_id as id from packaging_due`)).toEqual([{ id: 'due' }]);
    expect(await relay.query(`select id from job where kind = 'import' order by id`)).toEqual([
      { id: 'ended lately' },
      { id: 'still at it' },
    ]);
    expect(await relay.query(`select id from print_job`)).toEqual([{ id: 'waits' }]);
    expect(await count('journal')).toBe(journal);
    expect(await relay.query(`select id from order_import`)).toEqual([{ id: '20 days ago' }]);
    const again = Object.values(await dropOld(relay.platform, 30));
    expect(again.every((n) => n === 0)).toBe(true);
  });
});
