import fc from 'fast-check';
import { departuresAround } from './times.ts';

const minutes = (clock: string) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));

describe('cut-offs around the opening', () => {
  it('has one that left, one that is near and two with time, at an hour in the middle of the day', () => {
    expect(departuresAround(new Date('2026-11-30T10:02:00Z')).map((d) => [d.id, d.cutOff])).toEqual([
      ['dep-express', '09:25'],
      ['dep-day', '13:05'],
      ['dep-pallet', '11:55'],
      ['dep-van', '10:50'],
    ]);
    // An hour later by the site's clock in summer.
    expect(departuresAround(new Date('2026-07-30T10:02:00Z'))[0]!.cutOff).toBe('10:25');
  });

  it('stays within the day and in the same order, at any hour', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1439 }), (at) => {
        const all = departuresAround(new Date(Date.UTC(2026, 10, 30, 0, at)));
        const of = (id: string) => minutes(all.find((d) => d.id === `dep-${id}`)!.cutOff);
        for (const { cutOff } of all) expect(cutOff).toMatch(/^([01]\d|2[0-3]):[0-5][05]$/);
        expect([of('van') <= of('pallet'), of('pallet') <= of('day')]).toEqual([true, true]);
        if (at >= 55) expect(of('express')).toBeLessThan(at);
        if (at < 23 * 60 + 30) expect(of('van')).toBeGreaterThanOrEqual(at);
      }),
    );
  });
});
