import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { comparisonOf, itemOf, outlookOf, promiseOf } from './answers.ts';
import { exceptionsOf } from '../exceptions/index.ts';
import { actOnException } from './dealWith.ts';
import { fixLines } from './fix.ts';
import { moveOrders, placesOf } from './move.ts';
import { saveTray, trayOf } from './tray.ts';
import { dropView, keepView, viewsOf } from './views.ts';

export function deskRoutes(doors: Doors): void {
  serve(doors, endpoints.outlook, ({ platform, actor, query }) => outlookOf(platform, actor.siteId, query));
  serve(doors, endpoints.orderPromise, async ({ platform, actor, id, query }) => ({
    promise: await promiseOf(platform, actor.siteId, id, query),
  }));
  serve(doors, endpoints.itemPromise, ({ platform, actor, id, query }) => itemOf(platform, actor.siteId, id, query));
  serve(doors, endpoints.comparePolicies, ({ platform, actor, body }) => comparisonOf(platform, actor.siteId, body));
  serve(doors, endpoints.fixLines, ({ body, change }) => change((current) => fixLines(current, body)));
  serve(doors, endpoints.moveOrders, ({ body, change }) => change((current) => moveOrders(current, body)));
  serve(doors, endpoints.deskPlaces, ({ platform, actor }) => placesOf(platform.db, actor.siteId));
  serve(doors, endpoints.workbook, async ({ platform, body, res }) => {
    const file = await platform.compute.writeWorkbook(body.cells);
    res.type(endpoints.workbook.file).send(Buffer.from(file));
  });
  serve(doors, endpoints.exceptions, ({ platform, actor }) => exceptionsOf(platform.db, actor, platform.clock()));
  serve(doors, endpoints.actOnException, ({ actor, id, body, change }) =>
    change(async (current) => {
      await actOnException(current, id, body);
      return exceptionsOf(current.tx, actor, current.now);
    }),
  );
  serve(doors, endpoints.tray, ({ platform, actor }) => trayOf(platform.db, actor));
  serve(doors, endpoints.saveTray, async ({ body, change }) => {
    await change((current) => saveTray(current, body));
    return {};
  });
  serve(doors, endpoints.keptViews, ({ platform, actor }) => viewsOf(platform.db, actor));
  serve(doors, endpoints.keepView, ({ body, change }) => change((current) => keepView(current, body)));
  serve(doors, endpoints.dropView, ({ id, change }) => change((current) => dropView(current, id)));
}
