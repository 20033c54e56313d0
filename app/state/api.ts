import { createApi, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import {
  DONE_AGO,
  endpoints,
  keptNames,
  type Endpoint,
  type EndpointName,
  type Language,
  type Problem,
} from '@hand-relay/contract';
import type { DeskView } from '@hand-relay/contract';
import type { Policy } from '@hand-relay/core/allocation';
import type { z } from 'zod';
import { keep, kept, remembered, unanswered } from '../kept/index.ts';
import { deviceName, randomKey } from './device.ts';
import { forSite } from './forSite.ts';

type Out<S> = S extends z.ZodType ? z.output<S> : undefined;
type In<S> = S extends z.ZodType ? z.input<S> : undefined;

export interface Call {
  name: EndpointName;
  id?: string;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
}

/** What went wrong, as the server's problem or ours when it did not answer. */
export type Trouble = Pick<Problem, 'code' | 'facts' | 'fields' | 'requestId' | 'status'>;

/** No server was reached. */
export const nobodyAnswered: Trouble = { code: 'network', facts: {}, fields: [], requestId: '', status: 0 };
/** A server answered that it, or what stands before it, has a fault. */
const faulty = (status: number): Trouble => ({ ...nobodyAnswered, code: 'server-fault', status });
/** This version of the app does not know the call: an earlier one kept it. */
const unknownCall: Trouble = { ...nobodyAnswered, code: 'unknown-call', status: 410 };

/** What a picker needs where the radio does not reach: kept as it was answered last. */
const KEPT: ReadonlySet<string> = new Set<EndpointName>(['me', 'myRuns', 'run', 'floorPlan', 'putBacks']);
/** What a device did, sent as soon as may be. */
const SENT: ReadonlySet<string> = new Set<EndpointName>([...keptNames, 'keepPhoto', 'sendKept']);

/** When a call found nothing but silence, and how long the next ones that have something kept wait less for it. */
let silentAt = -Infinity;
const SILENCE_MS = 15_000;

/** Milliseconds after which nobody answers any more: a network that swallows what is sent says so of itself never. */
function limitOf(name: EndpointName, method: Endpoint['method']): number {
  if (name === 'sendKept' || name === 'keepPhoto') return 10_000;
  if (KEPT.has(name) && Date.now() - silentAt < SILENCE_MS) return 800;
  if (KEPT.has(name) || SENT.has(name) || name === 'signOut') return 4_000;
  return method === 'GET' ? 20_000 : 180_000;
}

const PATIENCE_MS = [300, 1200];

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

/** Told when a call finds that nobody is signed in any more: from afar, or as the shift is over. */
let signedOut = () => {};
export function whenSignedOut(told: () => void): void {
  signedOut = told;
}

/**
 * Calls an endpoint. A change carries a key of its own and is sent again with the same key when the network fails, so
 * that it happens once.
 *
 * @param patience milliseconds before each further try
 * @param ago milliseconds since it was done, where it was kept for a while
 */
export async function call(
  ask: Call,
  {
    key = randomKey(),
    patience = PATIENCE_MS,
    ago = 0,
  }: { key?: string; patience?: readonly number[]; ago?: number } = {},
): Promise<{ data: unknown } | { error: Trouble }> {
  const endpoint: Endpoint | undefined = Object.hasOwn(endpoints, ask.name) ? endpoints[ask.name] : undefined;
  if (!endpoint) return { error: unknownCall };
  const headers: Record<string, string> = { 'X-Device': deviceName() };
  if (endpoint.method === 'POST') {
    headers['Idempotency-Key'] = key;
    headers['Content-Type'] = 'application/json';
    headers[DONE_AGO] = String(Math.max(0, Math.round(ago)));
  }
  for (let attempt = 0; ; attempt++) {
    const limit = new AbortController();
    const timer = setTimeout(() => limit.abort(), limitOf(ask.name, endpoint.method));
    try {
      const response = await fetch(origin + addressOf(ask), {
        method: endpoint.method,
        headers,
        credentials: 'same-origin',
        signal: limit.signal,
        ...(endpoint.method === 'POST' ? { body: JSON.stringify(ask.body ?? {}) } : {}),
      });
      const answer: unknown = await response.json().catch(() => null);
      silentAt = -Infinity;
      if (response.ok) return isOurs(ask.name, endpoint, answer) ? { data: answer } : { error: nobodyAnswered };
      const problem = answer as Problem | null;
      if (problem?.code === 'not-signed-in' && ask.name !== 'me') signedOut();
      if (problem?.code) return { error: problem };
      return { error: response.status >= 500 ? faulty(response.status) : nobodyAnswered };
    } catch {
      if (limit.signal.aborted) silentAt = Date.now();
      const pause = patience[attempt];
      if (pause === undefined) return { error: nobodyAnswered };
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
    return { error: nobodyAnswered };
  }
}

/**
 * Sends a backup to be looked at, or restored in place of everything. Sent once and never again by itself: a second restore behind
 * the first would undo what people did in between.
 */
export async function restoreBackup(
  file: Blob,
  name: 'restore' | 'lookAtBackup' = 'restore',
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
    return { error: nobodyAnswered };
  }
}

const baseQuery: BaseQueryFn<Call, unknown, Trouble> = async (ask) => {
  if (ask.name === 'me' && remembered('signed-out') === '1')
    return { error: { ...nobodyAnswered, code: 'not-signed-in', status: 401 } };
  if (!KEPT.has(ask.name)) return call(ask);
  const address = addressOf(ask);
  // What is kept must not wait behind tries that come to nothing.
  const before = await kept(address).catch(() => undefined);
  const offline = typeof navigator !== 'undefined' && navigator.onLine === false;
  const answer = await call(ask, offline || before !== undefined ? { patience: [] } : {});
  // Nobody waits for the keeping. A device that is full keeps what it has: its outbox says so.
  if ('data' in answer) void keep(address, answer.data).catch(() => undefined);
  else if (unanswered(answer.error) && before !== undefined) return { data: before };
  return answer;
};

export type Body<N extends EndpointName> = In<(typeof endpoints)[N] extends { body: infer B } ? B : undefined>;
export type Answer<N extends EndpointName> = Out<(typeof endpoints)[N] extends { answer: infer A } ? A : undefined>;

export const tags = [
  'me',
  'orders',
  'waves',
  'runs',
  'counts',
  'bench',
  'shipments',
  'stock',
  'floor',
  'setup',
  'printing',
  'host',
  'views',
] as const;

/** The API as hooks. What changed elsewhere is told by the live stream, which invalidates the tags. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: tags,
  keepUnusedDataFor: 120,
  endpoints: (build) => ({
    setupState: build.query<Answer<'setupState'>, void>({ query: () => ({ name: 'setupState' }) }),
    firstRun: build.mutation<unknown, Body<'firstRun'>>({ query: (body) => ({ name: 'firstRun', body }) }),
    setupOverview: build.query<Answer<'setupOverview'>, void>({
      query: () => ({ name: 'setupOverview' }),
      providesTags: ['setup', 'stock'],
    }),
    site: build.query<Answer<'site'>, void>({ query: () => ({ name: 'site' }), providesTags: ['setup'] }),
    changeSite: build.mutation<Answer<'changeSite'>, Body<'changeSite'>>({
      query: (body) => ({ name: 'changeSite', body }),
      invalidatesTags: ['setup', 'me'],
    }),
    sheetRows: build.query<Answer<'sheetRows'>, string>({
      query: (id) => ({ name: 'sheetRows', id }),
      providesTags: ['setup', 'stock'],
    }),
    sheetLook: build.mutation<Answer<'sheetLook'>, { id: string } & Body<'sheetLook'>>({
      query: ({ id, ...body }) => ({ name: 'sheetLook', id, body }),
    }),
    sheetTake: build.mutation<Answer<'sheetTake'>, { id: string } & Body<'sheetTake'>>({
      query: ({ id, ...body }) => ({ name: 'sheetTake', id, body }),
    }),
    job: build.query<Answer<'job'>, string>({ query: (id) => ({ name: 'job', id }) }),
    cancelJob: build.mutation<Answer<'cancelJob'>, string>({ query: (id) => ({ name: 'cancelJob', id }) }),
    sheetChange: build.mutation<Answer<'sheetChange'>, { id: string } & Body<'sheetChange'>>({
      query: ({ id, ...body }) => ({ name: 'sheetChange', id, body }),
      invalidatesTags: ['setup'],
    }),
    sheetRetire: build.mutation<Answer<'sheetRetire'>, { id: string } & Body<'sheetRetire'>>({
      query: ({ id, ...body }) => ({ name: 'sheetRetire', id, body }),
      invalidatesTags: ['setup'],
    }),
    setupHistory: build.query<Answer<'setupHistory'>, void>({
      query: () => ({ name: 'setupHistory' }),
      providesTags: ['setup'],
    }),
    setupUndo: build.mutation<Answer<'setupUndo'>, string>({
      query: (entry) => ({ name: 'setupUndo', body: { entry } }),
      invalidatesTags: ['setup', 'floor'],
    }),
    makeFloor: build.mutation<Answer<'makeFloor'>, Body<'makeFloor'>>({
      query: (body) => ({ name: 'makeFloor', body }),
      invalidatesTags: ['setup', 'floor'],
    }),
    me: build.query<Answer<'me'>, void>({ query: () => ({ name: 'me' }), providesTags: ['me'] }),
    signIn: build.mutation<Answer<'signIn'>, Body<'signIn'>>({ query: (body) => ({ name: 'signIn', body }) }),
    switchSite: build.mutation<Answer<'switchSite'>, string>({
      query: (site) => ({ name: 'switchSite', body: { site } }),
    }),
    sawAccountChanges: build.mutation<unknown, number>({
      query: (upTo) => ({ name: 'sawAccountChanges', body: { upTo } }),
      invalidatesTags: ['me'],
    }),
    changeLanguage: build.mutation<unknown, Language>({
      query: (language) => ({ name: 'changeLanguage', body: { language } }),
      invalidatesTags: ['me'],
    }),
    way: build.query<Answer<'way'>, void>({ query: () => ({ name: 'way' }), providesTags: ['setup'] }),
    changeWay: build.mutation<Answer<'changeWay'>, Body<'changeWay'>>({
      query: (body) => ({ name: 'changeWay', body }),
      invalidatesTags: ['setup', 'me', 'runs'],
    }),
    backups: build.query<Answer<'backups'>, void>({ query: () => ({ name: 'backups' }), providesTags: ['setup'] }),
    backUpNow: build.mutation<Answer<'backups'>, void>({
      query: () => ({ name: 'backUpNow', body: {} }),
      invalidatesTags: ['setup'],
    }),
    devices: build.query<Answer<'devices'>, void>({ query: () => ({ name: 'devices' }), providesTags: ['setup'] }),
    signOutDevice: build.mutation<unknown, string>({
      query: (id) => ({ name: 'signOutDevice', id }),
      invalidatesTags: ['setup'],
    }),
    keepPicture: build.mutation<Answer<'keepPicture'>, string>({
      query: (data) => ({ name: 'keepPicture', body: { data } }),
    }),
    print: build.mutation<Answer<'print'>, Body<'print'>>({
      query: (body) => ({ name: 'print', body }),
      invalidatesTags: ['printing'],
    }),
    printJobs: build.query<Answer<'printJobs'>, { printer?: string | undefined }>({
      query: (query) => ({ name: 'printJobs', query }),
      providesTags: ['printing'],
    }),
    printJobDone: build.mutation<Answer<'printJobDone'>, { id: string } & Body<'printJobDone'>>({
      query: ({ id, ...body }) => ({ name: 'printJobDone', id, body }),
      invalidatesTags: ['printing'],
    }),
    reserve: build.mutation<Answer<'reserve'>, string>({
      query: (id) => ({ name: 'reserve', id }),
      invalidatesTags: ['orders'],
    }),
    unreserve: build.mutation<Answer<'unreserve'>, string>({
      query: (id) => ({ name: 'unreserve', id }),
      invalidatesTags: ['orders'],
    }),
    order: build.query<Answer<'order'>, string>({ query: (id) => ({ name: 'order', id }), providesTags: ['orders'] }),
    trail: build.query<Answer<'trail'>, string>({
      query: (id) => ({ name: 'trail', id }),
      providesTags: ['orders', 'runs', 'bench', 'shipments', 'waves'],
    }),
    intake: build.mutation<Answer<'intake'>, Body<'intake'>>({ query: (body) => ({ name: 'intake', body }) }),
    cancelRest: build.mutation<Answer<'cancelRest'>, { id: string } & Body<'cancelRest'>>({
      query: ({ id, ...body }) => ({ name: 'cancelRest', id, body }),
      invalidatesTags: ['orders'],
    }),
    hostMessages: build.query<Answer<'hostMessages'>, void>({
      query: () => ({ name: 'hostMessages' }),
      providesTags: ['host'],
    }),
    hostPlay: build.mutation<Answer<'hostPlay'>, Body<'hostPlay'>>({
      query: (body) => ({ name: 'hostPlay', body }),
      invalidatesTags: ['host', 'orders'],
    }),
    hostReceive: build.mutation<Answer<'hostReceive'>, void>({
      query: () => ({ name: 'hostReceive' }),
      invalidatesTags: ['host'],
    }),
    hostStream: build.mutation<Answer<'hostStream'>, Body<'hostStream'>>({
      query: (body) => ({ name: 'hostStream', body }),
      invalidatesTags: ['host'],
    }),
    quickList: build.query<Answer<'quickList'>, void>({
      query: () => ({ name: 'quickList' }),
      providesTags: ['orders', 'stock'],
    }),
    quickConfirm: build.mutation<Answer<'quickConfirm'>, Body<'quickConfirm'>>({
      query: (body) => ({ name: 'quickConfirm', body }),
      invalidatesTags: ['orders', 'stock', 'waves', 'shipments'],
    }),
    loads: build.query<Answer<'loads'>, void>({ query: () => ({ name: 'loads' }), providesTags: ['orders', 'setup'] }),
    load: build.query<Answer<'load'>, string>({
      query: (id) => ({ name: 'load', id }),
      providesTags: ['orders', 'setup'],
    }),
    loadCandidates: build.query<Answer<'loadCandidates'>, string>({
      query: (id) => ({ name: 'loadCandidates', id }),
      providesTags: ['orders', 'setup'],
    }),
    planLoad: build.mutation<Answer<'planLoad'>, Body<'planLoad'>>({
      query: (body) => ({ name: 'planLoad', body }),
      invalidatesTags: ['orders'],
    }),
    changeLoad: build.mutation<Answer<'changeLoad'>, { id: string } & Body<'changeLoad'>>({
      query: ({ id, ...body }) => ({ name: 'changeLoad', id, body }),
      invalidatesTags: ['orders'],
    }),
    fillLoad: build.mutation<Answer<'fillLoad'>, { id: string } & Body<'fillLoad'>>({
      query: ({ id, ...body }) => ({ name: 'fillLoad', id, body }),
      invalidatesTags: ['orders'],
    }),
    dissolveLoad: build.mutation<unknown, string>({
      query: (id) => ({ name: 'dissolveLoad', id }),
      invalidatesTags: ['orders'],
    }),
    takeBack: build.mutation<Answer<'takeBack'>, Body<'takeBack'>>({
      query: (body) => ({ name: 'takeBack', body }),
      invalidatesTags: ['orders', 'waves', 'runs'],
    }),
    splitOrder: build.mutation<Answer<'splitOrder'>, { id: string } & Body<'splitOrder'>>({
      query: ({ id, ...body }) => ({ name: 'splitOrder', id, body }),
      invalidatesTags: ['orders'],
    }),
    joinOrder: build.mutation<Answer<'joinOrder'>, string>({
      query: (id) => ({ name: 'joinOrder', id }),
      invalidatesTags: ['orders'],
    }),
    tagOrders: build.mutation<Answer<'tagOrders'>, Body<'tagOrders'>>({
      query: (body) => ({ name: 'tagOrders', body }),
      invalidatesTags: ['orders'],
    }),
    orderPromise: build.query<Answer<'orderPromise'>, string>({
      query: (id) => ({ name: 'orderPromise', id }),
      providesTags: ['orders', 'stock'],
    }),
    itemPromise: build.query<Answer<'itemPromise'>, { id: string } & DeskView & { policy: Policy }>({
      query: ({ id, ...query }) => ({ name: 'itemPromise', id, query }),
      providesTags: ['orders', 'stock'],
    }),
    comparePolicies: build.mutation<Answer<'comparePolicies'>, DeskView>({
      query: (body) => ({ name: 'comparePolicies', body }),
    }),
    fixLines: build.mutation<Answer<'fixLines'>, Body<'fixLines'>>({
      query: (body) => ({ name: 'fixLines', body }),
      invalidatesTags: ['orders'],
    }),
    moveOrders: build.mutation<Answer<'moveOrders'>, Body<'moveOrders'>>({
      query: (body) => ({ name: 'moveOrders', body }),
      invalidatesTags: ['orders'],
    }),
    deskPlaces: build.query<Answer<'deskPlaces'>, void>({
      query: () => ({ name: 'deskPlaces' }),
      providesTags: ['setup'],
    }),
    keptViews: build.query<Answer<'keptViews'>, void>({
      query: () => ({ name: 'keptViews' }),
      providesTags: ['views'],
    }),
    keepView: build.mutation<Answer<'keepView'>, Body<'keepView'>>({
      query: (body) => ({ name: 'keepView', body }),
      invalidatesTags: ['views'],
    }),
    dropView: build.mutation<Answer<'dropView'>, string>({
      query: (id) => ({ name: 'dropView', id }),
      invalidatesTags: ['views'],
    }),
    deskTasks: build.query<Answer<'deskTasks'>, void>({
      query: () => ({ name: 'deskTasks' }),
      providesTags: ['orders', 'bench'],
    }),
    settleTask: build.mutation<Answer<'settleTask'>, { id: string } & Body<'settleTask'>>({
      query: ({ id, ...body }) => ({ name: 'settleTask', id, body }),
      invalidatesTags: ['orders', 'bench', 'stock'],
    }),
    cancelOrder: build.mutation<Answer<'cancelOrder'>, { id: string; reason: string }>({
      query: ({ id, reason }) => ({ name: 'cancelOrder', id, body: { reason } }),
      invalidatesTags: ['orders', 'runs', 'bench'],
    }),
    holds: build.query<Answer<'holds'>, string>({
      query: (id) => ({ name: 'holds', id }),
      providesTags: ['orders', 'bench', 'shipments'],
    }),
    holdOrder: build.mutation<Answer<'holdOrder'>, { id: string } & Body<'holdOrder'>>({
      query: ({ id, ...body }) => ({ name: 'holdOrder', id, body }),
      invalidatesTags: ['orders', 'runs', 'bench', 'shipments'],
    }),
    liftHold: build.mutation<Answer<'liftHold'>, { id: string; reason: string }>({
      query: ({ id, reason }) => ({ name: 'liftHold', id, body: { reason } }),
      invalidatesTags: ['orders', 'runs', 'bench', 'shipments'],
    }),
    holdRules: build.query<Answer<'holdRules'>, void>({
      query: () => ({ name: 'holdRules' }),
      providesTags: ['setup', 'orders'],
    }),
    saveHoldRule: build.mutation<Answer<'saveHoldRule'>, Body<'saveHoldRule'>>({
      query: (body) => ({ name: 'saveHoldRule', body }),
      invalidatesTags: ['setup', 'orders'],
    }),
    previewRelease: build.mutation<Answer<'previewRelease'>, Body<'previewRelease'>>({
      query: (body) => ({ name: 'previewRelease', body }),
    }),
    release: build.mutation<Answer<'release'>, Body<'release'>>({
      query: (body) => ({ name: 'release', body }),
      invalidatesTags: ['orders', 'waves'],
    }),
    waves: build.query<Answer<'waves'>, void>({ query: () => ({ name: 'waves' }), providesTags: ['waves'] }),
    wave: build.query<Answer<'wave'>, string>({
      query: (id) => ({ name: 'wave', id }),
      providesTags: ['waves', 'runs'],
    }),
    planWave: build.mutation<Answer<'planWave'>, string>({
      query: (id) => ({ name: 'planWave', id }),
      invalidatesTags: ['waves'],
    }),
    startWave: build.mutation<Answer<'startWave'>, string>({
      query: (id) => ({ name: 'startWave', id }),
      invalidatesTags: ['waves', 'runs'],
    }),
    cancelWave: build.mutation<Answer<'cancelWave'>, string>({
      query: (id) => ({ name: 'cancelWave', id }),
      invalidatesTags: ['waves', 'orders'],
    }),
    floorPlan: build.query<Answer<'floorPlan'>, void>({
      query: () => ({ name: 'floorPlan' }),
      providesTags: ['floor', 'setup'],
      keepUnusedDataFor: 3600,
    }),
    myRuns: build.query<Answer<'myRuns'>, void>({ query: () => ({ name: 'myRuns' }), providesTags: ['runs'] }),
    run: build.query<Answer<'run'>, string>({ query: (id) => ({ name: 'run', id }), providesTags: ['runs'] }),
    takeRun: build.mutation<Answer<'takeRun'>, { id: string; cart: string }>({
      query: ({ id, cart }) => ({ name: 'takeRun', id, body: { cart } }),
      invalidatesTags: ['runs'],
    }),
    giveBack: build.mutation<unknown, string>({ query: (id) => ({ name: 'giveBack', id }), invalidatesTags: ['runs'] }),
    takeOut: build.mutation<unknown, { id: string; order: string }>({
      query: ({ id, order }) => ({ name: 'takeOut', id, body: { order } }),
      invalidatesTags: ['runs', 'orders', 'waves'],
    }),
    find: build.query<Answer<'find'>, string>({ query: (code) => ({ name: 'find', query: { code } }) }),
    bench: build.query<Answer<'bench'>, void>({ query: () => ({ name: 'bench' }), providesTags: ['bench', 'runs'] }),
    benchOrder: build.query<Answer<'benchOrder'>, string>({
      query: (id) => ({ name: 'benchOrder', id }),
      providesTags: ['bench'],
    }),
    packInput: build.mutation<Answer<'packInput'>, { id: string } & Body<'packInput'>>({
      query: ({ id, ...body }) => ({ name: 'packInput', id, body }),
      invalidatesTags: ['bench'],
    }),
    unpack: build.mutation<unknown, { id: string } & Body<'unpack'>>({
      query: ({ id, ...body }) => ({ name: 'unpack', id, body }),
      invalidatesTags: ['bench'],
    }),
    dock: build.query<Answer<'dock'>, void>({ query: () => ({ name: 'dock' }), providesTags: ['shipments'] }),
    shipment: build.query<Answer<'shipment'>, string>({
      query: (id) => ({ name: 'shipment', id }),
      providesTags: ['shipments'],
    }),
    tracking: build.mutation<Answer<'tracking'>, { id: string; body: Body<'tracking'> }>({
      query: ({ id, body }) => ({ name: 'tracking', id, body }),
      invalidatesTags: ['shipments'],
    }),
    confirm: build.mutation<Answer<'confirm'>, { id: string; rest: 'keep-open' | 'cancel' | null }>({
      query: ({ id, rest }) => ({ name: 'confirm', id, body: { rest } }),
      invalidatesTags: ['shipments', 'orders'],
    }),
  }),
});
