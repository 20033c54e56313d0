import { randomUUID } from 'node:crypto';
import {
  CHANGED,
  effectOn,
  endpoints,
  TAB,
  type Changed,
  type ChangeEvent,
  type Endpoint,
  type EndpointName,
  type PickVerdictAnswer,
  type Topic,
} from '@hand-relay/contract';
import { startPostgres } from '../../bin/postgres.mjs';
import { makeCarts } from './carts.ts';
import type { Note } from './note.ts';
import { release } from './floor.ts';
import { quantile, takeRuns, type Picker } from './scans.ts';
import { signIn, startServer, type Bench } from './server.ts';

/** Milliseconds for which what changed is gathered, and between two readings of a list: as in the app (`stale.ts`). */
const SOON_MS = 30;
const LISTS_MS = 1500;

/** Something that a screen shows: an endpoint, and the id in its address. */
interface Shown {
  name: EndpointName;
  id?: string;
}

interface Figures {
  reads: number;
  bytes: number;
  readMs: number[];
  scanMs: number[];
}

/**
 * A device that hears the live stream and reads again what its screen shows, by the rules of the app and the contract's
 * table of effects.
 */
class Device {
  readonly tab = randomUUID();
  private readonly ids = new Set<Shown>();
  private readonly lists = new Set<Topic>();
  private readonly readAt = new Map<Topic, number>();
  private timer: NodeJS.Timeout | undefined;
  private readonly stop = new AbortController();

  constructor(
    readonly base: string,
    private readonly cookie: string,
    private readonly shown: readonly Shown[],
    private readonly figures: Figures,
  ) {}

  async listen(): Promise<void> {
    const response = await fetch(`${this.base}/api/events`, {
      headers: { cookie: this.cookie },
      signal: this.stop.signal,
    });
    void this.hearAll(response.body!.getReader());
  }

  private async hearAll(stream: ReadableStreamDefaultReader<Uint8Array>): Promise<void> {
    const decoder = new TextDecoder();
    let rest = '';
    try {
      for (;;) {
        const { value, done } = await stream.read();
        if (done) return;
        const lines = (rest + decoder.decode(value, { stream: true })).split('\n');
        rest = lines.pop()!;
        for (const line of lines) if (line.startsWith('data: ')) this.changed(JSON.parse(line.slice(6)) as ChangeEvent);
      }
    } catch (error) {
      if (!this.stop.signal.aborted) throw error;
    }
  }

  private changed({ topic, ids, by }: ChangeEvent): void {
    if (by === this.tab) return;
    for (const shown of this.shown)
      for (const effect of (endpoints[shown.name] as Endpoint).reads ?? []) {
        const on = effectOn(effect, shown.id ?? '');
        if (on.topic !== topic) continue;
        if (on.id === null) this.lists.add(topic);
        else if (ids.length === 0 || ids.includes(on.id)) this.ids.add(shown);
      }
    this.wait(SOON_MS);
  }

