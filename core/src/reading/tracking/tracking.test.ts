import fc from 'fast-check';
import { readTracking, s10, s10CheckDigit, trackingExample, type TrackingForm } from './index.ts';

describe('tracking numbers', () => {
  // UPU S10, from the outside values.
  it.each([
    ['RR473124829GB', true],
    ['RA123456785GB', true],
    ['RR473124828GB', false],
  ])('%s is well formed: %s', (number, good) =>
    expect(readTracking(number, { kind: 's10' })).toBe(good ? number : undefined),
  );

  it('stands 10 as 0 and 11 as 5', () => {
    const remainder = (serial: string) =>
      [8, 6, 4, 2, 3, 5, 9, 7].reduce((n, w, i) => n + w * Number(serial[i]), 0) % 11;
    fc.assert(
      fc.property(fc.stringMatching(/^\d{8}$/), (serial) => {
        const r = remainder(serial);
        return s10CheckDigit(serial) === (r === 0 ? 5 : r === 1 ? 0 : 11 - r);
      }),
    );
  });

  it('are taken with blanks and small letters', () =>
    expect(readTracking('rr 4731 2482 9 gb', { kind: 's10' })).toBe('RR473124829GB'));

  it.each<TrackingForm>([{ kind: 's10' }, { kind: 'sscc' }, { kind: 'prefix', prefix: 'FH', digits: 10 }])(
    '%j: its own example is well formed',
    (form) => {
      expect(readTracking(trackingExample(form), form)).toBe(trackingExample(form));
      expect(readTracking(`${trackingExample(form)}9`, form)).toBeUndefined();
    },
  );

  it('made by a carrier are well formed', () =>
    expect(readTracking(s10('RR', 47_000_001, 'GB'), { kind: 's10' })).toBeDefined());
});
