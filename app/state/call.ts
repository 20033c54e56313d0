import {
  CHANGED,
  changed,
  DONE_AGO,
  effectOn,
  endpoints,
  outboxNames,
  SERVER_TIME,
  TAB,
  type Changed,
  type Endpoint,
  type EndpointName,
  type Problem,
  type Topic,
} from '@hand-relay/contract';
import { z } from 'zod';
import { deviceName, randomKey } from './device.ts';
import { forSite } from './forSite.ts';
import { sawServerTime } from './serverTime.ts';

export interface Call {
  name: EndpointName;
  id?: string;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
}

/** What went wrong, as the server's problem or ours when it did not answer. */
export type Trouble = Pick<Problem, 'code' | 'facts' | 'fields' | 'requestId' | 'status'>;

/** No server was reached. */
export const networkError: Trouble = { code: 'network', facts: {}, fields: [], requestId: '', status: 0 };
/** A server answered that it, or what stands before it, has a fault. */
const faulty = (status: number): Trouble => ({ ...networkError, code: 'server-fault', status });
/** This version of the app does not know the call: an earlier one kept it. */
const unknownCall: Trouble = { ...networkError, code: 'unknown-call', status: 410 };

/** What a picker needs while offline: kept as it was answered last. */
export const CACHED: ReadonlySet<string> = new Set<EndpointName>(['me', 'myRuns', 'run', 'floorPlan', 'putAways']);
/** What a device did, sent as soon as may be. */
const SENT: ReadonlySet<string> = new Set<EndpointName>([...outboxNames, 'keepPhoto', 'sendOutbox']);

/** When a call found nothing but silence, and how long the next ones that have something kept wait less for it. */
let silentAt = -Infinity;
const SILENCE_MS = 15_000;

/** Milliseconds after which nobody answers any more: a network that swallows what is sent says so of itself never. */
function limitOf(name: EndpointName, method: Endpoint['method']): number {
  if (name === 'sendOutbox' || name === 'keepPhoto') return 10_000;
  if (CACHED.has(name) && Date.now() - silentAt < SILENCE_MS) return 800;
  if (CACHED.has(name) || SENT.has(name) || name === 'signOut') return 4_000;
  return method === 'GET' ? 20_000 : 180_000;
}

const RETRY_DELAYS_MS = [300, 1200];

/** The address of an endpoint, for calls and links, at the site that this screen works for. */
export function addressOf({ name, id, query }: Omit<Call, 'body'>): string {
  const path = endpoints[name].path.replace(':id', encodeURIComponent(id ?? ''));
  const search = new URLSearchParams(
    Object.entries({ ...query, at: forSite() ?? undefined }).flatMap(([k, v]) =>
      v === undefined ? [] : [[k, String(v)]],
    ),
  );
  const text = search.toString();
  return text ? `${path}?${text}` : path;
}

/** Where the server is: beside the app, or as tests say. */
let origin = '';
export function useOrigin(address: string): void {
  origin = address;
}

/** Called when a call finds that nobody is signed in any more: from afar, or as the shift is over. */
let signedOut = () => {};
export function whenSignedOut(listener: () => void): void {
  signedOut = listener;
}

const newTab = () => randomKey().slice(0, 40);
/**
 * This page, by a name of its own: the live stream says which changes it asked for itself. After a change to which nobody
 * answered it takes another one, so that what became of it is heard as if somebody else had done it.
 */
export let tab = newTab();

/** Called with what a call of this page changed, as its answer says. */
let onChanged = (_changes: Changed[]) => {};
export function whenChanged(listener: (changes: Changed[]) => void): void {
  onChanged = listener;
}

/** What a call changed: as the server says; else, where it repeats an answer, all that the endpoint may change. */
function changesOf(endpoint: Endpoint, said: string | null, id: string): Changed[] {
  const announced = said === null ? null : z.array(changed).safeParse(JSON.parse(said));
  if (announced?.success) return announced.data;
  // Whoever signs in reads everything anyway.
  if (endpoint.needs === 'public') return [];
  return (endpoint.changes ?? []).map((effect) => {
    const on = effectOn(effect, id);
    return { topic: on.topic, ids: on.id === null ? [] : [on.id] };
  });
}

/**
 * Calls an endpoint. A change carries a key of its own and is sent again with the same key when the network fails, so
 * that it happens once.
 *
 * @param retryDelays milliseconds before each further try
 * @param ago milliseconds since it was done, where it was kept for a while
 * @param handled topics of which the caller itself reads again what is to be read
 */
