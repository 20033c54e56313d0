import { api, type Answer, type Body } from './api.ts';

/** What is done on the floor beside the picks themselves: counts, goods that go back. */
export const floorWork = api.injectEndpoints({
  endpoints: (build) => ({
    counts: build.query<Answer<'counts'>, void>({ query: () => ({ name: 'counts' }), providesTags: ['counts'] }),
    exceptions: build.query<Answer<'exceptions'>, void>({
      query: () => ({ name: 'exceptions' }),
      providesTags: ['exceptions', 'counts'],
    }),
    actOnException: build.mutation<Answer<'actOnException'>, { id: string } & Body<'actOnException'>>({
      query: ({ id, ...body }) => ({ name: 'actOnException', id, body }),
      invalidatesTags: ['exceptions', 'orders', 'counts', 'waves'],
    }),
    wantCount: build.mutation<Answer<'wantCount'>, Body<'wantCount'>>({
      query: (body) => ({ name: 'wantCount', body }),
      invalidatesTags: ['counts'],
    }),
    takeCount: build.mutation<Answer<'takeCount'>, { id: string } & Body<'takeCount'>>({
      query: ({ id, ...body }) => ({ name: 'takeCount', id, body }),
      invalidatesTags: ['counts', 'stock'],
    }),
    settleCount: build.mutation<Answer<'settleCount'>, { id: string } & Body<'settleCount'>>({
      query: ({ id, ...body }) => ({ name: 'settleCount', id, body }),
      invalidatesTags: ['counts', 'stock'],
    }),
    handOver: build.mutation<unknown, { id: string; person: string | null }>({
      query: ({ id, person }) => ({ name: 'handOver', id, body: { person } }),
      invalidatesTags: ['runs'],
    }),
    closeOnCart: build.mutation<Answer<'closeOnCart'>, { id: string; carton: string }>({
      query: ({ id, carton }) => ({ name: 'closeOnCart', id, body: { carton } }),
      invalidatesTags: ['runs'],
    }),
    tellBench: build.mutation<unknown, { id: string } & Body<'tellBench'>>({
      query: ({ id, ...body }) => ({ name: 'tellBench', id, body }),
    }),
    lookUp: build.query<Answer<'lookUp'>, string>({
      query: (code) => ({ name: 'lookUp', query: { code } }),
      providesTags: ['stock', 'runs', 'orders'],
      keepUnusedDataFor: 5,
    }),
    activities: build.query<Answer<'activities'>, void>({
      query: () => ({ name: 'activities' }),
      providesTags: ['me'],
    }),
    changeActivity: build.mutation<Answer<'changeActivity'>, string | null>({
      query: (kind) => ({ name: 'changeActivity', body: { kind } }),
      invalidatesTags: ['me'],
    }),
    putBacks: build.query<Answer<'putBacks'>, void>({ query: () => ({ name: 'putBacks' }), providesTags: ['runs'] }),
  }),
});
