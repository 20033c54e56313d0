import { z } from 'zod';
import * as desk from './desk.ts';
import * as orders from './orders.ts';
import * as holds from './holds.ts';
import { all, nothing } from './endpoint.ts';

/** What the Desk asks: what can leave, who gets the stock. */
export const deskEndpoints = all({
  outlook: {
    method: 'GET',
    path: '/api/desk/outlook',
    needs: ['orders.see'],
    summary: 'How far each open order in view can go, and which items fall short',
    query: desk.deskView,
    answer: desk.outlookAnswer,
  },
  orderPromise: {
    method: 'GET',
    path: '/api/orders/:id/promise',
    needs: ['orders.see'],
    summary: 'What each line of an order can get, and why',
    query: desk.deskView,
    answer: z.object({ promise: desk.orderPromise.nullable().describe('null where nothing of it is open') }),
  },
  itemPromise: {
    method: 'GET',
    path: '/api/desk/items/:id',
    needs: ['orders.see'],
    summary: 'What there is of an item, what comes, and who asks for it',
    query: desk.itemQuery,
    answer: desk.itemPromise,
  },
  comparePolicies: {
    method: 'POST',
    path: '/api/desk/compare',
    needs: ['orders.see'],
    summary: 'What each policy of allocation would bring; changes nothing',
    body: desk.deskView.strict(),
    answer: desk.comparison,
  },
  fixLines: {
    method: 'POST',
    path: '/api/desk/fix',
    needs: ['orders.choose'],
    summary: 'Fix what lines get, whatever a policy says; answers with what was fixed before',
    body: desk.fixBody,
    answer: desk.fixBody,
  },
  moveOrders: {
    method: 'POST',
    path: '/api/desk/move',
    needs: ['orders.release'],
    summary: 'Change the lane and door of orders',
    body: desk.moveBody,
    answer: z.object({ moved: z.int() }),
  },
  deskPlaces: {
    method: 'GET',
    path: '/api/desk/places',
    needs: ['orders.see'],
    summary: 'Lanes and doors of the site, its zones, carriers and departures: what a view can name',
    answer: z.object({
      lanes: z.array(z.string()),
      doors: z.array(z.string()),
      zones: z.array(z.string()),
      carriers: z.array(z.string()),
      departures: z.array(z.string()),
    }),
  },
  workbook: {
    method: 'POST',
    path: '/api/workbook',
    needs: 'person',
    summary: 'A list as an XLSX file, the heading first',
    body: z.strictObject({
      cells: z
        .array(z.array(z.union([z.string().max(2000), z.number()])).max(60))
        .min(1)
        .max(100_000),
    }),
    file: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
  keptViews: {
    method: 'GET',
    path: '/api/views',
    needs: ['orders.see'],
    summary: "One's own kept views",
    answer: desk.keptViews,
  },
  keepView: {
    method: 'POST',
    path: '/api/views',
    needs: ['orders.see'],
    summary: 'Keep a view by name; a name kept before is replaced',
    body: desk.keepViewBody,
    answer: desk.keptViews,
  },
  dropView: {
    method: 'POST',
    path: '/api/views/:id/drop',
    needs: ['orders.see'],
    summary: 'Drop a kept view',
    body: nothing,
    answer: desk.keptViews,
  },

  deskTasks: {
    method: 'GET',
    path: '/api/desk/tasks',
    needs: ['orders.see'],
    summary: 'What must be decided, as orders changed after goods were picked',
    answer: orders.deskTasks,
  },
  settleTask: {
    method: 'POST',
    path: '/api/desk/tasks/:id/settle',
    needs: ['orders.cancel', 'runs.arrange'],
    summary: 'Put surplus goods back into their bin, or ship them anyway',
    body: orders.settleBody,
    answer: orders.deskTasks,
  },
  cancelOrder: {
    method: 'POST',
    path: '/api/orders/:id/cancel',
    needs: ['orders.cancel'],
    summary: 'Cancel an order, also one under way: what is picked becomes a task',
    body: orders.cancelOrderBody,
    answer: orders.orderDetail,
  },
  holds: {
    method: 'GET',
    path: '/api/orders/:id/holds',
    needs: ['orders.see', 'runs.pick', 'orders.pack', 'shipments.confirm'],
    summary: 'What holds an order now',
    answer: holds.orderHolds,
  },
  holdOrder: {
    method: 'POST',
    path: '/api/orders/:id/hold',
    needs: ['orders.cancel'],
    summary: 'Hold an order by hand',
    body: holds.holdBody,
    answer: holds.orderHolds,
  },
  liftHold: {
    method: 'POST',
    path: '/api/holds/:id/lift',
    needs: ['orders.see'],
    summary: 'Lift a hold, by whoever has a role that may',
    body: holds.liftBody,
    answer: holds.orderHolds,
  },
  holdRules: {
    method: 'GET',
    path: '/api/hold-rules',
    needs: ['setup.change', 'orders.see'],
    summary: "The site's own rules for holding orders",
    answer: holds.holdRules,
  },
  saveHoldRule: {
    method: 'POST',
    path: '/api/hold-rules',
    needs: ['setup.change'],
    summary: 'Make or change a rule; open orders are judged by it at once',
    body: holds.holdRuleBody,
    answer: holds.holdRules,
  },
});
