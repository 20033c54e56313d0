import { endpoints, problemSchema, refusals, type Endpoint } from '@hand-relay/contract';
import { z } from 'zod';

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(schema, { io, unrepresentable: 'any' });

function operation(name: string, endpoint: Endpoint): Record<string, unknown> {
  const parameters: unknown[] = [];
  if (endpoint.path.includes(':id'))
    parameters.push({ name: 'id', in: 'path', required: true, schema: { type: 'string' } });
  if (endpoint.method === 'POST' && endpoint.needs !== 'public')
    parameters.push({
      name: 'Idempotency-Key',
      in: 'header',
      required: true,
      schema: { type: 'string', maxLength: 100 },
      description: 'A key of your own for this request; a repeat with it gets the first answer',
    });
  if (endpoint.query) {
    const query = schemaOf(endpoint.query, 'input') as { properties?: Record<string, unknown>; required?: string[] };
    for (const [key, schema] of Object.entries(query.properties ?? {}))
      parameters.push({ name: key, in: 'query', required: query.required?.includes(key) ?? false, schema });
  }
  const content = endpoint.file
    ? { [endpoint.file]: { schema: endpoint.answer ? schemaOf(endpoint.answer, 'output') : { type: 'string' } } }
    : { 'application/json': { schema: schemaOf(endpoint.answer!, 'output') } };
  return {
    operationId: name,
    summary: endpoint.summary,
    tags: [endpoint.path.split('/')[2]],
    description: Array.isArray(endpoint.needs)
      ? `Needs one of the rights: ${endpoint.needs.join(', ')}.`
      : endpoint.needs === 'public'
        ? 'Needs no sign-in.'
        : 'Needs a sign-in.',
    ...(endpoint.needs === 'public' ? {} : { security: [{ session: [] }] }),
    parameters,
    ...(endpoint.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(endpoint.body, 'input') } },
          },
        }
      : {}),
    responses: {
      200: { description: 'As asked', content },
      ...refusalsByStatus(endpoint),
      default: {
        description: 'A refusal',
        content: { 'application/problem+json': { schema: schemaOf(problemSchema, 'output') } },
      },
    },
  };
}

/** The refusals that an endpoint makes beside those of every request, with their facts. */
function refusalsByStatus({ refuses = [] }: Endpoint): Record<number, unknown> {
  const byStatus = new Map<number, (typeof refuses)[number][]>();
  for (const code of refuses) {
    const { status } = refusals[code];
    byStatus.set(status, [...(byStatus.get(status) ?? []), code]);
  }
  const { properties, ...problem } = schemaOf(problemSchema, 'output') as { properties: Record<string, unknown> };
  const one = (code: (typeof refuses)[number]) => ({
    ...problem,
    properties: { ...properties, code: { const: code }, facts: schemaOf(refusals[code].facts, 'output') },
  });
  return Object.fromEntries(
    [...byStatus].map(([status, codes]) => [
      status,
      {
        description: codes.join(', '),
        content: { 'application/problem+json': { schema: { oneOf: codes.map(one) } } },
      },
    ]),
  );
}

/** The API as OpenAPI 3.1, made from the contract's schemas. */
export function openApi(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, endpoint] of Object.entries(endpoints) as [string, Endpoint][]) {
    const path = endpoint.path.replace(':id', '{id}');
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operation(name, endpoint) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Hand Relay',
      version: '1',
      description: 'Outbound shipping: orders, waves, runs, packing, shipments.',
    },
    paths,
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'relay' } } },
  };
}
