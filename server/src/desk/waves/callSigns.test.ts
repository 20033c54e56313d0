import { callSigns } from './callSigns.ts';

describe('call signs', () => {
  it('are words, each once, none that waits already', () => {
    const first = callSigns(40, new Set(), 0);
    expect(new Set(first).size).toBe(40);
    for (const sign of first) expect(sign).toMatch(/^[a-z]+$/);
    const next = callSigns(40, new Set(first), 0);
    expect(next.filter((sign) => first.includes(sign))).toEqual([]);
  });

  it('go on round the list, so that a word just used is not soon used again', () => {
    const [today] = callSigns(1, new Set(), 100);
    const following = Array.from({ length: 10 }, (_, i) => callSigns(1, new Set(), 101 + i)[0]);
    expect(following).not.toContain(today);
  });

  it('come back with a number when all words are out', () => {
    const many = callSigns(400, new Set(), 3);
    expect(new Set(many).size).toBe(400);
    const numbered = many.filter((sign) => / \d+$/.test(sign));
    expect(numbered.length).toBeGreaterThan(0);
    // Every plain word is out before the first number.
    expect(many.findIndex((sign) => / \d+$/.test(sign))).toBe(many.length - numbered.length);
    expect(callSigns(0, new Set(), 5)).toEqual([]);
  });
});
