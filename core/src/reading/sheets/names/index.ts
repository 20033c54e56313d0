/**
 * Sheets of master data, in the order in which a new warehouse fills them. Apart from what the sheets hold, so that
 * whoever needs the names alone does not load all of it.
 */
export const sheetNames = [
  'zones',
  'bins',
  'items',
  'stock',
  'channels',
  'classes',
  'customers',
  'shelf',
  'supply',
  'places',
  'carriers',
  'departures',
  'timetable',
  'cartons',
  'packrules',
  'pallets',
  'vehicles',
  'carts',
  'people',
  'roles',
  'roster',
  'printers',
] as const;
export type SheetName = (typeof sheetNames)[number];
