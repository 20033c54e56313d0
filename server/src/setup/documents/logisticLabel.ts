import { countryName } from './country.ts';
import { printedElements } from '@hand-relay/core/reading/gs1';
import { symbolWidth, type LinearSymbol } from './barcode.ts';
import { POINTS_A_MM, symbolParts, type LabelDrawing, type LabelPart } from './labelDrawing.ts';
import { words } from './words.ts';

/** What a logistic label says: of a carton, or of a pallet. */
export interface LabelFacts {
  sscc: string;
  from: { name: string; street: string; city: string; country: string };
  /** Null where it goes to several. */
  shipTo: { name: string; street: string; postcode: string; city: string; country: string } | null;
  /** What stands there where it goes to several. */
  several: string;
  order: string;
  /** The customer's own number of the order; empty where there is none. */
  reference: string;
  /** What it is, and which: "Carton", "1 of 3". */
  unit: { name: string; value: string };
  weightG: number;
  carrier: string;
  lane: string;
  /** Where all of it is one trade item: its GTIN and how many. */
  content: { gtin: string; count: number } | null;
}

/** Points: 4 × 6 inches, and A6. */
export const labelSizes = { '4x6': [288, 432], a6: [297.64, 419.53] } as const;

/** Narrowest bar and height that GS1 asks of a logistic label, and the least that is still read by hand. */
const MODULE_MM = 0.495;
const SSCC_HEIGHT_MM = 32;
const LEAST_MM = 7;
/** Room for the text below a symbol, in points. */
const TEXT = 14;
const EDGE = 14;
/** Where the barcodes begin. */
const TOP = 196;

/**
 * The logistic label of the GS1 General Specifications, in three parts: free text above, what it holds in words, barcodes
 * below with the SSCC as the lowest. What has no room or no form of its own is left out, never the SSCC.
 */
export function logisticLabel(facts: LabelFacts, size: keyof typeof labelSizes): LabelDrawing {
  const [width, height] = labelSizes[size];
  const inner = width - 2 * EDGE;
  const third = inner / 3;
  const text = (value: string, x: number, y: number, of: Partial<Extract<LabelPart, { kind: 'text' }>>): LabelPart => ({
    kind: 'text',
    text: value,
    x,
    y,
    width: inner,
    size: 12,
    ...of,
  });
  const line = (y: number): LabelPart => ({ kind: 'line', x: EDGE, y, width: inner });
  const pair = (name: string, value: string, x: number, y: number, w: number) => [
    text(name, x, y, { size: 7, width: w }),
    text(value, x, y + 9, { strong: true, width: w - 4 }),
  ];
  const { from, shipTo } = facts;
  const address = [from.name, from.street, from.city, from.country && countryName(from.country)].filter(Boolean);
  const parts: LabelPart[] = [
    text(`${words.from} ${address.join(', ')}`, EDGE, 12, { size: 7 }),
    line(25),
    text(words.shipTo, EDGE, 30, { size: 7 }),
    ...(shipTo
      ? [
          text(shipTo.name, EDGE, 39, { size: 15, strong: true, lines: 2 }),
          text(shipTo.street, EDGE, 77, {}),
          text(`${shipTo.postcode} ${shipTo.city}`, EDGE, 92, {}),
          text(countryName(shipTo.country), EDGE, 107, { strong: true }),
        ]
      : [text(facts.several, EDGE, 39, { size: 15, strong: true, lines: 4 })]),
    line(126),
    ...pair(words.order, facts.order, EDGE, 131, third * 1.4),
    ...pair(facts.unit.name, facts.unit.value, EDGE + third * 1.4, 131, third * 0.7),
    ...pair(words.weight, `${(facts.weightG / 1000).toFixed(2)} ${words.kg}`, EDGE + third * 2.1, 131, third * 0.9),
    line(159),
    ...pair(words.carrier, facts.carrier || '–', EDGE, 164, third * 2.1),
    ...pair(words.lane, facts.lane || '–', EDGE + third * 2.1, 164, third * 0.9),
    line(192),
  ];
  const sscc = symbolOf([{ ai: '00', value: facts.sscc }], SSCC_HEIGHT_MM);
  const top = height - 16 - SSCC_HEIGHT_MM * POINTS_A_MM - 12;
  parts.push(...symbolParts(sscc, width, top, 11));
  // The others share the room between.
  const room = top - TOP;
  const fitting = elementsOf(facts)
    .filter((elements) => symbolWidth(symbolOf(elements, LEAST_MM)) <= width)
    .slice(0, Math.floor(room / (LEAST_MM * POINTS_A_MM + TEXT)));
  const row = room / Math.max(1, fitting.length);
  const tall = Math.min(15, (row - TEXT) / POINTS_A_MM);
  fitting.forEach((elements, i) => parts.push(...symbolParts(symbolOf(elements, tall), width, TOP + i * row, 8)));
  return { width, height, title: `SSCC ${facts.sscc}`, parts };
}

type Elements = { ai: string; value: string }[];

const symbolOf = (elements: Elements, heightMm: number): LinearSymbol => ({
  kind: 'gs1-128',
  text: printedElements(elements),
  moduleMm: MODULE_MM,
  heightMm,
});

/**
 * What the label says beside the SSCC, a symbol each, what is asked for most first: content and count, the customer's
 * order, where to, gross weight. Two of them side by side would be wider than the label.
 */
function elementsOf({ content, weightG, shipTo, from, reference, order }: LabelFacts): Elements[] {
  const customers = reference || order;
  const postcode = shipTo?.postcode.replaceAll(/\s/g, '').toUpperCase() ?? '';
  // A postcode says where to only within one country's post.
  const inland = from.country === '' || from.country === shipTo?.country;
  const hundredths = Math.round(weightG / 10);
  return [
    content && content.count < 100_000_000
      ? [
          { ai: '02', value: content.gtin },
          { ai: '37', value: String(content.count) },
        ]
      : [],
    /^[\w./-]{1,30}$/.test(customers) ? [{ ai: '400', value: customers }] : [],
    inland && /^[A-Z0-9-]{1,12}$/.test(postcode) ? [{ ai: '420', value: postcode }] : [],
    hundredths > 0 && hundredths < 1_000_000 ? [{ ai: '3302', value: String(hundredths).padStart(6, '0') }] : [],
  ].filter((elements) => elements.length > 0);
}
