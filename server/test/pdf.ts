import { createCanvas } from '@napi-rs/canvas';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { readBarcodes } from 'zxing-wasm/reader';

/** Dots per inch of the pages that are drawn. */
export const DPI = 300;
const require_ = createRequire(import.meta.url);

/** A PDF as its pages' texts, and each page drawn (`image` is the first). */
export async function readPdf(bytes: Buffer) {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await getDocument({
    data: new Uint8Array(bytes),
    standardFontDataUrl: join(dirname(require_.resolve('pdfjs-dist/package.json')), 'standard_fonts/'),
  }).promise;
  type Image = Parameters<typeof readBarcodes>[0];
  const pages: { text: string; width: number; height: number; image: Image }[] = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n);
    const { items } = await page.getTextContent();
    const [, , width, height] = page.view as [number, number, number, number];
    const viewport = page.getViewport({ scale: DPI / 72 });
    const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
    await page.render({ canvas: null, canvasContext: canvas.getContext('2d') as never, viewport }).promise;
    const image = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height) as unknown as Image;
    pages.push({ text: items.map((i) => ('str' in i ? i.str : '')).join(' '), width, height, image });
  }
  const [{ width, height, image }] = pages as [(typeof pages)[number]];
  return { texts: pages.map((p) => p.text), images: pages.map((p) => p.image), width, height, image };
}
