import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { activitiesOf, changeActivity } from './activities.ts';

export function activityRoutes(doors: Doors): void {
  serve(doors, endpoints.activities, ({ platform, actor }) => activitiesOf(platform.db, actor));
  serve(doors, endpoints.changeActivity, ({ actor, body, change }) =>
    change(async (current) => {
      await changeActivity(current, body.kind);
      return activitiesOf(current.tx, actor);
    }),
  );
}
