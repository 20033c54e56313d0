import { addDays } from '@hand-relay/core/calendar';
import type { Floor } from '@hand-relay/core/walking/floor';
import { seeded } from '@hand-relay/core/random';
import { usualSettings, type SiteSettings } from '@hand-relay/core/deciding/settings';
import type { Bin, Scenario, ScenarioOrder, StockRow } from './scenario.ts';

/**
 * The house's second site: a small depot that packs nothing. What is picked stands on its cart at the dock until it is
 * shipped, and every order is promised its stock as it comes in.
 */
export const depot = {
  id: 'fennock',
  code: 'FK1',
  name: 'Fennock Depot',
  street: '11 Rushy Lane',
  city: 'Fennock',
  timeZone: 'Europe/London',
  currency: 'GBP',
} as const;

export const depotSettings: SiteSettings = {
  ...usualSettings,
  stages: 'pick-ship',
  reserve: 'intake',
  lotSwaps: true,
  // Nearest to the hand first, then what came first: the depot has no reach truck and turns its stock quickly.
  bins: ['home', 'reach', 'age', 'remainder'],
  // A trip ends at the last bin of its list and the next begins there, the other way round.
  walking: { by: 'sequence', between: 'chain', direction: 'alternate', acrossDepartures: true },
  ownTrips: true,
  askCart: false,
  picking: {
    one: { checks: ['bin', 'item'], order: 'either', counting: 'once', drop: 'place' },
    many: { checks: ['bin', 'item', 'lot', 'position'], order: 'either', counting: 'packs', drop: 'place' },
  },
};

/** Who works at the depot, by person; some of them at both sites. */
export const depotPeople = [
  { id: 'maren', roles: ['administrator', 'supervisor'] },
  { id: 'pico', roles: ['picker'] },
  { id: 'wren', roles: ['supervisor', 'loader'] },
  { id: 'osk', roles: ['picker', 'loader'] },
] as const;

/** Those of them who work nowhere else. */
export const onlyAtDepot = [
  { id: 'wren', name: 'Wren Abbot', login: 'wren', badge: 'BADGE-5001' },
  { id: 'osk', name: 'Osk Dallow', login: null, badge: 'BADGE-5002' },
] as const;

export const depotFloor: Floor = {
  aisles: ['N1', 'N2', 'N3', 'N4'].map((id, i) => ({ id, x: i * 4 })),
  crossAisles: [0, 13],
};
export const depotLanes = ['NORTH-1', 'NORTH-2'] as const;
export const depotCarts = ['TROLLEY-1', 'TROLLEY-2', 'TROLLEY-3', 'TROLLEY-4', 'TROLLEY-5', 'TROLLEY-6'] as const;
export const depotDepartures = [
  {
    id: 'dep-north-day',
    name: 'Skylark Day, north',
    serviceId: 'skylark-day',
    cutOff: '16:30',
    lane: 'NORTH-1',
    channel: 'web',
  },
  {
    id: 'dep-north-van',
    name: 'Van tour, depot',
    serviceId: 'ownvan-tour',
    cutOff: '14:00',
    lane: 'NORTH-2',
    channel: null,
  },
] as const;

export interface DepotWorld {
  bins: Bin[];
  stock: StockRow[];
  orders: ScenarioOrder[];
}

const BAYS = 20;
const LEVELS = 2;

/** Bins, stock and orders of the depot, out of what the house sells. */
export function depotWorld(
  { items, customers }: Pick<Scenario, 'items' | 'customers'>,
  today: string,
  seed = 7,
): DepotWorld {
  const random = seeded(seed);
  // Up the first aisle, down the next: the depot numbers its bins as its people walk.
  const bins = depotFloor.aisles.flatMap(({ id }, a) =>
    Array.from({ length: BAYS * LEVELS }, (_, i): Bin => {
      const bay = Math.floor(i / LEVELS) + 1;
      return {
        code: `${id}-${String(bay).padStart(2, '0')}-${(i % LEVELS) + 1}`,
        zone: 'depot',
        aisle: id,
        y: Math.ceil(bay / 2) * 1.2,
        side: bay % 2 === 1 ? 'left' : 'right',
        level: (i % LEVELS) + 1,
        bay,
        sequence: 10 * (a * BAYS + (a % 2 === 0 ? bay : BAYS + 1 - bay)),
      };
    }),
  );
  // Plain goods alone: what has lots, serial numbers or needs the cold stays at the main site.
  const sold = items
    .filter((i) => !i.family.tracksLot && !i.family.tracksSerial && i.family.temperature === 'ambient')
    .slice(0, 60);
  const stock = sold.map((item, i) => ({
    bin: bins[(i * 7) % bins.length]!.code,
    item: item.id,
    lot: '',
    serial: '',
    units: random.int(4, 60) * 2,
  }));
  const orders = Array.from({ length: 40 }, (_, n): ScenarioOrder => {
    const customer = customers[random.int(0, customers.length - 1)]!;
    const first = random.int(0, sold.length - 1);
    return {
      number: `FK-${30001 + n}`,
      channel: n % 3 === 0 ? 'field' : 'web',
      customer: customer.number,
      reference: '',
      due: addDays(today, n % 4 === 0 ? 1 : 0),
      priority: n % 10 === 0 ? 1 : 5,
      shipComplete: n % 8 === 5,
      shipTo: {
        name: customer.name,
        street: customer.street,
        postcode: customer.postcode,
        city: customer.city,
        country: customer.country,
      },
      note: '',
      lines: Array.from({ length: random.int(1, 4) }, (_, line) => ({
        line: line + 1,
        item: sold[(first + line * 11) % sold.length]!,
        quantity: random.int(1, 6),
        pack: 'unit' as const,
        note: '',
      })),
    };
  });
  return { bins, stock, orders };
}
