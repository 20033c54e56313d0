import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { releaseBody, ReleasePreview } from '@hand-relay/contract';
import { chances, estimate } from '@hand-relay/core/walking/labour';
import { filledBy } from '@hand-relay/core/handling/packaging';
import { cartonsRoughly } from '@hand-relay/core/handling/packing';
import { packRules } from '../../bench/packRules/index.ts';
import { anyOf, rows, type Actor, type Platform } from '../../platform/index.ts';
import { standards } from '../../setup/settings/index.ts';
import { allocate, type Allocation } from './demand.ts';
import { peopleHere, usualWaveWay, waveProblem } from './problem.ts';
import { exactOf } from './release.ts';
import { sumsOf } from './sums.ts';

/** A look waits no longer for better runs: the plan itself takes its time. */
const LOOK_SECONDS = 0.4;

type Given = Allocation['lines'][number];

/** What a release would do: promises and runs, computed and not kept. */
export async function previewRelease(
  { db, compute, clock }: Platform,
  actor: Actor,
  body: z.output<typeof releaseBody>,
): Promise<ReleasePreview> {
  const allocation = await allocate(db, actor.siteId, body.orders, {
    exact: exactOf(body),
    toRelease: true,
    now: clock(),
  });
  const given = allocation.lines.filter((l) => l.allocation.units > 0);
  const sums = sumsOf(allocation);
  const held = await rows<ReleasePreview['held'][number]>(
    db,
    sql`select distinct on (o.number) o.number as "order", h.text as why from order_hold h join customer_order o on o.id = h.order_id
        where o.site_id = ${actor.siteId} and h.lifted_at is null and 'release' = any(h.stops)
          and o.id = ${anyOf(body.orders)} order by o.number, h.held_at`,
  );
  if (given.length === 0)
    return { ...sums, held, runs: 0, split: [], metres: 0, cartons: 0, seconds: 0, people: 0, departures: [] };
  const needs = given.flatMap((l) =>
    l.allocation.lots.map((part) => ({
      id: `${l.line} ${part.lot ?? ''}`,
      order: l.order,
      item: l.item,
      lot: part.lot,
      units: part.units,
      weightG: l.weightG,
      volumeCm3: l.volumeCm3,
    })),
  );
  const orders = [
    ...new Map(given.map((l) => [l.order, { id: l.order, priority: l.priority, leavesAt: l.leavesAt }])).values(),
  ];
  const problem = await waveProblem(db, actor.siteId, { orders, needs, settings: usualWaveWay, now: clock() });
  const { runs, split } = await compute.planWave(problem, { seconds: LOOK_SECONDS, quick: true });
  const numberOf = new Map(given.map((l) => [l.order, l.number]));
  const metres = runs.reduce((n, r) => n + r.distance, 0);
  const people = await peopleHere(db, actor.siteId, 'runs.pick', clock());
  const [there] = await rows<{ stops: number; units: number; metres: number; runs: number }>(
    db,
    sql`
    select (select count(*) from pick k join run r on r.id = k.run_id where r.site_id = ${actor.siteId} and k.state = 'open')::int as stops,
           (select coalesce(sum(k.units - k.picked), 0) from pick k join run r on r.id = k.run_id
            where r.site_id = ${actor.siteId} and k.state = 'open')::int as units,
           (select coalesce(sum(metres), 0) from run where site_id = ${actor.siteId} and state in ('planned', 'waiting', 'picking')) as metres,
           (select count(*) from run where site_id = ${actor.siteId} and state in ('planned', 'waiting', 'picking'))::int as runs`,
  );
  const { stops, units, metres: openMetres, runs: openRuns } = there!;
  const backlog = secondsOf({ stops, units: { easy: units }, metres: openMetres, runs: openRuns });
  const seconds = secondsOf({ ...workOf(given), metres, runs: runs.length });
  return {
    ...sums,
    held,
    runs: runs.length,
    split: split.map(({ order, ...rest }) => ({ ...rest, order: numberOf.get(order)! })),
    metres,
    cartons: await cartonsOf(db, actor.siteId, given),
    seconds,
    people,
    departures: departuresOf(given, seconds, people, backlog, clock().getTime()),
  };
}

