import { seeded } from './index.ts';

describe('repeatable numbers', () => {
  it('are the same for a seed, and spread evenly', () => {
    const [a, b] = [seeded(7), seeded(7)];
    const rows = Array.from({ length: 6000 }, () => a.int(1, 6));
    expect(rows).toEqual(Array.from({ length: 6000 }, () => b.int(1, 6)));
    for (let face = 1; face <= 6; face++)
      expect(Math.abs(rows.filter((r) => r === face).length - 1000)).toBeLessThan(150);
  });
  it('follow weights', () => {
    const random = seeded(3);
    const counts = [0, 0, 0];
    for (let i = 0; i < 4000; i++) counts[random.weighted([1, 0, 3])]!++;
    expect(counts[1]).toBe(0);
    expect(counts[2]! / counts[0]!).toBeCloseTo(3, 0);
  });
});
