import { z } from 'zod';
import type { Right } from './rights.ts';
import * as orders from './orders.ts';
import * as packing from './packing.ts';
import * as runs from './runs.ts';
import * as setup from './setup.ts';
import * as shipping from './shipping.ts';
import * as signIn from './signIn.ts';
import * as waves from './waves.ts';

/** One endpoint: what server, app and OpenAPI know of it. */
export interface Endpoint {
  method: 'GET' | 'POST';
  /** Express form, `:id` for parameters. */
  path: string;
  /** Any one of these lets a person in; `public` needs no sign-in, `person` any. */
  needs: readonly Right[] | 'public' | 'person';
  summary: string;
  query?: z.ZodType;
  body?: z.ZodType;
  /** Absent where the answer is a file. */
  answer?: z.ZodType;
  /** Media type where the answer is a file. */
  file?: string;
}

const nothing = z.object({});
const all = <T extends Record<string, Endpoint>>(table: T) => table;

/** Every endpoint of the API. Change requests carry the header `Idempotency-Key`. */
export const endpoints = all({
  signIn: {
    method: 'POST',
    path: '/api/session',
    needs: 'public',
    summary: 'Sign in by password, or by badge and PIN',
    body: signIn.signInBody,
    answer: signIn.me,
  },
  me: { method: 'GET', path: '/api/session', needs: 'person', summary: 'Who is signed in', answer: signIn.me },
  signOut: {
    method: 'POST',
    path: '/api/session/end',
    needs: 'person',
    summary: 'Sign out',
    body: nothing,
    answer: nothing,
  },
  events: {
    method: 'GET',
    path: '/api/events',
    needs: 'person',
    summary: 'Changes as they are committed (server-sent events)',
    file: 'text/event-stream',
  },
  find: {
    method: 'GET',
    path: '/api/find',
    needs: 'person',
    summary: 'What a scanned code names',
    query: packing.findQuery,
    answer: packing.found,
  },
  floorPlan: {
    method: 'GET',
    path: '/api/floor',
    needs: 'person',
    summary: 'Aisles and bins to scale',
    answer: runs.floorPlan,
  },

  orders: {
    method: 'GET',
    path: '/api/orders',
    needs: ['orders.see'],
    summary: 'Orders, page by page, as compact rows',
    query: orders.orderPageQuery,
    answer: orders.orderPage,
  },
  order: {
    method: 'GET',
    path: '/api/orders/:id',
    needs: ['orders.see'],
    summary: 'One order with lines and what became of them',
    answer: orders.orderDetail,
  },
  trail: {
    method: 'GET',
    path: '/api/orders/:id/trail',
    needs: ['trail.see'],
    summary: 'Everything that happened to an order',
    answer: orders.trail,
  },
  intake: {
    method: 'POST',
    path: '/api/orders',
    needs: ['orders.import'],
    summary: 'Preview or take orders, from CSV text or JSON',
    body: orders.intakeBody,
    answer: orders.intakeResult,
  },
  orderExample: {
    method: 'GET',
    path: '/api/orders/example.csv',
    needs: ['orders.import'],
    summary: 'An order file to start from',
    file: 'text/csv',
  },
  cancelRest: {
    method: 'POST',
    path: '/api/orders/:id/cancel-rest',
    needs: ['orders.cancel'],
    summary: 'Cancel what is not released',
    body: orders.cancelRestBody,
    answer: orders.orderDetail,
  },

  previewRelease: {
    method: 'POST',
    path: '/api/release/preview',
    needs: ['orders.release'],
    summary: 'What a release would do; changes nothing',
    body: waves.releaseBody,
    answer: waves.releasePreview,
  },
  release: {
    method: 'POST',
    path: '/api/waves',
    needs: ['orders.release'],
    summary: 'Reserve stock and put the orders into a new wave',
    body: waves.releaseBody,
    answer: waves.releaseResult,
  },
  waves: {
    method: 'GET',
    path: '/api/waves',
    needs: ['orders.see'],
    summary: 'Waves, the newest first',
    answer: waves.waveList,
  },
  wave: {
    method: 'GET',
    path: '/api/waves/:id',
    needs: ['orders.see'],
    summary: 'One wave with its runs',
    answer: waves.waveDetail,
  },
  planWave: {
    method: 'POST',
    path: '/api/waves/:id/plan',
    needs: ['waves.run'],
    summary: 'Choose bins, make runs and routes',
    body: nothing,
    answer: waves.waveOnly,
  },
  startWave: {
    method: 'POST',
    path: '/api/waves/:id/start',
    needs: ['waves.run'],
    summary: 'Show the runs to pickers',
    body: nothing,
    answer: waves.waveOnly,
  },
  cancelWave: {
    method: 'POST',
    path: '/api/waves/:id/cancel',
    needs: ['waves.run'],
    summary: 'Take back what no picker has begun',
    body: nothing,
    answer: waves.waveOnly,
  },

  myRuns: {
    method: 'GET',
    path: '/api/runs',
    needs: ['runs.pick'],
    summary: 'My runs, then those waiting',
    answer: runs.myRuns,
  },
  run: {
    method: 'GET',
    path: '/api/runs/:id',
    needs: ['runs.pick', 'orders.see'],
    summary: 'A run with all its picks',
    answer: runs.runDetail,
  },
  takeRun: {
    method: 'POST',
    path: '/api/runs/:id/take',
    needs: ['runs.pick'],
    summary: 'Take a waiting run with a cart',
    body: runs.takeBody,
    answer: runs.runDetail,
  },
  runInput: {
    method: 'POST',
    path: '/api/runs/:id/inputs',
    needs: ['runs.pick'],
    summary: 'A scan, touch or count at a pick',
    body: runs.inputBody,
    answer: runs.pickVerdict,
  },
  undoPick: {
    method: 'POST',
    path: '/api/runs/:id/undo',
    needs: ['runs.pick'],
    summary: 'Undo the last confirmation',
    body: nothing,
    answer: runs.undoResult,
  },
  leaveRun: {
    method: 'POST',
    path: '/api/runs/:id/leave',
    needs: ['runs.pick'],
    summary: 'Say where the cart is left',
    body: runs.leaveBody,
    answer: runs.runDetail,
  },
  takeOut: {
    method: 'POST',
    path: '/api/runs/:id/take-out',
    needs: ['runs.arrange'],
    summary: 'Take an order out of a run, back to Desk',
    body: runs.takeOutBody,
    answer: nothing,
  },
  giveBack: {
    method: 'POST',
    path: '/api/runs/:id/give-back',
    needs: ['runs.pick', 'runs.arrange'],
    summary: 'Give back a run of which nothing is picked',
    body: nothing,
    answer: nothing,
  },

  bench: {
    method: 'GET',
    path: '/api/bench',
    needs: ['orders.pack'],
    summary: 'Carts that wait for packing',
    answer: packing.benchQueue,
  },
  benchOrder: {
    method: 'GET',
    path: '/api/bench/orders/:id',
    needs: ['orders.pack'],
    summary: 'An order as the bench sees it',
    answer: packing.benchOrder,
  },
  packInput: {
    method: 'POST',
    path: '/api/bench/orders/:id/inputs',
    needs: ['orders.pack'],
    summary: 'A scan or count at the bench',
    body: packing.packBody,
    answer: packing.packVerdict,
  },
  unpack: {
    method: 'POST',
    path: '/api/cartons/:id/take-out',
    needs: ['orders.pack'],
    summary: 'Take goods out of an open carton',
    body: packing.unpackBody,
    answer: nothing,
  },
  cartonLabel: {
    method: 'GET',
    path: '/api/cartons/:id/label.pdf',
    needs: ['orders.pack', 'shipments.confirm', 'orders.see'],
    summary: 'Label of a closed carton',
    query: shipping.pdfQuery,
    file: 'application/pdf',
  },

  dock: {
    method: 'GET',
    path: '/api/dock',
    needs: ['shipments.confirm'],
    summary: 'What stands packed, by departure',
    answer: shipping.dockList,
  },
  shipment: {
    method: 'GET',
    path: '/api/shipments/:id',
    needs: ['shipments.confirm', 'orders.see'],
    summary: 'One shipment',
    answer: shipping.shipmentDetail,
  },
  tracking: {
    method: 'POST',
    path: '/api/shipments/:id/tracking',
    needs: ['shipments.confirm'],
    summary: 'Tracking number from the carrier or from a person',
    body: shipping.trackingBody,
    answer: shipping.shipmentDetail,
  },
  confirm: {
    method: 'POST',
    path: '/api/shipments/:id/confirm',
    needs: ['shipments.confirm'],
    summary: 'Confirm: the goods have left',
    body: shipping.confirmBody,
    answer: shipping.shipmentDetail,
  },
  packingSlip: {
    method: 'GET',
    path: '/api/shipments/:id/packing-slip.pdf',
    needs: ['shipments.confirm', 'orders.see', 'orders.pack'],
    summary: 'Packing slip',
    file: 'application/pdf',
  },
  shipmentsJson: {
    method: 'GET',
    path: '/api/shipments',
    needs: ['shipments.confirm', 'orders.see'],
    summary: 'Confirmed shipments',
    query: shipping.shipmentExportQuery,
    answer: shipping.shipmentExport,
  },
  shipmentsCsv: {
    method: 'GET',
    path: '/api/shipments.csv',
    needs: ['shipments.confirm', 'orders.see'],
    summary: 'Confirmed shipments, a row each line',
    query: shipping.shipmentExportQuery,
    file: 'text/csv',
  },

  setupState: {
    method: 'GET',
    path: '/api/setup/state',
    needs: 'public',
    summary: 'Whether there is a site yet',
    answer: setup.setupState,
  },
  firstRun: {
    method: 'POST',
    path: '/api/setup/first',
    needs: 'public',
    summary: 'Make the site and its first supervisor, once',
    body: setup.firstRunBody,
    answer: nothing,
  },
  setupOverview: {
    method: 'GET',
    path: '/api/setup',
    needs: ['setup.change'],
    summary: 'What there is of each kind, and what is missing',
    answer: setup.setupOverview,
  },
  site: {
    method: 'GET',
    path: '/api/setup/site',
    needs: ['setup.change'],
    summary: 'What the site is told by',
    answer: setup.siteAnswer,
  },
  changeSite: {
    method: 'POST',
    path: '/api/setup/site',
    needs: ['setup.change'],
    summary: 'Change what the site is told by',
    body: setup.siteBody,
    answer: setup.siteAnswer,
  },
  sheetRows: {
    method: 'GET',
    path: '/api/setup/sheets/:id',
    needs: ['setup.change'],
    summary: 'Every row of a kind of master data',
    answer: setup.sheetRows,
  },
  sheetFile: {
    method: 'GET',
    path: '/api/setup/sheets/:id/file',
    needs: ['setup.change'],
    summary: 'A kind of master data as the file that it imports',
    query: setup.sheetFileQuery,
    file: 'text/csv',
  },
  sheetExample: {
    method: 'GET',
    path: '/api/setup/sheets/:id/example.csv',
    needs: ['setup.change'],
    summary: 'A file to start from',
    file: 'text/csv',
  },
  sheetLook: {
    method: 'POST',
    path: '/api/setup/sheets/:id/look',
    needs: ['setup.change'],
    summary: 'Look at a file (CSV or XLSX); changes nothing',
    body: setup.sheetFileBody,
    answer: setup.sheetLook,
  },
  sheetTake: {
    method: 'POST',
    path: '/api/setup/sheets/:id/take',
    needs: ['setup.change'],
    summary: 'Take the good rows of a file, as a job',
    body: setup.sheetFileBody,
    answer: setup.jobStarted,
  },
  job: {
    method: 'GET',
    path: '/api/setup/jobs/:id',
    needs: ['setup.change'],
    summary: 'How far a job is',
    answer: setup.job,
  },
  cancelJob: {
    method: 'POST',
    path: '/api/setup/jobs/:id/cancel',
    needs: ['setup.change'],
    summary: 'Stop a job; what it has written stays and is told',
    body: nothing,
    answer: setup.job,
  },
  sheetChange: {
    method: 'POST',
    path: '/api/setup/sheets/:id/rows',
    needs: ['setup.change'],
    summary: 'Add or change rows',
    body: setup.sheetChangeBody,
    answer: setup.sheetChanged,
  },
  sheetRetire: {
    method: 'POST',
    path: '/api/setup/sheets/:id/retire',
    needs: ['setup.change'],
    summary: 'Retire rows, or bring them back',
    body: setup.sheetRetireBody,
    answer: setup.sheetChanged,
  },
  setupHistory: {
    method: 'GET',
    path: '/api/setup/history',
    needs: ['setup.change'],
    summary: 'What was changed, the newest first',
    answer: setup.setupHistory,
  },
  setupUndo: {
    method: 'POST',
    path: '/api/setup/undo',
    needs: ['setup.change'],
    summary: 'Undo a change of master data',
    body: setup.undoBody,
    answer: setup.sheetChanged,
  },
  makeFloor: {
    method: 'POST',
    path: '/api/setup/floor',
    needs: ['setup.change'],
    summary: 'Make aisles and bins from a few numbers, as a job',
    body: setup.floorPattern,
    answer: setup.jobStarted,
  },
  backup: {
    method: 'GET',
    path: '/api/setup/backup',
    needs: ['setup.change'],
    summary: 'Everything as one file, to restore from',
    file: 'application/gzip',
  },
  badges: {
    method: 'GET',
    path: '/api/setup/badges.pdf',
    needs: ['setup.change'],
    summary: 'Badges as a sheet to print',
    file: 'application/pdf',
  },
});

export type EndpointName = keyof typeof endpoints;
