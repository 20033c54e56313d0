import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';

/** What a label is made of, in points from its upper left corner: drawn as a PDF, or said to a label printer. */
export type LabelPart =
  | { kind: 'line'; x: number; y: number; width: number }
  | {
      kind: 'text';
      text: string;
      x: number;
      y: number;
      width: number;
      size: number;
      strong?: boolean;
      centred?: boolean;
      /** Lines that it may take; what is longer is cut. */
      lines?: number;
    }
  | { kind: 'symbol'; symbol: LinearSymbol; x: number; y: number };

export interface LabelDrawing {
  width: number;
  height: number;
  title: string;
  parts: LabelPart[];
}

const LINE_HEIGHT = 1.22;

/** A symbol in the middle of a label, with its text below. */
export function symbolParts(symbol: LinearSymbol, width: number, y: number, size = 9): LabelPart[] {
  return [
    { kind: 'symbol', symbol, x: (width - symbolWidth(symbol)) / 2, y },
    {
      kind: 'text',
      text: symbol.text,
      x: 0,
      y: y + symbol.heightMm * POINTS_A_MM + 3,
      width,
      size,
      centred: true,
    },
  ];
}

export const POINTS_A_MM = 72 / 25.4;

/** Labels of one size, a page each. */
export function labelPdf(drawings: readonly [LabelDrawing, ...LabelDrawing[]]): Promise<Buffer> {
  const [{ width, height, title }] = drawings;
  const document = newDocument([width, height], 0, title);
  drawings.forEach(({ parts }, page) => {
    if (page > 0) document.addPage();
    for (const part of parts) draw(document, part);
  });
  return finish(document);
}

function draw(document: PDFKit.PDFDocument, part: LabelPart): void {
  if (part.kind === 'symbol') return drawSymbol(document, part.symbol, part.x, part.y);
  if (part.kind === 'line') {
    const { x, y, width } = part;
    document
      .moveTo(x, y)
      .lineTo(x + width, y)
      .lineWidth(0.8)
      .stroke('#000000');
    return;
  }
  document
    .font(part.strong ? 'strong' : 'text')
    .fontSize(part.size)
    .fillColor('#000000')
    .text(part.text, part.x, part.y, {
      width: part.width,
      height: part.size * LINE_HEIGHT * (part.lines ?? 1),
      align: part.centred ? 'center' : 'left',
      ellipsis: true,
    });
}

/** Dots of a label printer an inch: 203 or 300. */
const DOTS_AN_INCH = 203;
const dots = (points: number) => Math.round((points * DOTS_AN_INCH) / 72);
/** What the printer's language uses for itself is said by its code. */
const escaped = (text: string) =>
  text.replace(/[\\^~_]/g, (sign) => `_${sign.charCodeAt(0).toString(16).toUpperCase()}`);

/** Labels in ZPL II, the command language of thermal label printers, for 203 dots an inch; texts in UTF-8. */
export const labelZpl = (drawings: readonly LabelDrawing[]): string => drawings.map(oneZpl).join('\n');

function oneZpl({ width, height, parts }: LabelDrawing): string {
  const field = (x: number, y: number, rest: string) => `^FO${dots(x)},${dots(y)}${rest}^FS`;
  const commands = parts.map((part) => {
    if (part.kind === 'line') return field(part.x, part.y, `^GB${dots(part.width)},2,2`);
    if (part.kind === 'symbol') return symbolZpl(part.symbol, part.x, part.y, field);
    const size = dots(part.size);
    const block = `^FB${dots(part.width)},${part.lines ?? 1},0,${part.centred ? 'C' : 'L'}`;
    return field(
      part.x,
      part.y,
      `^A0N,${size},${Math.round(size * (part.strong ? 0.95 : 0.85))}${block}^FH^FD${escaped(part.text)}`,
    );
  });
  return ['^XA', '^CI28', `^PW${dots(width)}`, `^LL${dots(height)}`, ...commands, '^XZ'].join('\n');
}

/** Bars are whole dots wide; the quiet zone of ten modules stands in front. */
function symbolZpl(
  { kind, text, moduleMm, heightMm }: LinearSymbol,
  x: number,
  y: number,
  field: (x: number, y: number, rest: string) => string,
): string {
  const module = Math.max(2, Math.round((moduleMm / 25.4) * DOTS_AN_INCH));
  // FNC1 opens a GS1 symbol, and ends an element of variable length that others follow.
  const data = kind === 'gs1-128' ? `>8${elementsOf(text).join('')}` : text;
  const height = dots(heightMm * POINTS_A_MM);
  return field(x + 10 * moduleMm * POINTS_A_MM, y, `^BY${module}^BCN,${height},N,N,N,A^FH^FD${escaped(data)}`);
}

/** Application identifiers whose elements have a fixed length need no FNC1 behind them. */
const FIXED = /^(00|01|02|1[1-7]|20|3[1-6]\d\d|41\d)$/;

/** Bracketed elements as they stand in the symbol. */
function elementsOf(text: string): string[] {
  const found = [...text.matchAll(/\((\d{2,4})\)([^(]*)/g)].map((m) => ({ ai: m[1]!, value: m[2]! }));
  return found.map(({ ai, value }, i) => `${ai}${value}${i < found.length - 1 && !FIXED.test(ai) ? '>8' : ''}`);
}
