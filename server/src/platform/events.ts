import { endpoints, personal } from '@hand-relay/contract';
import { Refusal } from './refusal.ts';
import { mountEndpoint, type Routes } from './serve.ts';

/** How often a stream shows that it is there, which keeps a proxy from closing it, and looks whether its session is. */
const BEAT_MS = 5_000;

/**
 * Streams "this changed" to whoever is signed in, for their site. The stream ends with the session, here or elsewhere.
 *
 * @param onForgotten calls back when a session was changed or ended on this server
 */
export function eventRoutes(routes: Routes, onForgotten: (session: string, hear: () => void) => () => void): void {
  mountEndpoint(routes, endpoints.events, ({ platform, actor, req, res }) => {
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      // A stream that anybody compressed on its way would hold each event back until the next.
      'Cache-Control': 'no-store, no-transform',
      'X-Accel-Buffering': 'no',
    });
    res.write('retry: 2000\n\n');
    const stop = platform.bus.subscribe(actor.siteId, ({ news, ...event }) => {
      if (personal.has(event.topic) && event.ids.length > 0 && !event.ids.includes(actor.personId)) return;
      const withNews = news && (!news.for || actor.rights.has(news.for)) ? { news } : {};
      res.write(`data: ${JSON.stringify({ ...event, ...withNews })}\n\n`);
    });
    const look = () =>
      void routes.actorOf(req).then(
        (still) => (still ? res.write(': still here\n\n') : res.end()),
        (error: unknown) => {
          // Who may not be at that site any more is told nothing of it; a database that is away ends no session.
          if (error instanceof Refusal) res.end();
        },
      );
    const beat = setInterval(look, BEAT_MS);
    const forgotten = onForgotten(actor.sessionId, look);
    req.on('close', () => {
      clearInterval(beat);
      forgotten();
      stop();
    });
    return Promise.resolve();
  });
}
