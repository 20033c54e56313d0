import { endpoints } from '@hand-relay/contract';
import { binLabels } from '../../setup/documents/index.ts';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { changeLayout, layoutOf, zoneBins } from './layout.ts';

export { addCrossAisles, layoutOf } from './layout.ts';
export { binsThere, floorOf } from './read.ts';

export function floorRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.floorLayout, ({ platform, actor }) => layoutOf(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.changeLayout, ({ body, change }) => change((current) => changeLayout(current, body)));
  mountEndpoint(routes, endpoints.binLabels, async ({ platform, actor, query, res }) => {
    const pdf = await binLabels(
      platform,
      actor.siteId,
      query.aisle,
      (await settingsOf(platform.db, actor.siteId)).paper,
    );
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="bin-labels.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.zoneBins, ({ body, change }) => change((current) => zoneBins(current, body)));
}
