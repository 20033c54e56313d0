import { endpoints } from '@hand-relay/contract';
import { messagesOf, received } from '../host/index.ts';
import { serve, type Doors } from '../platform/index.ts';
import { hostReceives, playHost, type HostStreams } from './host.ts';

export function hostRoutes(doors: Doors, streams: HostStreams): void {
  serve(doors, endpoints.hostMessages, async ({ platform, actor, query }) => ({
    ...(await messagesOf(platform.db, actor.siteId, query)),
    stream: streams.of(actor.siteId),
  }));
  serve(doors, endpoints.hostReceived, ({ body, change }) => change((current) => received(current, body.upTo)));
  serve(doors, endpoints.hostPlay, async ({ platform, actor, body }) => ({
    messages: await playHost(platform, actor, body),
  }));
  serve(doors, endpoints.hostReceive, async ({ platform, actor }) => ({
    messages: await hostReceives(platform, actor),
  }));
  serve(doors, endpoints.hostStream, ({ actor, body }) => {
    streams.set(actor, body);
    return Promise.resolve({ stream: streams.of(actor.siteId) });
  });
}
