import { sql } from 'drizzle-orm';
import type { FloorPlan, Right, RunDetail, RunPick, RunsBeside } from '@hand-relay/contract';
import { freshProgress } from '@hand-relay/core/handling/picking';
import { cartFrontOf, mustKeepUntil } from '../../stock/index.ts';
import {
  pickSettings,
  usualSettings,
  type Counting,
  type PickSettings,
  type SiteSettings,
} from '@hand-relay/core/deciding/settings';
import { iso, notFound, rows, type Actor, type Db, type Platform, type Tx } from '../../platform/index.ts';
import { runSummaries } from '../../desk/waves/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { layoutOf } from '../plan/index.ts';
import { cartonsHere, cartonsOf } from './intoCarton.ts';
import { packedOrders } from '../../bench/packChoice/index.ts';
import { benchOf, takesCarts } from './bench.ts';
import { setUpOf } from './setUp.ts';
import { together } from './together.ts';

type PickRow = {
  id: string;
  bin: string;
  aisle: string;
  y: number;
  zone: string | null;
  cold: boolean;
  item: RunPick['step']['item'];
  lot: string;
  bestBefore: string | null;
  units: number;
  picked: number;
  state: RunPick['state'];
  progress: RunPick['progress'];
  position: number;
  cart: string | null;
  order: RunPick['order'];
  lineNote: string;
  askedIn: RunPick['askedIn'];
  unit: string;
  picture: string;
  why: string;
  saves: number;
  remains: number;
  serials: string[] | null;
  others: string[] | null;
  elsewhere: RunPick['step']['elsewhere'] | null;
  blocked: string | null;
  confirmedAt: string | null;
  orders: number;
  counting: Counting | null;
  lookAlike: RunPick['lookAlike'];
  together: boolean;
};

/**
 * Lots that may be taken in place of the one promised: enough of them lies in the bin beside what others are sent
 * for, as much is promised to nobody, and it lasts as long as the customer asks.
 */
const otherLots = (siteId: string, now: Date) => sql`
  select jsonb_agg(s.lot order by t2.best_before nulls last, s.lot) from balance s
  join lot t2 on t2.item_id = s.item_id and t2.lot = s.lot
  join stock_total f on f.site_id = b.site_id and f.item_id = s.item_id and f.lot = s.lot
  join customer c on c.id = o.customer_id
  where s.place_id = k.bin_id and s.item_id = k.item_id and s.lot <> k.lot and f.on_hand - f.reserved >= k.units
    and s.units - coalesce((select sum(p.units) from pick p where p.state = 'open' and p.bin_id = k.bin_id
                              and p.item_id = k.item_id and p.lot = s.lot), 0) >= k.units
    and (t2.best_before is null or t2.best_before >= ${mustKeepUntil(siteId, sql`k.item_id`, now)})`;

interface PicksAsked {
  siteId: string;
  runId: string;
  pickId?: string;
  /** Rights of whoever picks: with one of them a touch is as good as a scan. */
  rights: ReadonlySet<Right>;
  now: Date;
  /** Whether other bins of the items are asked for. */
  bins?: boolean;
}

/** Bins beside the pick's own that hold enough of its item to be worth a walk; other lots as the site lets them be taken. */
const OTHER_BINS = 6;
const elsewhere = (siteId: string, lotSwaps: boolean, now: Date) => sql`
  select jsonb_agg(jsonb_build_object('bin', e.code, 'lot', nullif(e.lot, ''), 'units', e.units, 'serials', e.serials, 'at', jsonb_build_object('aisle', e.aisle, 'y', e.y))
                   order by e.same desc, e.units >= k.units desc, e.far, e.code)
  from (
    select p.code, p.aisle, p.y, s.lot, s.lot = k.lot as same, abs(p.y - b.y) + 20 * (p.aisle <> b.aisle)::int as far,
           least(sum(s.units) - coalesce((select sum(o.units) from pick o where o.state = 'open' and o.bin_id = p.id and o.item_id = k.item_id and o.lot = s.lot), 0),
                 case when s.lot = k.lot then 9999999 else max(f.on_hand - f.reserved) end)::int as units,
           coalesce(jsonb_agg(s.serial order by s.serial) filter (where s.serial <> ''), '[]') as serials
    from balance s join place p on p.id = s.place_id and p.kind = 'bin' and p.site_id = b.site_id and p.blocked is null and p.id <> k.bin_id
    join stock_total f on f.site_id = b.site_id and f.item_id = s.item_id and f.lot = s.lot
    left join lot t3 on t3.item_id = s.item_id and t3.lot = s.lot join customer c on c.id = o.customer_id
    where s.item_id = k.item_id and s.units > 0 and (s.lot = k.lot or (${lotSwaps} and (t3.best_before is null or t3.best_before >= ${mustKeepUntil(siteId, sql`k.item_id`, now)})))
    group by p.id, p.code, p.aisle, p.y, s.lot order by same desc, far limit ${OTHER_BINS}
  ) e where e.units > 0`;

