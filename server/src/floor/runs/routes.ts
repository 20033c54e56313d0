import { sql } from 'drizzle-orm';
import { DONE_AGO, endpoints } from '@hand-relay/contract';
import { pickList } from '../../setup/documents/index.ts';
import { mountEndpoint, type Actor, type Db, type Routes, type Tx } from '../../platform/index.ts';
import { paperFor } from '../../setup/settings/index.ts';
import { runSummaries } from '../../desk/waves/index.ts';
import { addOrders, assignRuns, moveOrders } from './arrange.ts';
import { confirmRun } from './confirmWhole.ts';
import { crewOf } from './crew.ts';
import { countRefused } from './countRefused.ts';
import { closeOnCart } from './intoCarton.ts';
import { inChain, walkUp } from './chain.ts';
import { walkFrom } from './walkFrom.ts';
import { pickInput } from './input.ts';
import { undoPick } from './undo.ts';
import { noteLookAlikes } from './lookAlikes.ts';
import { reportLost } from './lost.ts';
import { teamOf } from '../../setup/people/index.ts';
import { noteForBench, transferRun } from './transferRun.ts';
import { floorPlan, runDetail, runsBeside } from './read.ts';
import { returnRun, leaveRun, takeOrderOut, takeRun } from './take.ts';
import { putIn } from './putIn.ts';
import { leaveBehind, setUpCart } from './setUp.ts';
import { gatherTrip, mayGather, putTripBack, waitingOrders } from './trip.ts';

/** Runs that wait for a person: theirs, those of the team that they work in now, and those of nobody. */
async function offeredTo(on: Db | Tx, { siteId, personId }: Actor, now: Date) {
  const team = await teamOf(on, siteId, personId, now);
  return sql`r.state = 'waiting' and (r.assigned_id = ${personId} or r.assigned_id is null and r.team in ('', ${team}))`;
}

/** Runs as they are offered to somebody: those that are theirs alone first. */
async function offered(on: Db | Tx, actor: Actor, now: Date) {
  const { siteId, personId } = actor;
  const runs = await runSummaries(on, siteId, await offeredTo(on, actor, now));
  const [own, others] = [true, false].map((mine) => runs.filter((r) => (r.assignedId === personId) === mine));
  return inChain(on, siteId, personId, [...own!, ...others!], now);
}

export function runRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.floorPlan, ({ platform, actor }) => floorPlan(platform, actor.siteId));
  mountEndpoint(routes, endpoints.myRuns, async ({ platform, actor }) => ({
    mine: await runSummaries(platform.db, actor.siteId, sql`r.state = 'picking' and r.picker_id = ${actor.personId}`),
    waiting: await offered(platform.db, actor, platform.clock()),
    ownTrips: await mayGather(platform.db, actor),
  }));
  mountEndpoint(routes, endpoints.run, ({ platform, actor, id }) => runDetail(platform, actor, id));
  mountEndpoint(routes, endpoints.runsBeside, ({ platform, actor, id }) => runsBeside(platform, actor.siteId, id));
  mountEndpoint(routes, endpoints.takeRun, async ({ platform, actor, id, body, change }) => {
    await change(async (current) => {
      await takeRun(current, id, body.cart);
      await walkUp(current, id, await offered(current.tx, actor, current.now));
      await noteLookAlikes(current, id);
    });
    return runDetail(platform, actor, id);
  });
  mountEndpoint(routes, endpoints.runInput, ({ id, body, change, req }) =>
    change((current) => pickInput(current, id, body, Number(req.get(DONE_AGO) ?? 0))),
  );
  mountEndpoint(routes, endpoints.reportLost, async ({ id, body, change }) => {
    await change((current) => reportLost(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.countRefused, async ({ id, body, change }) => {
    await change((current) => countRefused(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.transferRun, async ({ id, body, change }) => {
    await change((current) => transferRun(current, id, body.person));
    return {};
  });
  mountEndpoint(routes, endpoints.setUpCart, ({ id, body, change }) =>
    change((current) => setUpCart(current, id, body)),
  );
  mountEndpoint(routes, endpoints.leaveBehind, ({ id, change }) => change((current) => leaveBehind(current, id)));
  mountEndpoint(routes, endpoints.closeOnCart, ({ id, body, change }) =>
    change((current) => closeOnCart(current, id, body.carton)),
  );
  mountEndpoint(routes, endpoints.noteForBench, async ({ id, body, change }) => {
    await change((current) => noteForBench(current, id, body.order, body.note));
    return {};
  });
  mountEndpoint(routes, endpoints.walkFrom, async ({ id, body, change }) => {
    await change((current) => walkFrom(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.undoPick, ({ id, body, change }) =>
    change((current) => undoPick(current, id, body.begun)),
  );
  mountEndpoint(routes, endpoints.leaveRun, async ({ platform, actor, id, body, change }) => {
    await change((current) => leaveRun(current, id, body.lane));
    return runDetail(platform, actor, id);
  });
  mountEndpoint(routes, endpoints.confirmRun, async ({ platform, actor, id, body, change }) => {
    await change((current) => confirmRun(current, id, body));
    return runDetail(platform, actor, id);
  });
  mountEndpoint(routes, endpoints.takeOut, async ({ id, body, change }) => {
    await change((current) => takeOrderOut(current, id, body));
    return {};
  });
  mountEndpoint(routes, endpoints.putIn, async ({ id, body, change }) => {
    await change((current) => putIn(current, id, body.orders));
    return {};
  });
  mountEndpoint(routes, endpoints.returnRun, async ({ id, change }) => {
    await change((current) => returnRun(current, id));
    return {};
  });
  mountEndpoint(routes, endpoints.assignRuns, ({ body, change }) => change((current) => assignRuns(current, body)));
  mountEndpoint(routes, endpoints.moveBetweenRuns, ({ id, body, change }) =>
    change((current) => moveOrders(current, id, body)),
  );
  mountEndpoint(routes, endpoints.addOrders, ({ id, body, change }) =>
    change((current) => addOrders(current, id, body.orders)),
  );
  mountEndpoint(routes, endpoints.waitingOrders, async ({ platform, actor }) =>
    waitingOrders(platform.db, actor.siteId, await offeredTo(platform.db, actor, platform.clock())),
  );
  mountEndpoint(routes, endpoints.gatherTrip, ({ actor, body, change }) =>
    change(async (current) => gatherTrip(current, body.orders, await offeredTo(current.tx, actor, current.now))),
  );
  mountEndpoint(routes, endpoints.putTripBack, async ({ id, change }) => {
    await change((current) => putTripBack(current, id));
    return {};
  });
  mountEndpoint(routes, endpoints.pickList, async ({ platform, actor, id, res }) => {
    const paper = await paperFor(platform.db, actor.siteId, actor.personId);
    const pdf = await pickList(platform, actor.siteId, id, paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pick-list.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.crew, ({ platform, actor }) => crewOf(platform.db, actor.siteId, platform.clock()));
}
