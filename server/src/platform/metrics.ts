import type { NextFunction, Request, Response } from 'express';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { Gauge, Histogram, Registry } from 'prom-client';
import type { Database } from './database/index.ts';
import type { Platform } from './platform.ts';

/** Counts requests and their time, for whoever watches the server. */
export class Metrics {
  private readonly registry = new Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>();
  private readonly answered = new Histogram({
    name: 'relay_request_seconds',
    help: 'Requests that were answered, by the first digit of their status, and how long they took.',
    labelNames: ['status'],
    buckets: [0.01, 0.05, 0.15, 0.5, 1, 5, 30],
    registers: [this.registry],
  });
  private readonly waiting = this.gauge('relay_requests_waiting', 'Requests that are being answered.');

  constructor(platform: Platform, database: Database) {
    this.registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
    this.gauge('relay_up_seconds', 'Time since the server started.', () => process.uptime());
    this.gauge('relay_heap_bytes', 'Heap in use of the server.', () => process.memoryUsage().heapUsed);
    this.gauge('relay_database_heap_bytes', "Heap in use of the embedded database's thread.", () => database.heap());
    this.gauge('relay_resident_bytes', 'Memory of the whole process.', () => process.memoryUsage.rss());
    this.gauge('relay_disk_free_bytes', 'Room on the disk of the data folder.', () => {
      const megabytes = platform.disk.freeMb();
      return megabytes === null ? null : megabytes * 2 ** 20;
    });
  }

  /** Counts each request when it is answered. */
  readonly count = (_req: Request, res: Response, next: NextFunction): void => {
    const begun = performance.now();
    this.waiting.inc();
    res.on('close', () => {
      this.waiting.dec();
      const status = `${Math.floor(res.statusCode / 100)}xx`;
      this.answered.observe({ status }, (performance.now() - begun) / 1000);
    });
    next();
  };

  get contentType(): string {
    return this.registry.contentType;
  }

  /**
   * What is known now, in the text form that monitoring systems read (OpenMetrics).
   *
   * @param collect whether the server's heap is collected first
   */
  text(collect: boolean): Promise<string> {
    if (collect) collectGarbage();
    return this.registry.metrics();
  }

  /** A figure that is looked at when it is asked for; left out while it is null. */
  private gauge(name: string, help: string, look?: () => number | null | Promise<number | null>): Gauge {
    return new Gauge({
      name,
      help,
      registers: [this.registry],
      ...(look && {
        async collect() {
          const value = await look();
          if (value === null) this.remove();
          else this.set(value);
        },
      }),
    });
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
