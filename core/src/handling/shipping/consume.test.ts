import fc from 'fast-check';
import { consume } from './index.ts';

const key = { line: fc.constantFrom('l1', 'l2'), lot: fc.constantFrom('', 'A') };
const sum = <T extends { line: string; lot: string; units: number }>(
  list: readonly T[],
  of: { line: string; lot: string },
) => list.filter((x) => x.line === of.line && x.lot === of.lot).reduce((n, x) => n + x.units, 0);

describe('reservations as goods leave', () => {
  it('end in the order of their waves, hard-allocated units first', () => {
    const reserved = [
      { wave: 'w1', line: 'l1', lot: 'A', units: 3, hardAllocated: 3 },
      { wave: 'w2', line: 'l1', lot: 'A', units: 5, hardAllocated: 2 },
      { wave: 'w2', line: 'l2', lot: 'A', units: 4, hardAllocated: 0 },
    ];
    expect(consume(reserved, [{ line: 'l1', lot: 'A', units: 4 }])).toEqual([
      { ...reserved[0], units: 0, hardAllocated: 0 },
      { ...reserved[1], units: 4, hardAllocated: 1 },
    ]);
  });

  it('end by as much as leaves and is reserved, and never hold more hard-allocated units than units', () => {
    const rows = fc.uniqueArray(
      fc.record({ ...key, wave: fc.constantFrom('w1', 'w2', 'w3'), units: fc.nat(9), hardAllocated: fc.nat(9) }),
      {
        selector: (r) => `${r.wave} ${r.line} ${r.lot}`,
      },
    );
    fc.assert(
      fc.property(rows, fc.array(fc.record({ ...key, units: fc.nat(9) }), { maxLength: 6 }), (drawn, gone) => {
        const reserved = drawn.map((r) => ({ ...r, hardAllocated: Math.min(r.hardAllocated, r.units) }));
        const changed = consume(reserved, gone);
        const after = reserved.map(
          (r) => changed.find((c) => c.wave === r.wave && c.line === r.line && c.lot === r.lot) ?? r,
        );
        for (const line of ['l1', 'l2'])
          for (const lot of ['', 'A']) {
            const of = { line, lot };
            expect(sum(reserved, of) - sum(after, of)).toBe(Math.min(sum(reserved, of), sum(gone, of)));
          }
        expect(after.every((r) => r.units >= 0 && r.hardAllocated >= 0 && r.hardAllocated <= r.units)).toBe(true);
      }),
    );
  });
});
