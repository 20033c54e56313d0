const MM = 72 / 25.4;
const INK = '#1E2326';
const QUIET = '#57606A';
const ROW = 6 * MM;

/** Millimetres about a page of tables, in points. */
export const MARGIN = 16 * MM;

export interface Column<T> {
  title: string;
  /** Share of the width. */
  width: number;
  right?: boolean;
  of: (row: T) => string | number;
}

/** Draws tables one below the other from where the document stands; each goes on with its head on the next page. */
export function tablesOn(
  document: PDFKit.PDFDocument,
): <T>(title: string, columns: readonly Column<T>[], rows: readonly T[]) => void {
  const width = document.page.width - 2 * MARGIN;
  const foot = document.page.height - MARGIN;
  let y = document.y + 4 * MM;
  const turn = () => {
    document.addPage();
    y = MARGIN;
  };
  return <T>(title: string, columns: readonly Column<T>[], rows: readonly T[]) => {
    if (rows.length === 0) return;
    const head = () => {
      document.font('text').fontSize(9).fillColor(QUIET);
      line(columns.map((c) => c.title));
      document
        .moveTo(MARGIN, y)
        .lineTo(MARGIN + width, y)
        .lineWidth(0.5)
        .stroke(QUIET);
      y += 1.5 * MM;
      document.font('text').fontSize(10).fillColor(INK);
    };
    const line = (cells: readonly (string | number)[]) => {
      let x = MARGIN;
      columns.forEach((c, i) => {
        const wide = c.width * width;
        document.text(String(cells[i]), x, y, {
          width: wide - 2 * MM,
          height: ROW,
          ellipsis: true,
          lineBreak: false,
          align: c.right ? 'right' : 'left',
        });
        x += wide;
      });
      y += ROW;
    };
    // A title with its head and one row stay together.
    if (y + 4 * ROW > foot) turn();
    document.font('strong').fontSize(13).fillColor(INK).text(title, MARGIN, y);
    y += 8 * MM;
    head();
    for (const row of rows) {
      if (y + ROW > foot) {
        turn();
        head();
      }
      line(columns.map((c) => c.of(row)));
    }
    y += 5 * MM;
  };
}
