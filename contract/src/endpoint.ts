import { z } from 'zod';
import type { Effect, JobKind } from './effects.ts';
import type { RefusalCode } from './refusals.ts';
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
  /** The job that it begins, where it does. */
  starts?: JobKind;
  /** Refusals that it makes beside those of every request (`commonRefusals`). */
  refuses?: readonly RefusalCode[];
  query?: z.ZodType;
  body?: z.ZodType;
  /** Megabytes that its body may have; 1 without it. */
  bodyMb?: number;
  /** Absent where the answer is a file of another form than JSON. */
  answer?: z.ZodType;
  /** Media type where the handler sends the answer by itself: a file, or what is too large to be made at once. */
  file?: string;
}

export const nothing = z.object({});
/** A table of endpoints, each checked against what an endpoint is. */
export const all = <const T extends Record<string, Endpoint>>(table: T) => table;
