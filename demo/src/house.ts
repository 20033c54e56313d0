import { usualSettings, type SiteSettings } from '@hand-relay/core/deciding/settings';

/** The made-up house's people, carriers, carts and cartons. Passwords and PINs are for the demo alone. */
export const people = [
  { id: 'maren', name: 'Maren Holt', roles: ['administrator', 'supervisor'], login: 'maren', badge: 'BADGE-1001' },
  { id: 'tobi', name: 'Tobi Raske', roles: ['service'], login: 'tobi', badge: null },
  { id: 'ines', name: 'Ines Vedder', roles: ['manager'], login: 'ines', badge: null },
  { id: 'pico', name: 'Pico Lund', roles: ['picker'], login: null, badge: 'BADGE-2001' },
  { id: 'suri', name: 'Suri Okell', roles: ['picker'], login: null, badge: 'BADGE-2002' },
  { id: 'bram', name: 'Bram Tolley', roles: ['picker'], login: null, badge: 'BADGE-2003' },
  { id: 'ada', name: 'Ada Finnick', roles: ['packer'], login: null, badge: 'BADGE-3001' },
  { id: 'jory', name: 'Jory Marlow', roles: ['packer', 'loader'], login: null, badge: 'BADGE-3002' },
  { id: 'len', name: 'Len Corran', roles: ['loader'], login: 'len', badge: 'BADGE-4001' },
] as const;
export const PASSWORD = 'honeycomb';
export const PIN = '2468';

export const site = {
  id: 'larkmoor',
  code: 'LM1',
  name: 'Larkmoor Apiary Supply',
  street: '4 Skep Lane',
  city: 'Larkmoor',
  country: 'GB',
  timeZone: 'Europe/London',
  currency: 'GBP',
} as const;

/** What expires first goes first; then whole quantities, and among those what lies on the way of the run. */
export const settings: SiteSettings = { ...usualSettings, bins: ['expiry', 'whole', 'walk', 'remainder'] };

export const printers = [
  { code: 'LABEL-1', name: 'Labels, benches 1 and 2', prints: 'labels', stations: ['BENCH-1', 'BENCH-2'] },
  { code: 'LABEL-2', name: 'Labels, benches 3 and 4', prints: 'labels', stations: ['BENCH-3', 'BENCH-4'] },
  { code: 'LABEL-DOCK', name: 'Labels at the dock', prints: 'labels', stations: [] },
  { code: 'SHEETS', name: 'Sheets, shipping office', prints: 'sheets', stations: [] },
] as const;

export const carriers = [
  { id: 'skylark', name: 'Skylark Parcels', tracking: { kind: 's10' } },
  { id: 'fellhaul', name: 'Fellhaul Freight', tracking: { kind: 'prefix', prefix: 'FH', digits: 10 } },
  { id: 'ownvan', name: 'Own van', tracking: { kind: 'none' } },
] as const;

export const services = [
  { id: 'skylark-express', carrierId: 'skylark', name: 'Express' },
  { id: 'skylark-day', carrierId: 'skylark', name: 'Day' },
  { id: 'fellhaul-pallet', carrierId: 'fellhaul', name: 'Pallet' },
  { id: 'ownvan-tour', carrierId: 'ownvan', name: 'Tour' },
] as const;

const everyDay = [1, 2, 3, 4, 5, 6, 7];
export const departures = [
  {
    id: 'dep-express',
    name: 'Skylark Express',
    serviceId: 'skylark-express',
    cutOff: '13:30',
    days: everyDay,
    lane: 'LANE-1',
    door: 'DOOR-1',
    channel: 'web',
  },
  {
    id: 'dep-day',
    name: 'Skylark Day',
    serviceId: 'skylark-day',
    cutOff: '17:00',
    days: everyDay,
    lane: 'LANE-2',
    door: 'DOOR-1',
    channel: 'web',
  },
  {
    id: 'dep-pallet',
    name: 'Fellhaul Pallet',
    serviceId: 'fellhaul-pallet',
    cutOff: '16:00',
    days: everyDay,
    lane: 'LANE-3',
    door: 'DOOR-2',
    channel: 'account',
  },
  {
    id: 'dep-van',
    name: 'Van tour north',
    serviceId: 'ownvan-tour',
    cutOff: '15:00',
    days: everyDay,
    lane: 'LANE-4',
    door: 'DOOR-3',
    channel: 'field',
  },
] as const;

/** What gathers for each departure of the main site; only the parcels of the afternoon do so by themselves. */
export const timetable = [
  {
    id: 'tt-express',
    name: 'Express',
    departureId: 'dep-express',
    waveOrders: 60,
    picking: 'sort',
    gather: 'hand',
    plan: 'gathered',
    start: 'hand',
  },
  {
    id: 'tt-parcels',
    name: 'Parcels, afternoon',
    departureId: 'dep-day',
    waveOrders: 120,
    picking: 'sort',
    gather: 'hand',
    plan: 'hand',
    start: 'hand',
  },
  {
    id: 'tt-pallets',
    name: 'Key accounts',
    departureId: 'dep-pallet',
    waveOrders: 40,
    picking: 'zones',
    gather: 'hand',
    plan: 'hand',
    start: 'hand',
  },
  {
    id: 'tt-van',
    name: 'Van tour',
    departureId: 'dep-van',
    waveOrders: 40,
    picking: 'consolidate',
    gather: 'hand',
    plan: 'hand',
    start: 'hand',
  },
] as const;

