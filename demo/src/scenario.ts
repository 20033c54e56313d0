import { addDays } from '@hand-relay/core/calendar';
import { checkDigit } from '@hand-relay/core/reading/gs1';
import { seeded, type Random } from '@hand-relay/core/random';
import type { Floor, Place } from '@hand-relay/core/walking/floor';
import { families, type Family, type Variant } from './catalogue.ts';

/** GS1 keeps prefix 952 for demonstrations: no real company has these numbers. */
export const COMPANY_PREFIX = '9521234';

export interface ScenarioOptions {
  /** First day of the scenario, the site's today. */
  today: string;
  seed?: number;
  /** 1 gives 260 orders; orders and stock grow with it. */
  size?: number;
}

export interface ScenarioItem extends Omit<Variant, 'mark'> {
  id: string;
  sku: string;
  family: Family;
  picture: string;
  packs: { gtin: string; level: 'unit' | 'inner' | 'outer'; units: number }[];
}

export interface Bin {
  code: string;
  zone: string;
  aisle: string;
  y: number;
  side: 'left' | 'right';
  level: number;
  bay: number;
  /** Number in the site's own order of walking, where it has one. */
  sequence?: number;
}

export interface StockRow {
  bin: string;
  item: string;
  lot: string;
  serial: string;
  units: number;
}

export interface ScenarioOrder {
  number: string;
  channel: 'web' | 'account' | 'field';
  customer: string;
  reference: string;
  due: string;
  priority: number;
  shipComplete: boolean;
  shipTo: { name: string; street: string; postcode: string; city: string; country: string };
  note: string;
  lines: { line: number; item: ScenarioItem; quantity: number; pack: 'unit' | 'inner' | 'outer'; note: string }[];
}

export interface Customer {
  number: string;
  name: string;
  class: 'A' | 'B' | 'C';
  minShelfDays: number;
  street: string;
  postcode: string;
  city: string;
  country: string;
}

const AISLES = 'ABCDEFGHJKLM'.split('');
const BAYS = 32;
/** Metres: a bay, the gap between aisles, and where the cross aisles run. */
const BAY = 1.2;
const AISLE_GAP = 3.4;

export const floor: Floor = {
  aisles: AISLES.map((id, i) => ({ id, x: Math.round(i * AISLE_GAP * 10) / 10 })),
  crossAisles: [0, 12, 24],
};
export const start: Place = { aisle: 'F', y: 0 };

export const zones = [
  { code: 'small', name: 'Small goods', temperature: 'ambient', locked: false },
  { code: 'hive', name: 'Hive parts', temperature: 'ambient', locked: false },
  { code: 'glass', name: 'Glass', temperature: 'ambient', locked: false },
  { code: 'cloth', name: 'Clothing', temperature: 'ambient', locked: false },
  { code: 'treat', name: 'Treatments', temperature: 'ambient', locked: false },
  { code: 'cage', name: 'Cage', temperature: 'ambient', locked: true },
  { code: 'heavy', name: 'Heavy goods', temperature: 'ambient', locked: false },
  { code: 'chill', name: 'Chilled', temperature: 'chilled', locked: false },
] as const;

function zoneOf(aisle: string, column: number): string {
  if ('AB'.includes(aisle)) return 'small';
  if ('CDEF'.includes(aisle)) return 'hive';
  if ('GH'.includes(aisle)) return 'glass';
  if (aisle === 'J') return 'cloth';
  if (aisle === 'K') return column <= 8 ? 'treat' : 'cage';
  return aisle === 'L' ? 'heavy' : 'chill';
}

/** Odd bays stand on the left of an aisle, even ones on the right; eight columns to a block. */
function bins(): Bin[] {
  return AISLES.flatMap((aisle) =>
    Array.from({ length: BAYS }, (_, i) => i + 1).flatMap((bay) => {
      const column = Math.ceil(bay / 2);
      const y = Math.round(((column > 8 ? 12 + (column - 8) * BAY : column * BAY) + 0.6) * 10) / 10;
      const zone = zoneOf(aisle, column);
      const levels = zone === 'heavy' ? 2 : zone === 'chill' ? 3 : 4;
      return Array.from({ length: levels }, (_, l) => ({
        code: `${aisle}-${String(bay).padStart(2, '0')}-${l + 1}`,
        zone,
        aisle,
        y,
        side: bay % 2 === 1 ? ('left' as const) : ('right' as const),
        level: l + 1,
        bay,
      }));
    }),
  );
}

