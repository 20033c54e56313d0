import { demandKinds } from '../../handling/shipping/index.ts';
import type { Column, Sheet } from '../sheets/index.ts';

const text = (most: number) => ({ kind: 'text', most }) as const;
const yesNo = { kind: 'yes-no' } as const;

/** Each column of an order file as people and other systems head it, in English and German. */
const columns = [
  {
    name: 'order',
    type: text(30),
    needed: true,
    example: 'SO-2041',
    also: [
      'order number',
      'order no',
      'order id',
      'sales order',
      'so number',
      'auftrag',
      'auftragsnummer',
      'bestellung',
    ],
    maybe: ['number', 'document', 'id', 'beleg', 'belegnummer', 'bestellnummer'],
  },
  {
    name: 'channel',
    type: text(20),
    needed: true,
    example: 'web',
    also: ['sales channel', 'kanal'],
    maybe: ['source'],
  },
  {
    name: 'customer',
    type: text(40),
    needed: true,
    example: 'C1001',
    also: ['customer number', 'customer no', 'account', 'sold to', 'debtor', 'kunde', 'kundennummer', 'kunden nr'],
    maybe: ['customer name', 'client', 'buyer', 'debitor'],
  },
  {
    name: 'reference',
    type: text(60),
    example: 'PO 4401',
    also: ['customer reference', 'po', 'po number', 'purchase order', 'your reference', 'ihre referenz', 'referenz'],
    maybe: ['ref', 'kundenbestellnummer'],
  },
  {
    name: 'due',
    type: { kind: 'date' },
    needed: true,
    example: '2026-03-31',
    also: ['due date', 'ship date', 'shipping date', 'dispatch date', 'despatch date', 'versanddatum', 'liefertermin'],
    maybe: ['date', 'delivery date', 'required date', 'datum', 'termin', 'lieferdatum'],
  },
  { name: 'priority', type: { kind: 'whole', least: 1, most: 9 }, example: '5', also: ['prio', 'priorität'] },
  {
    name: 'ship_complete',
    type: yesNo,
    example: 'no',
    also: ['complete delivery', 'complete only', 'komplettlieferung'],
    maybe: ['complete'],
  },
  {
    name: 'ship_to_name',
    type: text(120),
    example: 'Dunmere Stores',
    also: ['ship to', 'delivery name', 'recipient', 'consignee', 'deliver to', 'empfänger', 'lieferadresse name'],
    maybe: ['name', 'company', 'firma'],
  },
  { name: 'street', type: text(120), example: '1 Quay Road', also: ['address', 'address line 1', 'straße', 'strasse'] },
  {
    name: 'postcode',
    type: text(20),
    example: 'DM1 4RA',
    also: ['postal code', 'zip', 'zip code', 'plz', 'postleitzahl'],
  },
  { name: 'city', type: text(80), example: 'Dunmere', also: ['town', 'ort', 'stadt'] },
  { name: 'country', type: text(60), example: 'GB', also: ['country code', 'land', 'ländercode'] },
  { name: 'kind', type: { kind: 'choice', of: demandKinds }, example: 'order', maybe: ['order type', 'auftragsart'] },
  { name: 'to_site', type: text(20), example: '', also: ['to site', 'receiving site', 'zielstandort'] },
  {
    name: 'order_note',
    type: text(500),
    example: 'Leave with the neighbour',
    also: ['order note', 'notes', 'remarks', 'hinweis', 'auftragstext'],
    maybe: ['note', 'comment', 'bemerkung'],
  },
  { name: 'link', type: text(400), example: '', also: ['url'] },
  { name: 'tags', type: text(300), example: 'gift | fragile', also: ['labels', 'schlagwörter'] },
  {
    name: 'line',
    type: { kind: 'whole', least: 1, most: 9999 },
    example: '1',
    also: ['line number', 'line no', 'pos', 'position', 'item line', 'zeile'],
  },
  {
    name: 'item',
    type: text(40),
    needed: true,
    example: 'JR-001',
    also: [
      'item number',
      'sku',
      'article',
      'article number',
      'product code',
      'part number',
      'ean',
      'gtin',
      'barcode',
      'artikel',
      'artikelnummer',
    ],
    maybe: ['product', 'material', 'code'],
  },
  {
    name: 'quantity',
    type: { kind: 'whole', least: 1, most: 9_999_999 },
    needed: true,
    example: '2',
    also: ['qty', 'order quantity', 'ordered', 'menge', 'stück', 'anzahl'],
    maybe: ['units', 'amount', 'pieces'],
  },
  {
    name: 'pack',
    type: text(20),
    example: 'unit',
    also: ['unit of measure', 'uom', 'pack unit', 'einheit', 'mengeneinheit', 'me'],
    maybe: ['unit'],
  },
  { name: 'line_note', type: text(500), example: '', also: ['line note', 'line text', 'positionstext'] },
] as const satisfies readonly Column[];

export type OrderColumn = (typeof columns)[number]['name'];
/** A text has a greatest length in an order file. */
type OrderColumnType = Exclude<Column['type'], { kind: 'text' }> | { kind: 'text'; most: number };

export type OrderSheetColumn = Omit<Column, 'name' | 'type'> & { name: OrderColumn; type: OrderColumnType };

/** The columns of an order file, one row a line: those that are needed stand in the file or have a fixed value. */
export const orderSheet: Omit<Sheet, 'columns'> & { columns: readonly OrderSheetColumn[] } = {
  name: 'orders',
  key: ['order', 'line'],
  columns,
};
