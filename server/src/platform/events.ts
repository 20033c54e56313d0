import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from './serve.ts';

/** Keeps a proxy from closing a quiet stream. */
const BEAT_MS = 20_000;

/** Streams "this changed" to whoever is signed in, for their site. */
export function eventRoutes(doors: Doors): void {
  serve(doors, endpoints.events, ({ platform, actor, req, res }) => {
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      // A stream that anybody compressed on its way would hold each event back until the next.
      'Cache-Control': 'no-store, no-transform',
      'X-Accel-Buffering': 'no',
    });
    res.write('retry: 2000\n\n');
    const stop = platform.bus.subscribe(actor.siteId, ({ news, ...event }) => {
      const told = news && (!news.for || actor.rights.has(news.for)) ? { news } : {};
      res.write(`data: ${JSON.stringify({ ...event, ...told })}\n\n`);
    });
    const beat = setInterval(() => res.write(': still here\n\n'), BEAT_MS);
    req.on('close', () => {
      clearInterval(beat);
      stop();
    });
    return Promise.resolve();
  });
}
