import { endpoints, type Endpoint, type EndpointName } from '@hand-relay/contract';
import pg from 'pg';
import { startPostgres } from '../../bin/postgres.mjs';
import type { Note } from './note.ts';
import { quantile } from './scans.ts';
import { signIn, startServer, type Client } from './server.ts';
import { writeYear } from './yearData.ts';

/** What is asked of each query that a screen makes: an id of its address, and its search. */
interface Question {
  name: EndpointName;
  id?: string;
  search?: string;
  /** What of it is measured, where there are several. */
  of?: string;
}

const TIMES = 5;
/** Milliseconds after which a query is not asked again. */
const LONG_MS = 5_000;
/** A week of shipments. */
const RECENT = `from=${new Date(Date.now() - 6 * 86_400_000).toISOString().slice(0, 10)}`;
/** Queries that are no screen's, or that end with the page. */
const NO_SCREEN = new Set<string>(['events', 'backup', 'orderExample', 'sheetExample']);

/**
 * Every query that a screen makes, with a year of a busy site behind it.
 *
 * @param days of 1,000 orders each
 */
export async function benchYear(note: Note, days = 365): Promise<void> {
  const postgres = await startPostgres({
    fsync: 'off',
    shared_buffers: '1GB',
    maintenance_work_mem: '512MB',
    max_wal_size: '8GB',
    work_mem: '32MB',
  });
  const url = postgres.address('postgres');
  try {
    const at = { port: 4680, url };
    let bench = await startServer(8, undefined, at);
    note('start on an empty year', bench.startMs / 1000, 's');
    const began = performance.now();
    await writeYear(url, { days, ordersADay: 1000 });
    note(`writing ${days} days of 1,000 orders`, (performance.now() - began) / 1000, 's');
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const one = async (statement: string) =>
      ((await client.query(statement)).rows[0] as { v: string } | undefined)?.v ?? '';
    note('database', Number(await one('select pg_database_size(current_database()) / 1e9 as v')), 'GB');
    for (const table of ['customer_order', 'order_line', 'pick', 'movement', 'journal', 'place'])
      note(`rows of ${table}`, Number(await one(`select count(*) as v from ${table}`)), '');
    bench = await bench.restart();
    note('start on the year', bench.startMs / 1000, 's');
    const desk = await signIn(bench.base, 'maren');
    const asked = await workUnderWay(desk, one);
    const table: { what: string; ms: number; most: number; kb: number }[] = [];
    for (const question of questions(asked)) {
      const measured = await measure(bench.base, desk.cookie, question);
      if (measured.ms > LONG_MS) console.log(`${measured.what} takes long`);
      table.push(measured);
    }
    for (const { what, ms, most, kb } of table.sort((a, b) => b.ms - a.ms))
      note(`${what} (${kb.toFixed(0)} kB, slowest ${most.toFixed(0)} ms)`, ms, 'ms');
    note('memory of the server', bench.memoryMb(), 'MB');
    await client.end();
    await bench.close();
  } finally {
    await postgres.stop();
  }
}

type Ids = Record<string, string>;

/** Ids of what screens show: a wave under way beside all that is over. */
async function workUnderWay(desk: Client, one: (statement: string) => Promise<string>): Promise<Ids> {
  const open = `from customer_order o where status = 'open' and site_id = 'larkmoor' and not exists (select 1 from order_hold h where h.order_id = o.id and h.lifted_at is null)`;
  const orders = (await one(`select string_agg(id, ',') as v from (select id ${open} order by id limit 60) x`)).split(
    ',',
  );
  const { wave } = (await desk.call<{ wave: string }>('POST', '/api/waves', { orders })).data;
  await desk.call('POST', `/api/waves/${wave}/plan`);
  await desk.call('POST', `/api/waves/${wave}/start`);
  const [run, order, item, departure] = [
    await one(`select id as v from run where wave_id = '${wave}' order by id limit 1`),
    await one(
      `select id as v ${open} and id not in (select order_id from order_line l join wave_line w on w.line_id = l.id where w.wave_id = '${wave}') order by id limit 1`,
    ),
    await one(
      `select item_id as v from order_line l join customer_order o on o.id = l.order_id where o.status = 'open' group by 1 order by count(*) desc limit 1`,
    ),
    await one(`select id as v from departure where site_id = 'larkmoor' order by id limit 1`),
  ];
  const vehicle = await one('select id as v from vehicle_type order by id limit 1');
  await desk.call('POST', '/api/loads', { vehicle, departure }).catch(() => undefined);
  const load = await one('select id as v from load limit 1');
  return { wave, run, order, item, load };
}

