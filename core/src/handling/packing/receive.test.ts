import fc from 'fast-check';
import { giveUp, receive } from './index.ts';

const lot = fc.constantFrom('A', 'B');
const units = fc.nat(9);
const sum = (list: readonly { units: number }[]) => list.reduce((n, x) => n + x.units, 0);

describe('goods that are packed', () => {
  it('go to the first line that lacks them, lot by lot, from the cart in front', () => {
    const lying = [
      { place: '1', lot: 'A', serial: '', units: 2 },
      { place: '2', lot: 'A', serial: '', units: 5 },
    ];
    const lines = [
      { line: 'one', lot: 'A', units: 1 },
      { line: 'two', lot: 'B', units: 4 },
      { line: 'three', lot: 'A', units: 9 },
    ];
    const { moves, lines: got } = receive(lying, lines, [{ lot: 'A', serial: '', units: 4 }]);
    expect(moves.map((m) => [m.from.place, m.units])).toEqual([
      ['1', 2],
      ['2', 2],
    ]);
    expect(got.map((l) => [l.line.line, l.units])).toEqual([
      ['one', 1],
      ['three', 3],
    ]);
    expect(
      giveUp(
        lines.filter((l) => l.lot === 'A'),
        10,
      ).map((l) => [l.line.line, l.units]),
    ).toEqual([
      ['three', 9],
      ['one', 1],
    ]);
  });

  it('never exceed what lies there, what a line lacks or what is put in, and stop only where one of them ends', () => {
    const goods = fc.array(fc.record({ lot, serial: fc.constant(''), units }), { maxLength: 5 });
    fc.assert(
      fc.property(goods, fc.array(fc.record({ lot, units }), { maxLength: 5 }), goods, (lying, lines, parts) => {
        const got = receive(lying, lines, parts);
        for (const name of ['A', 'B']) {
          const of = <T extends { lot: string; units: number }>(list: readonly T[]) =>
            sum(list.filter((x) => x.lot === name));
          expect(sum(got.moves.filter((m) => m.from.lot === name))).toBe(Math.min(of(lying), of(parts)));
          expect(sum(got.lines.filter((l) => l.line.lot === name))).toBe(Math.min(of(lines), of(parts)));
        }
        for (const p of lying) expect(sum(got.moves.filter((m) => m.from === p))).toBeLessThanOrEqual(p.units);
        for (const l of lines) expect(sum(got.lines.filter((x) => x.line === l))).toBeLessThanOrEqual(l.units);
      }),
    );
  });
});
