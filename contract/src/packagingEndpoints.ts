import { all } from './endpoint.ts';
import * as packaging from './packaging.ts';
import { z } from 'zod';

/** Cartons, pallets and crates as stock. */
export const packagingEndpoints = all({
  packaging: {
    method: 'GET',
    path: '/api/packaging',
    needs: ['setup.change', 'orders.pack'],
    summary: 'What there is of each type of packaging, and what to do about it',
    reads: ['setup', 'bench', 'shipments'],
    answer: packaging.packagingList,
  },
  changePackaging: {
    method: 'POST',
    path: '/api/packaging/:id/rule',
    needs: ['setup.change'],
    summary: 'How a type of packaging is accounted for and ordered',
    changes: ['setup', 'bench'],
    refuses: ['not-found'],
    body: packaging.packagingRuleBody,
    answer: packaging.packagingList,
  },
  actOnPackaging: {
    method: 'POST',
    path: '/api/packaging/:id',
    needs: ['setup.change', 'orders.pack'],
    summary: 'Packaging was ordered, received, counted or looked at',
    changes: ['setup', 'bench'],
    refuses: ['not-accounted', 'not-found'],
    body: packaging.packagingActBody,
    answer: packaging.packagingList,
  },
  postPackaging: {
    method: 'POST',
    path: '/api/packaging',
    needs: ['setup.change', 'orders.pack'],
    summary: 'Book out what was closed today of packaging that is posted by the day',
    changes: ['setup', 'bench'],
    body: z.strictObject({}),
    answer: packaging.packagingPosted,
  },
});
