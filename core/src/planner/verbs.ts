import type { z } from 'zod';
import type { Solver } from '../solver/index.ts';
import { allocateDocument, allocateRequest, allocateResult } from './allocate.ts';

export interface Verb {
  request: z.ZodType;
  result: z.ZodType;
  run: (document: unknown, solver: Solver) => unknown;
}

/** What the planner can be asked on the command line, by its verb. */
export const verbs: Readonly<Record<string, Verb>> = {
  allocate: { request: allocateRequest, result: allocateResult, run: allocateDocument },
};
