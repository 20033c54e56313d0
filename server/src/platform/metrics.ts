import type { NextFunction, Request, Response } from 'express';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Database } from './database/index.ts';
import type { Platform } from './platform.ts';

/** Counts requests and their time, for whoever watches the server. */
export class Metrics {
  private readonly begun = performance.now();
  private readonly answered = new Map<string, number>();
  private seconds = 0;
  private waiting = 0;

  /** Counts each request when it is answered. */
  readonly count = (_req: Request, res: Response, next: NextFunction): void => {
    const begun = performance.now();
    this.waiting += 1;
    res.on('close', () => {
      this.waiting -= 1;
      this.seconds += (performance.now() - begun) / 1000;
      const kind = `${Math.floor(res.statusCode / 100)}xx`;
      this.answered.set(kind, (this.answered.get(kind) ?? 0) + 1);
    });
    next();
  };

  /** What is known now, in the text form that monitoring systems read (OpenMetrics). */
  async text(platform: Platform, database: Database, collect: boolean): Promise<string> {
    if (collect) collectGarbage();
    const { heapUsed, rss } = process.memoryUsage();
    const heap = await database.heap();
    const all = [...this.answered.values()].reduce((a, b) => a + b, 0);
    const rows: [name: string, kind: 'gauge' | 'counter', value: number | null, labels?: string][] = [
      ['relay_up_seconds', 'gauge', (performance.now() - this.begun) / 1000],
      ...[...this.answered].map(
        ([kind, n]) =>
          ['relay_requests_total', 'counter', n, `{status="${kind}"}`] as [string, 'counter', number, string],
      ),
      ['relay_request_seconds_count', 'counter', all],
      ['relay_request_seconds_sum', 'counter', this.seconds],
      ['relay_requests_waiting', 'gauge', this.waiting],
      ['relay_heap_bytes', 'gauge', heapUsed],
      ['relay_database_heap_bytes', 'gauge', heap],
      ['relay_resident_bytes', 'gauge', rss],
      ['relay_disk_free_megabytes', 'gauge', platform.disk.freeMb()],
    ];
    const told = new Set<string>();
    const lines = rows.flatMap(([name, kind, value, labels = '']) => {
      if (value === null) return [];
      const head = told.has(name) ? [] : [`# TYPE ${name} ${kind}`];
      told.add(name);
      return [...head, `${name}${labels} ${value}`];
    });
    return `${lines.join('\n')}\n# EOF\n`;
  }
}

function collectGarbage(): void {
  setFlagsFromString('--expose-gc');
  (runInNewContext('gc') as () => void)();
}

/** Whether a request comes from this machine itself, and through no proxy. */
export function isLocal(req: Request): boolean {
  const from = req.socket.remoteAddress ?? '';
  return /^(127\.|::1$|::ffff:127\.)/.test(from) && req.get('x-forwarded-for') === undefined;
}
