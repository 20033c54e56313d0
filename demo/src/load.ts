import { hazardOf } from './catalogue.ts';
import { firstHolds, rulesOf, stoppedCustomer } from './holds.ts';
import { comingSupply } from './supply.ts';
import { getTableColumns, sql } from 'drizzle-orm';
import { toSnakeCase } from 'drizzle-orm/casing';
import type { PgTable } from 'drizzle-orm/pg-core';
import { STANDIN_SCALE } from '@hand-relay/core/handling/weighing';
import { allocate } from '@hand-relay/core/deciding/allocation';
import { departureFor, localDate } from '@hand-relay/core/calendar';
import { firstRoles } from '@hand-relay/contract';
import { hashSecret, recordset, tables, type Db } from '@hand-relay/server';
import {
  depot,
  depotCarts,
  depotDepartures,
  depotFloor,
  depotLanes,
  depotPeople,
  depotSettings,
  depotWorld,
  onlyAtDepot,
} from './depot.ts';
import * as house from './house.ts';
import { COMPANY_PREFIX, floor, scenario, start, zones, type Scenario } from './scenario.ts';

const CHUNK = 4000;

type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

/** Whole lists in one statement of one value: building and parsing thousands of single values takes longer than storing them. */
async function insert<T extends PgTable>(tx: Tx, table: T, list: T['$inferInsert'][]): Promise<void> {
  const rows = list as Record<string, unknown>[];
  const columns = Object.entries(getTableColumns(table)).filter(([key]) => rows.some((row) => row[key] !== undefined));
  const named = sql.raw(columns.map(([key]) => `"${toSnakeCase(key)}"`).join(', '));
  for (let i = 0; i < rows.length; i += CHUNK) {
    const data = rows
      .slice(i, i + CHUNK)
      .map((row) =>
        Object.fromEntries(columns.map(([key, { default: other }]) => [toSnakeCase(key), row[key] ?? other])),
      );
    await tx.execute(
      sql`insert into ${table} (${named}) select ${named} from jsonb_populate_recordset(null::${table}, ${recordset(data)})`,
    );
  }
}

/** Whether a database already holds a site, the demo's or another. */
export async function isFilled(db: Db): Promise<boolean> {
  return (await db.select({ id: tables.site.id }).from(tables.site).limit(1)).length > 0;
}

interface LoadOptions {
  /** How many times the usual orders and stock; 1 without it. */
  size?: number;
  seed?: number;
  /** The first day on which orders are due; that of the given instant without it. */
  today?: string;
  /** Departures with other cut-offs than the usual ones. */
  departures?: readonly (Omit<(typeof house.departures)[number], 'cutOff'> & { cutOff: string })[];
}

