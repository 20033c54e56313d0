import bwip from 'bwip-js/node';

const MM = 72 / 25.4;

export interface LinearSymbol {
  /** `gs1-128` takes bracketed elements, `code128` plain text. */
  kind: 'gs1-128' | 'code128';
  text: string;
  /** Width of the narrowest bar in millimetres. */
  moduleMm: number;
  heightMm: number;
}

/** Bar and space widths in modules, a bar first. */
function widths({ kind, text }: LinearSymbol): number[] {
  const [symbol] = bwip.raw({ bcid: kind, text }) as unknown as [{ sbs: number[] }];
  return [...symbol.sbs];
}

/** Width of a symbol with the quiet zones of ten modules at either side, in points. */
export function symbolWidth(symbol: LinearSymbol): number {
  return (widths(symbol).reduce((a, b) => a + b, 0) + 20) * symbol.moduleMm * MM;
}

/** Draws a symbol as filled rectangles, sharp at any resolution; `x` and `y` in points, quiet zone included. */
export function drawSymbol(document: PDFKit.PDFDocument, symbol: LinearSymbol, x: number, y: number): void {
  const module = symbol.moduleMm * MM;
  let at = x + 10 * module;
  widths(symbol).forEach((width, i) => {
    if (i % 2 === 0) document.rect(at, y, width * module, symbol.heightMm * MM);
    at += width * module;
  });
  document.fill('#000000');
}
