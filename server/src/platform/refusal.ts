import type { JournalEntry } from './journalEntry.ts';

/**
 * A "no" with a code and its facts. Thrown by services, it undoes the transaction and is answered as a problem; what was
 * caught by it is journalled all the same.
 */
export class Refusal extends Error {
  readonly status: number;
  readonly code: string;
  readonly facts: Record<string, unknown>;
  readonly fields: { path: string; message: string }[];
  caught: JournalEntry | null = null;

  constructor(
    status: number,
    code: string,
    facts: Record<string, unknown> = {},
    fields: { path: string; message: string }[] = [],
  ) {
    super(code);
    this.status = status;
    this.code = code;
    this.facts = facts;
    this.fields = fields;
  }
}

/** Something asked for by id that is not there, or not at this site. */
export function notFound(what: string, id: string): Refusal {
  return new Refusal(404, 'not-found', { what, id });
}
