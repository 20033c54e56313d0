import { z } from 'zod';
import { allocateDocument, allocateRequest, allocateResult } from './allocate.ts';
import { batchDocument, batchRequest, batchResult } from './batch.ts';
import { cartoniseDocument, cartoniseRequest, cartoniseResult } from './cartonise.ts';
import { estimateDocument, estimateRequest, estimateResult } from './estimate.ts';
import { fixedDocument, fixedRequest, fixedResult } from './fixed.ts';
import { palletiseDocument, palletiseRequest, palletiseResult } from './palletise.ts';
import { routeDocument, routeRequest, routeResult } from './route.ts';
import type { PlannerTools } from './tools.ts';

export interface Verb {
  request: z.ZodType;
  result: z.ZodType;
  run: (document: unknown, tools: PlannerTools) => unknown;
}

/** What the planner can be asked on the command line, by its verb. */
export const verbs: Readonly<Record<string, Verb>> = {
  route: { request: routeRequest, result: routeResult, run: routeDocument },
  batch: { request: batchRequest, result: batchResult, run: batchDocument },
  allocate: { request: allocateRequest, result: allocateResult, run: allocateDocument },
  cartonise: { request: cartoniseRequest, result: cartoniseResult, run: cartoniseDocument },
  palletise: { request: palletiseRequest, result: palletiseResult, run: palletiseDocument },
  fixed: { request: fixedRequest, result: fixedResult, run: fixedDocument },
  estimate: { request: estimateRequest, result: estimateResult, run: estimateDocument },
};

/** What a verb's documents must look like, as JSON Schema. */
export function schemasOf({ request, result }: Verb): { request: object; result: object } {
  return { request: z.toJSONSchema(request, { io: 'input' }), result: z.toJSONSchema(result) };
}
