import fc from 'fast-check';
import { addDays, departureFor, departureOn, instantOf, localDate, weekday } from './index.ts';

const zones = ['UTC', 'Europe/London', 'America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe', 'Pacific/Kiritimati'];

describe('time at a site', () => {
  it('gives the instant at which its clock shows a time', () => {
    expect(new Date(instantOf('2026-01-15', '17:00', 'Europe/London')).toISOString()).toBe('2026-01-15T17:00:00.000Z');
    expect(new Date(instantOf('2026-07-15', '17:00', 'Europe/London')).toISOString()).toBe('2026-07-15T16:00:00.000Z');
    // The clock skips 01:30 in spring, and shows it twice in autumn.
    expect(new Date(instantOf('2026-03-29', '01:30', 'Europe/London')).toISOString()).toBe('2026-03-29T01:30:00.000Z');
    expect(new Date(instantOf('2026-10-25', '01:30', 'Europe/London')).toISOString()).toBe('2026-10-25T00:30:00.000Z');
  });

  it('is read back as the same date, at noon, in every zone', () => {
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.integer({ min: 0, max: 3000 }), (zone, n) => {
        const date = addDays('2024-01-01', n);
        return localDate(instantOf(date, '12:00', zone), zone) === date;
      }),
    );
  });

  it('shows at the instant what was asked, at every minute that a clock shows once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: 0, max: 1500 }),
        fc.integer({ min: 0, max: 1439 }),
        (zone, n, minute) => {
          const date = addDays('2024-01-01', n);
          const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
          const shown = new Intl.DateTimeFormat('sv', {
            timeZone: zone,
            dateStyle: 'short',
            timeStyle: 'short',
          }).format(new Date(instantOf(date, time, zone)));
          // On the days when the clock is put forward some times are shown by no instant.
          const skipped = shown !== `${date} ${time}`;
          if (!skipped) return;
          const noon = (d: string) => new Date(instantOf(d, '12:00', zone)).getTime();
          expect(noon(date) - noon(addDays(date, -1))).toBeLessThan(86_400_000);
        },
      ),
    );
  });

  it('counts weekdays from Monday', () => expect(['2026-11-23', '2026-11-29'].map(weekday)).toEqual([1, 7]));
});

describe('the departure of an order', () => {
  const timetable = [
    { id: 'early', cutOff: '13:30', days: [1, 2, 3, 4, 5], channel: 'web' },
    { id: 'late', cutOff: '17:00', days: [1, 2, 3, 4, 5], channel: 'web' },
    { id: 'any', cutOff: '15:00', days: [1], channel: null },
  ];
  const leave = (channel: string, due: string, priority = 5) =>
    departureFor({ channel, due, priority }, timetable, 'UTC');

  it('is by channel and urgency', () => {
    expect(leave('web', '2026-11-25')?.id).toBe('late');
    expect(leave('web', '2026-11-25', 1)?.id).toBe('early');
    expect(leave('field', '2026-11-23')?.id).toBe('any');
  });
  it('is the last one before a day without it', () =>
    expect(new Date(leave('web', '2026-11-29')!.leavesAt).toISOString()).toBe('2026-11-27T17:00:00.000Z'));
  it('may be none', () =>
    expect(departureFor({ channel: 'web', due: '2026-11-25', priority: 5 }, [], 'UTC')).toBeNull());
});

describe('when a departure leaves', () => {
  const van = { cutOff: '15:00', days: [1, 2, 3, 4, 5] };
  const at = (day: string | null, now: string) => {
    const leaves = departureOn(van, day, 'Europe/London', Date.parse(now));
    return leaves === null ? null : new Date(leaves).toISOString();
  };
  it('is its cut-off on a day, or the next time from now', () => {
    expect(at('2026-07-15', '2026-01-01T00:00:00Z')).toBe('2026-07-15T14:00:00.000Z');
    expect(at(null, '2026-07-15T13:59:00Z')).toBe('2026-07-15T14:00:00.000Z');
    expect(at(null, '2026-07-15T14:00:00Z')).toBe('2026-07-16T14:00:00.000Z');
    // Friday afternoon: not before Monday.
    expect(at(null, '2026-07-17T14:30:00Z')).toBe('2026-07-20T14:00:00.000Z');
    expect(departureOn({ cutOff: '15:00', days: [] }, null, 'UTC', 0)).toBeNull();
  });
});
