import * as activity from './activity.ts';
import * as counts from './counts.ts';
import * as lookUp from './lookUp.ts';
import * as runs from './runs.ts';
import { all, nothing } from './endpoint.ts';

/** What is done on the floor beside the picks themselves. */
export const floorEndpoints = all({
  walkFrom: {
    method: 'POST',
    path: '/api/runs/:id/walk-from',
    needs: ['runs.pick'],
    summary: 'A pick is taken out of turn: the rest of the run is walked from there',
    body: runs.walkFromBody,
    answer: nothing,
  },
  handOver: {
    method: 'POST',
    path: '/api/runs/:id/hand-over',
    needs: ['runs.pick', 'runs.arrange'],
    summary: 'A run that is begun goes on with somebody else, or waits for whoever takes its cart',
    body: runs.handOverBody,
    answer: nothing,
  },
  tellBench: {
    method: 'POST',
    path: '/api/runs/:id/for-bench',
    needs: ['runs.pick'],
    summary: 'A note to whoever packs an order of the run',
    body: runs.forBenchBody,
    answer: nothing,
  },
  lookUp: {
    method: 'GET',
    path: '/api/look-up',
    needs: ['runs.pick', 'orders.pack', 'shipments.confirm', 'orders.see'],
    summary: 'What a scanned code names: item, bin, order or carton',
    query: lookUp.lookUpQuery,
    answer: lookUp.lookedUp,
  },
  activities: {
    method: 'GET',
    path: '/api/activities',
    needs: ['runs.pick'],
    summary: 'Other work of the site, and what of it I do now',
    answer: activity.activities,
  },
  changeActivity: {
    method: 'POST',
    path: '/api/activities',
    needs: ['runs.pick'],
    summary: 'Begin other work, or go back to picking',
    body: activity.activityBody,
    answer: activity.activities,
  },
  binLeft: {
    method: 'POST',
    path: '/api/runs/:id/left',
    needs: ['runs.pick'],
    summary: 'What is left in a bin after a pick: a count without a walk',
    body: counts.leftBody,
    answer: nothing,
  },
  keepPhoto: {
    method: 'POST',
    path: '/api/runs/:id/photos',
    needs: ['runs.pick'],
    summary: 'A photo of what was found wrong at a pick',
    body: counts.photoBody,
    answer: nothing,
  },
  counts: {
    method: 'GET',
    path: '/api/counts',
    needs: ['runs.pick', 'runs.arrange'],
    summary: 'Bins that are to be counted, and counts that somebody has to agree to',
    answer: counts.binCounts,
  },
  wantCount: {
    method: 'POST',
    path: '/api/counts',
    needs: ['runs.arrange'],
    summary: 'Have a bin counted',
    body: counts.wantCountBody,
    answer: counts.binCounts,
  },
  takeCount: {
    method: 'POST',
    path: '/api/counts/:id/take',
    needs: ['runs.pick', 'runs.arrange'],
    summary: 'What was counted, without knowing what the books have',
    body: counts.takeCountBody,
    answer: counts.countTaken,
  },
  settleCount: {
    method: 'POST',
    path: '/api/counts/:id/settle',
    needs: ['runs.arrange'],
    summary: 'Agree to a count, have it counted again, or drop it',
    body: counts.settleCountBody,
    answer: counts.binCounts,
  },
  putBacks: {
    method: 'GET',
    path: '/api/put-backs',
    needs: ['runs.pick'],
    summary: 'Goods on carts that go back into bins, cart by cart in walking order',
    answer: counts.putBackTrips,
  },
  putBackOne: {
    method: 'POST',
    path: '/api/put-backs/:id',
    needs: ['runs.pick'],
    summary: 'Goods lie in their bin again; the address names the run on whose cart they were',
    body: counts.putBackBody,
    answer: nothing,
  },
});
