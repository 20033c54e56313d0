import { sql } from 'drizzle-orm';
import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { runSummaries } from '../waves/index.ts';
import { pickInput, undoPick } from './input.ts';
import { floorPlan, runDetail } from './read.ts';
import { giveBackRun, leaveRun, takeOrderOut, takeRun } from './take.ts';

export function runRoutes(doors: Doors): void {
  serve(doors, endpoints.floorPlan, ({ platform, actor }) => floorPlan(platform, actor.siteId));
  serve(doors, endpoints.myRuns, async ({ platform, actor }) => ({
    mine: await runSummaries(platform.db, actor.siteId, sql`r.state = 'picking' and r.picker_id = ${actor.personId}`),
    waiting: await runSummaries(platform.db, actor.siteId, sql`r.state = 'waiting'`),
  }));
  serve(doors, endpoints.run, ({ platform, actor, id }) => runDetail(platform, actor.siteId, id));
  serve(doors, endpoints.takeRun, async ({ platform, actor, id, body, change }) => {
    await change((current) => takeRun(current, id, body.cart));
    return runDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.runInput, ({ id, body, change }) =>
    change((current) => pickInput(current, id, body.pick, body.input)),
  );
  serve(doors, endpoints.undoPick, ({ id, change }) => change((current) => undoPick(current, id)));
  serve(doors, endpoints.leaveRun, async ({ platform, actor, id, body, change }) => {
    await change((current) => leaveRun(current, id, body.lane));
    return runDetail(platform, actor.siteId, id);
  });
  serve(doors, endpoints.takeOut, async ({ id, body, change }) => {
    await change((current) => takeOrderOut(current, id, body.order));
    return {};
  });
  serve(doors, endpoints.giveBack, async ({ id, change }) => {
    await change((current) => giveBackRun(current, id));
    return {};
  });
}