/** Picks of a run, each of one line, in walking order; with `pickId` that one and those that are picked together with it. */
export async function linePicks(
  on: Db | Tx,
  { siteId, runId, pickId, rights, now, bins = true }: PicksAsked,
): Promise<RunPick[]> {
  const settings = await settingsOf(on, siteId);
  const touch = rights.has('runs.touch') ? usualSettings.touch : settings.touch;
  const alike = sql`(r.picking = 'consolidate' and (k.bin_id, k.item_id, k.lot) = (select g.bin_id, g.item_id, g.lot from pick g where g.id = ${pickId ?? ''}))`;
  const found = await rows<PickRow>(
    on,
    sql`
    select k.id, b.code as bin, b.aisle, b.y, z.name as zone, coalesce(z.temperature = 'chilled', false) as cold,
           jsonb_build_object('id', i.id, 'sku', i.sku, 'name', i.name, 'tracksLot', i.tracks_lot, 'tracksSerial', i.tracks_serial,
             'packs', (select jsonb_agg(jsonb_build_object('gtin', p.gtin, 'level', p.level, 'units', p.units) order by p.units)
                       from item_pack p where p.item_id = i.id)) as item,
           k.lot, t.best_before::text as "bestBefore", k.units, k.picked, k.state, k.progress, k.position, ${iso(sql`k.confirmed_at`)} as "confirmedAt", k.why, k.saves, r.cart_code as cart,
           jsonb_build_object('id', o.id, 'number', o.number, 'note', o.note, 'hold', (
             select h.text from order_hold h where h.order_id = o.id and h.lifted_at is null and 'picking' = any(h.stops) order by h.held_at limit 1
           )) as "order", l.note as "lineNote", l.pack as "askedIn", i.unit, i.picture,
           greatest(0, coalesce((select sum(s.units) from balance s where s.place_id = k.bin_id and s.item_id = k.item_id), 0)
             - case when k.state = 'open' then k.units else 0 end)::int as remains,
           case when i.tracks_serial then (
             select jsonb_agg(s.serial order by s.serial) from balance s
             where s.place_id = k.bin_id and s.item_id = k.item_id and s.units > 0) end as serials,
           ${settings.lotSwaps ? sql`case when i.tracks_lot and not i.tracks_serial and k.state = 'open' then (${otherLots(siteId, now)}) end` : sql`null::jsonb`} as others,
           case when k.state = 'open' and (${bins} or k.progress->>'rest' is not null) then (${elsewhere(siteId, settings.lotSwaps, now)}) end as elsewhere, b.blocked,
           (select count(*)::int from run_position q where q.run_id = k.run_id) as orders, r.picking = 'consolidate' as together, i.counting, k.look_alike as "lookAlike"
    from pick k join run r on r.id = k.run_id join place b on b.id = k.bin_id left join zone z on z.id = b.zone_id
    join item i on i.id = k.item_id join customer_order o on o.id = k.order_id join order_line l on l.id = k.line_id
    left join lot t on t.item_id = k.item_id and t.lot = k.lot
    where k.run_id = ${runId} and k.state <> 'out' ${pickId ? sql`and (k.id = ${pickId} or ${alike})` : sql``}
    order by k.sequence`,
  );
  const asCarton = found.some((k) => howOf(settings, k).drop === 'carton')
    ? await cartonsHere(on, siteId, runId)
    : null;
  return found.map((k) => ({
    together: k.together,
    lookAlike: settings.lookAlikes === 'off' ? null : k.lookAlike,
    confirmedAt: k.confirmedAt,
    step: {
      id: k.id,
      bin: k.bin,
      item: k.item,
      lot: k.lot || null,
      serialsInBin: k.serials ?? [],
      units: k.units,
      countedBy: countedBy(k.item.packs, k.askedIn, k.units),
      position: { cart: k.cart ?? '', number: k.position },
      carton: asCarton && howOf(settings, k).drop === 'carton' ? asCarton(k.order.id) : null,
      how: howOf(settings, k),
      touch,
      otherBins: settings.otherBins,
      otherLots: k.others ?? [],
      elsewhere: k.elsewhere ?? [],
      bestBefore: k.bestBefore,
      stopped:
        k.order.hold !== null
          ? { by: 'hold', why: k.order.hold }
          : k.blocked !== null
            ? { by: 'blocked', why: k.blocked }
            : null,
    },
    progress: { ...freshProgress, ...k.progress },
    state: k.state,
    picked: k.picked,
    order: k.order,
    lineNote: k.lineNote,
    askedIn: k.askedIn,
    unit: k.unit,
    picture: k.picture,
    zone: k.zone ?? '',
    cold: k.cold,
    bestBefore: k.bestBefore,
    why: k.why,
    saves: k.saves,
    remains: k.remains,
    at: { aisle: k.aisle, y: k.y },
  }));
}

