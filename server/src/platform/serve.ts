import { createHash, randomUUID } from 'node:crypto';
import { json, type Express, type NextFunction, type Request, type Response } from 'express';
import {
  CHANGED,
  DONE_AGO,
  effectOn,
  endpoints,
  joined,
  outboxCall,
  type Changed,
  type ChangeEvent,
  type Endpoint,
  type Problem,
} from '@hand-relay/contract';
import type { z } from 'zod';
import { change, type Actor, type Change } from './change.ts';
import { hostileText } from './hostileText.ts';
import type { Platform } from './platform.ts';
import { Refusal } from './refusal.ts';

type Out<S> = S extends z.ZodType ? z.output<S> : undefined;
type In<S> = S extends z.ZodType ? z.input<S> : void;

/** What a handler is asked: everything already checked. */
export interface Ask<E extends Endpoint> {
  platform: Platform;
  actor: E['needs'] extends 'public' ? Actor | null : Actor;
  /** The path's `:id`, empty where it has none. */
  id: string;
  query: Out<E['query']>;
  body: Out<E['body']>;
  /** Runs the change of this request, once for each idempotency key. */
  change: <T>(work: (change: Change) => Promise<T>) => Promise<T>;
  req: Request;
  res: Response;
}

export type Handler<E extends Endpoint> = (
  ask: Ask<E>,
) => Promise<E extends { file: string } ? unknown : In<E['answer']>>;

export interface Routes {
  app: Express;
  platform: Platform;
  /** Who the request's session belongs to. */
  actorOf: (req: Request) => Promise<Actor | null>;
  /** Whether answers are held against their schema too: for tests. */
  checkAnswers: boolean;
  /** What answers each endpoint, for calls that come several at a time. */
  handlers: Map<Endpoint, (req: Request, res: Response, actor: Actor | null) => Promise<unknown>>;
}

declare module 'express-serve-static-core' {
  interface Request {
    requestId: string;
  }
}

function fieldErrors(error: z.ZodError): { path: string; message: string }[] {
  return error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }));
}

function parsed<S extends z.ZodType>(schema: S | undefined, value: unknown): Out<S> {
  if (!schema) return undefined as Out<S>;
  const result = schema.safeParse(value ?? {});
  if (!result.success) throw new Refusal('malformed', {}, fieldErrors(result.error));
  return result.data as Out<S>;
}

/** Opens an endpoint of the contract: sign-in, right, query, body and answer as it says. */
export function mountEndpoint<E extends Endpoint>(routes: Routes, endpoint: E, handler: Handler<E>): void {
  const method = endpoint.method === 'GET' ? 'get' : 'post';
  const perform = (req: Request, res: Response, actor: Actor | null) =>
    answer(routes, endpoint, handler, { req, res, actor });
  routes.handlers.set(endpoint, perform);
  const read = json({ limit: `${endpoint.bodyMb ?? 1}mb` });
  routes.app[method](endpoint.path, (req: Request, res: Response, next: NextFunction) => {
    routes
      .actorOf(req)
      .then(async (actor) => {
        // Nothing is read of who may not ask, and no more than the endpoint takes of who may.
        mustBeAllowed(endpoint, actor);
        await new Promise<void>((done, fail) => read(req, res, (error) => (error ? fail(error as Error) : done())));
        return perform(req, res, actor);
      })
      .then((result) => {
        if (!endpoint.file) res.json(result);
      })
      .catch(next);
  });
}

/** @throws Refusal 401 `not-signed-in`, 403 `not-allowed` */
function mustBeAllowed({ needs }: Endpoint, actor: Actor | null): void {
  if (needs === 'public') return;
  if (!actor) throw new Refusal('not-signed-in');
  if (needs !== 'person' && !needs.some((right) => actor.rights.has(right)))
    throw new Refusal('not-allowed', { needs });
}

