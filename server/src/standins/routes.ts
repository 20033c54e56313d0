import { endpoints } from '@hand-relay/contract';
import { messagesOf, received } from '../host/index.ts';
import { Refusal, serve, type Doors, type Platform } from '../platform/index.ts';
import { hostReceives, playHost, type HostStreams } from './host.ts';

/**
 * Stand-ins answer in demos and trials only: in a house at work they would make orders that nobody placed.
 *
 * @throws Refusal 409 `no-standins`
 */
function needStandins({ standins }: Platform): void {
  if (!standins) throw new Refusal(409, 'no-standins');
}

export function hostRoutes(doors: Doors, streams: HostStreams): void {
  serve(doors, endpoints.hostMessages, async ({ platform, actor, query }) => ({
    ...(await messagesOf(platform.db, actor.siteId, query)),
    stream: streams.of(actor.siteId),
  }));
  serve(doors, endpoints.hostReceived, ({ body, change }) => change((current) => received(current, body.upTo)));
  serve(doors, endpoints.hostPlay, async ({ platform, actor, body }) => {
    needStandins(platform);
    return { messages: await playHost(platform, actor, body) };
  });
  serve(doors, endpoints.hostReceive, async ({ platform, actor }) => {
    needStandins(platform);
    return { messages: await hostReceives(platform, actor) };
  });
  serve(doors, endpoints.hostStream, ({ platform, actor, body }) => {
    needStandins(platform);
    streams.set(actor, body);
    return Promise.resolve({ stream: streams.of(actor.siteId) });
  });
}
