import { ago, clock, dayName, dayOf, duration, moment, number, relative, timeOf } from '../text/index.ts';
import { showNumbers } from '../text/format.ts';

const now = Date.parse('2026-11-30T22:30:00Z');

describe('a day', () => {
  it('is named as people name it at the site, with its year where that is another', () => {
    const day = (date: string) => dayName(date, 'UTC', now);
    expect(['2026-11-29', '2026-11-30', '2026-12-01'].map(day)).toEqual(['yesterday', 'today', 'tomorrow']);
    expect(day('2026-12-04')).toBe('Fri 4 Dec');
    expect(day('2027-02-04')).toBe('4 Feb 2027');
    expect(day('2025-12-31')).toBe('31 Dec 2025');
  });

  it('is the site’s own: near midnight another one than that of the instant', () => {
    // In Auckland it is the first of December already.
    expect(dayOf('2026-11-30T22:40:00Z', 'Pacific/Auckland', now)).toBe('today');
    expect(dayName('2026-12-01', 'Pacific/Auckland', now)).toBe('today');
    expect(dayOf('2026-11-30T10:00:00Z', 'Pacific/Auckland', now)).toBe('yesterday');
  });
});

describe('a time', () => {
  it('has its day where that is not today', () => {
    expect(clock('2026-11-30T15:05:00Z', 'UTC')).toBe('15:05');
    expect(timeOf('2026-11-30T15:05:00Z', 'UTC', now)).toBe('15:05');
    expect(timeOf('2026-12-01T15:05:00Z', 'UTC', now)).toBe('tomorrow 15:05');
    expect(moment('2027-01-02T15:05:00Z', 'UTC', now)).toBe('2 Jan 2027 15:05');
  });

  it('is near or far, before or after', () => {
    expect(relative('2026-11-30T22:55:00Z', now)).toBe('in 25 min');
    expect(ago('2026-11-30T22:05:00Z', now)).toContain('25 min');
    expect(duration(90 * 60)).toMatch(/1 h 30 min/);
  });
});

describe('a number', () => {
  afterEach(() => showNumbers('en-GB'));

  it('is written as in the country of the language', () => {
    expect(number(1234567)).toBe('1,234,567');
    showNumbers('de-DE');
    expect(number(1234567)).toBe('1.234.567');
  });
});
