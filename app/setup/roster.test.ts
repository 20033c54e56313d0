import { weekAfter } from './roster.ts';

const shift = (person: string, day: string, more: object = {}) => ({
  person,
  day,
  from: '06:00',
  until: '14:00',
  team: '',
  ...more,
});

describe('a roster', () => {
  it('goes on as its last week was, from Monday to Sunday', () => {
    const rows = [
      shift('pico', '2026-11-27'),
      shift('pico', '2026-11-30', { team: 'cold' }),
      shift('suri', '2026-12-06', { from: '22:00', until: '06:00' }),
      shift('gone', '2026-12-20', { retired: true }),
    ];
    expect(weekAfter(rows)).toEqual({
      to: '2026-12-07',
      shifts: [
        { person: 'pico', day: '2026-12-07', from: '06:00', until: '14:00', team: 'cold' },
        { person: 'suri', day: '2026-12-13', from: '22:00', until: '06:00', team: '' },
      ],
    });
    expect(weekAfter([])).toBeNull();
  });
});
