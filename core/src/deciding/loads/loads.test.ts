import fc from 'fast-check';
import { fillOf, fitting, type Share } from './index.ts';

/** A pallet of 800 × 1200 mm, 1.8 m high with its wood of 144 mm; a truck of the usual 13.6 m with 33 places. */
const pallet = { lengthMm: 1200, widthMm: 800, heightMm: 144, maxHeightMm: 1800, maxLoadG: 1_000_000 };
const truck = { inside: [13_600, 2_450, 2_700] as [number, number, number], floorPlaces: 33, maxLoadG: 24_000_000 };
const share = (more: Partial<Share> = {}): Share => ({
  weightG: 100_000,
  volumeCm3: 300_000,
  largest: [400, 300, 200],
  ...more,
});
/** Goods of one pallet, by the pallet's usable room of 0.8 × 1.2 × 1.656 m × 80 %. */
const PALLET_CM3 = 1_271_808;

describe('the fill of a load', () => {
  it('counts pallets of their own and shares of them', () => {
    const places = (...volumes: number[]) =>
      fillOf(
        truck,
        pallet,
        volumes.map((v) => share({ weightG: 1, volumeCm3: v * PALLET_CM3 })),
      ).places;
    expect(places()).toBe(0);
    expect(places(0.4, 0.4)).toBe(1);
    expect(places(0.4, 0.4, 0.4)).toBe(2);
    expect(places(0.6, 0.6)).toBe(2);
    expect(places(2)).toBe(2);
    expect(places(2.4, 0.5)).toBe(3);
    // Twenty tenths are two, whatever their sum is in binary.
    expect(places(...Array.from({ length: 20 }, () => 0.1))).toBe(2);
    expect(fillOf(truck, pallet, [share({ weightG: 2_500_000 })]).places).toBe(3);
  });

  it('names what is too much, and by how much', () => {
    expect(
      fillOf(
        truck,
        pallet,
        Array.from({ length: 25 }, () => share({ weightG: 1_000_000 })),
      ).over,
    ).toEqual([{ what: 'weight', by: 1_000_000 }]);
    expect(fillOf({ ...truck, floorPlaces: 1 }, pallet, [share({ volumeCm3: 3 * PALLET_CM3 })]).over).toEqual([
      { what: 'places', by: 2 },
    ]);
    expect(fillOf(truck, pallet, [share({ largest: [100, 14_000, 100] })]).over).toEqual([{ what: 'size', by: 400 }]);
    // A plate may stand along the vehicle, not across it.
    expect(fillOf(truck, pallet, [share({ largest: [3_000, 2_700, 50] })]).over).toEqual([]);
    expect(fillOf(truck, pallet, [share({ volumeCm3: 80_000_000 })]).over.map((o) => o.what)).toEqual([
      'volume',
      'places',
    ]);
  });

  const shares = fc.array(
    fc.record({
      weightG: fc.nat(9_000_000),
      volumeCm3: fc.nat(20_000_000),
      largest: fc.constant<[number, number, number]>([1200, 800, 600]),
    }),
    { maxLength: 12 },
  );
  it('never falls when something is added, and does not depend on the order', () => {
    fc.assert(
      fc.property(shares, shares, (some, more) => {
        const [a, b] = [fillOf(truck, pallet, some), fillOf(truck, pallet, [...some, ...more])];
        expect(b.places).toBeGreaterThanOrEqual(a.places);
        expect(b.over.length).toBeGreaterThanOrEqual(a.over.length);
        expect(fillOf(truck, pallet, [...more].reverse().concat(some))).toEqual(b);
      }),
    );
  });

  it('fills up with what fits, and leaves out only what does not', () => {
    fc.assert(
      fc.property(shares, shares, (there, candidates) => {
        fc.pre(fillOf(truck, pallet, there).over.length === 0);
        const chosen = fitting(truck, pallet, there, candidates);
        const inside = [...there, ...chosen.map((i) => candidates[i]!)];
        expect(fillOf(truck, pallet, inside).over).toEqual([]);
        for (const [i, candidate] of candidates.entries())
          if (!chosen.includes(i)) expect(fillOf(truck, pallet, [...inside, candidate]).over).not.toEqual([]);
      }),
    );
  });
});
