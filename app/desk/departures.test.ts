import { departuresOf } from './departures.ts';
import { orderRow as order } from '../test/anOrder.ts';

describe('what can be released by departure', () => {
  it('takes what is overdue with today, in the order of leaving, and nothing that cannot move', () => {
    const at = (day: string, time: string) => `${day}T${time}:00.000Z`;
    const rows = [
      order('A', { due: '2026-03-02', departure: 'Late', leavesAt: at('2026-03-02', '17:00') }),
      order('B', { due: '2026-02-27', departure: 'Late', leavesAt: at('2026-02-27', '17:00'), asked: 4 }),
      order('C', { due: '2026-03-02', departure: 'Early', leavesAt: at('2026-03-02', '09:00'), released: 3 }),
      order('D', { due: '2026-03-03', departure: 'Early', leavesAt: at('2026-03-03', '09:00') }),
      order('E', { due: '2026-03-02', departure: 'Early', coveredLines: 0 }),
      order('F', { due: '2026-03-02', departure: null, leavesAt: null }),
    ];
    expect(departuresOf(rows, '2026-03-02').map((d) => [d.day, d.name, d.leavesAt, d.orders, d.units])).toEqual([
      ['2026-03-02', 'Early', at('2026-03-02', '09:00'), ['C'], 7],
      ['2026-03-02', 'Late', at('2026-03-02', '17:00'), ['A', 'B'], 14],
      ['2026-03-02', '', null, ['F'], 10],
      ['2026-03-03', 'Early', at('2026-03-03', '09:00'), ['D'], 10],
    ]);
  });
});
