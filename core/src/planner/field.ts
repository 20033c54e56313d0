import type { z } from 'zod';

/** A request that cannot be answered: the field that is wrong and what it must be, in one line. */
export class PlannerError extends Error {}

/** `orders[0].lines[2].units`, as the document writes it. */
function fieldPath(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (text, part) =>
      typeof part === 'number' ? `${text}[${part}]` : text === '' ? String(part) : `${text}.${String(part)}`,
    '',
  );
}

/** @throws PlannerError with the first field that is wrong */
export function parse<S extends z.ZodType>(schema: S, document: unknown): z.output<S> {
  const result = schema.safeParse(document);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  const at = [...issue.path];
  let message = issue.message;
  if (issue.code === 'unrecognized_keys') {
    at.push(issue.keys[0]!);
    message = 'is not a field of this document';
  }
  throw new PlannerError(`${fieldPath(at) || 'document'}: ${message}`);
}
