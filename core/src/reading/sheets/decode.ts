export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/**
 * The text of a file, whatever program wrote it: by its byte order mark where it has one, else as UTF-8 where every
 * byte is well formed, else as Windows-1252, which spreadsheets on Western machines write.
 *
 * @returns the text without byte order mark, and how it was read; undefined when it is no text
 */
export function decodeText(bytes: Uint8Array): { text: string; encoding: Encoding } | undefined {
  const begins = (...mark: number[]) => mark.every((byte, i) => bytes[i] === byte);
  const read = (encoding: Encoding, from: number) => ({
    text: new TextDecoder(encoding).decode(bytes.subarray(from)),
    encoding,
  });
  if (begins(0xef, 0xbb, 0xbf)) return read('utf-8', 3);
  if (begins(0xff, 0xfe)) return read('utf-16le', 2);
  if (begins(0xfe, 0xff)) return read('utf-16be', 2);
  if (bytes.subarray(0, 4096).includes(0)) return undefined;
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch {
    return { text: windows1252(bytes), encoding: 'windows-1252' };
  }
}

/** What bytes 80 to 9F are in Windows-1252; those that it leaves open stay as they are (WHATWG Encoding Standard). */
const HIGH = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** The platform's own decoder takes these bytes for control characters in some of its versions. */
function windows1252(bytes: Uint8Array): string {
  return new TextDecoder('latin1').decode(bytes).replace(/[\u0080-\u009f]/g, (c) => HIGH[c.charCodeAt(0) - 0x80]!);
}
