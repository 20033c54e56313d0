import type { SheetName } from './names/index.ts';
import type { Sheet } from './column.ts';

const GRAMS = 1_000_000_000;
const MILLIMETRES = 30_000;
const text = (most: number) => ({ kind: 'text', most }) as const;
const lower = (most: number) => ({ kind: 'text', most, lower: true }) as const;
const upper = (most: number) => ({ kind: 'text', most, upper: true }) as const;
const metres = { kind: 'decimal', scale: 100, least: -100_000, most: 100_000 } as const;
const whole = (least: number, most: number) => ({ kind: 'whole', least, most }) as const;

const temperatures = ['ambient', 'chilled'] as const;
const handlings = ['easy', 'heavy', 'two-person', 'fragile'] as const;
const countings = ['packs', 'each', 'once'] as const;
const placeSigns = ['lane', 'bench', 'door'] as const;
const trackingForms = ['none', 's10', 'sscc', 'prefix'] as const;
/** What a role may do, a column each. */
const rightNames = [
  'see_orders',
  'take_in_orders',
  'change_orders',
  'release',
  'reserve',
  'choose',
  'cancel',
  'run_waves',
  'pick',
  'pick_by_touch',
  'arrange_runs',
  'pack',
  'ship',
  'see_trails',
  'set_up',
  'serve_printers',
  'house_people',
  'house_items',
  'house_backups',
  'house_sites',
] as const;
const blockings = ['damaged', 'blocked', 'count', 'access'] as const;
const sources = ['purchase', 'transfer', 'production'] as const;
const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

/**
 * The master data of a house, each kind as a sheet: the columns of its file, of its table on screen and of its form.
 * In the order in which a new house needs them.
 */