/** Fills an empty database with the demo scenario, whose stock and orders came in at the given instant. */
export async function loadScenario(
  db: Db,
  now: Date,
  { departures = house.departures, today, ...options }: LoadOptions = {},
): Promise<Scenario> {
  const { site } = house;
  const firstDay = today ?? localDate(now.getTime(), site.timeZone);
  const world = scenario({ today: firstDay, ...options });
  const [password, pin] = await Promise.all([hashSecret(house.PASSWORD), hashSecret(house.PIN)]);
  const personRow = (p: Someone, siteId: string) => ({
    id: p.id,
    name: p.name,
    login: p.login,
    badge: p.badge,
    siteId,
    passwordHash: p.login ? password : null,
    pinHash: p.badge ? pin : null,
  });
  await db.transaction(async (tx) => {
    await insert(tx, tables.site, [
      { ...site, gs1Prefix: COMPANY_PREFIX, ssccExtension: 3, floor, start, settings: { work: house.settings } },
    ]);
    await insert(
      tx,
      tables.person,
      house.people.map((p) => personRow(p, site.id)),
    );
    await insert(tx, tables.role, rolesAt(site.id));
    await insert(
      tx,
      tables.membership,
      house.people.map((p) => ({ personId: p.id, siteId: site.id, roles: [...p.roles] })),
    );
    await insert(
      tx,
      tables.printer,
      house.printers.map((p) => ({ ...p, stations: [...p.stations], siteId: site.id })),
    );
    await insert(
      tx,
      tables.zone,
      zones.map((z) => ({ ...z, id: `zone-${z.code}`, siteId: site.id })),
    );
    await insert(tx, tables.place, places(world));
    await insert(
      tx,
      tables.item,
      world.items.map(
        ({ family, size, mark: _, packs: __, ...item }: Scenario['items'][number] & { mark?: string }) => ({
          ...item,
          unit: family.unit,
          lengthMm: size[0],
          widthMm: size[1],
          heightMm: size[2],
          handling: family.handling,
          temperature: family.temperature,
          apart: family.apart,
          hazard: hazardOf(item.name),
          keepUpright: family.keepUpright,
          maxLoadG: family.bears === null ? null : family.bears * item.weightG,
          tracksLot: family.tracksLot,
          tracksSerial: family.tracksSerial,
        }),
      ),
    );
    await insert(
      tx,
      tables.itemPack,
      world.items.flatMap((i) => i.packs.map((p) => ({ ...p, itemId: i.id }))),
    );
    await insert(
      tx,
      tables.lot,
      world.lots.map((l) => ({ itemId: l.item, lot: l.lot, bestBefore: l.bestBefore })),
    );
    await insert(tx, tables.movement, stockRows(world.stock, site.id, now));
    await insert(
      tx,
      tables.customer,
      world.customers.map((c) => ({
        ...c,
        id: `customer-${c.number}`,
        creditStop: c.number === stoppedCustomer(world),
      })),
    );
    await insert(
      tx,
      tables.carrier,
      house.carriers.map((c) => ({ ...c })),
    );
    await insert(
      tx,
      tables.service,
      house.services.map((s) => ({ ...s })),
    );
    await insert(
      tx,
      tables.departure,
      departures.map(({ lane, door, ...d }) => ({
        ...d,
        siteId: site.id,
        laneId: `place-${lane}`,
        doorId: `place-${door}`,
      })),
    );
    await insert(
      tx,
      tables.cartType,
      house.cartTypes.map((c) => ({ ...c })),
    );
    await insert(
      tx,
      tables.cart,
      house.carts.map((c) => ({ ...c, siteId: site.id })),
    );
    await insert(
      tx,
      tables.cartonType,
      house.cartonTypes.map((c) => ({ ...c, innerMm: [...c.innerMm] })),
    );
    await insert(
      tx,
      tables.vehicleType,
      house.vehicleTypes.map(({ inside, ...v }) => ({
        ...v,
        lengthMm: inside[0],
        widthMm: inside[1],
        heightMm: inside[2],
      })),
    );
    await insert(
      tx,
      tables.palletType,
      house.palletTypes.map((p) => ({ ...p })),
    );
    await insert(
      tx,
      tables.packaging,
      house.packaging.map((p) => ({ siteId: site.id, lookedAt: now, ...p })),
    );
    await insert(
      tx,
      tables.timetable,
      house.timetable.map((entry) => ({ ...entry, siteId: site.id })),
    );
    await insertOrders(tx, world.orders, { now, site, departures });
    await insertHolds(tx, { siteId: site.id, orders: world.orders, stopped: stoppedCustomer(world), now });
    await insert(
      tx,
      tables.expectedSupply,
      comingSupply(world, firstDay).map((c) => ({ ...c, siteId: site.id })),
    );
    await insert(
      tx,
      tables.packRule,
      house.packRules.map((rule) => ({ country: '', ...rule, siteId: site.id })),
    );
    // One account wants its dated goods to keep longer than it wants of all else.
    const picky = world.customers.find((c) => c.class === 'A')!;
    await insert(
      tx,
      tables.minimumShelfLife,
      world.items
        .filter((i) => i.family.tracksLot)
        .slice(0, 3)
        .map((i) => ({ customerId: `customer-${picky.number}`, itemId: i.id, days: 90 })),
    );
    await insert(tx, tables.site, [
      {
        ...depot,
        gs1Prefix: COMPANY_PREFIX,
        ssccExtension: 4,
        floor: depotFloor,
        start: { aisle: 'N1', y: 0 },
        settings: { work: depotSettings },
      },
    ]);
    await insert(
      tx,
      tables.person,
      onlyAtDepot.map((p) => personRow(p, depot.id)),
    );
    await loadDepot(tx, world, { now, today: firstDay });
  });
  await db.execute(sql`analyze`);
  return world;
}

