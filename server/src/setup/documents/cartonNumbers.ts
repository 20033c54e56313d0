import { printedElements } from '@hand-relay/core/reading/gs1';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { labelSizes } from './logisticLabel.ts';
import { finish, newDocument } from './page.ts';
import { words } from './words.ts';

/** Labels to stick on empty cartons, one a page: each bears a number that the carton keeps when it ships. */
export function cartonNumbers(numbers: readonly string[], size: keyof typeof labelSizes): Promise<Buffer> {
  const [width, height] = labelSizes[size];
  const document = newDocument([width, height], 0, words.sscc);
  numbers.forEach((sscc, i) => {
    if (i > 0) document.addPage();
    const symbol: LinearSymbol = {
      kind: 'gs1-128',
      text: printedElements([{ ai: '00', value: sscc }]),
      moduleMm: 0.495,
      heightMm: 32,
    };
    // The last digits are read aloud: the others are the same on every label.
    document.font('strong').fontSize(64).fillColor('#000000').text(sscc.slice(-5), 0, 60, { width, align: 'center' });
    drawSymbol(document, symbol, (width - symbolWidth(symbol)) / 2, height / 2 - 20);
    document
      .font('text')
      .fontSize(11)
      .text(symbol.text, 0, height / 2 + 78, { width, align: 'center' });
  });
  return finish(document);
}
