import { checkDigit, hasCheckDigit } from './checkDigit.ts';

/**
 * Stands for a house that has no company prefix yet: numbers under it are unique in this house alone (GS1 keeps it for
 * restricted circulation within a company; from memory).
 */
export const IN_HOUSE_PREFIX = '0000000';

/** The number range from which a site gives its logistic units their SSCC. */
export interface SsccRange {
  /** 0 to 9, free to use by the company. */
  extension: number;
  /** GS1 company prefix, 4 to 12 digits. */
  companyPrefix: string;
}

/**
 * The SSCC of a range's n-th unit: extension, company prefix, serial reference filled with zeros, check digit.
 *
 * @param range the site's range
 * @param serial whole number from 0 that fits the 16 digits left by the prefix
 * @returns 18 digits
 * @throws RangeError when the range is malformed or used up
 */
export function ssccOf(range: SsccRange, serial: number): string {
  const { extension, companyPrefix } = range;
  if (!Number.isInteger(extension) || extension < 0 || extension > 9)
    throw new RangeError(`An SSCC extension is one digit, received ${extension}.`);
  if (!/^\d{4,12}$/.test(companyPrefix))
    throw new RangeError(`A company prefix has 4 to 12 digits, received "${companyPrefix}".`);
  const width = 16 - companyPrefix.length;
  const reference = String(serial);
  if (!Number.isInteger(serial) || serial < 0 || reference.length > width)
    throw new RangeError(`Serial ${serial} does not fit the ${width} digits that prefix ${companyPrefix} leaves.`);
  const key = `${extension}${companyPrefix}${reference.padStart(width, '0')}`;
  return key + checkDigit(key);
}

/** The last unit that a range has a number for. */
export const lastSerial = ({ companyPrefix }: SsccRange): number => 10 ** (16 - companyPrefix.length) - 1;

/** What all numbers of a range begin with. */
export const ssccPrefix = ({ extension, companyPrefix }: SsccRange): string => `${extension}${companyPrefix}`;

/** The place of an SSCC in its range, the reverse of `ssccOf`; null where it is of another range or not well formed. */
export function serialOf(range: SsccRange, sscc: string): number | null {
  const prefix = ssccPrefix(range);
  if (!/^\d{18}$/.test(sscc) || !hasCheckDigit(sscc) || !sscc.startsWith(prefix)) return null;
  return Number(sscc.slice(prefix.length, 17));
}