function workOf(lines: Given[]): { stops: number; units: Record<string, number> } {
  const units: Record<string, number> = {};
  for (const { handling: kind, allocation: allocation } of lines) units[kind] = (units[kind] ?? 0) + allocation.units;
  return { stops: lines.length, units };
}

/** Picking by the standards, a scan of the bin, of the goods and of the place each stop, and packing. */
function secondsOf(work: { stops: number; units: Record<string, number>; metres: number; runs: number }): number {
  const { stops, units, metres, runs } = work;
  const picking = estimate({ runs, distance: metres, stops, scans: 2 * stops, drops: stops, units }, standards);
  const packed = Object.values(units).reduce((n, count) => n + count, 0);
  return picking.seconds + packed * standards.perPacked;
}

/** Cartons by the site's rules, and for the rest of each order as many as its volume and weight take. */
async function cartonsOf(db: Platform['db'], siteId: string, lines: Given[]): Promise<number> {
  const ids = [...new Set(lines.map((l) => l.order))];
  const ruleOf = await packRules(
    db,
    siteId,
    sql`o.id = ${anyOf(ids)}`,
    lines.map((l) => l.item),
  );
  const ruled = new Map<string, { units: number; perCarton: number }>();
  const types = await rows<{ volumeCm3: number; maxWeightG: number }>(
    db,
    sql`select inner_mm[1]::float8 * inner_mm[2] * inner_mm[3] / 1000 as "volumeCm3", max_weight_g as "maxWeightG"
        from carton_type where not retired`,
  );
  const orders = new Map<string, { volumeCm3: number; weightG: number }>();
  for (const l of lines) {
    const rule = ruleOf(l.order, l.item);
    if (rule) {
      // Lines of one item are packed together.
      const key = `${l.order} ${l.item}`;
      const units = (ruled.get(key)?.units ?? 0) + l.allocation.units;
      ruled.set(key, { units, perCarton: rule.perCarton });
      continue;
    }
    const sum = orders.get(l.order) ?? { volumeCm3: 0, weightG: 0 };
    sum.volumeCm3 += l.allocation.units * l.volumeCm3;
    sum.weightG += l.allocation.units * l.weightG;
    orders.set(l.order, sum);
  }
  const byRule = [...ruled.values()].reduce((n, { units, perCarton }) => n + filledBy(perCarton, units).length, 0);
  return byRule + cartonsRoughly(types, [...orders.values()]);
}

function departuresOf(
  given: Given[],
  seconds: number,
  people: number,
  backlog: number,
  now: number,
): ReleasePreview['departures'] {
  const groups = new Map<string, Given[]>();
  for (const l of given) {
    const key = `${l.leavesAt ?? ''} ${l.departure ?? ''}`;
    groups.set(key, [...(groups.get(key) ?? []), l]);
  }
  const all = given.reduce((n, l) => n + l.allocation.units, 0);
  const list = [...groups.values()].map((lines) => {
    const units = lines.reduce((n, l) => n + l.allocation.units, 0);
    const { departure, leavesAt } = lines[0]!;
    // Walking is shared in proportion to what is carried.
    return {
      name: departure,
      leavesAt,
      orders: new Set(lines.map((l) => l.order)).size,
      units,
      seconds: (seconds * units) / all,
    };
  });
  const found = chances(
    list.map((d) => ({ leavesAt: d.leavesAt === null ? null : Date.parse(d.leavesAt), seconds: d.seconds })),
    people,
    backlog,
    now,
  );
  return list
    .map((d, i) => {
      const { ends, chance } = found[i]!;
      return { ...d, ends: ends === null ? null : new Date(ends).toISOString(), chance };
    })
    .sort((a, b) => ((a.leavesAt ?? '9') < (b.leavesAt ?? '9') ? -1 : 1));
}
