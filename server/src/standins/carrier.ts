import { checkDigit } from '@hand-relay/core/reading/gs1';
import { s10 } from '@hand-relay/core/reading/tracking';
import type { Carrier } from '../platform/index.ts';

/**
 * Stands in for the carriers' systems, which no demo can reach: answers with a tracking number of the carrier's own
 * form, as a carrier does when a shipment is announced.
 */
export const standInCarrier: Carrier = {
  announce({ form, serial, sscc }) {
    switch (form.kind) {
      case 's10':
        return s10('RR', 47_000_000 + serial, 'GB');
      case 'sscc':
        return sscc;
      case 'prefix': {
        const digits = String(serial).padStart(form.digits - 1, '0');
        return `${form.prefix}${digits}${checkDigit(digits)}`;
      }
      case 'none':
        return null;
    }
  },
};
