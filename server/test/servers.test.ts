import { readFileSync } from 'node:fs';
import { productFolder } from '../src/index.ts';
import { openRelay } from '../src/server.ts';
import { turnTimetable } from '../src/desk/waves/index.ts';
import { checkBooks } from './books.ts';
import { postgresServer } from './postgres.ts';
import { openTest } from './relay.ts';
import { takeIn } from './steps.ts';

describe('several servers on one database', () => {
  it('start together where it is empty: one brings the schema up, the others wait', async () => {
    const url = await postgresServer('begin');
    const servers = await Promise.all(
      [1, 2, 3].map(() => openRelay({ database: { url }, logLevel: 'silent', checkAnswers: true })),
    );
    try {
      const journal = readFileSync(productFolder('server', 'drizzle', 'meta', '_journal.json'), 'utf8');
      const { entries } = JSON.parse(journal) as { entries: unknown[] };
      const { rows } = await servers[1]!.platform.db.execute<{ n: number }>(
        'select count(*)::int as n from drizzle.__drizzle_migrations',
      );
      expect(rows[0]!.n).toBe(entries.length);
    } finally {
      for (const server of servers) await server.close();
    }
  });

  it('take turns at the timetable: what is gathered at a time is gathered once', async () => {
    const url = await postgresServer('turns');
    const relay = await openTest({}, { database: { url }, filled: false });
    const second = await openRelay({ database: { url }, logLevel: 'silent' });
    try {
      const desk = await relay.as('maren');
      await relay.query('update timetable set retired = true');
      const today = new Date().toISOString().slice(0, 10);
      for (let day = 1; day <= 3; day++) {
        const name = `Turn ${day}`;
        const row = { entry: name, kind: 'production', gather: 'time', gather_at: '00:00', wave_orders: 3 };
        const { errors } = await desk.get('changeSheet', { id: 'timetable', body: { rows: [row] } });
        expect(errors).toEqual([]);
        for (let i = 0; i < 6; i++)
          await takeIn(desk, { number: `TURN-${day}-${i}`, lines: [['BR-001', 1]], kind: 'production', due: today });
        await Promise.all([relay, second].map((server) => turnTimetable(server.platform)));
        const made = (await desk.get('waves')).waves.filter((w) => w.entry === name);
        expect(made.map((w) => w.orders)).toEqual([3]);
        await relay.query('update timetable set retired = true');
      }
      await checkBooks(relay, 'two servers');
    } finally {
      await second.close();
      await relay.close();
    }
  });
});
