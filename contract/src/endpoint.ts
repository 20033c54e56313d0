import { z } from 'zod';
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
  query?: z.ZodType;
  body?: z.ZodType;
  /** Absent where the answer is a file. */
  answer?: z.ZodType;
  /** Media type where the answer is a file. */
  file?: string;
}

export const nothing = z.object({});
/** A table of endpoints, each checked against what an endpoint is. */
export const all = <T extends Record<string, Endpoint>>(table: T) => table;
