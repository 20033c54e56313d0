/**
 * Check digit modulo 10 as the GS1 General Specifications define it: weights 3 and 1 from the right.
 *
 * @param digits the identification key without its check digit, decimal digits only
 * @returns the digit 0 to 9 that completes the key
 * @throws RangeError when anything but digits is given
 * @example checkDigit('629104150021') // 3
 */
export function checkDigit(digits: string): number {
  if (!/^\d+$/.test(digits)) throw new RangeError(`A key holds digits only, received "${digits}".`);
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const weight = (digits.length - i) % 2 === 1 ? 3 : 1;
    sum += weight * Number(digits[i]);
  }
  return (10 - (sum % 10)) % 10;
}

/** Whether the last digit of a key is the check digit of the ones before it. */
export function hasCheckDigit(key: string): boolean {
  return /^\d{2,}$/.test(key) && checkDigit(key.slice(0, -1)) === Number(key.at(-1));
}
