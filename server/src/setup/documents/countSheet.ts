import { commandCode, packCommands, type PackCommand } from '@hand-relay/core/handling/packing';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';

const MM = 72 / 25.4;
const MARGIN = 14 * MM;
const COLUMNS = 3;
/** What the sheet counts to by ones. */
const MOST = 20;
const INK = '#1E2326';
/** Cells are no higher than this. */
const LOWEST = 45 * MM;

/** What each command of the bench does. */
const does: Record<PackCommand, string> = {
  open: 'Open carton',
  all: 'All in',
  undo: 'Undo',
  weigh: 'Weigh',
  counted: 'Counted again: close',
  close: 'Close carton',
  print: 'Print label',
  other: 'Other carton',
  next: 'Next order',
  help: 'Help',
};

/** Barcodes of quantities, to scan wherever a count is asked, and on a page of their own the commands of the bench. */
export function countSheet(paper: 'a4' | 'letter'): Promise<Buffer> {
  const document = newDocument(paper === 'a4' ? 'A4' : 'LETTER', MARGIN, 'Count barcodes');
  drawPage(
    document,
    'Count barcodes',
    'Scan one in place of typing a number. It counts in what the screen asks for: units, inner or outer packs.',
    [
      { says: 'All', code: 'COUNT-ALL' },
      ...Array.from({ length: MOST + 1 }, (_, n) => ({ says: String(n), code: `COUNT-${n}` })),
    ],
  );
  document.addPage();
  drawPage(
    document,
    'Bench commands',
    'Scan one at an order on the bench, in place of touching the screen.',
    packCommands.map((command) => ({ says: does[command], code: commandCode(command) })),
  );
  return finish(document);
}

function drawPage(
  document: ReturnType<typeof newDocument>,
  title: string,
  text: string,
  cells: readonly { says: string; code: string }[],
): void {
  document.font('strong').fontSize(20).fillColor(INK).text(title, MARGIN, MARGIN).font('text').fontSize(11).text(text);
  const top = document.y + 6 * MM;
  const width = (document.page.width - 2 * MARGIN) / COLUMNS;
  const height = Math.min(LOWEST, (document.page.height - MARGIN - top) / Math.ceil(cells.length / COLUMNS));
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
}
