import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { changeSettings, wavesUnderWay, settingsOf } from './settings.ts';

export function settingsRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.siteSettings, async ({ platform: { db }, actor: { siteId } }) => ({
    settings: await settingsOf(db, siteId),
    waves: await wavesUnderWay(db, siteId),
  }));
  mountEndpoint(routes, endpoints.changeSiteSettings, async ({ platform: { db }, actor: { siteId }, body, change }) => {
    await change((current) => changeSettings(current, body));
    return { settings: body, waves: await wavesUnderWay(db, siteId) };
  });
}
