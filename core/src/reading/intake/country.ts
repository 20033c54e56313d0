/** Names that people write and no list has. */
const SPOKEN: Record<string, string> = {
  uk: 'GB',
  greatbritain: 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
  usa: 'US',
  holland: 'NL',
};

const key = (text: string) =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}]/gu, '');

/** The code that took the place of one that is not used any more: DE for DD. */
const current = (code: string) => Intl.getCanonicalLocales(`und-${code}`)[0]!.slice(-2);

let names: Map<string, string> | undefined;

/** Every country by its name in English and German (Unicode CLDR, as the platform has it). */
function namesOfCountries(): Map<string, string> {
  const map = new Map(Object.entries(SPOKEN));
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  for (const language of ['en', 'de']) {
    const shown = new Intl.DisplayNames(language, { type: 'region', fallback: 'none' });
    for (const a of letters)
      for (const b of letters) {
        const name = shown.of(a + b);
        if (name && !map.has(key(name))) map.set(key(name), current(a + b));
      }
  }
  return map;
}

/**
 * The code of a country (ISO 3166-1 alpha-2) that is written as a code or by its name.
 *
 * @returns two capital letters; undefined where no country is called so
 */
export function countryCode(text: string): string | undefined {
  if (/^[A-Za-z]{2}$/.test(text) && text.toLowerCase() !== 'uk') return text.toUpperCase();
  names ??= namesOfCountries();
  return names.get(key(text));
}
