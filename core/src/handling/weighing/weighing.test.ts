import fc from 'fast-check';
import {
  enteredWeight,
  expectWeight,
  isExpected,
  learnWeights,
  properWeight,
  readScaleText,
  type ItemWeight,
} from './index.ts';

/** Numbers that look normally distributed, the same ones for the same seed (Park and Miller, 1988; sum of twelve). */
function normals(seed: number) {
  let state = seed;
  const one = () => (state = (state * 48271) % 2147483647) / 2147483647;
  return () => Array.from({ length: 12 }, one).reduce((sum, x) => sum + x, -6);
}

/** Cartons of a few items, weighed one after the other: real weights, what is entered, and what is learnt from them. */
function weigh(real: readonly number[], entered: readonly number[], cartons: number, seed: number) {
  const normal = normals(seed);
  let known: ItemWeight[] = entered.map(enteredWeight);
  const judged: { good: boolean; missing: boolean }[] = [];
  for (let n = 0; n < cartons; n++) {
    const counts = real.map((_, i) => 1 + ((n * 7 + i * 3) % 4));
    const contents = counts.map((units, i) => ({ units, weight: known[i]! }));
    const goods = counts.reduce((sum, units, i) => {
      let all = sum;
      for (let u = 0; u < units; u++) all += real[i]! * (1 + 0.01 * normal());
      return all;
    }, 0);
    const measured = 300 + goods + 6 * normal();
    const expected = expectWeight(300, contents);
    judged.push({ good: isExpected(measured, expected), missing: !isExpected(measured - real[0]!, expected) });
    known = learnWeights(300, contents, measured);
  }
  return { known, judged };
}

describe('the weight of a carton', () => {
  it('is that of the carton and its goods, and by hand the tolerance of what is only entered', () => {
    // 3 × 400 g at 4 % and 2 %; the scale's 5 g and 8 % of 320 g: three times the root of the sum of squares.
    const contents = [{ units: 3, weight: enteredWeight(400) }];
    const variance = 9 * 16 ** 2 + 3 * 8 ** 2 + 5 ** 2 + 25.6 ** 2;
    expect(expectWeight(320, contents)).toEqual({
      grams: 1520,
      toleranceG: Math.ceil(3 * Math.sqrt(variance)),
      unseen: [],
    });
    // A pin of 2 g more or less is below what any scale tells.
    expect(expectWeight(320, [...contents, { units: 10, weight: enteredWeight(2) }]).unseen).toEqual([1]);
    expect(isExpected(1520 + 163, { grams: 1520, toleranceG: 163 })).toBe(true);
    expect(isExpected(1520 - 164, { grams: 1520, toleranceG: 163 })).toBe(false);
  });

  it('is learnt: after some cartons good ones pass, and one unit too few is seen', () => {
    const { known, judged } = weigh([412, 905, 150], [412, 905, 150], 200, 7);
    expect(judged.filter((j) => !j.good).length).toBeLessThanOrEqual(4);
    expect(judged.slice(50).filter((j) => !j.missing).length).toBe(0);
    known.forEach((k, i) => expect(Math.abs(k.meanG / [412, 905, 150][i]! - 1)).toBeLessThan(0.02));
    expect(known.map((k, i) => properWeight([412, 905, 150][i]!, k))).toEqual([null, null, null]);
  });

  it('proposes the weight of an item that was entered wrongly, and of no other', () => {
    const { known } = weigh([412, 905], [380, 905], 120, 11);
    const proper = [380, 905].map((entered, i) => properWeight(entered, known[i]!));
    expect(proper[0]).toBeGreaterThanOrEqual(404);
    expect(proper[0]).toBeLessThan(420);
    expect(proper[1]).toBeNull();
    // Too few cartons say nothing.
    expect(properWeight(380, { ...known[0]!, cartons: 4 })).toBeNull();
  });

  it('is never learnt to be less than nothing, nor surer than its numbers hold', () => {
    const part = fc.record({ units: fc.integer({ min: 1, max: 500 }), entered: fc.integer({ min: 1, max: 50_000 }) });
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 1_000_000 }),
        (parts, measured) => {
          const contents = parts.map(({ units, entered }) => ({ units, weight: enteredWeight(entered) }));
          for (const [i, learnt] of learnWeights(200, contents, measured).entries()) {
            expect(learnt.meanG).toBeGreaterThanOrEqual(0);
            expect(learnt.variance).toBeGreaterThan(0);
            expect(learnt.variance).toBeLessThanOrEqual(contents[i]!.weight.variance);
            expect(Number.isFinite(learnt.spread) && learnt.spread > 0).toBe(true);
          }
        },
      ),
    );
  });
});

describe('what a scale says on its line', () => {
  it.each([
    ['  +   1.250 kg', 1250],
    ['ST,GS,+ 00012,5g', 13],
    ['G 2.5 lb  N 2.0 lb', 907],
    ['-0.020kg', -20],
    ['US,GS, 1.250kg', null],
    ['1.250 kg ?', null],
    ['ERR 4', null],
    ['', null],
  ])('%s', (line, grams) => expect(readScaleText(line)).toBe(grams));
});
