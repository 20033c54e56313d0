import { z } from 'zod';
import type { seeded } from '@hand-relay/core/random';
import { sheets, type SheetName } from '@hand-relay/core/reading/sheets';
import type { Endpoint } from '@hand-relay/contract';

type Schema = Record<string, unknown> & { type?: string | string[] };
type Random = ReturnType<typeof seeded>;

/** What the values of a request are drawn from. */
export interface Draw {
  random: Random;
  /** Ids and codes that exist. */
  known: readonly string[];
  /** Share of values that no honest caller sends, from 0 to 1. */
  hostile: number;
}

const texts = [
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfff',
  '',
  ' ',
  'a'.repeat(20_000),
  "'; drop table person; --",
  '=1+1',
  '{{name}}',
  '\u202eevil',
  '😀'.repeat(20),
  '../../etc/passwd',
  '__proto__',
  'null',
  '-1',
  '1e308',
  '0001-01-01',
  '9999-12-31',
  '2026-02-30',
  '0001-01-01T00:00:00.000Z',
  '9999-12-31T23:59:59.999Z',
];
const numbers = [0, -1, 0.5, 2_147_483_647, 2_147_483_648, 4_294_967_296, 1e12, Number.MAX_SAFE_INTEGER, 1e300, -1e300];

/** A request's body or query as its schema describes it, some of its values hostile. */
export function requestFor(schema: Endpoint['body'], draw: Draw): unknown {
  if (!schema) return {};
  const described = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Schema;
  const root = described as { $defs?: Record<string, Schema> };
  return valueOf(described, draw, root.$defs ?? {}, 0);
}

/** Rows of a sheet as somebody might type them, some cells hostile. */
export function sheetRows(name: SheetName, { random, hostile }: Draw): object[] {
  const { columns } = sheets[name];
  return Array.from({ length: random.int(1, 3) }, () =>
    Object.fromEntries(
      columns.map(({ name: column, example }) => [
        column,
        random.next() < hostile ? random.pick<string | number>([...texts, ...numbers]) : example,
      ]),
    ),
  );
}

function valueOf(schema: Schema, draw: Draw, defs: Record<string, Schema>, depth: number): unknown {
  const { random, known, hostile } = draw;
  const next = (inner: unknown) => valueOf(inner as Schema, draw, defs, depth + 1);
  const evil = random.next() < hostile;
  if (typeof schema['$ref'] === 'string') {
    const to = defs[schema['$ref'].split('/').at(-1)!];
    return to && depth < 8 ? next(to) : {};
  }
  if ('const' in schema) return evil ? random.pick(texts) : schema['const'];
  if (Array.isArray(schema['enum'])) return evil ? random.pick(texts) : random.pick(schema['enum'] as unknown[]);
  const either = (schema['anyOf'] ?? schema['oneOf']) as Schema[] | undefined;
  if (either) return next(random.pick(either));
  if (Array.isArray(schema['allOf'])) return Object.assign({}, ...(schema['allOf'] as Schema[]).map(next)) as unknown;
  switch (schema.type) {
    case 'object': {
      const properties = (schema['properties'] ?? {}) as Record<string, Schema>;
      const required = new Set((schema['required'] ?? []) as string[]);
      const made = Object.entries(properties).flatMap(([name, inner]) =>
        required.has(name) || random.next() < 0.6 ? [[name, next(inner)] as const] : [],
      );
      const more = schema['additionalProperties'];
      if (more && typeof more === 'object' && Object.keys(properties).length === 0)
        made.push([random.pick(['item', 'name', 'x']), next(more)]);
      return Object.fromEntries(made);
    }
    case 'array': {
      const least = (schema['minItems'] as number | undefined) ?? 0;
      const items = schema['items'] ?? (schema['prefixItems'] as Schema[] | undefined)?.[0] ?? {};
      return Array.from({ length: Math.max(least, random.int(0, 2)) }, () => next(items));
    }
    case 'integer':
    case 'number': {
      const least = Math.max((schema['minimum'] as number | undefined) ?? -9, -1e6);
      const most = Math.min((schema['maximum'] as number | undefined) ?? 9, 1e9);
      if (evil) return random.pick([...numbers, schema['minimum'] ?? 0, schema['maximum'] ?? 0]);
      return random.int(Math.ceil(least), Math.floor(Math.max(least, most)));
    }
    case 'boolean':
      return random.next() < 0.5;
    case 'null':
      return null;
    case 'string':
      if (evil) return random.pick(texts);
      if (schema['format'] === 'date') return random.pick(['2026-11-29', '2027-01-31', '0001-01-01', '9999-12-31']);
      if (schema['format'] === 'date-time') return '2026-11-29T10:00:00.000Z';
      return random.pick(known);
    default:
      return evil ? random.pick<unknown>([...texts, ...numbers, null, [], {}]) : random.pick(known);
  }
}
