import { checkDigit } from '@hand-relay/core/gs1';
import { s10, type TrackingForm } from '@hand-relay/core/tracking';

/** What a carrier is told when a tracking number is asked for. */
export interface CarrierRequest {
  form: TrackingForm;
  /** A running number of this house, from which the stand-in makes its own. */
  serial: number;
  /** SSCC of the shipment's first unit. */
  sscc: string;
}

/**
 * Stands in for the carriers' systems, which no demo can reach: answers with a tracking number of the carrier's own
 * form, as a carrier does when a shipment is announced.
 */
export function announceShipment({ form, serial, sscc }: CarrierRequest): string | null {
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
}
