import fc from 'fast-check';
import { cartLoads } from './cartLoads.ts';

const stop = (id: string, units: number, weightG: number, volumeCm3 = 0) => ({
  id,
  units,
  need: { weightG, volumeCm3 },
});
type Stop = ReturnType<typeof stop>;
const loadsOf = (stops: Stop[], cart: { positions: number; maxWeightG?: number; maxVolumeCm3?: number }) =>
  cartLoads(stops, cart, (s, units) => ({ ...s, units }));
const kg = (load: Stop[]) => load.reduce((n, s) => n + s.units * s.need.weightG, 0);

describe('loads of a cart', () => {
  it('leaves an order that fits in one piece, whatever the number of positions', () => {
    const stops = [stop('a', 3, 1000), stop('b', 1, 2000)];
    expect(loadsOf(stops, { positions: 1, maxWeightG: 5000 })).toEqual([{ stops, over: false }]);
  });

  it('cuts a stop only where no empty cart takes it, and says what no cart takes at all', () => {
    const loads = loadsOf([stop('a', 5, 1000), stop('b', 2, 1500), stop('c', 2, 9000)], {
      positions: 12,
      maxWeightG: 4000,
    });
    expect(loads.map(({ stops, over }) => [stops.map((s) => `${s.units} ${s.id}`).join(), over])).toEqual([
      ['4 a', false],
      ['1 a,2 b', false],
      ['1 c', true],
      ['1 c', true],
    ]);
  });

  it('keeps every unit once, within the limits, and never makes two loads that one cart would take', () => {
    const stops = fc.array(
      fc
        .tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 900 }), fc.integer({ min: 0, max: 900 }))
        .map(([units, weightG, volumeCm3]) => stop('', units, weightG, volumeCm3)),
      { maxLength: 12 },
    );
    const limit = fc.option(fc.integer({ min: 300, max: 9000 }), { nil: undefined });
    fc.assert(
      fc.property(stops, limit, limit, (asked, maxWeightG, maxVolumeCm3) => {
        const named = asked.map((s, i) => ({ ...s, id: String(i) }));
        const cart = { positions: 1, ...(maxWeightG ? { maxWeightG } : {}), ...(maxVolumeCm3 ? { maxVolumeCm3 } : {}) };
        const loads = loadsOf(named, cart);
        for (const s of named) {
          const parts = loads.flatMap((l) => l.stops).filter((p) => p.id === s.id);
          expect(parts.reduce((n, p) => n + p.units, 0)).toBe(s.units);
        }
        const cm3 = (load: Stop[]) => load.reduce((n, s) => n + s.units * s.need.volumeCm3, 0);
        const within = (load: Stop[]) =>
          kg(load) <= (maxWeightG ?? Infinity) && cm3(load) <= (maxVolumeCm3 ?? Infinity);
        for (const load of loads) {
          expect(within(load.stops)).toBe(!load.over);
          if (load.over) expect(load.stops.map((s) => s.units)).toEqual([1]);
        }
        const joinable = loads.some((a, i) => loads.slice(i + 1).some((b) => within([...a.stops, ...b.stops])));
        expect(joinable).toBe(false);
      }),
    );
  });
});
