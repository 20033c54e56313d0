import { api, type Answer, type Body } from './api.ts';

type Of<B> = { id: string } & B;

/** What a supervisor arranges: waves, runs, the floor. */
export const arrange = api.injectEndpoints({
  endpoints: (build) => ({
    changeWave: build.mutation<Answer<'changeWave'>, Of<Body<'changeWave'>>>({
      query: ({ id, ...body }) => ({ name: 'changeWave', id, body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    stopPlan: build.mutation<Answer<'stopPlan'>, string>({
      query: (id) => ({ name: 'stopPlan', id }),
      invalidatesTags: ['waves'],
    }),
    sendBack: build.mutation<Answer<'sendBack'>, string>({
      query: (id) => ({ name: 'sendBack', id }),
      invalidatesTags: ['waves', 'runs'],
    }),
    mergeWaves: build.mutation<Answer<'mergeWaves'>, Of<Body<'mergeWaves'>>>({
      query: ({ id, ...body }) => ({ name: 'mergeWaves', id, body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    splitWave: build.mutation<Answer<'splitWave'>, Of<Body<'splitWave'>>>({
      query: ({ id, ...body }) => ({ name: 'splitWave', id, body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    placeWave: build.mutation<Answer<'placeWave'>, Of<Body<'placeWave'>>>({
      query: ({ id, ...body }) => ({ name: 'placeWave', id, body }),
      invalidatesTags: ['waves'],
    }),
    lookReplan: build.mutation<Answer<'lookReplan'>, string>({ query: (id) => ({ name: 'lookReplan', id }) }),
    replan: build.mutation<Answer<'replan'>, string>({
      query: (id) => ({ name: 'replan', id }),
      invalidatesTags: ['waves', 'runs'],
    }),
    assignRuns: build.mutation<Answer<'assignRuns'>, Body<'assignRuns'>>({
      query: (body) => ({ name: 'assignRuns', body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    moveBetweenRuns: build.mutation<Answer<'moveBetweenRuns'>, Of<Body<'moveBetweenRuns'>>>({
      query: ({ id, ...body }) => ({ name: 'moveBetweenRuns', id, body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    addOrders: build.mutation<Answer<'addOrders'>, Of<Body<'addOrders'>>>({
      query: ({ id, ...body }) => ({ name: 'addOrders', id, body }),
      invalidatesTags: ['waves', 'runs'],
    }),
    waitingOrders: build.query<Answer<'waitingOrders'>, void>({
      query: () => ({ name: 'waitingOrders' }),
      providesTags: ['waves', 'runs', 'orders'],
    }),
    gatherTrip: build.mutation<Answer<'gatherTrip'>, Body<'gatherTrip'>>({
      query: (body) => ({ name: 'gatherTrip', body }),
      invalidatesTags: ['waves', 'runs', 'orders'],
    }),
    crew: build.query<Answer<'crew'>, void>({
      query: () => ({ name: 'crew' }),
      providesTags: ['runs', 'setup', 'waves'],
    }),
    timetable: build.query<Answer<'timetable'>, void>({
      query: () => ({ name: 'timetable' }),
      providesTags: ['orders', 'waves', 'setup'],
    }),
    gatherEntry: build.mutation<Answer<'gatherEntry'>, string>({
      query: (id) => ({ name: 'gatherEntry', id }),
      invalidatesTags: ['orders', 'waves'],
    }),
    wavePaths: build.query<Answer<'wavePaths'>, string>({
      query: (id) => ({ name: 'wavePaths', id }),
      providesTags: ['waves', 'runs'],
    }),
    floorLayout: build.query<Answer<'floorLayout'>, void>({
      query: () => ({ name: 'floorLayout' }),
      providesTags: ['floor', 'setup'],
    }),
    changeLayout: build.mutation<Answer<'changeLayout'>, Body<'changeLayout'>>({
      query: (body) => ({ name: 'changeLayout', body }),
      invalidatesTags: ['floor', 'setup', 'waves'],
    }),
    zoneBins: build.mutation<Answer<'zoneBins'>, Body<'zoneBins'>>({
      query: (body) => ({ name: 'zoneBins', body }),
      invalidatesTags: ['floor', 'setup'],
    }),
  }),
});