  private wait(ms: number): void {
    if (this.ids.size + this.lists.size === 0) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.read(), ms);
  }

  private async read(): Promise<void> {
    const now = Date.now();
    const waits = (topic: Topic) => Math.max(0, (this.readAt.get(topic) ?? -Infinity) + LISTS_MS - now);
    const ready = new Set([...this.lists].filter((topic) => waits(topic) === 0));
    const due = this.shown.filter(
      (shown) =>
        this.ids.has(shown) ||
        ((endpoints[shown.name] as Endpoint).reads ?? []).some((effect) => {
          const on = effectOn(effect, '');
          return !effect.includes('#') && ready.has(on.topic);
        }),
    );
    this.ids.clear();
    for (const topic of ready) {
      this.lists.delete(topic);
      this.readAt.set(topic, now);
    }
    if (this.lists.size > 0) this.wait(Math.min(...[...this.lists].map(waits)));
    for (const shown of due) await this.ask(shown);
  }

  async ask({ name, id }: Shown): Promise<void> {
    const begun = performance.now();
    const response = await fetch(this.base + endpoints[name].path.replace(':id', id ?? ''), {
      headers: { cookie: this.cookie },
      signal: this.stop.signal,
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${name}: ${response.status} ${text.slice(0, 200)}`);
    this.figures.reads += 1;
    this.figures.bytes += Number(response.headers.get('content-length') ?? text.length);
    this.figures.readMs.push(performance.now() - begun);
  }

  /** Scans, one input a pace apart, and reads the run again as each pick is done. */
  async pick(picker: Picker, pace: number, until: number): Promise<void> {
    await pause(Math.random() * pace);
    while (Date.now() < until) {
      const next = picker.inputs.shift();
      if (!next) return;
      const begun = performance.now();
      const response = await fetch(`${this.base}/api/runs/${picker.run}/inputs`, {
        method: 'POST',
        headers: {
          cookie: this.cookie,
          'content-type': 'application/json',
          'idempotency-key': randomUUID(),
          [TAB]: this.tab,
        },
        body: JSON.stringify(next),
      });
      const answer = (await response.json()) as PickVerdictAnswer;
      if (!response.ok) throw new Error(JSON.stringify(answer));
      const ms = performance.now() - begun;
      this.figures.scanMs.push(ms);
      const told = JSON.parse(response.headers.get(CHANGED) ?? '[]') as Changed[];
      // What the picker's own screen shows beside the run is read by what the answer says.
      for (const change of told) if (change.topic !== 'picks') this.changed({ ...change });
      if (answer.verdict === 'done') await this.ask({ name: 'run', id: picker.run });
      await pause(Math.max(0, pace - (performance.now() - begun)));
    }
  }

  close(): void {
    clearTimeout(this.timer);
    this.stop.abort();
  }
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * A shift at real pace: pickers with their phones, four benches, two docks, and two supervisors on the page of a wave
 * and on the track, each hearing the live stream.
 */
async function shift(
  servers: readonly Bench[],
  { pickers, wave }: { pickers: readonly Picker[]; wave: string },
  { pace, seconds }: { pace: number; seconds: number },
): Promise<Figures> {
  const figures: Figures = { reads: 0, bytes: 0, readMs: [], scanMs: [] };
  const devices: Device[] = [];
  const open = async (who: 'maren' | 'pico', shown: Shown[]) => {
    const { base } = servers[devices.length % servers.length]!;
    const { cookie } = await signIn(base, who);
    const device = new Device(base, cookie, shown, figures);
    devices.push(device);
    await device.listen();
    return device;
  };
  const phones: Device[] = [];
  for (const { run } of pickers)
    phones.push(await open('pico', [{ name: 'run', id: run }, { name: 'putAways' }, { name: 'me' }]));
  for (let i = 0; i < 4; i++) await open('maren', [{ name: 'bench' }]);
  for (let i = 0; i < 2; i++) await open('maren', [{ name: 'dock' }]);
  await open('maren', [{ name: 'wave', id: wave }, { name: 'crew' }, { name: 'exceptions' }]);
  await open('maren', [{ name: 'waves' }, { name: 'loads' }, { name: 'crew' }, { name: 'exceptions' }]);
  const until = Date.now() + seconds * 1000;
  await Promise.all(phones.map((phone, i) => phone.pick(pickers[i]!, pace, until)));
  for (const device of devices) device.close();
  await pause(300);
  return figures;
}

/** Waves with a run for each of so many pickers, all taken. */
async function prepare(bench: Bench, count: number): Promise<{ pickers: Picker[]; wave: string }> {
  const desk = await signIn(bench.base, 'maren');
  await makeCarts(desk, count + 10);
  const ids: string[] = [];
  for (let after: string | null = ''; after !== null;) {
    const page: { data: { rows: string[][]; next: string | null } } = await desk.call(
      'GET',
      `/api/orders?limit=1000${after ? `&after=${encodeURIComponent(after)}` : ''}`,
    );
    // Only what can be released.
    ids.push(...page.data.rows.filter((r) => Number(r[10]) > 0).map((r) => r[0]!));
    after = page.data.next;
  }
  let wave = '';
  const pickers: Picker[] = [];
  const pico = await signIn(bench.base, 'pico');
  for (let at = 0; at < ids.length && pickers.length < count; at += 300) {
    wave = await release(desk, ids.slice(at, at + 300), 'sort');
    pickers.push(...(await takeRuns(pico, count - pickers.length, count + 10, pickers.length)));
  }
  return { pickers, wave };
}

function say(note: Note, name: string, { reads, bytes, readMs, scanMs }: Figures, seconds: number): void {
  note(`${name}: scans a second`, scanMs.length / seconds, '');
  note(`${name}: scan p50`, quantile(scanMs, 0.5), 'ms');
  note(`${name}: scan p95`, quantile(scanMs, 0.95), 'ms', 'under 100');
  note(`${name}: reads for each scan, all devices`, reads / scanMs.length, '', 'at most 3');
  note(`${name}: kB read for each scan`, bytes / 1024 / scanMs.length, 'kB');
  note(`${name}: a read, p95`, quantile(readMs, 0.95), 'ms');
}

const SECONDS = 60;
/** Milliseconds between two inputs of a picker who walks, picks and puts. */
const PACE = 6000;

/** 40 pickers on the embedded database; then 40 and 200 on PostgreSQL with one, two and four servers. */
export async function benchShift(note: Note, only: string | undefined): Promise<void> {
  if (!only || only === 'embedded') {
    const bench = await startServer(6);
    const there = await prepare(bench, 40);
    note('pickers, embedded', there.pickers.length, '', '40');
    say(note, 'embedded, 40 pickers', await shift([bench], there, { pace: PACE, seconds: SECONDS }), SECONDS);
    note('embedded, memory', bench.memoryMb(), 'MB', 'under 900');
    await bench.close();
  }
  for (const count of [1, 2, 4]) {
    if (only && only !== String(count)) continue;
    const postgres = await startPostgres({ max_connections: 100, shared_buffers: '256MB' });
    const url = postgres.address('postgres');
    const servers: Bench[] = [];
    for (let i = 0; i < count; i++) servers.push(await startServer(8, undefined, { port: 4700 + i, url }));
    const there = await prepare(servers[0]!, 200);
    const name = `PostgreSQL, ${count} ${count === 1 ? 'server' : 'servers'}`;
    note(`pickers, ${name}`, there.pickers.length, '', '200');
    const few = { ...there, pickers: there.pickers.slice(0, 40) };
    say(note, `${name}, 40 pickers`, await shift(servers, few, { pace: PACE, seconds: SECONDS }), SECONDS);
    for (const pace of [PACE, PACE / 2, PACE / 4]) {
      const figures = await shift(servers, there, { pace, seconds: SECONDS });
      say(note, `${name}, 200 pickers, an input each ${pace / 1000} s`, figures, SECONDS);
      if (quantile(figures.scanMs, 0.95) > 100) break;
    }
    servers.forEach((server, i) => note(`${name}, memory of server ${i + 1}`, server.memoryMb(), 'MB', 'under 900'));
    for (const server of servers) await server.close();
    await postgres.stop();
  }
}