const binRows = (bins: Scenario['bins'], siteId: string) =>
  bins.map(({ zone, ...b }) => ({ ...b, id: `bin-${b.code}`, siteId, kind: 'bin' as const, zoneId: `zone-${zone}` }));

const stockRows = (stock: Scenario['stock'], siteId: string, at: Date) =>
  stock.map((s) => ({
    at,
    siteId,
    fromPlace: `outside-${siteId}`,
    toPlace: `bin-${s.bin}`,
    itemId: s.item,
    lot: s.lot,
    serial: s.serial,
    units: s.units,
    reason: 'opening stock',
  }));

function places(world: Scenario): (typeof tables.place.$inferInsert)[] {
  const { site } = house;
  /** Side by side in front of the aisles, `y` metres along, from `x` on. */
  const named = (
    kind: 'lane' | 'bench' | 'door',
    codes: readonly string[],
    { name, x, apart, y }: { name: string; x: number; apart: number; y: number },
  ) =>
    codes.map((code, i) => ({
      id: `place-${code}`,
      siteId: site.id,
      kind,
      code,
      name: `${name} ${i + 1}`,
      x: x + i * apart,
      y,
      ...(kind === 'lane' ? { fits: house.LANE_FITS } : {}),
      ...(kind === 'bench' ? { scale: STANDIN_SCALE } : {}),
    }));
  return [
    { id: `outside-${site.id}`, siteId: site.id, kind: 'outside', code: 'OUTSIDE', name: 'Beyond the doors' },
    { id: `inquiry-${site.id}`, siteId: site.id, kind: 'discrepancy', code: 'TO-COUNT', name: 'Waits for a count' },
    ...named('lane', house.lanes, { name: 'Lane', x: 3, apart: 8, y: -4 }),
    ...named('bench', house.benches, { name: 'Bench', x: 7, apart: 8, y: -7 }).map((b) =>
      b.code === house.freightBench.code ? { ...b, ...house.freightBench } : b,
    ),
    ...named('door', house.doors, { name: 'Door', x: 7, apart: 12, y: -10 }),
    ...binRows(world.bins, site.id),
  ];
}

type Timetable = readonly {
  id: string;
  serviceId: string;
  cutOff: string;
  days: readonly number[];
  channel: 'web' | 'account' | 'field' | null;
}[];

async function insertOrders(
  tx: Tx,
  list: Scenario['orders'],
  { now, site, departures }: { now: Date; site: { id: string; timeZone: string }; departures: Timetable },
): Promise<void> {
  const timetable = departures.map((d) => ({ ...d, days: [...d.days] }));
  const rows = list.map((order) => {
    const leaves = departureFor(order, timetable, site.timeZone);
    return {
      id: `order-${order.number.toLowerCase()}`,
      siteId: site.id,
      number: order.number,
      channel: order.channel,
      customerId: `customer-${order.customer}`,
      reference: order.reference,
      due: order.due,
      leavesAt: leaves ? new Date(leaves.leavesAt) : null,
      departureId: leaves?.id ?? null,
      priority: order.priority,
      shipComplete: order.shipComplete,
      shipName: order.shipTo.name,
      shipStreet: order.shipTo.street,
      shipPostcode: order.shipTo.postcode,
      shipCity: order.shipTo.city,
      shipCountry: order.shipTo.country,
      note: order.note,
      document: 'demo scenario',
      createdAt: now,
    };
  });
  await insert(tx, tables.order, rows);
  await insert(
    tx,
    tables.orderLine,
    list.flatMap((order) =>
      order.lines.map((l) => ({
        id: `line-${order.number.toLowerCase()}-${l.line}`,
        orderId: `order-${order.number.toLowerCase()}`,
        line: l.line,
        itemId: l.item.id,
        quantity: l.quantity,
        pack: l.pack,
        note: l.note,
        asked: l.quantity * l.item.packs.find((p) => p.level === l.pack)!.units,
      })),
    ),
  );
  await insert(
    tx,
    tables.journal,
    rows.map((o) => ({
      at: now,
      siteId: site.id,
      device: 'demo',
      requestId: 'demo',
      kind: 'order-taken',
      orderId: o.id,
      facts: { document: o.document },
    })),
  );
}

