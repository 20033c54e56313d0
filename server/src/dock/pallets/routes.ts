import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { palletLabel, palletSheet } from '../../setup/documents/index.ts';
import { printPalletAtClosing } from '../../setup/printing/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { breakPallet, openPallet, reopenPallet, stackInput, takeOff } from './build.ts';
import { planPallet } from './plan.ts';
import { palletDetail, palletList } from '../units/index.ts';

export function palletRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.pallets, ({ platform, actor }) =>
    palletList(platform.db, actor.siteId, platform.clock()),
  );
  mountEndpoint(routes, endpoints.pallet, ({ platform, actor, id }) => palletDetail(platform.db, actor.siteId, id));
  mountEndpoint(routes, endpoints.openPallet, async ({ platform, actor, body, change }) => {
    const plan = await planPallet(platform, actor.siteId, body);
    return change(async (current) => ({
      ...(await openPallet(current, { type: body.type, station: body.station, plan })),
      planned: plan.units.length,
      pallets: plan.pallets,
      bound: plan.bound,
    }));
  });
  mountEndpoint(routes, endpoints.stackInput, async ({ platform, actor, id, body, change }) => {
    const done = await change((current) => stackInput(current, id, body.text));
    if (done.verdict !== 'close') return done;
    return { ...done, printer: await printPalletAtClosing(platform, actor, { pallet: id, station: body.station }) };
  });
  mountEndpoint(routes, endpoints.takeOff, async ({ id, body, change }) => {
    await change((current) => takeOff(current, id, body.unit));
    return {};
  });
  mountEndpoint(routes, endpoints.reopenPallet, async ({ id, change }) => {
    await change((current) => reopenPallet(current, id));
    return {};
  });
  mountEndpoint(routes, endpoints.breakPallet, async ({ id, change }) => {
    await change((current) => breakPallet(current, id));
    return {};
  });
  mountEndpoint(routes, endpoints.palletLabel, async ({ platform, actor, id, query, res }) => {
    const size = query.size ?? (await settingsOf(platform.db, actor.siteId)).label;
    const pdf = await palletLabel(platform, actor.siteId, id, size);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pallet-label.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.palletSheet, async ({ platform, actor, id, res }) => {
    const { paper } = await settingsOf(platform.db, actor.siteId);
    const pdf = await palletSheet(await palletDetail(platform.db, actor.siteId, id), paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pallet.pdf"').send(pdf);
  });
}