function gtin(indicator: number, reference: number): string {
  const body = `${indicator}${COMPANY_PREFIX}${String(reference).padStart(5, '0')}`;
  return body + checkDigit(body);
}

function items(): ScenarioItem[] {
  let reference = 100;
  return families.flatMap((family) =>
    family.variants.map((v, i) => {
      reference += 1;
      const [inner, outer] = family.packs;
      const sku = `${family.code}-${String(i + 1).padStart(3, '0')}`;
      return {
        ...v,
        id: `item-${sku.toLowerCase()}`,
        sku,
        family,
        picture: `${family.picture}/${v.mark}/${i}`,
        packs: [
          { gtin: gtin(0, reference), level: 'unit' as const, units: 1 },
          ...(inner ? [{ gtin: gtin(1, reference), level: 'inner' as const, units: inner }] : []),
          ...(outer ? [{ gtin: gtin(2, reference), level: 'outer' as const, units: outer }] : []),
        ],
      };
    }),
  );
}

const towns = [
  'Harrowick',
  'Pelham Moor',
  'Ostlebridge',
  'Thornbeck',
  'Wicken Vale',
  'Marsh Ellery',
  'Coldharbour Green',
  'Ravensby',
  'Upper Tansy',
  'Dunmere',
  'Foxley Cross',
  'Saltby',
] as const;
const streets = [
  'Orchard Lane',
  'Mill Road',
  'Station Street',
  'Heath Way',
  'Chapel Hill',
  'Bramble Close',
  'Ferry Road',
  'Weir Street',
] as const;
const forms = [
  'Apiaries',
  'Honey Farm',
  'Garden Centre',
  'Bee Supplies',
  'Farm Shop',
  'Orchards',
  'Pollination',
  'Allotment Society',
] as const;
const stems = [
  'Heron',
  'Quarry',
  'Willowmere',
  'Bellweather',
  'Cobnut',
  'Fernhill',
  'Goldcrest',
  'Hollin',
  'Juniper',
  'Kestrel',
  'Linnet',
  'Maythorn',
  'Nettlefield',
  'Oakshaw',
] as const;

function address(random: Random) {
  const town = random.int(0, towns.length - 1);
  return {
    street: `${random.int(1, 180)} ${random.pick(streets)}`,
    postcode: `Z${random.pick('ABCDEFGH'.split(''))}${random.int(1, 19)} ${random.int(1, 9)}${random.pick('ADEHJL'.split(''))}${random.pick('BFGNPT'.split(''))}`,
    city: towns[town]!,
    country: 'GB',
  };
}

function customers(random: Random): Customer[] {
  return Array.from({ length: 40 }, (_, i) => {
    const grade = i < 8 ? 'A' : i < 22 ? 'B' : 'C';
    return {
      number: `C${1001 + i}`,
      name: `${stems[i % stems.length]} ${forms[(i * 3 + Math.floor(i / stems.length)) % forms.length]}`,
      class: grade,
      minShelfDays: grade === 'A' ? 60 : grade === 'B' ? 30 : 0,
      ...address(random),
    };
  });
}

