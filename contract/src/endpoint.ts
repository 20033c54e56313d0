import { z } from 'zod';
import type { Effect } from './effects.ts';
import type { Right } from './rights.ts';

/** One endpoint: what server, app and OpenAPI know of it. */
export interface Endpoint {
  method: 'GET' | 'POST';
  /** Express form, `:id` for parameters. */
  path: string;
  /** Any one of these lets a person in; `public` needs no sign-in, `person` any. */
  needs: readonly Right[] | 'public' | 'person';
  /** Rights that parts of it take besides: the handler asks for them where they are needed. */
  parts?: readonly Right[];
  summary: string;
  /** What its answer shows, where that is JSON and asked by GET: the app asks again when that changes. */
  reads?: readonly Effect[];
  /** What it may change, of every POST; empty where it only asks. Nothing else may be published by its change. */
  changes?: readonly Effect[];
  query?: z.ZodType;
  body?: z.ZodType;
  /** Absent where the answer is a file. */
  answer?: z.ZodType;
  /** Media type where the answer is a file. */
  file?: string;
}

export const nothing = z.object({});
/** A table of endpoints, each checked against what an endpoint is. */
export const all = <const T extends Record<string, Endpoint>>(table: T) => table;
