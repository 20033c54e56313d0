import { sql } from 'drizzle-orm';
import { endpoints } from '@hand-relay/contract';
import { packingSlip } from '../../setup/documents/index.ts';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { chooseCarrier, confirmShipment, setTracking } from './confirm.ts';
import { sendShipments } from './exportShipments.ts';
import { dockRows, leftRows, shipmentDetail } from './read.ts';

export function shippingRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.dock, async ({ platform, actor, query }) => ({
    shipments: await (query.state === 'open'
      ? dockRows(platform.db, actor.siteId, sql`s.state = 'open'`)
      : leftRows(platform.db, actor.siteId, query.find ?? '', platform.clock())),
  }));
  mountEndpoint(routes, endpoints.shipment, ({ platform, actor, id }) => shipmentDetail(platform, actor.siteId, id));
  mountEndpoint(routes, endpoints.chooseCarrier, async ({ platform, actor, id, body, change }) => {
    await change((current) => chooseCarrier(current, id, body.service));
    return shipmentDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.tracking, async ({ platform, actor, id, body, change }) => {
    await change((current) => setTracking(current, id, body));
    return shipmentDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.confirm, async ({ platform, actor, id, body, change }) => {
    await change((current) => confirmShipment(current, id, body.rest));
    return shipmentDetail(platform, actor.siteId, id);
  });
  mountEndpoint(routes, endpoints.packingSlip, async ({ platform, actor, id, res }) => {
    const pdf = await packingSlip(platform, actor.siteId, id, await settingsOf(platform.db, actor.siteId));
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="packing-slip.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.shipmentsJson, ({ platform, actor, query, res }) =>
    sendShipments(platform, actor.siteId, query, res, 'json'),
  );
  mountEndpoint(routes, endpoints.shipmentsCsv, ({ platform, actor, query, res }) =>
    sendShipments(platform, actor.siteId, query, res, 'csv'),
  );
}
