import bwip from 'bwip-js/node';
import { sql } from 'drizzle-orm';
import { rows, type Platform } from '../../platform/index.ts';
import { drawSymbol, symbolWidth, type LinearSymbol } from './barcode.ts';
import { finish, newDocument } from './page.ts';

const MM = 72 / 25.4;
/** A badge as large as a bank card (ISO/IEC 7810 ID-1), two beside one another on A4. */
const WIDTH = 85.6 * MM;
const HEIGHT = 54 * MM;
const MARGIN = 14 * MM;
const QR_MM = 22;

/** Badges of everybody who has one, to print and cut: the name, the roles, the code as Code 128 and as QR. */
export async function badgeSheet({ db }: Platform, siteId: string): Promise<Buffer> {
  const people = await rows<{ name: string; badge: string; roles: string[]; site: string }>(
    db,
    sql`select p.name, p.badge, m.roles, s.name as site from membership m join person p on p.id = m.person_id join site s on s.id = m.site_id
        where m.site_id = ${siteId} and m.active and p.badge is not null order by p.name`,
  );
  const document = newDocument('A4', MARGIN, 'Badges');
  const perPage = 2 * Math.floor((document.page.height - 2 * MARGIN) / HEIGHT);
  people.forEach((person, i) => {
    if (i > 0 && i % perPage === 0) document.addPage();
    const at = i % perPage;
    badge(document, person, MARGIN + (at % 2) * WIDTH, MARGIN + Math.floor(at / 2) * HEIGHT);
  });
  if (people.length === 0) document.fontSize(12).text('Nobody has a badge yet.');
  return finish(document);
}

function badge(
  document: PDFKit.PDFDocument,
  { name, badge: code, roles, site }: { name: string; badge: string; roles: string[]; site: string },
  x: number,
  y: number,
): void {
  const pad = 5 * MM;
  document.lineWidth(0.5).rect(x, y, WIDTH, HEIGHT).stroke('#57606A').fillColor('#1E2326');
  const line = (text: string, font: 'text' | 'strong', size: number, dy: number) =>
    document
      .font(font)
      .fontSize(size)
      .text(text, x + pad, y + dy, { width: WIDTH - 2 * pad - QR_MM * MM, height: size * 1.3, ellipsis: true });
  line(name, 'strong', 17, pad);
  line(roles.join(', '), 'text', 10, pad + 22);
  line(site, 'text', 9, pad + 36);
  drawQr(document, code, x + WIDTH - pad - QR_MM * MM, y + pad);
  const symbol: LinearSymbol = { kind: 'code128', text: code, moduleMm: 0.33, heightMm: 11 };
  drawSymbol(document, symbol, x + (WIDTH - symbolWidth(symbol)) / 2, y + HEIGHT - pad - 11 * MM - 12);
  document
    .fillColor('#1E2326')
    .font('text')
    .fontSize(9)
    .text(code, x, y + HEIGHT - pad - 9, { width: WIDTH, align: 'center' });
}

/** A QR symbol as filled squares, so that it stays sharp. */
function drawQr(document: PDFKit.PDFDocument, text: string, x: number, y: number): void {
  const [symbol] = bwip.raw({ bcid: 'qrcode', text }) as unknown as [{ pixs: number[]; pixx: number }];
  const module = (QR_MM * MM) / symbol.pixx;
  symbol.pixs.forEach((dark, i) => {
    if (dark) document.rect(x + (i % symbol.pixx) * module, y + Math.floor(i / symbol.pixx) * module, module, module);
  });
  document.fill('#000000');
}
