import { createHash, randomUUID } from 'node:crypto';
import type { Express, NextFunction, Request, Response } from 'express';
import type { Endpoint } from '@hand-relay/contract';
import type { z } from 'zod';
import { change, type Actor, type Change } from './change.ts';
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
  doors.app[method](endpoint.path, (req: Request, res: Response, next: NextFunction) => {
    answer(doors, endpoint, handler, req, res).catch(next);
  });
}

async function answer<E extends Endpoint>(doors: Doors, endpoint: E, handler: Handler<E>, req: Request, res: Response) {
  const { platform } = doors;
  const actor = await doors.actorOf(req);
  if (endpoint.needs !== 'public') {
    if (!actor) throw new Refusal(401, 'not-signed-in');
    if (endpoint.needs !== 'person' && !endpoint.needs.some((right) => actor.rights.has(right)))
      throw new Refusal(403, 'not-allowed', { needs: endpoint.needs });
  }
  const body = parsed(endpoint.body, req.body);
  const query = parsed(endpoint.query, req.query);
  const key = req.get('idempotency-key');
  if (endpoint.method === 'POST' && endpoint.needs !== 'public' && (!key || key.length > 100))
    throw new Refusal(400, 'key-missing', {}, [
      { path: 'Idempotency-Key', message: 'a header of up to 100 characters' },
    ]);
  const id = (req.params as Record<string, string>)['id'] ?? '';
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
  if (endpoint.file) return;
  if (doors.checkAnswers && endpoint.answer) endpoint.answer.parse(result);
  res.json(result ?? {});
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
  429: 'Too many requests',
};

/** Answers refusals as problem+json; what was not expected is logged and shown by its request id alone. */
export function problems(platform: Platform) {
  // Express knows an error handler by its four parameters.
  return (error: unknown, req: Request, res: Response, _next: NextFunction) => {
    const refusal = toRefusal(error);
    if (!refusal) platform.log.error({ requestId: req.requestId, err: error }, 'unexpected');
    const status = refusal?.status ?? 500;
    if (res.headersSent) {
      res.end();
      return;
    }
    res
      .status(status)
      .type('application/problem+json')
      .json({
        type: `urn:hand-relay:${refusal?.code ?? 'unexpected'}`,
        title: titles[status] ?? 'Something went wrong here',
        status,
        code: refusal?.code ?? 'unexpected',
        detail: refusal ? describe(refusal) : `Ask whoever runs this server for request ${req.requestId}.`,
        facts: refusal?.facts ?? {},
        fields: refusal?.fields ?? [],
        requestId: req.requestId,
      });
  };
}

function describe(refusal: Refusal): string {
  const fields = refusal.fields.map((f) => `${f.path}: ${f.message}`).join('; ');
  return fields || `${refusal.code} ${JSON.stringify(refusal.facts)}`;
}

/** A refusal, or what a database constraint or the body parser refused, as one. */
function toRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  const { type, status, cause } = error as {
    type?: string;
    status?: number;
    cause?: { code?: string; constraint?: string };
  };
  if (type === 'entity.parse.failed')
    return new Refusal(400, 'malformed', {}, [{ path: '', message: 'the body is not JSON' }]);
  if (type === 'entity.too.large') return new Refusal(413, 'too-large');
  if (status === 400) return new Refusal(400, 'malformed');
  if (cause?.code === '23514') return new Refusal(409, 'constraint', { constraint: cause.constraint });
  if (cause?.code === '23505') return new Refusal(409, 'already-there', { constraint: cause.constraint });
  return null;
}
