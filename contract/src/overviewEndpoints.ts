import * as day from './day.ts';
import { all } from './endpoint.ts';
import * as trace from './trace.ts';
import * as waves from './waves.ts';

/** What is asked across orders: how the day stands, what was done, where goods went. */
export const overviewEndpoints = all({
  track: {
    method: 'GET',
    path: '/api/track',
    needs: ['orders.see'],
    summary: 'Departures of today and what is left to do for each: to release, pick, pack and load',
    reads: ['orders', 'waves', 'shipments', 'progress', 'setup'],
    answer: waves.track,
  },
  trace: {
    method: 'GET',
    path: '/api/trace',
    needs: ['orders.see'],
    summary: 'Where goods are, who got them and how they moved: of an item, a lot, a serial number or a place',
    reads: ['stock'],
    refuses: ['not-found'],
    query: trace.traceQuery,
    answer: trace.traceAnswer,
  },
  tracePaper: {
    method: 'GET',
    path: '/api/trace.pdf',
    needs: ['orders.see'],
    summary: 'A trace as a document, for a recall',
    refuses: ['not-found'],
    query: trace.traceQuery,
    file: 'application/pdf',
  },
  picks: {
    method: 'GET',
    path: '/api/picks',
    needs: ['trail.see'],
    summary: 'Picks of some days across orders: who, when, where, what, how long',
    reads: ['progress'],
    query: trace.picksQuery,
    answer: trace.picksAnswer,
  },
  day: {
    method: 'GET',
    path: '/api/day',
    needs: ['orders.see'],
    parts: ['trail.see'],
    summary: 'The end of a day: what is still open and why, what else is not settled, and what the day came to',
    reads: ['orders', 'waves', 'runs', 'progress', 'counts', 'exceptions', 'bench', 'shipments'],
    query: day.dayQuery,
    answer: day.dayAnswer,
  },
  dayPaper: {
    method: 'GET',
    path: '/api/day.pdf',
    needs: ['trail.see'],
    summary: "The day's report as a document",
    query: day.dayQuery,
    file: 'application/pdf',
  },
});
