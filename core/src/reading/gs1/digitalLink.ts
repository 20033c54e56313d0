/** Keys that a link can begin with, of those that outbound shipping meets. */
const primary = ['01', '00', '410', '401', '402'] as const;

/**
 * Reads a GS1 Digital Link address (GS1 Digital Link Standard, URI syntax: a primary key and its qualifiers in pairs in
 * the path, whatever stands before them; further elements as the query).
 *
 * @param text a web address
 * @returns elements in their order, a GTIN with 14 digits; undefined where the text is no such address
 */
export function linkElements(text: string): { ai: string; value: string }[] | undefined {
  if (!/^https?:\/\//i.test(text)) return undefined;
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    return undefined;
  }
  // Read from the text itself: an address drops parts that are "." or "..", and a lot may be called so.
  const parts = text
    .replace(/[?#].*$/s, '')
    .split('/')
    .slice(3)
    .filter((p) => p !== '');
  const begin = parts.findIndex((p, i) => (primary as readonly string[]).includes(p) && i + 1 < parts.length);
  if (begin < 0) return undefined;
  const path = parts.slice(begin);
  if (path.length % 2 === 1) return undefined;
  const elements: { ai: string; value: string }[] = [];
  for (let i = 0; i < path.length; i += 2) elements.push({ ai: path[i]!, value: decoded(path[i + 1]!) });
  for (const [ai, value] of url.searchParams) if (/^\d{2,4}$/.test(ai)) elements.push({ ai, value });
  return elements.map(({ ai, value }) => ({
    ai,
    value: ai === '01' && /^\d{8,13}$/.test(value) ? value.padStart(14, '0') : value,
  }));
}

/** A part of a path as it was before it was made fit for an address; as it stands where it never was. */
function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}
