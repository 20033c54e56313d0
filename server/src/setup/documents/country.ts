const regions = new Intl.DisplayNames(['en'], { type: 'region' });

/** A country's name as the carrier reads it; what is no code of two letters stays as it is. */
export function countryName(code: string): string {
  try {
    return /^[A-Za-z]{2}$/.test(code) ? (regions.of(code.toUpperCase()) ?? code) : code;
  } catch {
    return code;
  }
}
