import { all, nothing } from './endpoint.ts';
import * as pallets from './pallets.ts';
import { pdfQuery } from './shipping.ts';

const build = ['orders.pack', 'shipments.confirm'] as const;

/** Pallets and crates: cartons stacked as planned, each with its own number. */
export const palletEndpoints = all({
  pallets: {
    method: 'GET',
    path: '/api/pallets',
    needs: build,
    summary: 'Cartons that stand on no pallet, and the pallets that there are',
    reads: ['shipments', 'bench'],
    answer: pallets.palletList,
  },
  openPallet: {
    method: 'POST',
    path: '/api/pallets',
    needs: build,
    summary: 'Begin a pallet, planned for the closed cartons of orders',
    changes: ['shipments'],
    refuses: ['not-found', 'other-departure', 'nothing-to-stack', 'unit-too-large'],
    body: pallets.palletBody,
    answer: pallets.palletOpened,
  },
  pallet: {
    method: 'GET',
    path: '/api/pallets/:id',
    needs: [...build, 'orders.see'],
    summary: 'A pallet: its plan, and what is on it',
    reads: ['shipments'],
    refuses: ['not-found'],
    answer: pallets.palletDetail,
  },
  stackInput: {
    method: 'POST',
    path: '/api/pallets/:id/inputs',
    needs: build,
    summary: 'A scan at a pallet: a unit goes on, or a command',
    changes: ['orders', 'bench', 'shipments', 'printing'],
    refuses: ['not-found', 'pallet-open', 'sscc-used-up'],
    body: pallets.stackBody,
    answer: pallets.stackVerdict,
  },
  takeOff: {
    method: 'POST',
    path: '/api/pallets/:id/take-off',
    needs: build,
    summary: 'Take a unit off an open pallet',
    changes: ['orders', 'bench', 'shipments'],
    refuses: ['not-found', 'pallet-closed'],
    body: pallets.takeOffBody,
    answer: nothing,
  },
  reopenPallet: {
    method: 'POST',
    path: '/api/pallets/:id/reopen',
    needs: build,
    summary: 'Reopen a closed pallet; its label is void',
    changes: ['shipments'],
    refuses: ['not-found', 'on-pallet', 'pallet-state'],
    body: pallets.wholePalletBody,
    answer: nothing,
  },
  breakPallet: {
    method: 'POST',
    path: '/api/pallets/:id/break',
    needs: build,
    summary: 'Break up a pallet: all units come off, its label is void',
    changes: ['orders', 'bench', 'shipments'],
    refuses: ['not-found', 'on-pallet', 'pallet-state'],
    body: pallets.wholePalletBody,
    answer: nothing,
  },
  palletLabel: {
    method: 'GET',
    path: '/api/pallets/:id/label.pdf',
    needs: [...build, 'orders.see'],
    summary: 'Label of a closed pallet',
    refuses: ['not-found', 'pallet-open'],
    query: pdfQuery,
    file: 'application/pdf',
  },
  palletSheet: {
    method: 'GET',
    path: '/api/pallets/:id/plan.pdf',
    needs: [...build, 'orders.see'],
    summary: 'How a pallet is built, layer by layer',
    refuses: ['not-found'],
    file: 'application/pdf',
  },
});
