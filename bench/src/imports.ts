import type { Client } from './server.ts';

interface Job {
  state: 'running' | 'done' | 'cancelled' | 'failed';
  done: number;
  all: number;
}

/** Seconds of a job from its start to its end, and how often it told how far it is. */
async function follow(desk: Client, job: string): Promise<{ seconds: number; tellings: number; end: Job }> {
  const begun = performance.now();
  let tellings = 0;
  for (let last = -1; ; await new Promise((resolve) => setTimeout(resolve, 100))) {
    const { data } = await desk.call<Job>('GET', `/api/setup/jobs/${job}`);
    if (data.done !== last) tellings += 1;
    last = data.done;
    if (data.state !== 'running') return { seconds: (performance.now() - begun) / 1000, tellings, end: data };
  }
}

/** A file of so many items, as a spreadsheet saves it. */
function itemFile(rows: number): string {
  const lines = Array.from({ length: rows }, (_, i) => `BENCH-${i},Benchmark item ${i},80,80,110,${100 + (i % 900)}`);
  return ['item,name,length_mm,width_mm,height_mm,weight_g', ...lines].join('\n');
}

export interface Imported {
  lookSeconds: number;
  items: { seconds: number; tellings: number };
  bins: { seconds: number; tellings: number };
  /** Milliseconds from asking a job to stop until it has, and the rows that stay. */
  stopMs: number;
  stoppedAfter: number;
}

/** Takes so many items from a file and makes so many bins, then begins another file and stops it. */
export async function importMany(desk: Client, rows: number): Promise<Imported> {
  const file = { file: 'items.csv', data: Buffer.from(itemFile(rows)).toString('base64') };
  const look = await desk.call('POST', '/api/setup/sheets/items/preview', file);
  const items = await desk.call<{ job: string }>('POST', '/api/setup/sheets/items/import', file);
  const taken = await follow(desk, items.data.job);
  if (taken.end.state !== 'done' || taken.end.done !== rows) throw new Error(`Items: ${JSON.stringify(taken.end)}`);
  const bins = await desk.call<{ job: string }>('POST', '/api/setup/floor', {
    firstAisle: 'AA',
    aisles: rows / 500,
    bays: 50,
    levels: 5,
    sides: 2,
    bayMetres: 1.2,
    aisleMetres: 3.4,
    crossEvery: 25,
    crossMetres: 2,
    naming: '{aisle}-{bay}-{level}{side}',
    zone: 'small',
  });
  const made = await follow(desk, bins.data.job);
  if (made.end.state !== 'done' || made.end.done !== rows) throw new Error(`Bins: ${JSON.stringify(made.end)}`);
  const more = { file: 'more.csv', data: Buffer.from(itemFile(rows).replaceAll('BENCH-', 'MORE-')).toString('base64') };
  const begun = await desk.call<{ job: string }>('POST', '/api/setup/sheets/items/import', more);
  const asked = performance.now();
  await desk.call('POST', `/api/setup/jobs/${begun.data.job}/cancel`);
  const stopped = await follow(desk, begun.data.job);
  if (stopped.end.state !== 'cancelled') throw new Error(`Stopped: ${JSON.stringify(stopped.end)}`);
  return {
    lookSeconds: look.ms / 1000,
    items: taken,
    bins: made,
    stopMs: performance.now() - asked,
    stoppedAfter: stopped.end.done,
  };
}
