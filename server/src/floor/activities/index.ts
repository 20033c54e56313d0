import { endpoints } from '@hand-relay/contract';
import { mountEndpoint, type Routes } from '../../platform/index.ts';
import { activitiesOf, changeActivity } from './activities.ts';

export function activityRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.activities, ({ platform, actor }) => activitiesOf(platform.db, actor));
  mountEndpoint(routes, endpoints.changeActivity, ({ actor, body, change }) =>
    change(async (current) => {
      await changeActivity(current, body.kind);
      current.publish('me', [actor.personId]);
      return activitiesOf(current.tx, actor);
    }),
  );
}
