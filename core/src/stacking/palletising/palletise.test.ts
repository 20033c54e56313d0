import fc from 'fast-check';
import { faultsOf, type BoxKind, type Sides } from '../boxes/index.ts';
import { centreOfGravity, type FitsNoPallet, heightOf, layerOf, palletise, type PalletType } from './index.ts';

const euro: PalletType = {
  lengthMm: 1200,
  widthMm: 800,
  heightMm: 144,
  tareG: 25_000,
  maxHeightMm: 1800,
  maxLoadG: 1_000_000,
};
const kind = (size: Sides, more: Partial<BoxKind> = {}): BoxKind => ({
  size,
  weightG: 5000,
  keepUpright: true,
  maxLoadOnTopG: null,
  stop: Infinity,
  ...more,
});
const room = ({ lengthMm, widthMm, heightMm, maxHeightMm, maxLoadG }: PalletType, support = 0.8) => ({
  inner: [lengthMm, widthMm, maxHeightMm - heightMm] as Sides,
  maxWeightG: maxLoadG,
  support,
});

describe('a layer of equal boxes', () => {
  it.each([
    // ISO 3394: module 600 × 400 and its half on the two pallets.
    [1200, 800, 600, 400, 4],
    [1200, 1000, 600, 400, 5],
    [1200, 800, 400, 300, 8],
    [1200, 1000, 400, 300, 10],
    // All the area is used only by five blocks around each other.
    [5, 5, 3, 2, 4],
    [22, 16, 5, 3, 23],
  ])('of %d × %d takes boxes of %d × %d: %d', (length, width, l, w, best) => {
    expect(layerOf(length, width, l, w)).toHaveLength(best);
  });

  it('overlaps nowhere and stays inside, whatever the sides', () => {
    const side = fc.integer({ min: 2, max: 15 });
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 5, max: 60 }),
        side,
        side,
        (length, width, l, w) => {
          const flat = layerOf(length, width, l, w);
          const kinds = [kind([l, w, 1])];
          const units = flat.map((b) => ({ kind: 0, at: [b.x, b.y, 0] as Sides, size: [b.l, b.w, 1] as Sides }));
          expect(faultsOf({ inner: [length, width, 1], maxWeightG: Infinity, support: 1 }, kinds, units)).toEqual([]);
          const rows = Math.max(
            Math.floor(length / l) * Math.floor(width / w),
            Math.floor(length / w) * Math.floor(width / l),
          );
          expect(flat.length).toBeGreaterThanOrEqual(rows);
        },
      ),
      { numRuns: 100 },
    );
  });
});

describe('pallets', () => {
  it('hold nothing that the checker finds wrong, delivered in order of stops, each unit after what bears it', () => {
    const some = fc.record({
      size: fc.tuple(
        fc.integer({ min: 150, max: 600 }),
        fc.integer({ min: 150, max: 400 }),
        fc.integer({ min: 100, max: 400 }),
      ) as fc.Arbitrary<Sides>,
      weightG: fc.integer({ min: 0, max: 20_000 }),
      keepUpright: fc.boolean(),
      maxLoadOnTopG: fc.option(fc.integer({ min: 5000, max: 90_000 })),
      stop: fc.constantFrom(1, 2, Infinity),
    });
    const pallet = { ...euro, maxLoadG: 300_000 };
    fc.assert(
      fc.property(fc.array(fc.tuple(some, fc.integer({ min: 0, max: 20 })), { minLength: 1, maxLength: 5 }), (list) => {
        const kinds = list.map(([k]) => k);
        const counts = list.map(([, n]) => n);
        let asked = 0;
        const { pallets, lowerBound } = palletise(
          { pallet, kinds, counts, support: 0.8 },
          { over: () => ++asked > 150 },
        );
        for (const units of pallets) {
          expect(faultsOf(room(pallet), kinds, units)).toEqual([]);
          expect(units.map((u) => u.at[2])).toEqual(units.map((u) => u.at[2]).sort((a, b) => a - b));
        }
        expect(counts.map((_, k) => pallets.flat().filter((u) => u.kind === k).length)).toEqual(counts);
        expect(lowerBound).toBeLessThanOrEqual(pallets.length);
      }),
      { numRuns: 15 },
    );
  });

  it('of equal cartons are full layers on each other, in columns or interlocked, as low as can be', () => {
    const kinds = [kind([400, 300, 250])];
    const full = palletise({ pallet: euro, kinds, counts: [48], support: 0.8 });
    expect(full.pallets.map(heightOf)).toEqual([6 * 250]);
    expect(full.lowerBound).toBe(1);
    const columns = palletise({ pallet: euro, kinds: [kind([500, 300, 250])], counts: [12], support: 0.8 });
    const turned = palletise({
      pallet: euro,
      kinds: [kind([500, 300, 250])],
      counts: [12],
      support: 0.5,
      interlocked: true,
    });
    const layer = (units: { at: Sides; size: Sides }[], z: number) =>
      units.filter((u) => u.at[2] === z).map((u) => `${u.at[0]} ${u.at[1]} ${u.size[0]}`);
    expect(layer(columns.pallets[0]!, 250)).toEqual(layer(columns.pallets[0]!, 0));
    expect(layer(turned.pallets[0]!, 250)).not.toEqual(layer(turned.pallets[0]!, 0));
    // Not more than it may weigh, though there is room.
    const heavy = palletise({ pallet: { ...euro, maxLoadG: 100_000 }, kinds, counts: [48], support: 0.8 });
    expect(heavy.pallets.map((p) => p.length)).toEqual([20, 20, 8]);
    expect(heavy.lowerBound).toBe(3);
  });

  it('say where their weight lies, and refuse what fits none', () => {
    const kinds = [kind([400, 300, 250]), kind([400, 300, 250], { weightG: 15_000 })];
    const units = [0, 1].map((k) => ({ kind: k, at: [k * 400, 0, 0] as Sides, size: kinds[k]!.size }));
    expect(centreOfGravity(units.map((u) => ({ ...u, weightG: kinds[u.kind]!.weightG })))).toEqual([500, 150, 125]);
    expect(centreOfGravity([])).toBeNull();
    const high = { pallet: euro, kinds: [kinds[0]!, kind([100, 100, 1700])], counts: [1, 1], support: 0.8 };
    expect(() => palletise(high)).toThrow(expect.objectContaining({ kind: 1 }) as FitsNoPallet);
    expect(palletise({ ...high, counts: [0, 0] })).toEqual({ pallets: [], lowerBound: 0 });
  });
});
