import { sql } from 'drizzle-orm';
import { toSVG } from 'bwip-js/node';
import { parseCookie, stringifySetCookie } from 'cookie';
import { rateLimit } from 'express-rate-limit';
import { endpoints, TAB, TRIAL_CODE } from '@hand-relay/contract';
import { Refusal, mountEndpoint, type Actor, type Routes, type Platform } from '../../platform/index.ts';
import { AddressTries } from './addressTries.ts';
import { devicesAt, signOutDevice } from './devices.ts';
import { sawChanges } from './changes.ts';
import { newDevice } from './tries.ts';
import { Sessions, signIn, switchSite, whoIs } from './signIn.ts';

const COOKIE = 'relay';
/** Names the device, also when nobody is signed in: by it a device is told from strangers. */
const DEVICE_COOKIE = 'relay-device';
const DEVICE_DAYS = 400;

function cookieOf(header: string | undefined, name: string): string | undefined {
  return header ? parseCookie(header)[name] : undefined;
}

/** The cookie's token in a request. */
const tokenOf = (header: string | undefined) => cookieOf(header, COOKIE);

/** Finds who a request's session belongs to. */
export function actors(platform: Platform) {
  const sessions = new Sessions(platform);
  return {
    sessions,
    actorOf: async (req: {
      headers: { cookie?: string | undefined; [TAB]?: string | string[] | undefined };
      query: Record<string, unknown>;
      requestId: string;
    }): Promise<Actor | null> => {
      const token = tokenOf(req.headers.cookie);
      const owner = token ? await sessions.owner(token) : null;
      if (!owner) return null;
      const { at } = req.query;
      const there = typeof at === 'string' && at !== owner.siteId ? await sessions.ownerAt(owner, at) : owner;
      const tab = req.headers[TAB];
      return {
        ...there,
        requestId: req.requestId,
        ...(typeof tab === 'string' && /^[\w-]{1,40}$/.test(tab) ? { tab } : {}),
      };
    },
  };
}

export function peopleRoutes(routes: Routes, sessions: Sessions, signInsPerMinute: number): void {
  const { app, platform } = routes;
  app.post(
    endpoints.signIn.path,
    rateLimit({
      windowMs: 60_000,
      limit: signInsPerMinute,
      store: new AddressTries(platform),
      // A shift that begins behind one address is no attack: only what failed counts.
      skipSuccessfulRequests: true,
      standardHeaders: 'draft-7',
      legacyHeaders: false,
      handler: (_req, _res, next) => next(new Refusal('too-many', { minutes: 1 })),
    }),
  );
  const cookie = (name: string, value: string, secure: boolean, expires: Date) =>
    stringifySetCookie({ name, value, httpOnly: true, sameSite: 'strict', secure, path: '/', expires });

  mountEndpoint(routes, endpoints.signIn, async ({ body, req, res }) => {
    const device = (req.get('x-device') ?? 'browser').slice(0, 40);
    const browser = (req.get('user-agent') ?? '').slice(0, 200);
    const given = cookieOf(req.headers.cookie, DEVICE_COOKIE);
    const named = given && /^[\w-]{32}$/.test(given) ? given : newDevice();
    const from = { device, browser, address: req.ip ?? '', cookie: named };
    const { token, expiresAt, personId, siteId, sessionId } = await signIn(platform, body, from);
    const known = new Date(Date.now() + DEVICE_DAYS * 86_400_000);
    res.setHeader('Set-Cookie', [
      cookie(COOKIE, token, req.secure, expiresAt),
      cookie(DEVICE_COOKIE, named, req.secure, known),
    ]);
    // What this device was signed in by before is over: its cookie is gone.
    const before = tokenOf(req.headers.cookie);
    if (before) await sessions.end(before);
    return whoIs(platform, { personId, siteId, sessionId });
  });
  mountEndpoint(routes, endpoints.me, ({ actor }) => whoIs(platform, actor));
  mountEndpoint(routes, endpoints.switchSite, async ({ actor, body, change }) => {
    await change((current) => switchSite(current, body.site));
    sessions.forget(actor.sessionId);
    return whoIs(platform, { ...actor, siteId: body.site });
  });
  mountEndpoint(routes, endpoints.sawAccountChanges, async ({ actor, body, change }) => {
    await change(async (current) => {
      await sawChanges(current, body.upTo);
      current.publish('me', [actor.personId]);
    });
    return {};
  });
  mountEndpoint(routes, endpoints.changeLanguage, async ({ actor, body, change }) => {
    await change(async (current) => {
      await current.tx.execute(sql`update person set language = ${body.language} where id = ${actor.personId}`);
      current.publish('me', [actor.personId]);
    });
    return {};
  });
  mountEndpoint(routes, endpoints.devices, ({ actor, req }) => devicesAt(platform, actor, req));
  mountEndpoint(routes, endpoints.addressCode, ({ query, res }) => {
    res.type('image/svg+xml').send(toSVG({ bcid: 'qrcode', text: query.text, scale: 4 }));
    return Promise.resolve();
  });
  mountEndpoint(routes, endpoints.trialCode, ({ res }) => {
    res
      .type('image/svg+xml')
      .send(toSVG({ bcid: 'code128', text: TRIAL_CODE, scaleX: 2, height: 16, paddingwidth: 20 }));
    return Promise.resolve();
  });
  mountEndpoint(routes, endpoints.signOutDevice, async ({ id, change }) => {
    await change((current) => signOutDevice(current, id));
    sessions.forget(id);
    return {};
  });
  mountEndpoint(routes, endpoints.signOut, async ({ req, res }) => {
    const token = tokenOf(req.headers.cookie);
    if (token) await sessions.end(token);
    res.setHeader('Set-Cookie', cookie(COOKIE, '', req.secure, new Date(0)));
    return {};
  });
}