function questions({ wave, run, order, item, load }: Ids): Question[] {
  const mine: Partial<Record<EndpointName, Question[]>> = {
    find: ['ORDER-YR-200-17', 'YT0000200017', 'Y200-17', 'JR-001', 'nothing-like-it'].map((code) => ({
      name: 'find',
      search: `code=${code}`,
      of: code,
    })),
    search: [
      'YR-200-17',
      'yr 200',
      '200017',
      'po 77',
      'YT0000200017',
      'jumbo frame',
      'L1',
      'pico',
      'a-01',
      'nothing like it',
    ].map((text) => ({ name: 'search', search: `text=${encodeURIComponent(text)}`, of: text })),
    trace: [
      { name: 'trace', search: `item=${item}`, of: 'an item' },
      { name: 'trace', search: `item=${item}&lot=L1`, of: 'a lot that is none' },
    ],
    lookUp: ['JR-001', 'A-01-1'].map((code) => ({ name: 'lookUp', search: `code=${code}`, of: code })),
    orders: [
      { name: 'orders', search: 'status=open&limit=250', of: 'open, first page' },
      { name: 'orders', search: 'status=closed&limit=250', of: 'closed, first page' },
      { name: 'orders', search: 'status=closed&limit=1000', of: 'closed, a page' },
    ],
    order: [
      { name: 'order', id: order!, of: 'open' },
      { name: 'order', id: 'y200-17', of: 'closed' },
    ],
    trail: [{ name: 'trail', id: 'y200-17' }],
    orderDraft: [{ name: 'orderDraft', id: order! }],
    customerChoices: ['', 'apiaries', 'C10'].map((find) => ({
      name: 'customerChoices',
      search: `find=${find}`,
      of: find,
    })),
    itemChoices: ['jar', 'JR-001'].map((find) => ({ name: 'itemChoices', search: `find=${find}`, of: find })),
    wave: [
      { name: 'wave', id: wave!, of: 'under way' },
      { name: 'wave', id: 'yw200-3', of: 'done' },
    ],
    wavePaths: [{ name: 'wavePaths', id: wave! }],
    wavePaper: [{ name: 'wavePaper', id: wave! }],
    run: [
      { name: 'run', id: run!, of: 'under way' },
      { name: 'run', id: 'yr200-17', of: 'done' },
    ],
    runsBeside: [{ name: 'runsBeside', id: run! }],
    pickList: [{ name: 'pickList', id: run! }],
    benchOrder: [{ name: 'benchOrder', id: 'y200-17' }],
    packPlan: [{ name: 'packPlan', id: 'y200-17' }],
    cartonLabel: [{ name: 'cartonLabel', id: 'ycy200-17' }],
    dock: [
      { name: 'dock', of: 'open' },
      { name: 'dock', search: 'state=confirmed', of: 'confirmed' },
      { name: 'dock', search: 'state=confirmed&find=YS200017', of: 'one that left' },
    ],
    shipment: [{ name: 'shipment', id: 'ysy200-17' }],
    packingSlip: [{ name: 'packingSlip', id: 'ysy200-17' }],
    orderAvailability: [{ name: 'orderAvailability', id: order! }],
    itemAvailability: [{ name: 'itemAvailability', id: item! }],
    itemStock: [{ name: 'itemStock', id: item! }],
    tracePaper: [{ name: 'tracePaper', search: `item=${item}`, of: 'an item' }],
    picks: [
      { name: 'picks', of: 'today' },
      { name: 'picks', search: RECENT, of: 'a week' },
    ],
    holds: [{ name: 'holds', id: order! }],
    load: load ? [{ name: 'load', id: load }] : [],
    loadCandidates: load ? [{ name: 'loadCandidates', id: load }] : [],
    shipmentsJson: [{ name: 'shipmentsJson', search: RECENT, of: 'a week' }],
    shipmentsCsv: [
      { name: 'shipmentsCsv', search: RECENT, of: 'a week' },
      { name: 'shipmentsCsv', of: 'all of it' },
    ],
    sheetRows: ['items', 'bins', 'customers', 'timetable'].map((id) => ({ name: 'sheetRows', id, of: id })),
    sheetFile: [{ name: 'sheetFile', id: 'bins', search: 'format=csv' }],
    addressCode: [{ name: 'addressCode', search: 'text=x' }],
    job: [],
    picture: [],
    printJobPdf: [],
    printJobPng: [],
    printJobZpl: [],
    pallet: [],
    palletLabel: [],
    palletSheet: [],
    scale: [],
    trialCode: [],
  };
  const names = (Object.entries(endpoints) as [EndpointName, Endpoint][]).filter(
    ([name, e]) => e.method === 'GET' && !NO_SCREEN.has(name),
  );
  return names.flatMap(([name]) => mine[name] ?? [{ name }]);
}

async function measure(
  base: string,
  cookie: string,
  { name, id, search, of }: Question,
): Promise<{ what: string; ms: number; most: number; kb: number }> {
  const path = endpoints[name].path.replace(':id', id ?? '') + (search ? `?${search}` : '');
  const ms: number[] = [];
  let bytes = 0;
  let status = 0;
  for (let i = 0; i < TIMES && (ms.at(-1) ?? 0) < LONG_MS; i++) {
    const begun = performance.now();
    const answer = await fetch(base + path, { headers: { cookie } });
    bytes = 0;
    const reader = answer.body!.getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) bytes += part.value.byteLength;
    status = answer.status;
    ms.push(performance.now() - begun);
  }
  const what = [name, ...(of ? [`: ${of}`] : []), ...(status === 200 ? [] : [` → ${status}`])].join('');
  return { what, ms: quantile(ms, 0.5), most: Math.max(...ms), kb: bytes / 1000 };
}