export const sheets = {
  zones: {
    name: 'zones',
    key: ['zone'],
    columns: [
      { name: 'zone', type: text(20), needed: true, example: 'small', also: ['zone code', 'code'] },
      { name: 'name', type: text(60), needed: true, example: 'Small goods', also: ['description'] },
      {
        name: 'temperature',
        type: { kind: 'choice', of: temperatures },
        otherwise: 'ambient',
        example: 'ambient',
        also: ['temp'],
      },
      { name: 'locked', type: { kind: 'yes-no' }, example: 'no', maybe: ['cage'] },
      { name: 'area', type: text(20), otherwise: '', example: '', also: ['picked with'], maybe: ['group'] },
    ],
  },
  bins: {
    name: 'bins',
    key: ['bin'],
    columns: [
      {
        name: 'bin',
        type: upper(20),
        needed: true,
        example: 'A-01-1',
        also: ['location', 'bin code', 'slot', 'place'],
      },
      { name: 'zone', type: text(20), needed: true, example: 'small', maybe: ['area'] },
      { name: 'aisle', type: upper(10), needed: true, example: 'A', also: ['row', 'gang'] },
      {
        name: 'aisle_x_m',
        type: metres,
        example: '0',
        also: ['x', 'aisle x'],
      },
      {
        name: 'y_m',
        type: metres,
        needed: true,
        example: '1.80',
        also: ['y', 'distance', 'depth'],
      },
      { name: 'side', type: { kind: 'choice', of: ['left', 'right'] }, otherwise: 'left', example: 'left' },
      { name: 'level', type: whole(0, 30), otherwise: 1, example: '1', also: ['tier'], maybe: ['height'] },
      { name: 'bay', type: whole(0, 9999), example: '1', also: ['column', 'upright'] },
      {
        name: 'walk_number',
        type: whole(0, 999_999),
        example: '',
        also: ['sequence', 'walking sequence', 'pick sequence'],
      },
      { name: 'blocked', type: { kind: 'choice', of: blockings }, example: '', maybe: ['status', 'hold'] },
      { name: 'home', type: upper(40), otherwise: '', example: '', also: ['home item', 'fixed item'] },
    ],
  },
  items: {
    name: 'items',
    shared: true,
    key: ['item'],
    columns: [
      {
        name: 'item',
        type: upper(40),
        needed: true,
        example: 'JR-001',
        also: ['sku', 'item number', 'article', 'article number', 'item code', 'product code'],
      },
      {
        name: 'name',
        type: text(120),
        needed: true,
        example: 'Round jar 340 ml',
        also: ['description', 'item name', 'product', 'title'],
      },
      {
        name: 'unit',
        type: text(20),
        otherwise: 'piece',
        example: 'jar',
        also: ['uom', 'base unit', 'unit of measure'],
      },
      { name: 'length_mm', type: whole(1, MILLIMETRES), needed: true, example: '80', also: ['length', 'l'] },
      { name: 'width_mm', type: whole(1, MILLIMETRES), needed: true, example: '80', also: ['width', 'w'] },
      { name: 'height_mm', type: whole(1, MILLIMETRES), needed: true, example: '110', also: ['height', 'h'] },
      { name: 'weight_g', type: whole(0, GRAMS), needed: true, example: '210', also: ['weight', 'grams'] },
      { name: 'gtin', type: { kind: 'gtin' }, example: '9521234001010', also: ['ean', 'barcode', 'upc', 'unit gtin'] },
      { name: 'inner_units', type: whole(2, 1_000_000), example: '12', also: ['inner', 'inner qty'] },
      { name: 'inner_gtin', type: { kind: 'gtin' }, example: '19521234001017', also: ['inner barcode'] },
      { name: 'outer_units', type: whole(2, 1_000_000), example: '72', also: ['outer', 'outer qty', 'case qty'] },
      {
        name: 'outer_gtin',
        type: { kind: 'gtin' },
        example: '29521234001014',
        also: ['outer barcode', 'case barcode'],
      },
      { name: 'handling', type: { kind: 'choice', of: handlings }, otherwise: 'easy', example: 'fragile' },
      { name: 'counting', type: { kind: 'choice', of: countings }, example: '', also: ['count by'], maybe: ['scan'] },
      { name: 'temperature', type: { kind: 'choice', of: temperatures }, otherwise: 'ambient', example: 'ambient' },
      { name: 'keep_apart', type: text(30), example: 'food', also: ['segregation'], maybe: ['group', 'apart'] },
      { name: 'lots', type: { kind: 'yes-no' }, example: 'no', also: ['lot tracked', 'batch tracked', 'has lots'] },
      {
        name: 'shelf_life_days',
        type: whole(1, 36_500),
        example: '540',
        also: ['shelf life', 'days of life', 'keeps days'],
      },
      { name: 'serials', type: { kind: 'yes-no' }, example: 'no', also: ['serial tracked', 'has serials'] },
      {
        name: 'value',
        type: { kind: 'decimal', scale: 100, most: 1_000_000_000 },
        otherwise: 0,
        example: '0.85',
        also: ['price', 'unit value'],
        maybe: ['cost'],
      },
      { name: 'picture', type: text(200), example: 'jar/340/1', also: ['image'] },
      { name: 'service', type: { kind: 'yes-no' }, example: 'no', also: ['no goods'], maybe: ['charge'] },
    ],
  },
  stock: {
    name: 'stock',
    key: ['bin', 'item', 'lot', 'serial'],
    columns: [
      { name: 'bin', type: upper(20), needed: true, example: 'A-01-1', also: ['location', 'slot'], maybe: ['place'] },
      {
        name: 'item',
        type: upper(40),
        needed: true,
        example: 'JR-001',
        also: ['sku', 'item number', 'article', 'article number'],
      },
      { name: 'units', type: whole(0, 10_000_000), needed: true, example: '144', also: ['quantity', 'qty', 'on hand'] },
      { name: 'lot', type: text(40), example: '', also: ['batch', 'lot number'] },
      { name: 'serial', type: text(40), example: '', also: ['serial number'] },
      { name: 'best_before', type: { kind: 'date' }, example: '', also: ['expiry', 'expires', 'bbd', 'use by'] },
    ],
  },
  channels: {
    name: 'channels',
    shared: true,
    key: ['channel'],
    columns: [
      { name: 'channel', type: lower(20), needed: true, example: 'web', also: ['channel code', 'code'] },
      { name: 'name', type: text(60), needed: true, example: 'Web shop', also: ['description'] },
      { name: 'rank', type: whole(1, 999), otherwise: 100, example: '1', also: ['order', 'priority'] },
    ],
  },
  classes: {
    name: 'classes',
    shared: true,
    key: ['class'],
    columns: [
      { name: 'class', type: upper(10), needed: true, example: 'A', also: ['customer class', 'code'] },
      { name: 'name', type: text(60), needed: true, example: 'Key customers', also: ['description'] },
      { name: 'rank', type: whole(1, 999), otherwise: 100, example: '1', also: ['order', 'priority'] },
    ],
  },
  customers: {
    name: 'customers',
    shared: true,
    key: ['customer'],
    columns: [
      {
        name: 'customer',
        type: text(40),
        needed: true,
        example: 'C1001',
        also: ['customer number', 'number', 'account'],
      },
      { name: 'name', type: text(120), needed: true, example: 'Heron Apiaries', also: ['customer name', 'company'] },
      { name: 'class', type: upper(10), otherwise: '', example: 'A', also: ['customer class'] },
      {
        name: 'min_shelf_days',
        type: whole(0, 3650),
        otherwise: 0,
        example: '30',
        also: ['shelf life', 'minimum shelf life'],
      },
      { name: 'street', type: text(120), example: '5 Weir Street', also: ['address', 'address line 1'] },
      { name: 'postcode', type: text(20), example: 'ZA1 2BC', also: ['zip', 'postal code'] },
      { name: 'city', type: text(80), example: 'Dunmere', also: ['town'] },
      { name: 'country', type: upper(2), otherwise: '', example: 'GB' },
      { name: 'wishes', type: text(300), otherwise: '', example: 'No loose filling', also: ['notes', 'remarks'] },
      { name: 'credit_stop', type: { kind: 'yes-no' }, example: 'no', also: ['credit hold', 'on stop'] },
    ],
  },
  shelf: {
    name: 'shelf',
    shared: true,
    key: ['customer', 'item'],
    columns: [
      { name: 'customer', type: text(40), needed: true, example: 'C1001', also: ['customer number', 'account'] },
      { name: 'item', type: upper(40), needed: true, example: 'HN-001', also: ['sku', 'article'] },
      {
        name: 'min_shelf_days',
        type: whole(0, 3650),
        needed: true,
        example: '90',
        also: ['shelf life'],
        maybe: ['days'],
      },
    ],
  },
  supply: {
    name: 'supply',
    key: ['reference', 'item', 'due'],
    columns: [
      { name: 'reference', type: text(60), needed: true, example: 'PO-7781', also: ['document'], maybe: ['order'] },
      { name: 'item', type: upper(40), needed: true, example: 'JR-001', also: ['sku', 'article'] },
      {
        name: 'due',
        type: { kind: 'date' },
        needed: true,
        example: '2026-03-09',
        also: ['expected', 'eta'],
        maybe: ['date'],
      },
      { name: 'units', type: whole(1, 10_000_000), needed: true, example: '144', also: ['quantity', 'qty'] },
      { name: 'source', type: { kind: 'choice', of: sources }, otherwise: 'purchase', example: 'purchase' },
    ],
  },
  places: {
    name: 'places',
    key: ['place'],
    columns: [
      { name: 'place', type: upper(20), needed: true, example: 'LANE-1', also: ['code', 'sign'] },
      { name: 'kind', type: { kind: 'choice', of: placeSigns }, needed: true, example: 'lane', also: ['type'] },
      { name: 'name', type: text(60), example: 'Lane 1' },
      { name: 'x_m', type: metres, example: '4', also: ['x'] },
      { name: 'y_m', type: metres, example: '-4', also: ['y'] },
      { name: 'fits', type: whole(1, 500), example: '4', also: ['carts', 'capacity'] },
    ],
  },
  carriers: {
    name: 'carriers',
    shared: true,
    key: ['carrier', 'service'],
    columns: [
      { name: 'carrier', type: text(60), needed: true, example: 'Skylark Parcels' },
      { name: 'service', type: text(60), needed: true, example: 'Day' },
      {
        name: 'tracking',
        type: { kind: 'choice', of: trackingForms },
        otherwise: 'none',
        example: 's10',
        also: ['tracking form'],
      },
      { name: 'prefix', type: upper(6), example: '', also: ['tracking prefix'] },
      { name: 'digits', type: whole(4, 30), example: '', also: ['tracking digits'] },
    ],
  },
  departures: {
    name: 'departures',
    key: ['departure'],
    columns: [
      { name: 'departure', type: text(60), needed: true, example: 'Skylark Day', also: ['name'] },
      { name: 'carrier', type: text(60), needed: true, example: 'Skylark Parcels' },
      { name: 'service', type: text(60), needed: true, example: 'Day' },
      { name: 'cut_off', type: { kind: 'time' }, needed: true, example: '17:00', also: ['cut off', 'leaves', 'time'] },
      {
        name: 'days',
        type: { kind: 'choices', of: weekdays },
        otherwise: 'mon tue wed thu fri',
        example: 'mon tue wed thu fri',
        also: ['weekdays'],
      },
      { name: 'channel', type: lower(20), otherwise: '', example: 'web' },
      { name: 'lane', type: upper(20), example: 'LANE-1' },
      { name: 'door', type: upper(20), example: 'DOOR-1' },
    ],
  },
  timetable: {
    name: 'timetable',
    key: ['entry'],
    columns: [
      { name: 'entry', type: text(60), needed: true, example: 'Parcels, afternoon', also: ['name'] },
      { name: 'departure', type: text(60), otherwise: '', example: 'Skylark Day' },
      { name: 'channel', type: lower(20), otherwise: '', example: '' },
      { name: 'class', type: upper(10), otherwise: '', example: '' },
      { name: 'zone', type: text(20), otherwise: '', example: '' },
      { name: 'kind', type: { kind: 'choice', of: ['order', 'invoiced', 'transfer', 'production'] }, example: '' },
      { name: 'max_lines', type: whole(1, 9999), example: '', also: ['lines per order'] },
      { name: 'max_units', type: whole(1, 1_000_000), example: '', also: ['units per order'] },
      { name: 'wave_orders', type: whole(1, 5000), example: '200', also: ['orders per wave'] },
      { name: 'wave_units', type: whole(1, 10_000_000), example: '', also: ['units per wave'] },
      {
        name: 'picking',
        type: { kind: 'choice', of: ['single', 'sort', 'consolidate', 'zones'] },
        otherwise: 'sort',
        example: 'sort',
      },
      { name: 'cart', type: text(60), otherwise: '', example: 'Tote, 12 places', also: ['cart type'] },
      { name: 'team', type: text(40), otherwise: '', example: '' },
      { name: 'people', type: whole(1, 500), example: '' },
      { name: 'gather', type: { kind: 'choice', of: ['hand', 'time', 'level'] }, otherwise: 'hand', example: 'time' },
      { name: 'gather_at', type: { kind: 'time' }, example: '14:00' },
      { name: 'gather_level', type: whole(1, 5000), example: '', also: ['level'] },
      {
        name: 'plan',
        type: { kind: 'choice', of: ['hand', 'gathered', 'time'] },
        otherwise: 'hand',
        example: 'gathered',
      },
      { name: 'plan_at', type: { kind: 'time' }, example: '' },
      { name: 'start', type: { kind: 'choice', of: ['hand', 'planned', 'time'] }, otherwise: 'hand', example: 'hand' },
      { name: 'start_at', type: { kind: 'time' }, example: '' },
    ],
  },
  cartons: {
    name: 'cartons',
    shared: true,
    key: ['carton'],
    columns: [
      { name: 'carton', type: upper(20), needed: true, example: 'BOX-M', also: ['code', 'box'] },
      { name: 'name', type: text(60), needed: true, example: 'Medium' },
      { name: 'inner_length_mm', type: whole(1, MILLIMETRES), needed: true, example: '400', also: ['length'] },
      { name: 'inner_width_mm', type: whole(1, MILLIMETRES), needed: true, example: '300', also: ['width'] },
      { name: 'inner_height_mm', type: whole(1, MILLIMETRES), needed: true, example: '200', also: ['height'] },
      { name: 'tare_g', type: whole(0, GRAMS), needed: true, example: '320', also: ['tare', 'empty weight'] },
      { name: 'max_weight_g', type: whole(1, GRAMS), needed: true, example: '20000', also: ['max weight'] },
      {
        name: 'cost',
        type: { kind: 'decimal', scale: 100, most: 100_000_000 },
        otherwise: 0,
        example: '0.74',
        also: ['price'],
      },
    ],
  },
  pallets: {
    name: 'pallets',
    shared: true,
    key: ['pallet'],
    columns: [
      { name: 'pallet', type: text(60), needed: true, example: 'Euro pallet', also: ['name', 'type'] },
      { name: 'length_mm', type: whole(1, MILLIMETRES), needed: true, example: '1200' },
      { name: 'width_mm', type: whole(1, MILLIMETRES), needed: true, example: '800' },
      { name: 'height_mm', type: whole(1, MILLIMETRES), needed: true, example: '144' },
      { name: 'tare_g', type: whole(0, GRAMS), needed: true, example: '25000' },
      { name: 'max_height_mm', type: whole(1, MILLIMETRES), needed: true, example: '1800' },
      { name: 'max_load_g', type: whole(1, GRAMS), needed: true, example: '1000000' },
    ],
  },
  vehicles: {
    name: 'vehicles',
    shared: true,
    key: ['vehicle'],
    columns: [
      { name: 'vehicle', type: text(60), needed: true, example: 'Truck 12 t', also: ['name', 'type', 'container'] },
      { name: 'length_mm', type: whole(1, MILLIMETRES), needed: true, example: '7200', also: ['inside length'] },
      { name: 'width_mm', type: whole(1, MILLIMETRES), needed: true, example: '2450', also: ['inside width'] },
      { name: 'height_mm', type: whole(1, MILLIMETRES), needed: true, example: '2500', also: ['inside height'] },
      { name: 'floor_places', type: whole(1, 999), needed: true, example: '18', also: ['pallets', 'pallet places'] },
      { name: 'max_load_g', type: whole(1, GRAMS), needed: true, example: '5500000', also: ['payload'] },
    ],
  },
  carts: {
    name: 'carts',
    key: ['cart'],
    columns: [
      { name: 'cart', type: upper(20), needed: true, example: 'CART-01', also: ['code'] },
      { name: 'type', type: text(60), needed: true, example: 'Tote, 12 places' },
      { name: 'positions', type: whole(1, 99), needed: true, example: '12', also: ['places', 'totes'] },
      { name: 'across', type: whole(1, 99), example: '4', also: ['columns', 'places across'] },
      { name: 'max_weight_g', type: whole(1, GRAMS), otherwise: 250_000, example: '250000', also: ['max weight'] },
      {
        name: 'max_volume_l',
        type: { kind: 'decimal', scale: 1000, least: 1, most: 100_000_000 },
        otherwise: 1_300_000,
        example: '1300',
        also: ['volume', 'max volume'],
      },
    ],
  },
  people: {
    name: 'people',
    key: ['person'],
    columns: [
      { name: 'person', type: text(40), needed: true, example: 'pico', also: ['id', 'staff number', 'person number'] },
      { name: 'name', type: text(80), needed: true, example: 'Pico Lund', also: ['full name'] },
      { name: 'roles', type: text(200), needed: true, example: 'picker', also: ['role'] },
      { name: 'login', type: text(80), example: '', also: ['user name', 'sign-in name'] },
      { name: 'password', type: text(200), example: '', secret: true },
      { name: 'badge', type: upper(40), example: 'BADGE-2001', also: ['badge code'] },
      { name: 'pin', type: text(8), example: '2468', secret: true },
      { name: 'team', type: text(40), otherwise: '', example: '', also: ['crew'], maybe: ['group', 'shift'] },
    ],
  },
  roles: {
    name: 'roles',
    key: ['role'],
    columns: [
      { name: 'role', type: text(30), needed: true, example: 'picker' },
      ...rightNames.map((name) => ({
        name,
        type: { kind: 'yes-no' } as const,
        example: name === 'pick' ? 'yes' : 'no',
      })),
    ],
  },
  printers: {
    name: 'printers',
    key: ['printer'],
    columns: [
      { name: 'printer', type: upper(20), needed: true, example: 'LABEL-1', also: ['code'] },
      { name: 'name', type: text(60), needed: true, example: 'Labels, benches 1 and 2' },
      {
        name: 'prints',
        type: { kind: 'choice', of: ['labels', 'sheets', 'all'] },
        otherwise: 'all',
        example: 'labels',
      },
      {
        name: 'stations',
        type: upper(300),
        otherwise: '',
        example: 'BENCH-1 BENCH-2',
        also: ['benches', 'desks'],
        maybe: ['devices'],
      },
    ],
  },
} as const satisfies Record<SheetName, Sheet>;
