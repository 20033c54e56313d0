import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { comparisonOf, itemOf, outlookOf, availabilityOf } from './answers.ts';
import { exceptionsOf } from '../exceptions/index.ts';
import { actOnException } from './dealWith.ts';
import { allocateManually } from './allocateManually.ts';
import { reserveLines } from '../waves/index.ts';
import { itemStockOf } from './itemStock.ts';
import { linesIn } from './lines.ts';
import { placesOf } from './places.ts';
import { saveTray, trayOf } from './tray.ts';
import { deleteView, saveView, viewsOf } from './views.ts';

export function deskRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.outlook, ({ platform, actor, query }) => outlookOf(platform, actor.siteId, query));
  mountEndpoint(routes, endpoints.orderAvailability, async ({ platform, actor, id, query }) => ({
    promise: await availabilityOf(platform, actor.siteId, id, query),
  }));
  mountEndpoint(routes, endpoints.itemAvailability, ({ platform, actor, id, query }) =>
    itemOf(platform, actor.siteId, id, query),
  );
  mountEndpoint(routes, endpoints.deskLines, ({ platform, actor, query }) => linesIn(platform.db, actor.siteId, query));
  mountEndpoint(routes, endpoints.reserveLines, ({ body, change }) =>
    change(async (current) => ({ lines: await reserveLines(current, body.lines) })),
  );
  mountEndpoint(routes, endpoints.itemStock, ({ platform, actor, id }) => itemStockOf(platform.db, actor.siteId, id));
  mountEndpoint(routes, endpoints.comparePolicies, ({ platform, actor, body }) =>
    comparisonOf(platform, actor.siteId, body),
  );
  mountEndpoint(routes, endpoints.allocateManually, ({ body, change }) =>
    change((current) => allocateManually(current, body)),
  );
  mountEndpoint(routes, endpoints.deskPlaces, ({ platform, actor }) => placesOf(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.workbook, async ({ platform, body, res }) => {
    const file = await platform.compute.writeWorkbook(body.cells);
    res.type(endpoints.workbook.file).send(Buffer.from(file));
  });
  mountEndpoint(routes, endpoints.exceptions, ({ platform, actor }) =>
    exceptionsOf(platform.db, actor, platform.clock()),
  );
  mountEndpoint(routes, endpoints.actOnException, ({ actor, id, body, change }) =>
    change(async (current) => {
      await actOnException(current, id, body);
      return exceptionsOf(current.tx, actor, current.now);
    }),
  );
  mountEndpoint(routes, endpoints.tray, ({ platform, actor }) => trayOf(platform.db, actor));
  mountEndpoint(routes, endpoints.saveTray, async ({ body, change }) => {
    await change((current) => saveTray(current, body));
    return {};
  });
  mountEndpoint(routes, endpoints.savedViews, ({ platform, actor }) => viewsOf(platform.db, actor));
  mountEndpoint(routes, endpoints.saveView, ({ body, change }) => change((current) => saveView(current, body)));
  mountEndpoint(routes, endpoints.deleteView, ({ id, change }) => change((current) => deleteView(current, id)));
}