/** Opening stock: every item in one to four bins of its zone; one item in fifteen is scarce. */
function stock(random: Random, all: ScenarioItem[], size: number, today: string) {
  const free = new Map<string, Bin[]>();
  for (const bin of bins()) free.set(bin.zone, [...(free.get(bin.zone) ?? []), bin]);
  const rows: StockRow[] = [];
  const lots: { item: string; lot: string; bestBefore: string }[] = [];
  all.forEach((item, n) => {
    const { family } = item;
    const scarce = n % 15 === 7;
    const base =
      family.handling === 'two-person' ? 8 : family.tracksSerial ? 9 : family.demand * (family.packs[0] ? 42 : 14);
    const total = Math.max(2, Math.round(base * size * (scarce ? 0.12 : 0.8 + random.next() * 0.6)));
    const places = scarce
      ? 1
      : family.tracksLot
        ? random.int(2, 3)
        : Math.min(total, random.weighted([5, 4, 2, 1]) + 1);
    const shelf = free.get(family.zone)!;
    const own = Array.from({ length: places }, () => shelf.splice(random.int(0, shelf.length - 1), 1)[0]).filter(
      (b): b is Bin => b !== undefined,
    );
    const lotCount = family.tracksLot ? Math.min(2, own.length) : 0;
    const names = Array.from({ length: lotCount }, (_, l) => {
      const lot = `${String.fromCharCode(65 + (n % 24))}${random.int(10, 99)}${String(l + 1).padStart(2, '0')}`;
      lots.push({
        item: item.id,
        lot,
        bestBefore: addDays(today, l === 0 ? random.int(20, 75) : random.int(120, 300)),
      });
      return lot;
    });
    own.forEach((bin, b) => {
      const units = Math.floor(total / own.length) + (b < total % own.length ? 1 : 0);
      if (units === 0) return;
      const lot = names.length > 0 ? names[b % names.length]! : '';
      if (!family.tracksSerial) rows.push({ bin: bin.code, item: item.id, lot, serial: '', units });
      else
        for (let s = 0; s < units; s++)
          rows.push({
            bin: bin.code,
            item: item.id,
            lot,
            serial: `${family.code}${String(n).padStart(3, '0')}${b}${String(s + 1).padStart(4, '0')}`,
            units: 1,
          });
    });
  });
  return { rows, lots };
}

const notes = [
  'Ring before delivery',
  'Gift: no invoice in the box',
  'Fragile, please pad well',
  'Leave with the neighbour',
] as const;

function orders(random: Random, all: ScenarioItem[], houses: Customer[], size: number, today: string): ScenarioOrder[] {
  const weights = all.map((i) => i.family.demand / i.family.variants.length ** 0.7);
  return Array.from({ length: 260 * size }, (_, n) => {
    const channel = (['web', 'account', 'field'] as const)[random.weighted([52, 28, 20])]!;
    const house = houses[channel === 'web' ? random.int(8, 39) : random.int(0, 21)]!;
    const count = channel === 'web' ? 1 + random.weighted([30, 26, 18, 12, 8, 4, 2]) : random.int(3, 14);
    const chosen = new Set<number>();
    while (chosen.size < count) chosen.add(random.weighted(weights));
    const away = channel === 'web' && random.next() < 0.3 ? address(random) : null;
    return {
      number: `LA-${20_001 + n}`,
      channel,
      customer: house.number,
      reference: channel === 'account' ? `PO ${random.int(10_000, 99_999)}` : '',
      due: addDays(today, random.weighted([34, 30, 22, 14])),
      priority:
        house.class === 'A'
          ? random.pick([1, 2, 3])
          : house.class === 'B'
            ? random.pick([3, 4, 5])
            : random.pick([4, 5, 6]),
      shipComplete: random.next() < 0.12,
      shipTo: {
        name: house.name,
        street: (away ?? house).street,
        postcode: (away ?? house).postcode,
        city: (away ?? house).city,
        country: house.country,
      },
      note: random.next() < 0.12 ? random.pick(notes) : '',
      lines: [...chosen].map((index, l) => {
        const item = all[index]!;
        const inner = item.packs.find((p) => p.level === 'inner');
        const large = channel !== 'web' && inner && random.next() < 0.45;
        const few = item.family.handling === 'two-person' || item.family.tracksSerial;
        return {
          line: l + 1,
          item,
          quantity: few ? 1 : large ? random.int(1, 3) : random.int(1, channel === 'web' ? 4 : 8),
          pack: large ? ('inner' as const) : ('unit' as const),
          note: random.next() < 0.03 ? 'Not the old design' : '',
        };
      }),
    };
  });
}

export interface Scenario {
  items: ScenarioItem[];
  bins: Bin[];
  customers: Customer[];
  stock: StockRow[];
  lots: { item: string; lot: string; bestBefore: string }[];
  orders: ScenarioOrder[];
}

/** The whole scenario: the same options give the same data on any machine. */
export function scenario({ today, seed = 1, size = 1 }: ScenarioOptions): Scenario {
  const random = seeded(seed);
  const all = items();
  const houses = customers(random);
  return {
    items: all,
    bins: bins(),
    customers: houses,
    ...(({ rows, lots }) => ({ stock: rows, lots }))(stock(random, all, size, today)),
    orders: orders(random, all, houses, size, today),
  };
}
