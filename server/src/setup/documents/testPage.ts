import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { labelSizes } from './logisticLabel.ts';
import { finish, newDocument } from './page.ts';

/** A label that shows whether a printer prints to its edges, straight, and sharp enough to scan. */
export function testPage(printer: string, size: keyof typeof labelSizes): Promise<Buffer> {
  const [width, height] = labelSizes[size];
  const document = newDocument([width, height], 0, 'Test page');
  document.rect(6, 6, width - 12, height - 12).stroke();
  for (const [x, dx] of [
    [6, 26],
    [width - 6, -26],
  ] as const)
    for (const [y, dy] of [
      [6, 26],
      [height - 6, -26],
    ] as const)
      document
        .moveTo(x, y)
        .lineTo(x + dx, y + dy)
        .stroke();
  document.font('strong').fontSize(20).fillColor('#000000').text(printer, 0, 40, { width, align: 'center' });
  const code = `PRINTER-${printer}`;
  const wide: LinearSymbol = { kind: 'code128', text: code, moduleMm: 0.5, heightMm: 20 };
  const symbol = symbolWidth(wide) <= width - 40 ? wide : { ...wide, moduleMm: 0.33 };
  drawSymbol(document, symbol, (width - symbolWidth(symbol)) / 2, height / 2 - 30);
  return finish(document);
}