/** Units of the pack in which an order counts, where that goes up in what is asked. */
function countedBy(packs: RunPick['step']['item']['packs'], askedIn: RunPick['askedIn'], units: number): number {
  const pack = packs.find((p) => p.level === askedIn);
  return pack && units % pack.units === 0 ? pack.units : 1;
}

/** How a pick is done: as its item is counted, and without a place where its cart is consolidated. */
function howOf(site: SiteSettings, { together: joined, counting, lookAlike, orders }: PickRow): PickSettings {
  const settings = pickSettings(site, orders);
  return {
    ...settings,
    checks: joined ? settings.checks.filter((c) => c !== 'position') : settings.checks,
    drop: joined ? 'place' : settings.drop,
    counting: lookAlike && site.lookAlikes === 'each' ? 'each' : (counting ?? settings.counting),
  };
}

/** Picks as the device and the server's judge both need them: in a consolidated run one for all orders of a bin. */
const runPicks = async (on: Db | Tx, asked: PicksAsked): Promise<RunPick[]> =>
  together(await linePicks(on, asked)).map(({ pick }) => pick);

export async function runDetail(
  { db, clock }: Platform,
  { siteId, rights }: Pick<Actor, 'siteId' | 'rights'>,
  runId: string,
): Promise<RunDetail> {
  const [run] = await runSummaries(db, siteId, sql`r.id = ${runId}`);
  if (!run) throw notFound('run', runId);
  const [extra] = await rows<
    Pick<RunDetail, 'path' | 'startedAt' | 'leftAt'> & { proposed: string | null; front: RunDetail['cartFront'] }
  >(
    db,
    sql`
    select r.path, ${iso(sql`r.started_at`)} as "startedAt", ${iso(sql`r.left_at`)} as "leftAt", (
      select lane.code from run_position q join customer_order o on o.id = q.order_id left join departure d on d.id = o.departure_id
      join place lane on lane.id = coalesce(o.lane_id, d.lane_id) where q.run_id = r.id group by lane.code order by count(*) desc, lane.code limit 1
    ) as proposed, ${cartFrontOf} as front from run r where r.id = ${runId}`,
  );
  const positions = await rows<RunDetail['positions'][number]>(
    db,
    sql`select q.number, o.id, o.number as "order", c.name as customer, k.lines, k.units,
               (select s.id from shipment s where s.order_id = o.id and s.state = 'open') as shipment from run_position q join customer_order o on o.id = q.order_id
        join customer c on c.id = o.customer_id cross join lateral (
          select count(distinct k.line_id)::int as lines, coalesce(sum(k.units), 0)::int as units from pick k
          where k.run_id = q.run_id and k.order_id = o.id and k.state <> 'out'
        ) k where q.run_id = ${runId} and k.lines > 0 order by q.number`,
  );
  const people = await rows<RunDetail['people'][number]>(
    db,
    sql`
    select distinct p.id, p.name from session s join person p on p.id = s.person_id
    join membership m on m.person_id = p.id and m.site_id = s.site_id and m.active
    join role r on r.site_id = m.site_id and r.name = any(m.roles) and 'runs.pick' = any(r.rights)
    where s.site_id = ${siteId} and s.expires_at > ${clock().toISOString()} order by p.name limit 60`,
  );
  const { stages, expressLane } = await settingsOf(db, siteId);
  const lanes = await rows<RunDetail['lanes'][number]>(
    db,
    sql`select p.code, p.name, case when p.x is not null then jsonb_build_object('x', p.x, 'y', p.y) end as at, p.fits, p.kind = 'bench' as bench,
               (select count(*)::int from run r where r.lane_id = p.id and r.state = 'left') as carts
        from place p where p.site_id = ${siteId} and ${takesCarts(stages)} and not p.retired order by p.kind desc, p.code`,
  );
  const picks = await runPicks(db, { siteId, runId, rights, now: clock() });
  // Goods that are in their cartons already need no bench.
  const loose = picks.filter((p) => !p.step.carton).map((p) => p.order.id);
  const packs = stages === 'pick-pack-ship' && (await packedOrders(db, loose)).size > 0;
  const bench = packs ? await benchOf(db, siteId, runId) : null;
  return {
    run,
    cartFront: extra!.front,
    positions,
    picks,
    cartons: await cartonsOf(db, runId),
    setUp: run.state === 'picking' ? await setUpOf(db, siteId, runId) : null,
    path: extra!.path,
    startedAt: extra!.startedAt,
    leftAt: extra!.leftAt,
    lanes,
    people,
    // Urgent work goes where whoever packs looks first.
    proposedLane: run.priority > 0 && expressLane !== '' ? expressLane : (bench ?? extra!.proposed),
    stages,
  };
}