async function answer<E extends Endpoint>(
  routes: Routes,
  endpoint: E,
  handler: Handler<E>,
  { req, res, actor }: { req: Request; res: Response; actor: Actor | null },
): Promise<unknown> {
  const { platform } = routes;
  mustBeAllowed(endpoint, actor);
  const id = (req.params as Record<string, string>)['id'] ?? '';
  const key = req.get('idempotency-key');
  // A list of calls is looked at call by call.
  const whole = endpoint === (endpoints.sendOutbox as Endpoint) ? null : hostileText(req.body);
  const hostile = whole ?? hostileText(req.query) ?? hostileText({ id });
  if (hostile) throw new Refusal('malformed', {}, [hostile]);
  const body = parsed(endpoint.body, req.body);
  const query = parsed(endpoint.query, req.query);
  if (endpoint.method === 'POST' && endpoint.needs !== 'public' && (!key || key.length > 100))
    throw new Refusal('key-missing', {}, [{ path: 'Idempotency-Key', message: 'a header of up to 100 characters' }]);
  const result = await handler({
    platform,
    actor: actor as Ask<E>['actor'],
    id,
    query: query as Ask<E>['query'],
    body: body as Ask<E>['body'],
    change: (work) => {
      if (!actor) throw new Error(`${endpoint.path} changes something without anybody signed in.`);
      const hash = createHash('sha256')
        .update(JSON.stringify(req.body ?? null))
        .digest('base64url');
      return change(
        platform,
        actor,
        key ? { key, request: `${req.method} ${req.path} ${hash}` } : null,
        async (current) => {
          const done = await work(current);
          if (routes.checkAnswers) mustBeDeclared(endpoint, current);
          return done;
        },
        // What a job does besides is not known yet: then all counts that the endpoint declares.
        (events) => endpoint.starts || sendChanged(res, events),
      );
    },
    req,
    res,
  });
  if (routes.checkAnswers && endpoint.answer && !endpoint.file) endpoint.answer.parse(result);
  return result ?? {};
}

/** For tests: a change publishes nothing and begins no job that its endpoint does not declare. */
function mustBeDeclared({ path, changes = [], starts }: Endpoint, { events, started }: Change): void {
  const declared = new Set<string>(changes.map((effect) => effectOn(effect, '').topic));
  const others = events.map((e) => e.topic).filter((topic) => !declared.has(topic));
  const jobs = started.filter((kind) => kind !== starts);
  if (others.length + jobs.length > 0)
    throw new Error(`${path} changed ${[...others, ...jobs].join(', ')}, undeclared.`);
}

/** Letters of a header beyond which ids are left out: proxies take few. */
const LONGEST = 1500;

/** Tells whoever asked what their changes published, those of one answer together. */
function sendChanged(res: Response, events: readonly ChangeEvent[]): void {
  const locals = res.locals as { changed?: Changed[] };
  locals.changed = joined([...(locals.changed ?? []), ...events]);
  const text = JSON.stringify(locals.changed);
  const fits = text.length <= LONGEST && /^[ -~]*$/.test(text);
  res.setHeader(CHANGED, fits ? text : JSON.stringify(locals.changed.map(({ topic }) => ({ topic, ids: [] }))));
}

/**
 * Whether a page of another origin asks. Browsers name the origin of every change; whoever is no browser names none
 * and holds no cookie of ours.
 */
export function fromElsewhere(req: Request): boolean {
  const origin = req.get('origin');
  if (origin === undefined || req.method === 'GET' || req.method === 'HEAD') return false;
  try {
    return new URL(origin).host !== req.host;
  } catch {
    // "null": a page that hides where it is from.
    return true;
  }
}

/** Answers a list of kept calls one after the other, each as its own endpoint would: its own transaction, right and key. */
export function mountOutbox(routes: Routes): void {
  mountEndpoint(routes, endpoints.sendOutbox, async ({ platform, actor, body, req, res }) => {
    const answers: ({ data: unknown } | { error: Problem })[] = [];
    for (const [i, given] of body.calls.entries()) {
      const read = outboxCall.safeParse(given);
      if (!read.success) {
        const fields = fieldErrors(read.error).map((f) => ({ ...f, path: `calls.${i}.${f.path}` }));
        answers.push({ error: problemOf(platform, new Refusal('malformed', {}, fields), req) });
        continue;
      }
      const call = read.data;
      const endpoint: Endpoint = endpoints[call.name];
      const headers: Record<string, string> = { 'idempotency-key': call.key, [DONE_AGO]: String(call.ago) };
      const alone = Object.create(req, {
        body: { value: call.body ?? {} },
        params: { value: { id: call.id } },
        path: { value: endpoint.path.replace(':id', encodeURIComponent(call.id)) },
        get: { value: (name: string) => headers[name.toLowerCase()] ?? req.get(name) },
      }) as Request;
      try {
        answers.push({ data: await routes.handlers.get(endpoint)!(alone, res, actor) });
      } catch (error) {
        const problem = problemOf(platform, error, req);
        answers.push({ error: problem });
        // What follows would be done over something that is not: it is sent again.
        if (problem.status >= 500) break;
      }
    }
    return { answers };
  });
}

