import { createHash, randomUUID } from 'node:crypto';
import type { Express, NextFunction, Request, Response } from 'express';
import { DONE_AGO, endpoints, keptCall, type Endpoint, type Problem } from '@hand-relay/contract';
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

export type Handler<E extends Endpoint> = (ask: Ask<E>) => Promise<In<E['answer']>>;

export interface Doors {
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
  if (!result.success) throw new Refusal(400, 'malformed', {}, fieldErrors(result.error));
  return result.data as Out<S>;
}

/** Opens an endpoint of the contract: sign-in, right, query, body and answer as it says. */
export function serve<E extends Endpoint>(doors: Doors, endpoint: E, handler: Handler<E>): void {
  const method = endpoint.method === 'GET' ? 'get' : 'post';
  const perform = (req: Request, res: Response, actor: Actor | null) =>
    answer(doors, endpoint, handler, { req, res, actor });
  doors.handlers.set(endpoint, perform);
  doors.app[method](endpoint.path, (req: Request, res: Response, next: NextFunction) => {
    doors
      .actorOf(req)
      .then((actor) => perform(req, res, actor))
      .then((result) => {
        if (!endpoint.file) res.json(result);
      })
      .catch(next);
  });
}

async function answer<E extends Endpoint>(
  doors: Doors,
  endpoint: E,
  handler: Handler<E>,
  { req, res, actor }: { req: Request; res: Response; actor: Actor | null },
): Promise<unknown> {
  const { platform } = doors;
  if (endpoint.needs !== 'public') {
    if (!actor) throw new Refusal(401, 'not-signed-in');
    if (endpoint.needs !== 'person' && !endpoint.needs.some((right) => actor.rights.has(right)))
      throw new Refusal(403, 'not-allowed', { needs: endpoint.needs });
  }
  const id = (req.params as Record<string, string>)['id'] ?? '';
  const key = req.get('idempotency-key');
  // A list of calls is looked at call by call.
  const whole = endpoint === (endpoints.sendKept as Endpoint) ? null : hostileText(req.body);
  const hostile = whole ?? hostileText(req.query) ?? hostileText({ id });
  if (hostile) throw new Refusal(400, 'malformed', {}, [hostile]);
  const body = parsed(endpoint.body, req.body);
  const query = parsed(endpoint.query, req.query);
  if (endpoint.method === 'POST' && endpoint.needs !== 'public' && (!key || key.length > 100))
    throw new Refusal(400, 'key-missing', {}, [
      { path: 'Idempotency-Key', message: 'a header of up to 100 characters' },
    ]);
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
      return change(platform, actor, key ? { key, request: `${req.method} ${req.path} ${hash}` } : null, work);
    },
    req,
    res,
  });
  if (doors.checkAnswers && endpoint.answer && !endpoint.file) endpoint.answer.parse(result);
  return result ?? {};
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
export function serveKept(doors: Doors): void {
  serve(doors, endpoints.sendKept, async ({ platform, actor, body, req, res }) => {
    const answers: ({ data: unknown } | { error: Problem })[] = [];
    for (const [i, given] of body.calls.entries()) {
      const read = keptCall.safeParse(given);
      if (!read.success) {
        const fields = fieldErrors(read.error).map((f) => ({ ...f, path: `calls.${i}.${f.path}` }));
        answers.push({ error: problemOf(platform, new Refusal(400, 'malformed', {}, fields), req) });
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
        answers.push({ data: await doors.handlers.get(endpoint)!(alone, res, actor) });
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
  507: 'The disk is full',
};

/** Answers refusals as problem+json; what was not expected is logged and shown by its request id alone. */
export function problems(platform: Platform) {
  // Express knows an error handler by its four parameters.
  return (error: unknown, req: Request, res: Response, _next: NextFunction) => {
    const problem = problemOf(platform, error, req);
    if (res.headersSent) {
      res.end();
      return;
    }
    res.status(problem.status).type('application/problem+json').json(problem);
  };
}

function problemOf(platform: Platform, error: unknown, { requestId }: Request): Problem {
  const refusal = toRefusal(error);
  if (!refusal) platform.log.error({ requestId, err: error }, 'unexpected');
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

/** A refusal, or what a database constraint or the body parser refused, as one. */
function toRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  const { type, status, cause } = error as {
    type?: string;
    status?: number;
    cause?: { code?: string; constraint?: string };
  };
  const notReadable = (message: string) => [{ path: '', message }];
  if (type === 'entity.parse.failed') return new Refusal(400, 'malformed', {}, notReadable('the body is not JSON'));
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Refusal(
      415,
      'not-readable',
      {},
      notReadable('JSON in UTF-8, plain or compressed by gzip, deflate or br'),
    );
  if (type === 'entity.too.large') return new Refusal(413, 'too-large');
  if (status !== undefined && status >= 400 && status < 500) return new Refusal(400, 'malformed');
  const code = cause?.code ?? '';
  if (code === '23514') return new Refusal(409, 'constraint', { constraint: cause!.constraint });
  if (code === '23505') return new Refusal(409, 'already-there', { constraint: cause!.constraint });
  if (code === DISK_FULL) return new Refusal(507, 'disk-full');
  return OUT_OF_RANGE.has(code) ? new Refusal(422, 'out-of-range') : null;
}
