import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { house } from '@hand-relay/demo';

const PORT = 4680;

/** The built demo server as a process of its own, on a folder that goes with it. */
export interface Bench {
  base: string;
  /** Milliseconds from the start of the process until it is ready. */
  startMs: number;
  /** Resident memory in megabytes. */
  memoryMb(): number;
  /** Ends the process and starts it again on the same folder. */
  restart(): Promise<Bench>;
  close(): Promise<void>;
}

/**
 * @param at settings of one of several servers: its port, and the address of the database that they share
 */
export async function startServer(
  size: number,
  folder = mkdtempSync(join(tmpdir(), 'hand-relay-bench-')),
  at: { port: number; url?: string } = { port: PORT },
): Promise<Bench> {
  const begun = performance.now();
  const child: ChildProcess = spawn(process.execPath, ['dist/server/demo.js'], {
    env: {
      ...process.env,
      DATA_DIR: folder,
      PORT: String(at.port),
      DEMO_SIZE: String(size),
      DEMO_SHIFT: 'off',
      LOG_LEVEL: 'silent',
      ...(at.url ? { DATABASE_URL: at.url } : {}),
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const base = `http://localhost:${at.port}`;
  for (;;) {
    if (child.exitCode !== null) throw new Error(`The server ended with ${child.exitCode}.`);
    if (
      await fetch(`${base}/ready`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  const startMs = performance.now() - begun;
  const end = () =>
    new Promise<void>((resolve) => {
      child.once('exit', () => resolve());
      child.kill('SIGTERM');
    });
  return {
    base,
    startMs,
    memoryMb: () =>
      Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) / 1024),
    async restart() {
      await end();
      return startServer(size, folder, at);
    },
    async close() {
      await end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export interface Client {
  /** A call and how long it took in milliseconds. */
  call<T>(method: 'GET' | 'POST', path: string, body?: object): Promise<{ data: T; ms: number; bytes: number }>;
  cookie: string;
}

let keys = 0;

export async function signIn(base: string, who: 'maren' | 'pico'): Promise<Client> {
  const person = house.people.find((p) => p.id === who)!;
  const body = person.login
    ? { name: person.login, password: house.PASSWORD }
    : { badge: person.badge, pin: house.PIN };
  const response = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(await response.text());
  const cookie = response.headers.get('set-cookie')!.split(';')[0]!;
  return {
    cookie,
    async call<T>(method: 'GET' | 'POST', path: string, asked?: object) {
      const begun = performance.now();
      const answer = await fetch(base + path, {
        method,
        headers: { cookie, 'content-type': 'application/json', 'idempotency-key': `bench-${++keys}` },
        ...(method === 'POST' ? { body: JSON.stringify(asked ?? {}) } : {}),
      });
      const text = await answer.text();
      const ms = performance.now() - begun;
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${text.slice(0, 300)}`);
      return { data: JSON.parse(text) as T, ms, bytes: Number(answer.headers.get('content-length') ?? text.length) };
    },
  };
}
