import { endpoints } from '@hand-relay/contract';
import { binLabels } from '../documents/index.ts';
import { serve, type Doors } from '../platform/index.ts';
import { wayOf } from '../ways/index.ts';
import { changeLayout, layoutOf, zoneBins } from './layout.ts';

export { addCrossAisles, layoutOf } from './layout.ts';
export { binsThere, floorOf } from './read.ts';

export function floorRoutes(doors: Doors): void {
  serve(doors, endpoints.floorLayout, ({ platform, actor }) => layoutOf(platform.db, actor.siteId));
  serve(doors, endpoints.changeLayout, ({ body, change }) => change((current) => changeLayout(current, body)));
  serve(doors, endpoints.binLabels, async ({ platform, actor, query, res }) => {
    const pdf = await binLabels(platform, actor.siteId, query.aisle, (await wayOf(platform.db, actor.siteId)).paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="bin-labels.pdf"').send(pdf);
  });
  serve(doors, endpoints.zoneBins, ({ body, change }) => change((current) => zoneBins(current, body)));
}
