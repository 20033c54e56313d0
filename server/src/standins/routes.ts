import { endpoints } from '@hand-relay/contract';
import { messagesOf, received } from '../dock/host/index.ts';
import { Refusal, mountEndpoint, type Routes, type Platform } from '../platform/index.ts';
import { hostReceives, playHost } from './host.ts';
import { setStandinScale, standinScales } from './scale.ts';
import { defineHostStream, setStream, streamOf } from './hostStream.ts';

/**
 * Stand-ins answer in demos and trials only: in a house at work they would make orders that nobody placed.
 *
 * @throws Refusal 409 `no-standins`
 */
function needStandins({ standins }: Platform): void {
  if (!standins) throw new Refusal('no-standins');
}

export function standinScaleRoutes(routes: Routes): void {
  mountEndpoint(routes, endpoints.standinScales, ({ platform, actor }) => standinScales(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.setStandinScale, async ({ platform, body, change }) => {
    needStandins(platform);
    await change((current) => setStandinScale(current, body));
    return {};
  });
}

export function hostRoutes(routes: Routes): void {
  defineHostStream(routes.platform);
  mountEndpoint(routes, endpoints.hostMessages, async ({ platform, actor, query }) => ({
    ...(await messagesOf(platform.db, actor.siteId, query)),
    stream: await streamOf(platform.db, actor.siteId),
  }));
  mountEndpoint(routes, endpoints.hostReceived, ({ body, change }) =>
    change((current) => received(current, body.upTo)),
  );
  mountEndpoint(routes, endpoints.hostPlay, ({ platform, body, change }) => {
    needStandins(platform);
    return change(async (current) => ({ messages: await playHost(current, body) }));
  });
  mountEndpoint(routes, endpoints.hostReceive, ({ platform, change }) => {
    needStandins(platform);
    return change(async (current) => ({ messages: await hostReceives(current) }));
  });
  mountEndpoint(routes, endpoints.hostStream, async ({ platform, actor, body, change }) => {
    needStandins(platform);
    await change((current) => setStream(current, platform, body));
    await platform.jobs.wake();
    return { stream: await streamOf(platform.db, actor.siteId) };
  });
}