/** Gives every request an id, its own or the one that a proxy sent, and logs it when it is answered. */
export function requestLog(platform: Platform) {
  return (req: Request, res: Response, next: NextFunction) => {
    const given = req.get('x-request-id');
    req.requestId = given && /^[\w-]{8,64}$/.test(given) ? given : randomUUID();
    res.setHeader('X-Request-Id', req.requestId);
    const begun = performance.now();
    res.on('finish', () => {
      const ms = Math.round((performance.now() - begun) * 10) / 10;
      platform.log.info(
        { requestId: req.requestId, method: req.method, path: req.path, status: res.statusCode, ms },
        'request',
      );
    });
    next();
  };
}

const titles: Record<number, string> = {
  400: 'The request is not well formed',
  401: 'Nobody is signed in',
  403: 'Not allowed',
  404: 'Not there',
  409: 'Not possible as things stand',
  413: 'Too large',
  422: 'Refused',
  415: 'Not in this form',
  429: 'Too many requests',
  503: 'Busy',
  507: 'The disk is full',
};

/** Answers refusals as problem+json; what was not expected is logged and shown by its request id alone. */
export function problems(platform: Platform) {
  // Express knows an error handler by its four parameters.
  return (error: unknown, req: Request, res: Response, _next: NextFunction) => {
    const problem = problemOf(platform, error, req);
    if (res.headersSent) {
      // What is broken off must not look whole.
      res.destroy();
      return;
    }
    res.status(problem.status).type('application/problem+json').json(problem);
  };
}

function problemOf(platform: Platform, error: unknown, { requestId }: Request): Problem {
  const refusal = toRefusal(error);
  if (!refusal) platform.log.error({ requestId, err: error }, 'unexpected');
  if (refusal?.code === 'busy') platform.log.warn({ requestId, err: error }, 'busy');
  const status = refusal?.status ?? 500;
  return {
    type: `urn:hand-relay:${refusal?.code ?? 'unexpected'}`,
    title: titles[status] ?? 'Something went wrong here',
    status,
    code: refusal?.code ?? 'unexpected',
    detail: refusal ? describe(refusal) : `Ask whoever runs this server for request ${requestId}.`,
    facts: refusal?.facts ?? {},
    fields: refusal?.fields ?? [],
    requestId,
  };
}

function describe(refusal: Refusal): string {
  const fields = refusal.fields.map((f) => `${f.path}: ${f.message}`).join('; ');
  return fields || `${refusal.code} ${JSON.stringify(refusal.facts)}`;
}

/**
 * What PostgreSQL says of values that a column or a computation cannot hold (SQLSTATE class 22): numbers and dates out
 * of range, text that is none.
 */
const OUT_OF_RANGE = new Set(['22003', '22007', '22008', '22021', '22P02', '22P05']);
const DISK_FULL = '53100';
/**
 * A lock or a statement that took too long, a database that takes no more connections, and a transaction that was
 * undone for the sake of others each time that it was begun again.
 */
const BUSY = new Set(['55P03', '57014', '53300', '40P01', '40001']);
/** What the pool says when no connection came free. */
const NO_CONNECTION = 'timeout exceeded when trying to connect';

/** A refusal, or what a database constraint or the body parser refused, as one. */
function toRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  const { type, status, cause } = error as {
    type?: string;
    status?: number;
    cause?: { code?: string; constraint?: string; message?: string };
  };
  const notReadable = (message: string) => [{ path: '', message }];
  if (type === 'entity.parse.failed') return new Refusal('malformed', {}, notReadable('the body is not JSON'));
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Refusal('not-readable', {}, notReadable('JSON in UTF-8, plain or compressed by gzip, deflate or br'));
  if (type === 'entity.too.large') return new Refusal('too-large');
  if (status !== undefined && status >= 400 && status < 500) return new Refusal('malformed');
  const code = cause?.code ?? '';
  if (code === '23514') return new Refusal('constraint', { constraint: cause!.constraint });
  if (code === '23505') return new Refusal('already-there', { constraint: cause!.constraint });
  if (code === DISK_FULL) return new Refusal('disk-full');
  if (BUSY.has(code) || `${(error as Error).message} ${cause?.message}`.includes(NO_CONNECTION))
    return new Refusal('busy');
  return OUT_OF_RANGE.has(code) ? new Refusal('out-of-range') : null;
}
