import { createApi, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import type { endpoints, EndpointName, Language } from '@hand-relay/contract';
import type { DeskView } from '@hand-relay/contract';
import type { Policy } from '@hand-relay/core/allocation';
import type { z } from 'zod';
import { keep, kept, remembered, unanswered } from '../kept/index.ts';
import { addressOf, call, KEPT, nobodyAnswered, type Call, type Trouble } from './call.ts';

type Out<S> = S extends z.ZodType ? z.output<S> : undefined;
type In<S> = S extends z.ZodType ? z.input<S> : undefined;

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
  'exceptions',
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
    stuck: build.query<Answer<'stuck'>, void>({
      query: () => ({ name: 'stuck' }),
      providesTags: ['runs', 'waves', 'orders', 'counts', 'bench', 'shipments', 'exceptions'],
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
    returnGoods: build.mutation<Answer<'returnGoods'>, { id: string; reason: string }>({
      query: ({ id, reason }) => ({ name: 'returnGoods', id, body: { reason } }),
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
    reopenCarton: build.mutation<unknown, { id: string } & Body<'reopenCarton'>>({
      query: ({ id, ...body }) => ({ name: 'reopenCarton', id, body }),
      invalidatesTags: ['bench', 'orders', 'shipments'],
    }),
    unpack: build.mutation<unknown, { id: string } & Body<'unpack'>>({
      query: ({ id, ...body }) => ({ name: 'unpack', id, body }),
      invalidatesTags: ['bench'],
    }),
    dock: build.query<Answer<'dock'>, { find: string } | void>({
      query: (left) => ({ name: 'dock', ...(left ? { query: { state: 'confirmed', find: left.find } } : {}) }),
      providesTags: ['shipments'],
    }),
    chooseCarrier: build.mutation<Answer<'chooseCarrier'>, { id: string; service: string | null }>({
      query: ({ id, service }) => ({ name: 'chooseCarrier', id, body: { service } }),
      invalidatesTags: ['shipments', 'orders'],
    }),
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
