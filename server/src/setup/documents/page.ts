import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

const require = createRequire(import.meta.url);
const font = (weight: string) => require.resolve(`@expo-google-fonts/barlow/${weight}/Barlow_${weight}.ttf`);

/** A document with the house's fonts: `text`, `strong`. */
export function newDocument(
  size: [number, number] | 'A4' | 'LETTER',
  margin: number,
  title: string,
): PDFKit.PDFDocument {
  const document = new PDFDocument({ size, margin, bufferPages: true, info: { Title: title, Creator: 'Hand Relay' } });
  document.registerFont('text', font('400Regular')).registerFont('strong', font('600SemiBold'));
  return document.font('text');
}

/** The finished file. */
export function finish(document: PDFKit.PDFDocument): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(Buffer.concat(parts)));
    document.on('error', reject);
    document.end();
  });
}
