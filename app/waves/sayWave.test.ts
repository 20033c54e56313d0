import type { WaveSummary } from '@hand-relay/contract';
import '../text/index.ts';
import { sayWave } from './sayWave.ts';

const now = Date.UTC(2026, 2, 3, 9);
const at = (minutes: number) => new Date(now + 60_000 * minutes).toISOString();
const wave = (of: Partial<WaveSummary>): WaveSummary =>
  ({
    state: 'started',
    planProgress: null,
    forecast: { left: 1800, ends: at(60), early: at(50), late: at(75) },
    doneBy: at(90),
    earliestDeparture: at(120),
    chance: 'made',
    ...of,
  }) as WaveSummary;
const say = (of: Partial<WaveSummary>) => sayWave(wave(of), 'UTC', now);

describe('how a wave stands, in a sentence', () => {
  it('says when picking ends and whether that makes the departure', () => {
    const sentences = (['made', 'tight', 'missed'] as const).map((chance) => say({ chance }));
    expect(new Set(sentences).size).toBe(sentences.length);
    for (const s of sentences) expect(s).toMatch(/^Picked by 10:00, likely between 09:50 and 10:15\./);
    expect(say({ earliestDeparture: at(-10) })).toMatch(/08:50/);
  });

  it('says what it waits for where nothing can be foreseen', () => {
    expect(say({ planProgress: 0.42 })).toContain('42');
    const still = [
      say({ state: 'gathering', forecast: null }),
      say({ state: 'done', forecast: null }),
      say({ forecast: { left: 0, ends: null, early: null, late: null } }),
      say({ forecast: { left: 1800, ends: null, early: null, late: null } }),
    ];
    expect(new Set(still).size).toBe(4);
    // Without a departure there is nothing to be in time for.
    expect(say({ doneBy: null })).toMatch(/^Picked by 10:00, likely between 09:50 and 10:15\.$/);
  });
});
