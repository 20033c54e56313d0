/** What a bench has in place of the address of its scale, where it uses the one that ships with the product. */
export const STANDIN_SCALE = 'stand-in';

/** Whether a scale can be asked by it: an address of HTTP, or the one that ships with the product. */
export function isScaleAddress(text: string): boolean {
  return text === STANDIN_SCALE || (URL.canParse(text) && /^https?:$/.test(new URL(text).protocol));
}
