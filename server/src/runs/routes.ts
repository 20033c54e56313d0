import { sql } from 'drizzle-orm';
import { DONE_AGO, endpoints } from '@hand-relay/contract';
import { pickList } from '../documents/index.ts';
import { serve, type Actor, type Db, type Doors, type Tx } from '../platform/index.ts';
import { wayOf } from '../ways/index.ts';
import { runSummaries } from '../waves/index.ts';
import { addOrders, assignRuns, moveOrders } from './arrange.ts';
import { crewOf } from './crew.ts';
import { countRefused } from './countRefused.ts';
import { closeOnCart } from './intoCarton.ts';
import { inChain, walkUp } from './chain.ts';
import { walkFrom } from './walkFrom.ts';
import { pickInput } from './input.ts';
import { undoPick } from './undo.ts';
import { noteLookAlikes } from './lookAlikes.ts';
import { reportLost } from './lost.ts';
import { tellBench, passOn } from './passOn.ts';
import { floorPlan, runDetail } from './read.ts';
import { giveBackRun, leaveRun, takeOrderOut, takeRun } from './take.ts';
import { putIn } from './putIn.ts';
import { leaveBehind, setUpCart } from './setUp.ts';
import { gatherTrip, mayGather, putTripBack, waitingOrders } from './trip.ts';

/** Runs that wait for a person: theirs, their team's, and those of nobody. */
const offeredTo = (
  person: string,
) => sql`r.state = 'waiting' and (r.assigned_id = ${person} or r.assigned_id is null and (
  r.team = '' or r.team = (select m.team from membership m where m.person_id = ${person} and m.site_id = r.site_id)))`;

/** Runs as they are offered to somebody: those that are theirs alone first. */
async function offered(on: Db | Tx, { siteId, personId }: Actor, now: Date) {
  const runs = await runSummaries(on, siteId, offeredTo(personId));
  const [own, others] = [true, false].map((mine) => runs.filter((r) => (r.assignedId === personId) === mine));
  return inChain(on, siteId, personId, [...own!, ...others!], now);
}

export function runRoutes(doors: Doors): void {
  serve(doors, endpoints.floorPlan, ({ platform, actor }) => floorPlan(platform, actor.siteId));
  serve(doors, endpoints.myRuns, async ({ platform, actor }) => ({
    mine: await runSummaries(platform.db, actor.siteId, sql`r.state = 'picking' and r.picker_id = ${actor.personId}`),
    waiting: await offered(platform.db, actor, platform.clock()),
    ownTrips: await mayGather(platform.db, actor),
  }));
  serve(doors, endpoints.run, ({ platform, actor, id }) => runDetail(platform, actor, id));
  serve(doors, endpoints.takeRun, async ({ platform, actor, id, body, change }) => {
    await change(async (current) => {
      await takeRun(current, id, body.cart);
      await walkUp(current, id, await offered(current.tx, actor, current.now));
      await noteLookAlikes(current, id);
    });
    return runDetail(platform, actor, id);
  });
  serve(doors, endpoints.runInput, ({ id, body, change, req }) =>
    change((current) => pickInput(current, id, body, Number(req.get(DONE_AGO) ?? 0))),
  );
  serve(doors, endpoints.reportLost, async ({ id, body, change }) => {
    await change((current) => reportLost(current, id, body));
    return {};
  });
  serve(doors, endpoints.countRefused, async ({ id, body, change }) => {
    await change((current) => countRefused(current, id, body));
    return {};
  });
  serve(doors, endpoints.handOver, async ({ id, body, change }) => {
    await change((current) => passOn(current, id, body.person));
    return {};
  });
  serve(doors, endpoints.setUpCart, ({ id, body, change }) => change((current) => setUpCart(current, id, body)));
  serve(doors, endpoints.leaveBehind, ({ id, change }) => change((current) => leaveBehind(current, id)));
  serve(doors, endpoints.closeOnCart, ({ id, body, change }) =>
    change((current) => closeOnCart(current, id, body.carton)),
  );
  serve(doors, endpoints.tellBench, async ({ id, body, change }) => {
    await change((current) => tellBench(current, id, body.order, body.note));
    return {};
  });
  serve(doors, endpoints.walkFrom, async ({ id, body, change }) => {
    await change((current) => walkFrom(current, id, body));
    return {};
  });
  serve(doors, endpoints.undoPick, ({ id, body, change }) => change((current) => undoPick(current, id, body.begun)));
  serve(doors, endpoints.leaveRun, async ({ platform, actor, id, body, change }) => {
    await change((current) => leaveRun(current, id, body.lane));
    return runDetail(platform, actor, id);
  });
  serve(doors, endpoints.takeOut, async ({ id, body, change }) => {
    await change((current) => takeOrderOut(current, id, body));
    return {};
  });
  serve(doors, endpoints.putIn, async ({ id, body, change }) => {
    await change((current) => putIn(current, id, body.orders));
    return {};
  });
  serve(doors, endpoints.giveBack, async ({ id, change }) => {
    await change((current) => giveBackRun(current, id));
    return {};
  });
  serve(doors, endpoints.assignRuns, ({ body, change }) => change((current) => assignRuns(current, body)));
  serve(doors, endpoints.moveBetweenRuns, ({ id, body, change }) => change((current) => moveOrders(current, id, body)));
  serve(doors, endpoints.addOrders, ({ id, body, change }) => change((current) => addOrders(current, id, body.orders)));
  serve(doors, endpoints.waitingOrders, ({ platform, actor }) =>
    waitingOrders(platform.db, actor.siteId, offeredTo(actor.personId)),
  );
  serve(doors, endpoints.gatherTrip, ({ actor, body, change }) =>
    change((current) => gatherTrip(current, body.orders, offeredTo(actor.personId))),
  );
  serve(doors, endpoints.putTripBack, async ({ id, change }) => {
    await change((current) => putTripBack(current, id));
    return {};
  });
  serve(doors, endpoints.pickList, async ({ platform, actor, id, res }) => {
    const pdf = await pickList(platform, actor.siteId, id, (await wayOf(platform.db, actor.siteId)).paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="pick-list.pdf"').send(pdf);
  });
  serve(doors, endpoints.crew, ({ platform, actor }) => crewOf(platform.db, actor.siteId, platform.clock()));
}