interface Someone {
  id: string;
  name: string;
  login: string | null;
  badge: string | null;
}

const rolesAt = (siteId: string) =>
  Object.entries(firstRoles).map(([name, rights]) => ({ siteId, name, rights: [...rights] }));

/** The second site: its floor, people, stock and orders, each order promised its stock. */
/** The hold rules of a site, and what they hold of its orders. */
async function insertHolds(
  tx: Tx,
  { siteId, orders, stopped, now }: { siteId: string; orders: Scenario['orders']; stopped: string; now: Date },
): Promise<void> {
  await insert(tx, tables.holdRule, rulesOf(siteId));
  await insert(
    tx,
    tables.orderHold,
    firstHolds(siteId, orders, stopped).map((h) => ({ ...h, heldAt: now })),
  );
}

async function loadDepot(tx: Tx, house1: Scenario, { now, today }: { now: Date; today: string }): Promise<void> {
  const siteId = depot.id;
  const world = depotWorld(house1, today);
  await insert(tx, tables.role, rolesAt(siteId));
  await insert(
    tx,
    tables.membership,
    depotPeople.map((p) => ({ personId: p.id, siteId, roles: [...p.roles] })),
  );
  await insert(tx, tables.zone, [{ id: 'zone-depot', siteId, code: 'depot', name: 'Depot', temperature: 'ambient' }]);
  await insert(tx, tables.place, [
    { id: `outside-${siteId}`, siteId, kind: 'outside', code: 'OUTSIDE', name: 'Beyond the doors' },
    { id: `inquiry-${siteId}`, siteId, kind: 'discrepancy', code: 'TO-COUNT', name: 'Waits for a count' },
    ...depotLanes.map((code, i) => ({
      id: `place-${code}`,
      siteId,
      kind: 'lane' as const,
      code,
      name: `Lane north ${i + 1}`,
      x: 2 + 8 * i,
      y: -3,
    })),
    { id: 'place-NORTH-DOOR', siteId, kind: 'door', code: 'NORTH-DOOR', name: 'North door', x: 6, y: -5.5 },
    ...binRows(world.bins, siteId),
  ]);
  await insert(tx, tables.movement, stockRows(world.stock, siteId, now));
  const departures = depotDepartures.map((d) => ({ ...d, days: [1, 2, 3, 4, 5, 6, 7] }));
  await insert(
    tx,
    tables.departure,
    departures.map(({ lane, ...d }) => ({ ...d, siteId, laneId: `place-${lane}`, doorId: 'place-NORTH-DOOR' })),
  );
  await insert(
    tx,
    tables.cart,
    depotCarts.map((code) => ({ siteId, code, typeId: 'cart-4' })),
  );
  await insertOrders(tx, world.orders, { now, site: depot, departures });
  await insertHolds(tx, { siteId, orders: world.orders, stopped: stoppedCustomer(house1), now });
  const { promises } = allocate(
    world.stock.map(({ item, units }) => ({ item, lot: null, bestBefore: null, units })),
    world.orders.map((order) => ({
      id: order.number,
      priority: order.priority,
      shipDate: order.due,
      shipComplete: order.shipComplete,
      lines: order.lines.map((l) => ({
        id: `line-${order.number.toLowerCase()}-${l.line}`,
        item: l.item.id,
        units: l.quantity,
        minShelfDays: 0,
      })),
    })),
    { policy: 'priority' },
  );
  const itemOf = new Map(
    world.orders.flatMap((o) => o.lines.map((l) => [`line-${o.number.toLowerCase()}-${l.line}`, l.item.id])),
  );
  await insert(
    tx,
    tables.reservation,
    promises
      .filter((p) => p.units > 0)
      .map((p) => ({
        waveId: null,
        lineId: p.line,
        siteId,
        itemId: itemOf.get(p.line)!,
        lot: '',
        units: p.units,
        hardAllocated: p.units,
      })),
  );
}
