import { sql } from 'drizzle-orm';
import Papa from 'papaparse';
import { endpoints } from '@hand-relay/contract';
import { packingSlip } from '../documents/index.ts';
import { serve, type Doors } from '../platform/index.ts';
import { wayOf } from '../ways/index.ts';
import { chooseCarrier, confirmShipment, setTracking } from './confirm.ts';
import { dockRows, exportShipments, leftRows, shipmentDetail } from './read.ts';

export function shippingRoutes(doors: Doors): void {
  serve(doors, endpoints.dock, async ({ platform, actor, query }) => ({
    shipments: await (query.state === 'open'
      ? dockRows(platform.db, actor.siteId, sql`s.state = 'open'`)
      : leftRows(platform.db, actor.siteId, query.find ?? '', platform.clock())),
  }));
  serve(doors, endpoints.shipment, ({ platform, actor, id }) => shipmentDetail(platform, actor.siteId, id));
  serve(doors, endpoints.chooseCarrier, async ({ platform, actor, id, body, change }) => {
    await change((current) => chooseCarrier(current, id, body.service));
    return shipmentDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.tracking, async ({ platform, actor, id, body, change }) => {
    await change((current) => setTracking(current, id, body));
    return shipmentDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.confirm, async ({ platform, actor, id, body, change }) => {
    await change((current) => confirmShipment(current, id, body.rest));
    return shipmentDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.packingSlip, async ({ platform, actor, id, res }) => {
    const pdf = await packingSlip(platform, actor.siteId, id, (await wayOf(platform.db, actor.siteId)).paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="packing-slip.pdf"').send(pdf);
  });
  serve(doors, endpoints.shipmentsJson, async ({ platform, actor, query }) => ({
    shipments: await exportShipments(platform, actor.siteId, query),
  }));
  serve(doors, endpoints.shipmentsCsv, async ({ platform, actor, query, res }) => {
    const shipments = await exportShipments(platform, actor.siteId, query);
    const data = shipments.flatMap((s) =>
      s.lines.flatMap((l) =>
        l.lots.map((part) => ({
          shipment: s.shipment,
          order: s.order,
          kind: s.kind,
          invoice: s.invoice ? 'yes' : 'no',
          reference: s.reference,
          customer: s.customer,
          confirmed_at: s.confirmedAt,
          carrier: s.carrier,
          service: s.service,
          tracking: s.tracking,
          line: l.line,
          item: l.sku,
          units: part.units,
          lot: part.lot,
          serial: part.serial,
          sscc: part.sscc,
        })),
      ),
    );
    const fields = [
      'shipment',
      'order',
      'kind',
      'invoice',
      'reference',
      'customer',
      'confirmed_at',
      'carrier',
      'service',
      'tracking',
      'line',
      'item',
      'units',
      'lot',
      'serial',
      'sscc',
    ];
    res
      .attachment('shipments.csv')
      .type('text/csv')
      .send(Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true }) + '\r\n');
  });
}
