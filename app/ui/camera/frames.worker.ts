import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';

/** Told once where the reader's WebAssembly lies, then frame by frame what the camera sees. */
export type ToReader = { wasm: string } | { frame: ImageData };
export interface FromReader {
  /** What was read, with the symbology identifier in front and GS where the symbol has it; null where nothing was. */
  code: string | null;
  /** The reader itself failed: it would fail at every frame. */
  blind?: boolean;
}

const here = globalThis as unknown as {
  onmessage: ((event: { data: ToReader }) => void) | null;
  postMessage: (answer: FromReader) => void;
};

here.onmessage = ({ data }) => {
  if ('wasm' in data) prepareZXingModule({ overrides: { locateFile: () => data.wasm } });
  else
    read(data.frame).then(
      (code) => here.postMessage({ code }),
      () => here.postMessage({ code: null, blind: true }),
    );
};

async function read(frame: ImageData): Promise<string | null> {
  const [found] = await readBarcodes(frame, {
    tryHarder: true,
    maxNumberOfSymbols: 1,
    formats: [
      'Code128',
      'EAN13',
      'EAN8',
      'UPCA',
      'UPCE',
      'ITF',
      'Code39',
      'DataBar',
      'DataBarExpanded',
      'QRCode',
      'DataMatrix',
    ],
  });
  return found?.isValid ? found.symbologyIdentifier + new TextDecoder().decode(found.bytes) : null;
}
