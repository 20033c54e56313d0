import { getTableColumns, sql } from 'drizzle-orm';
import { toSnakeCase } from 'drizzle-orm/casing';
import type { PgTable } from 'drizzle-orm/pg-core';
import { departureFor, localDate } from '@hand-relay/core/calendar';
import { hashSecret, recordset, tables, type Db } from '@hand-relay/server';
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

/** Fills an empty database with the demo scenario, dated from the given instant. */
export async function loadScenario(
  db: Db,
  now: Date,
  options: { size?: number; seed?: number } = {},
): Promise<Scenario> {
  const { site } = house;
  const today = localDate(now.getTime(), site.timeZone);
  const world = scenario({ today, ...options });
  const [password, pin] = await Promise.all([hashSecret(house.PASSWORD), hashSecret(house.PIN)]);
  await db.transaction(async (tx) => {
    await insert(tx, tables.site, [{ ...site, gs1Prefix: COMPANY_PREFIX, ssccExtension: 3, floor, start }]);
    await insert(
      tx,
      tables.person,
      house.people.map((p) => ({
        ...p,
        roles: [...p.roles],
        siteId: site.id,
        passwordHash: p.login ? password : null,
        pinHash: p.badge ? pin : null,
      })),
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
    await insert(
      tx,
      tables.movement,
      world.stock.map((s) => ({
        at: now,
        siteId: site.id,
        fromPlace: `outside-${site.id}`,
        toPlace: `bin-${s.bin}`,
        itemId: s.item,
        lot: s.lot,
        serial: s.serial,
        units: s.units,
        reason: 'opening stock',
      })),
    );
    await insert(
      tx,
      tables.customer,
      world.customers.map((c) => ({ ...c, id: `customer-${c.number}` })),
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
      house.departures.map(({ lane, door, ...d }) => ({
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
      tables.palletType,
      house.palletTypes.map((p) => ({ ...p })),
    );
    await insertOrders(tx, world, now);
  });
  await db.execute(sql`analyze`);
  return world;
}

function places(world: Scenario): (typeof tables.place.$inferInsert)[] {
  const { site } = house;
  const named = (kind: 'lane' | 'bench' | 'door', codes: readonly string[], name: string) =>
    codes.map((code, i) => ({ id: `place-${code}`, siteId: site.id, kind, code, name: `${name} ${i + 1}` }));
  return [
    { id: `outside-${site.id}`, siteId: site.id, kind: 'outside', code: 'OUTSIDE', name: 'Beyond the doors' },
    { id: `inquiry-${site.id}`, siteId: site.id, kind: 'inquiry', code: 'TO-COUNT', name: 'Waits for a count' },
    ...named('lane', house.lanes, 'Lane'),
    ...named('bench', house.benches, 'Bench'),
    ...named('door', house.doors, 'Door'),
    ...world.bins.map((b) => ({
      ...b,
      id: `bin-${b.code}`,
      siteId: site.id,
      kind: 'bin' as const,
      zoneId: `zone-${b.zone}`,
      zone: undefined,
    })),
  ];
}

async function insertOrders(tx: Tx, world: Scenario, now: Date): Promise<void> {
  const { site, departures } = house;
  const timetable = departures.map((d) => ({ ...d, days: [...d.days] }));
  const rows = world.orders.map((order) => {
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
    world.orders.flatMap((order) =>
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
