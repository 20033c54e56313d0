import fc from 'fast-check';
import { ssccOf } from '@hand-relay/core/reading/gs1';
import { readTracking, type TrackingForm } from '@hand-relay/core/reading/tracking';
import { standInCarrier } from './index.ts';

const sscc = ssccOf({ extension: 3, companyPrefix: '9521234' }, 77);
const forms: TrackingForm[] = [
  { kind: 's10' },
  { kind: 'sscc' },
  { kind: 'prefix', prefix: 'FH', digits: 10 },
  { kind: 'prefix', prefix: 'EB', digits: 9 },
];

describe("the carriers' stand-in", () => {
  it.each(forms)('answers with a number that its own form takes: $kind', (form) => {
    fc.assert(
      fc.property(fc.nat(2_000_000), (serial) => {
        const number = standInCarrier.announce({ form, serial, sscc })!;
        expect(readTracking(number, form)).toBe(number);
      }),
    );
  });

  it('never gives one number to two shipments', () => {
    for (const form of forms.filter((f) => f.kind !== 'sscc')) {
      const numbers = Array.from({ length: 500 }, (_, serial) => standInCarrier.announce({ form, serial, sscc }));
      expect(new Set(numbers).size).toBe(500);
    }
  });

  it('gives none where the carrier has none', () => {
    expect(standInCarrier.announce({ form: { kind: 'none' }, serial: 1, sscc })).toBeNull();
  });
});
