import fc from 'fast-check';
import type { RunPick } from '@hand-relay/contract';
import { freshProgress } from '@hand-relay/core/handling/picking';
import { sharedOut, together } from './together.ts';

const line = fc.record({
  bin: fc.constantFrom('A', 'B'),
  item: fc.constantFrom('i1', 'i2'),
  units: fc.integer({ min: 1, max: 9 }),
  state: fc.constantFrom('open' as const, 'done' as const, 'short' as const),
  hold: fc.constantFrom(null, null, 'credit'),
  joined: fc.boolean(),
});
const lines = fc.array(line, { maxLength: 10 }).map((list) =>
  list.map(
    ({ bin, item, units, state, hold, joined }, i) =>
      ({
        step: { id: `k${i}`, bin, item: { id: item }, lot: null, units },
        state,
        picked: state === 'done' ? units : 0,
        order: { id: `o${i}`, hold },
        lineNote: '',
        remains: 20,
        together: joined,
      }) as unknown as RunPick,
  ),
);

describe('picks of a consolidated run', () => {
  it('are one for each bin, item and lot, and lose no unit; what is held and what has places stays by itself', () => {
    fc.assert(
      fc.property(lines, (all) => {
        const joined = together(all);
        expect(joined.flatMap((j) => j.lines.map((l) => l.step.id)).sort()).toEqual(all.map((l) => l.step.id).sort());
        for (const { pick, lines: parts } of joined) {
          expect(pick.step.units).toBe(parts.reduce((n, p) => n + p.step.units, 0));
          expect(pick.picked).toBe(parts.reduce((n, p) => n + p.picked, 0));
          if (parts.length === 1) continue;
          expect(parts.every((p) => p.together && p.order.hold === null)).toBe(true);
          expect(new Set(parts.map((p) => `${p.step.bin} ${p.step.item.id} ${p.state === 'open'}`)).size).toBe(1);
        }
      }),
    );
  });

  it('serve their lines one after the other: what was picked is given out, each serial once, and the rest is short', () => {
    fc.assert(
      fc.property(lines, fc.nat(40), (all, most) => {
        const asked = all.reduce((n, l) => n + l.step.units, 0);
        const units = Math.min(most, asked);
        const serials = Array.from({ length: units }, (_, i) => `s${i}`);
        const parts = sharedOut(all, { ...freshProgress, counted: units, serials, reason: 'not-found' }, units);
        expect(parts.reduce((n, p) => n + p.units, 0)).toBe(units);
        expect(parts.flatMap((p) => p.progress.serials)).toEqual(serials);
        const short = parts.findIndex((p) => p.units < p.line.step.units);
        if (short >= 0) expect(parts.slice(short + 1).every((p) => p.units === 0)).toBe(true);
        for (const p of parts) expect(p.progress.reason).toBe(p.units < p.line.step.units ? 'not-found' : null);
      }),
    );
  });
});
