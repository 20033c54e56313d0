import { PDFiumLibrary } from '@hyzyla/pdfium';
import { PNG } from 'pngjs';

export interface PageWanted {
  pdf: Uint8Array;
  /** From 1. */
  page: number;
}

let library: Promise<PDFiumLibrary> | undefined;

/** A page of a PDF as PNG, at twice the size of print on a screen (144 dots an inch); null where it has no such page. */
export async function drawPage({ pdf, page }: PageWanted): Promise<Uint8Array | null> {
  const document = await (await (library ??= PDFiumLibrary.init())).loadDocument(new Uint8Array(pdf));
  try {
    if (page > document.getPageCount()) return null;
    const { data } = await document.getPage(page - 1).render({
      scale: 2,
      render: ({ data: pixels, width, height }) => {
        const png = new PNG({ width, height });
        png.data.set(pixels);
        return Promise.resolve(PNG.sync.write(png));
      },
    });
    return data;
  } finally {
    document.destroy();
  }
}
