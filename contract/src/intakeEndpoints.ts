import * as intake from './intake.ts';
import { all, nothing } from './endpoint.ts';

/** Orders from files, and what is known of who sends them. */
export const intakeEndpoints = all({
  intake: {
    method: 'POST',
    path: '/api/orders',
    needs: ['orders.import'],
    summary: 'Preview or import orders from a file or JSON',
    changes: ['orders', 'imports', 'waves', 'runs', 'counts', 'exceptions', 'bench', 'shipments', 'stock'],
    bodyMb: 36,
    body: intake.intakeBody,
    answer: intake.intakeResult,
  },
  orderExample: {
    method: 'GET',
    path: '/api/orders/example.csv',
    needs: ['orders.import'],
    summary: 'Example order file',
    file: 'text/csv',
  },
  orderSenders: {
    method: 'GET',
    path: '/api/orders/senders',
    needs: ['orders.import'],
    summary: 'Senders whose order files are known, and the folder that is watched',
    reads: ['imports'],
    answer: intake.orderSenders,
  },
  forgetSender: {
    method: 'POST',
    path: '/api/orders/senders/forget',
    needs: ['orders.import'],
    summary: 'Forget how a sender writes order files',
    changes: ['imports'],
    refuses: ['not-found'],
    body: intake.forgetSenderBody,
    answer: intake.orderSenders,
  },
  orderImports: {
    method: 'GET',
    path: '/api/orders/imports',
    needs: ['orders.import'],
    summary: 'Imports of order files, the last 200',
    reads: ['imports', 'orders'],
    query: intake.orderImportsQuery,
    answer: intake.orderImports,
  },
  undoImport: {
    method: 'POST',
    path: '/api/orders/imports/:id/undo',
    needs: ['orders.import'],
    summary: 'Undo an import of which nothing was released or changed since',
    changes: ['orders', 'imports', 'waves', 'runs', 'exceptions', 'bench', 'shipments', 'stock'],
    refuses: ['not-found', 'undone-already', 'import-under-way'],
    body: nothing,
    answer: intake.importUndone,
  },
});