export async function call(
  ask: Call,
  {
    key = randomKey(),
    retryDelays: retryDelays = RETRY_DELAYS_MS,
    ago = 0,
    handled = [],
  }: { key?: string; retryDelays?: readonly number[]; ago?: number; handled?: readonly Topic[] } = {},
): Promise<{ data: unknown } | { error: Trouble }> {
  const endpoint: Endpoint | undefined = Object.hasOwn(endpoints, ask.name) ? endpoints[ask.name] : undefined;
  if (!endpoint) return { error: unknownCall };
  const headers: Record<string, string> = { 'X-Device': deviceName() };
  if (endpoint.method === 'POST') {
    headers['Idempotency-Key'] = key;
    headers['Content-Type'] = 'application/json';
    headers[TAB] = tab;
    headers[DONE_AGO] = String(Math.max(0, Math.round(ago)));
  }
  for (let attempt = 0; ; attempt++) {
    const limit = new AbortController();
    const asked = Date.now();
    const timer = setTimeout(() => limit.abort(), limitOf(ask.name, endpoint.method));
    try {
      const response = await fetch(origin + addressOf(ask), {
        method: endpoint.method,
        headers,
        credentials: 'same-origin',
        signal: limit.signal,
        ...(endpoint.method === 'POST' ? { body: JSON.stringify(ask.body ?? {}) } : {}),
      });
      sawServerTime(Number(response.headers.get(SERVER_TIME) ?? NaN), asked, Date.now());
      const answer: unknown = await response.json().catch(() => null);
      silentAt = -Infinity;
      if (response.ok) {
        if (!isOurs(ask.name, endpoint, answer)) return { error: networkError };
        const announced = changesOf(endpoint, response.headers.get(CHANGED), ask.id ?? '');
        const changes = announced.filter(({ topic }) => !handled.includes(topic));
        if (changes.length > 0) onChanged(changes);
        return { data: answer };
      }
      const problem = answer as Problem | null;
      if (problem?.code === 'not-signed-in' && ask.name !== 'me') signedOut();
      if (problem?.code) return { error: problem };
      return { error: response.status >= 500 ? faulty(response.status) : networkError };
    } catch {
      if (limit.signal.aborted) silentAt = Date.now();
      const pause = retryDelays[attempt];
      if (endpoint.method === 'POST') tab = newTab();
      if (pause === undefined) return { error: networkError };
      await new Promise((resolve) => setTimeout(resolve, pause));
    } finally {
      clearTimeout(timer);
    }
  }
}

/**
 * Whether an answer is our server's: a guest network answers everything with its sign-in page, be it HTML or JSON. What
 * a device did must be answered with all that its endpoint answers, or a scan would be lost; other answers with some of
 * it, as servers of another version know other fields.
 */
function isOurs(name: EndpointName, { answer }: Endpoint, got: unknown): boolean {
  if (typeof got !== 'object' || got === null || Array.isArray(got)) return false;
  const { shape } = (answer ?? {}) as { shape?: Record<string, z.ZodType> };
  if (!shape) return true;
  const keys = Object.entries(shape);
  if (SENT.has(name)) return keys.every(([key, value]) => key in got || value.safeParse(undefined).success);
  return keys.length === 0 || keys.some(([key]) => key in got);
}

/** A file that an endpoint makes of what is sent. */
export async function fetchFile(ask: Call): Promise<{ data: Blob } | { error: Trouble }> {
  try {
    const response = await fetch(origin + addressOf(ask), {
      method: endpoints[ask.name].method,
      headers: { 'X-Device': deviceName(), 'Idempotency-Key': randomKey(), 'Content-Type': 'application/json' },
      credentials: 'same-origin',
      body: JSON.stringify(ask.body ?? {}),
    });
    return response.ok ? { data: await response.blob() } : { error: (await response.json()) as Problem };
  } catch {
    return { error: networkError };
  }
}

/**
 * Sends a backup to be looked at, or restored in place of everything. Sent once and never again by itself: a second restore behind
 * the first would undo what people did in between.
 */
export async function restoreBackup(
  file: Blob,
  name: 'restore' | 'previewBackup' = 'restore',
): Promise<{ data: { site: string; orders: number; lastAt: string | null } } | { error: Trouble }> {
  try {
    const response = await fetch(origin + addressOf({ name }), {
      method: 'POST',
      headers: {
        'X-Device': deviceName(),
        'Idempotency-Key': randomKey(),
        'Content-Type': 'application/octet-stream',
      },
      credentials: 'same-origin',
      body: file,
    });
    const answer: unknown = await response.json();
    return response.ok
      ? { data: answer as { site: string; orders: number; lastAt: string | null } }
      : { error: answer as Problem };
  } catch {
    return { error: networkError };
  }
}