export const lanes = ['LANE-1', 'LANE-2', 'LANE-3', 'LANE-4', 'LANE-5'] as const;
/** Carts that stand in a lane. */
export const LANE_FITS = 6;
export const benches = ['BENCH-1', 'BENCH-2', 'BENCH-3', 'BENCH-4'] as const;
/** Where freight is packed, on the bench beside the pallets. */
export const freightBench = { code: 'BENCH-1', forCarrier: 'Fellhaul Freight', fits: 4 } as const;
export const doors = ['DOOR-1', 'DOOR-2', 'DOOR-3'] as const;

export const cartTypes = [
  { id: 'cart-4', name: 'Platform, 4 places', positions: 4, across: 2, maxWeightG: 320_000, maxVolumeCm3: 1_600_000 },
  { id: 'cart-8', name: 'Shelf, 8 places', positions: 8, across: 4, maxWeightG: 240_000, maxVolumeCm3: 1_300_000 },
  { id: 'cart-12', name: 'Tote, 12 places', positions: 12, across: 4, maxWeightG: 260_000, maxVolumeCm3: 1_400_000 },
] as const;
export const carts = Array.from({ length: 24 }, (_, i) => ({
  code: `CART-${String(i + 1).padStart(2, '0')}`,
  typeId: i < 16 ? 'cart-12' : i < 21 ? 'cart-8' : 'cart-4',
}));

export const cartonTypes = [
  {
    id: 'box-xs',
    code: 'BOX-XS',
    name: 'Extra small',
    innerMm: [192, 142, 92],
    tareG: 90,
    maxWeightG: 5_000,
    costMinor: 28,
  },
  {
    id: 'box-s',
    code: 'BOX-S',
    name: 'Small',
    innerMm: [292, 192, 142],
    tareG: 170,
    maxWeightG: 10_000,
    costMinor: 46,
  },
  {
    id: 'box-m',
    code: 'BOX-M',
    name: 'Medium',
    innerMm: [392, 292, 192],
    tareG: 320,
    maxWeightG: 20_000,
    costMinor: 74,
  },
  {
    id: 'box-l',
    code: 'BOX-L',
    name: 'Large',
    innerMm: [592, 392, 292],
    tareG: 680,
    maxWeightG: 30_000,
    costMinor: 128,
  },
  {
    id: 'box-xl',
    code: 'BOX-XL',
    name: 'Extra large',
    innerMm: [592, 592, 492],
    tareG: 1_150,
    maxWeightG: 40_000,
    costMinor: 210,
  },
  {
    id: 'box-drum',
    code: 'BOX-DRUM',
    name: 'Extractor crate',
    innerMm: [892, 892, 942],
    tareG: 9_000,
    maxWeightG: 120_000,
    costMinor: 1_900,
  },
] as const;

/** How many go into a carton by agreement: jars as they are stacked at the shops, fewer for who sells them by the six. */
export const packRules = [
  { itemId: 'item-jr-005', typeId: 'box-m', perCarton: 12, perPallet: 480 },
  { itemId: 'item-jr-005', customerId: 'customer-C1001', typeId: 'box-s', perCarton: 6 },
  { itemId: 'item-jr-006', typeId: 'box-l', perCarton: 12, perPallet: 240 },
  { itemId: 'item-lb-005', country: 'IE', typeId: 'box-s', perCarton: 8 },
] as const;

/** The house's own van, and what carriers send: inside sizes of the usual bodies. */
export const vehicleTypes = [
  { id: 'van', name: 'Van 3.5 t', inside: [4_200, 1_760, 1_950], floorPlaces: 5, maxLoadG: 1_150_000 },
  { id: 'truck', name: 'Truck 12 t', inside: [7_200, 2_450, 2_500], floorPlaces: 18, maxLoadG: 5_500_000 },
  { id: 'trailer', name: 'Trailer 40 t', inside: [13_600, 2_450, 2_700], floorPlaces: 33, maxLoadG: 24_000_000 },
  { id: 'sea-20', name: 'Container 20 ft', inside: [5_898, 2_352, 2_393], floorPlaces: 11, maxLoadG: 21_700_000 },
] as const;

/** Packaging as stock: some leaves with its shipment, some is booked by the day, some is expense. */
export const packaging = [
  { typeId: 'box-xs', accounting: 'daily', onHand: 240, reorderPoint: 100, lot: 250 },
  { typeId: 'box-s', accounting: 'with-unit', onHand: 410, reorderPoint: 150, lot: 500 },
  { typeId: 'box-m', accounting: 'with-unit', onHand: 128, reorderPoint: 150, lot: 300 },
  { typeId: 'box-l', accounting: 'with-unit', onHand: 96, reorderPoint: 60, lot: 200, ownLine: true },
  { typeId: 'box-xl', accounting: 'expense', lookAfterUsed: 5, lookAfterDays: 30 },
] as const;

export const palletTypes = [
  {
    id: 'euro',
    name: 'Euro pallet',
    lengthMm: 1200,
    widthMm: 800,
    heightMm: 144,
    tareG: 25_000,
    maxHeightMm: 1_800,
    maxLoadG: 1_000_000,
  },
  {
    id: 'industry',
    name: 'Industry pallet',
    lengthMm: 1200,
    widthMm: 1000,
    heightMm: 144,
    tareG: 30_000,
    maxHeightMm: 1_800,
    maxLoadG: 1_200_000,
  },
] as const;
