import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { unreadable, type ReadOrders } from './read.ts';
import type { OrderColumn } from './columns.ts';
import { readOrderRows, type OrderRowCells } from './rows.ts';

const ORDER = /<(?:[\w.-]+:)?Order\s[^>]*urn:oasis:names:specification:ubl:schema:xsd:Order-2["']/;

type Node = { [name: string]: Node | Node[] | string | undefined };

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  isArray: (name) => name === 'OrderLine' || name === 'Note',
});

/** Packs by the codes of UN/ECE Recommendations 20 and 21. */
const packs: Record<string, string> = {
  ...Object.fromEntries(['', 'EA', 'C62', 'H87', 'PCE'].map((code) => [code, 'unit'])),
  ...Object.fromEntries(['PK', 'XPK', 'NMP', 'XIN'].map((code) => [code, 'inner'])),
  ...Object.fromEntries(['CT', 'XCT', 'BX', 'XBX', 'CS', 'XCS'].map((code) => [code, 'outer'])),
};

/** Text of the first of several paths that holds any. */
function textOf(node: Node | undefined, ...paths: string[]): string {
  for (const path of paths) {
    let at: unknown = node;
    for (const name of path.split('/')) {
      if (Array.isArray(at)) at = at[0] as unknown;
      at = typeof at === 'object' && at !== null ? (at as Node)[name] : undefined;
    }
    if (Array.isArray(at)) at = at[0] as unknown;
    const text =
      typeof at === 'string' ? at : typeof at === 'object' && at !== null ? (at as Node)['#text'] : undefined;
    if (typeof text === 'string' && text.trim() !== '') return text.trim();
  }
  return '';
}

const address = [
  'Delivery/DeliveryAddress',
  'Delivery/DeliveryLocation/Address',
  'BuyerCustomerParty/Party/PostalAddress',
];
const inAddress = (name: string) => address.map((path) => `${path}/${name}`);

/** Where each column stands in the document. */
const ofOrder: Partial<Record<OrderColumn, string[]>> = {
  order: ['ID'],
  customer: ['BuyerCustomerParty/SupplierAssignedAccountID', 'BuyerCustomerParty/Party/PartyIdentification/ID'],
  reference: ['CustomerReference', 'OriginatorDocumentReference/ID'],
  due: [
    'Delivery/RequestedDeliveryPeriod/EndDate',
    'Delivery/RequestedDeliveryPeriod/StartDate',
    'Delivery/LatestDeliveryDate',
  ],
  ship_to_name: ['Delivery/DeliveryParty/PartyName/Name', 'BuyerCustomerParty/Party/PartyName/Name'],
  postcode: inAddress('PostalZone'),
  city: inAddress('CityName'),
  country: inAddress('Country/IdentificationCode'),
  order_note: ['Note'],
  link: ['AdditionalDocumentReference/Attachment/ExternalReference/URI'],
};
const ofLine: Partial<Record<OrderColumn, string[]>> = {
  line: ['LineItem/ID'],
  item: ['LineItem/Item/SellersItemIdentification/ID'],
  quantity: ['LineItem/Quantity'],
  line_note: ['LineItem/Note', 'Note'],
};

/**
 * Reads an order as OASIS UBL 2.1 writes it (Order XML, one order a document). A line that must not be delivered in
 * part makes the order ship complete. Errors name the element; their row counts the lines of the order.
 *
 * @param channel by which such documents come
 */
export function readOrderUbl(text: string, channel = 'account'): ReadOrders {
  const valid = XMLValidator.validate(text);
  if (valid !== true) return unreadable(valid.err.line, String(valid.err.col), valid.err.msg, 'xml');
  // Nothing in an order needs a document type; what it could define is not wanted here.
  if (/<!DOCTYPE/i.test(text)) return unreadable(1, '', '<!DOCTYPE', 'xml');
  let root: Node;
  try {
    root = parser.parse(text) as Node;
  } catch (error) {
    // Nested without end: no order is.
    return unreadable(1, '', (error as Error).message.slice(0, 100), 'xml');
  }
  const order = root['Order'] as Node | undefined;
  const name = Object.keys(root).find((key) => !key.startsWith('?')) ?? '';
  if (!order || !ORDER.test(text)) return unreadable(1, name, '', 'an-order');
  const lines = (order['OrderLine'] as Node[] | undefined) ?? [];
  if (lines.length === 0) return unreadable(1, 'OrderLine', '', 'a-list');
  const whole = lines.some((line) => textOf(line, 'LineItem/PartialDeliveryIndicator') === 'false');
  const street = [...inAddress('StreetName')]
    .map((path) =>
      [textOf(order, path), textOf(order, path.replace('StreetName', 'BuildingNumber'))].filter(Boolean).join(' '),
    )
    .find(Boolean);
  const rows = lines.map((line, i): OrderRowCells => {
    const cells: OrderRowCells['cells'] = { channel, ship_complete: whole ? 'yes' : 'no', street: street ?? '' };
    for (const [column, paths] of Object.entries(ofOrder)) cells[column as OrderColumn] = textOf(order, ...paths);
    for (const [column, paths] of Object.entries(ofLine)) cells[column as OrderColumn] = textOf(line, ...paths);
    const code = textOf(line, 'LineItem/Quantity/@unitCode');
    cells.pack = packs[code] ?? code;
    // A quantity is a decimal there; whole ones are meant whole.
    cells.quantity = cells.quantity!.replace(/\.0+$/, '');
    return {
      row: i + 1,
      cells,
      at: (column) =>
        column === 'pack'
          ? `OrderLine[${i + 1}]/LineItem/Quantity/@unitCode`
          : ofLine[column]
            ? `OrderLine[${i + 1}]/${ofLine[column][0]!}`
            : (ofOrder[column]?.[0] ?? inAddress('StreetName')[0]!),
    };
  });
  return readOrderRows(rows);
}
