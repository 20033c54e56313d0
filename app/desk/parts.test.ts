import { partsOf, summed } from './parts.ts';

describe('many orders in parts', () => {
  it('leaves none out and keeps their order', () => {
    const list = Array.from({ length: 251 }, (_, i) => i);
    const parts = partsOf(list);
    expect(parts.map((p) => p.length)).toEqual([40, 40, 40, 40, 40, 40, 11]);
    expect(parts.flat()).toEqual(list);
    expect(partsOf([])).toEqual([]);
  });
  it('sums what each part answered', () =>
    expect(
      summed([
        { changed: 2, same: 0, undo: ['a'] },
        { changed: 3, same: 1, undo: [] },
      ]),
    ).toEqual({ changed: 5, same: 1 }));
});
