import { hasCheckDigit } from '../gs1/index.ts';

/** The form of a carrier's tracking numbers: a postal item (UPU S10), the unit's SSCC, or a prefix with digits. */
export type TrackingForm =
  { kind: 's10' } | { kind: 'sscc' } | { kind: 'prefix'; prefix: string; digits: number } | { kind: 'none' };

/**
 * The check digit of a postal item identifier (UPU S10): weights 8 6 4 2 3 5 9 7, modulo 11, where a remainder
 * that gives 10 stands as 0 and one that gives 11 as 5.
 *
 * @param serial eight digits
 */
export function s10CheckDigit(serial: string): number {
  if (!/^\d{8}$/.test(serial)) throw new RangeError(`A postal serial number has 8 digits, received "${serial}".`);
  const weights = [8, 6, 4, 2, 3, 5, 9, 7];
  const sum = weights.reduce((n, w, i) => n + w * Number(serial[i]), 0);
  const digit = 11 - (sum % 11);
  return digit === 10 ? 0 : digit === 11 ? 5 : digit;
}

/** A postal item identifier: service, serial number, check digit, country. */
export function s10(service: string, serial: number, country: string): string {
  const digits = String(serial).padStart(8, '0');
  return `${service}${digits}${s10CheckDigit(digits)}${country}`;
}

/**
 * Brings a typed or scanned tracking number into its carrier's form.
 *
 * @returns the number without blanks and in capitals, or undefined when it is not well formed
 */
export function readTracking(typed: string, form: TrackingForm): string | undefined {
  const text = typed.replace(/\s+/g, '').toUpperCase();
  switch (form.kind) {
    case 's10': {
      const m = text.match(/^([A-Z]{2})(\d{8})(\d)([A-Z]{2})$/);
      return m && s10CheckDigit(m[2]!) === Number(m[3]) ? text : undefined;
    }
    case 'sscc': {
      const digits = text.replace(/^\]C1/, '').replace(/^\(?00\)?(?=\d{18}$)/, '');
      return /^\d{18}$/.test(digits) && hasCheckDigit(digits) ? digits : undefined;
    }
    case 'prefix': {
      const digits = text.slice(form.prefix.length);
      const whole = text.startsWith(form.prefix) && digits.length === form.digits;
      return whole && hasCheckDigit(digits) ? text : undefined;
    }
    case 'none':
      return undefined;
  }
}

/** An example of the form, for the words of a refusal. */
export function trackingExample(form: TrackingForm): string {
  if (form.kind === 's10') return 'RR473124829GB';
  if (form.kind === 'sscc') return '006141411234567890';
  if (form.kind === 'prefix') return `${form.prefix}${'0'.repeat(form.digits)}`;
  return '';
}
