import { addDays, localDate } from '@hand-relay/core/calendar';
import { writeLastMonth } from '@hand-relay/demo';
import { checkBooks } from './books.ts';
import { openTest } from './relay.ts';
import { startWave, takeIn } from './steps.ts';

describe('the 30 days behind the demo', () => {
  it('keep the books right, are reported day by day, and give forecasts their pace and new things their numbers', async () => {
    const relay = await openTest();
    try {
      const desk = await relay.as('maren');
      expect((await desk.get('crew')).pace).toBe(1);
      await writeLastMonth(relay.platform.db);
      await checkBooks(relay, 'the past');
      const [sums] = await relay.query<{ orders: number; days: number; lines: number }>(
        `select count(*)::int as orders, count(distinct due)::int as days from customer_order where document = 'past' and status = 'closed'`,
      );
      expect(sums!.orders).toBeGreaterThan(600);
      expect(sums!.days).toBeGreaterThan(24);
      // Every working day is one that the report can tell of, with all that was asked for.
      const today = localDate(Date.now(), 'Europe/London');
      const days = Array.from({ length: 7 }, (_, i) => addDays(today, -1 - i));
      const reports = await Promise.all(days.map((date) => desk.get('day', { query: { date } })));
      const worked = reports.filter((r) => r.report.departures.some((d) => d.full > 0));
      expect(worked.length).toBe(6);
      expect(worked.every((r) => r.report.people.some((p) => p.picks > 0))).toBe(true);
      expect(worked.some((r) => r.report.shorts.length > 0)).toBe(true);
      // Nobody has picked today: the pace is that of the days before, and what comes goes on with the numbers.
      const id = await takeIn(desk, { number: 'AFTER-1', lines: [['HT-001', 1]] });
      const wave = await startWave(desk, [id]);
      const { pace } = await desk.get('crew');
      expect(pace).toBeGreaterThan(0.8);
      expect(pace).toBeLessThan(1.3);
      expect(pace).not.toBe(1);
      expect((await desk.get('wave', { id: wave })).wave.number).toBe(121);
      const [{ sscc, tracking }] = (await relay.query<{ sscc: string; tracking: string }>(
        `select c.sscc, s.tracking from carton c join shipment s on s.id = c.shipment_id where s.service_id = 'skylark-day' limit 1`,
      )) as [{ sscc: string; tracking: string }];
      expect((await desk.get('search', { query: { text: sscc } })).groups.map((g) => g.kind)).toContain('carton');
      expect(isS10(tracking)).toBe(true);
    } finally {
      await relay.close();
    }
  });
});

/** The check digit of the UPU's standard S10, worked out another way: with it the weighted sum is a multiple of 11, but for 10 and 11. */
function isS10(number: string): boolean {
  const digits = [...number.slice(2, 11)].map(Number);
  const sum = [8, 6, 4, 2, 3, 5, 9, 7].reduce((n, w, i) => n + w * digits[i]!, 0);
  const wanted = 11 - (sum % 11);
  return /^RR\d{9}GB$/.test(number) && digits[8] === (wanted === 10 ? 0 : wanted === 11 ? 5 : wanted);
}
