/** What tests use of the independent parser, which ships no types. */
declare module 'gs1-barcode-parser-mod' {
  export function parseBarcode(text: string): { parsedCodeItems: { ai: string; data: unknown }[] };
}