/** Other runs of a run's wave that are not done, and which of its orders each picks a part of. */
export async function runsBeside({ db }: Platform, siteId: string, runId: string): Promise<RunsBeside> {
  const beside = await rows<RunsBeside['beside'][number]>(
    db,
    sql`
    select r.number as run, p.name as picker, count(k.id) filter (where k.state <> 'open')::int as done, count(k.id)::int as picks, lane.code as lane,
           coalesce(jsonb_agg(distinct o.number) filter (where exists (
             select 1 from run_position q where q.run_id = ${runId} and q.order_id = k.order_id)), '[]') as orders
    from run r join pick k on k.run_id = r.id and k.state <> 'out' join customer_order o on o.id = k.order_id
    left join person p on p.id = r.picker_id left join place lane on lane.id = r.lane_id
    where r.wave_id = (select wave_id from run where id = ${runId} and site_id = ${siteId}) and r.id <> ${runId} and r.state in ('waiting', 'picking')
    group by r.id, p.name, lane.code order by r.number limit 30`,
  );
  return { beside };
}

export async function floorPlan({ db }: Platform, siteId: string): Promise<FloorPlan> {
  const bins = await rows<FloorPlan['bins'][number]>(
    db,
    sql`select p.code as bin, p.aisle, p.y, coalesce(p.side, '') as side, coalesce(z.code, '') as zone, coalesce(k.units, 0)::int as open from place p
        left join zone z on z.id = p.zone_id left join (
          select bin_id, sum(units - picked) as units from pick where state = 'open' group by 1) k on k.bin_id = p.id
        where p.site_id = ${siteId} and p.kind = 'bin' and not p.retired order by p.code`,
  );
  const zones = await rows<FloorPlan['zones'][number]>(
    db,
    sql`select code, name, temperature = 'chilled' as cold from zone where site_id = ${siteId} order by code`,
  );
  const places = await rows<FloorPlan['places'][number]>(
    db,
    sql`select code, kind, x, y from place where site_id = ${siteId} and kind in ('lane', 'bench', 'door') and not retired and x is not null and y is not null order by code`,
  );
  return { ...(await layoutOf(db, siteId)), bins, zones, places };
}
