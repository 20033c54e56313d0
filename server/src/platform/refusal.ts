import { refusals, type RefusalCode, type RefusalFacts } from '@hand-relay/contract';
import type { JournalEntry } from './journalEntry.ts';

/** A field that is wrong, by its path in what was sent. */
export interface FieldFault {
  path: string;
  message: string;
}

type Given<C extends RefusalCode> = C extends RefusalCode
  ? Record<string, never> extends RefusalFacts<C>
    ? [facts?: RefusalFacts<C>, fields?: FieldFault[]]
    : [facts: RefusalFacts<C>, fields?: FieldFault[]]
  : never;

/**
 * A "no" of the contract's table with its facts. Thrown by services, it undoes the transaction and is answered as a
 * problem; what was caught by it is journalled all the same.
 */
export class Refusal<C extends RefusalCode = RefusalCode> extends Error {
  readonly code: C;
  readonly facts: Record<string, unknown>;
  readonly fields: FieldFault[];
  caught: JournalEntry | null = null;

  constructor(code: C, ...[facts = {}, fields = []]: Given<C>) {
    super(code);
    this.code = code;
    this.facts = facts;
    this.fields = fields;
  }

  get status(): number {
    return refusals[this.code].status;
  }

  /** The same refusal, saying of which of several orders it speaks. */
  ofOrder(order: string): this {
    this.facts['order'] = order;
    return this;
  }
}

/** A refusal that was kept as data, as it was. */
export function refusalOf(code: RefusalCode, facts: Record<string, unknown>): Refusal {
  return new (Refusal as new (code: RefusalCode, facts: Record<string, unknown>) => Refusal)(code, facts);
}

/** Something asked for by id that is not there, or not at this site. */
export function notFound(what: string, id: string): Refusal {
  return new Refusal('not-found', { what, id });
}
