import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';

const MM = 72 / 25.4;
const MARGIN = 14 * MM;
const COLUMNS = 3;
/** What the sheet counts to by ones. */
const MOST = 20;
const INK = '#1E2326';

/** Barcodes of quantities, to scan wherever a count is asked: the numbers to twenty, none, and all. */
export function countSheet(paper: 'a4' | 'letter'): Promise<Buffer> {
  const document = newDocument(paper === 'a4' ? 'A4' : 'LETTER', MARGIN, 'Count barcodes');
  const cells = [
    { says: 'All', code: 'COUNT-ALL' },
    ...Array.from({ length: MOST + 1 }, (_, n) => ({ says: String(n), code: `COUNT-${n}` })),
  ];
  document
    .font('strong')
    .fontSize(20)
    .fillColor(INK)
    .text('Count barcodes', MARGIN, MARGIN)
    .font('text')
    .fontSize(11)
    .text('Scan one in place of typing a number. It counts in what the screen asks for: units, inner or outer packs.');
  const top = document.y + 6 * MM;
  const width = (document.page.width - 2 * MARGIN) / COLUMNS;
  const height = (document.page.height - MARGIN - top) / Math.ceil(cells.length / COLUMNS);
  cells.forEach(({ says, code }, i) => {
    const x = MARGIN + (i % COLUMNS) * width;
    const y = top + Math.floor(i / COLUMNS) * height;
    document.lineWidth(0.5).rect(x, y, width, height).stroke('#57606A');
    document
      .font('strong')
      .fontSize(24)
      .fillColor(INK)
      .text(says, x, y + 3 * MM, { width, align: 'center' });
    const symbol: LinearSymbol = { kind: 'code128', text: code, moduleMm: 0.33, heightMm: 10 };
    drawSymbol(document, symbol, x + (width - symbolWidth(symbol)) / 2, y + height - 14 * MM);
  });
  return finish(document);
}
