import { Asset } from 'expo-asset';
import type { FromReader, ToReader } from './frames.worker.ts';

/** Pixels across that a frame is read at: a label at arm's length is sharp, and a phone keeps up. */
const ACROSS = 1000;
/** The same code is taken again only when it was out of sight, or after so many milliseconds. */
const AGAIN_MS = 2500;
const PAUSE_MS = 60;

/**
 * Reads codes from a video as long as it runs; in a worker, so that the screen stays quick.
 *
 * @param onBlind called once when frames cannot be read at all
 * @returns a function that ends it
 */
export function readFrames(video: HTMLVideoElement, onCode: (code: string) => void, onBlind: () => void): () => void {
  const worker = new Worker(new URL('./frames.worker', import.meta.url));
  const send = (message: ToReader, moved: Transferable[] = []) => worker.postMessage(message, moved);
  // oxlint-disable-next-line @typescript-eslint/no-require-imports -- how an asset is named to the bundler
  const wasm = Asset.fromModule(require('zxing-wasm/reader/zxing_reader.wasm') as number).uri;
  send({ wasm: new URL(wasm, location.href).href });
  const canvas = document.createElement('canvas');
  const paper = canvas.getContext('2d', { willReadFrequently: true })!;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let last = { code: '', at: 0 };
  const look = () => {
    if (video.videoWidth === 0) return void (timer = setTimeout(look, PAUSE_MS));
    const scale = Math.min(1, ACROSS / video.videoWidth);
    canvas.width = Math.round(video.videoWidth * scale);
    canvas.height = Math.round(video.videoHeight * scale);
    paper.drawImage(video, 0, 0, canvas.width, canvas.height);
    const frame = paper.getImageData(0, 0, canvas.width, canvas.height);
    send({ frame }, [frame.data.buffer]);
  };
  worker.onerror = onBlind;
  worker.onmessage = ({ data: { code, blind } }: MessageEvent<FromReader>) => {
    if (blind) return onBlind();
    const now = performance.now();
    if (code !== null && (code !== last.code || now - last.at > AGAIN_MS)) {
      last = { code, at: now };
      onCode(code);
    }
    timer = setTimeout(look, PAUSE_MS);
  };
  look();
  return () => {
    clearTimeout(timer);
    worker.terminate();
  };
}
