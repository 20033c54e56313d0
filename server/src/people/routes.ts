import { sql } from 'drizzle-orm';
import { toSVG } from 'bwip-js/node';
import { parseCookie, stringifySetCookie } from 'cookie';
import { rateLimit } from 'express-rate-limit';
import { endpoints } from '@hand-relay/contract';
import { Refusal, serve, type Actor, type Doors, type Platform } from '../platform/index.ts';
import { devicesAt, signOutDevice } from './devices.ts';
import { Sessions, signIn, switchSite, whoIs } from './signIn.ts';

const COOKIE = 'relay';

/** The cookie's token in a request. */
function tokenOf(header: string | undefined): string | undefined {
  return header ? parseCookie(header)[COOKIE] : undefined;
}

/** Finds who a request's session belongs to. */
export function actors(platform: Platform) {
  const sessions = new Sessions(platform);
  return {
    sessions,
    actorOf: async (req: {
      headers: { cookie?: string | undefined };
      query: Record<string, unknown>;
      requestId: string;
    }): Promise<Actor | null> => {
      const token = tokenOf(req.headers.cookie);
      const owner = token ? await sessions.owner(token) : null;
      if (!owner) return null;
      const { at } = req.query;
      const there = typeof at === 'string' && at !== owner.siteId ? await sessions.ownerAt(owner, at) : owner;
      return { ...there, requestId: req.requestId };
    },
  };
}

export function peopleRoutes(doors: Doors, sessions: Sessions, signInsPerMinute: number): void {
  const { app, platform } = doors;
  app.post(
    endpoints.signIn.path,
    rateLimit({
      windowMs: 60_000,
      limit: signInsPerMinute,
      standardHeaders: 'draft-7',
      legacyHeaders: false,
      handler: (_req, _res, next) => next(new Refusal(429, 'too-many', { minutes: 1 })),
    }),
  );
  const cookie = (value: string, secure: boolean, expires: Date) =>
    stringifySetCookie({ name: COOKIE, value, httpOnly: true, sameSite: 'strict', secure, path: '/', expires });

  serve(doors, endpoints.signIn, async ({ body, req, res }) => {
    const device = (req.get('x-device') ?? 'browser').slice(0, 40);
    const browser = (req.get('user-agent') ?? '').slice(0, 200);
    const { token, expiresAt, personId, siteId } = await signIn(platform, body, device, browser);
    res.setHeader('Set-Cookie', cookie(token, req.secure, expiresAt));
    return whoIs(platform, personId, siteId);
  });
  serve(doors, endpoints.me, ({ actor }) => whoIs(platform, actor.personId, actor.siteId));
  serve(doors, endpoints.switchSite, async ({ actor, body, change }) => {
    await change((current) => switchSite(current, body.site));
    sessions.forget(actor.sessionId);
    return whoIs(platform, actor.personId, body.site);
  });
  serve(doors, endpoints.changeLanguage, async ({ actor, body, change }) => {
    await change((current) =>
      current.tx.execute(sql`update person set language = ${body.language} where id = ${actor.personId}`),
    );
    return {};
  });
  serve(doors, endpoints.devices, ({ actor, req }) => devicesAt(platform, actor, req));
  serve(doors, endpoints.addressCode, ({ query, res }) => {
    res.type('image/svg+xml').send(toSVG({ bcid: 'qrcode', text: query.text, scale: 4 }));
    return Promise.resolve();
  });
  serve(doors, endpoints.signOutDevice, async ({ id, change }) => {
    await change((current) => signOutDevice(current, id));
    sessions.forget(id);
    return {};
  });
  serve(doors, endpoints.signOut, async ({ req, res }) => {
    const token = tokenOf(req.headers.cookie);
    if (token) await sessions.end(token);
    res.setHeader('Set-Cookie', cookie('', req.secure, new Date(0)));
    return {};
  });
}
