import type { TrackingForm } from '@hand-relay/core/reading/tracking';

/** What a carrier is told when a shipment is announced. */
export interface Announcement {
  /** The form of the numbers of the carrier's service. */
  form: TrackingForm;
  /** A running number of this house, by which a repeat is known. */
  serial: number;
  /** SSCC of the shipment's first unit. */
  sscc: string;
}

/** The link to carriers' systems: what shipping asks of them, whoever answers. */
export interface Carrier {
  /**
   * Announces a shipment.
   *
   * @returns its tracking number; null where the service has none
   */
  announce(shipment: Announcement): string | null;
}
