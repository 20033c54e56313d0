import { readScaleText } from '@hand-relay/core/handling/weighing';

/** What is used of the browser's serial interface, where it has one. */
interface Port {
  open(options: { baudRate: number }): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}
interface Serial {
  requestPort(): Promise<Port>;
}

/** The speed that most scales are delivered with, in bits a second. */
const BAUD = 9600;
/** A weight that the scale has not said again for so long is an old one. */
const FRESH_MS = 3_000;

const interfaceOf = (): Serial | undefined =>
  typeof navigator === 'undefined' ? undefined : (navigator as { serial?: Serial }).serial;

let last: { grams: number; at: number } | null = null;
let listening = false;

/** A scale on a serial line of this device, in browsers that let a page have one: it says its weight again and again. */
export const serialScale = {
  possible: () => interfaceOf() !== undefined,
  connected: () => listening,
  /** The last steady weight in grams; null where there is none that is fresh. */
  shows: () => (last && Date.now() - last.at < FRESH_MS ? last.grams : null),
  /**
   * Asks which line, and listens from then on. It ends when the line does.
   *
   * @throws when nobody chose a line, or it cannot be opened
   */
  async connect(): Promise<void> {
    const port = await interfaceOf()!.requestPort();
    await port.open({ baudRate: BAUD });
    listening = true;
    void listen(port).finally(() => {
      listening = false;
      last = null;
    });
  },
};

async function listen({ readable }: Port): Promise<void> {
  const text = new TextDecoder();
  const reader = readable!.getReader();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    const lines = (rest + text.decode(value, { stream: true })).split(/[\r\n]+/);
    rest = lines.pop() ?? '';
    for (const line of lines) {
      const grams = readScaleText(line);
      if (grams !== null) last = { grams, at: Date.now() };
    }
  }
}
