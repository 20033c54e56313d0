import type { DemandKind } from '../../handling/shipping/index.ts';

/** An order as a document asks for it, before anything is looked up. */
export interface OrderDraft {
  number: string;
  kind: DemandKind;
  /** Code of the site that a transfer goes to, empty for other kinds. */
  toSite: string;
  channel: string;
  customer: string;
  /** The customer's or channel's own reference. */
  reference: string;
  /** ISO date of leaving. */
  due: string;
  priority: number;
  shipComplete: boolean;
  shipTo: { name: string; street: string; postcode: string; city: string; country: string };
  note: string;
  /** Address of the document in the system that keeps it; empty without one. */
  link: string;
  tags: string[];
  lines: LineDraft[];
}

export interface LineDraft {
  line: number;
  sku: string;
  /** In packs of `pack`. */
  quantity: number;
  pack: 'unit' | 'inner' | 'outer';
  note: string;
}

/** Something wrong in a document, at its place. Rows count from 1 with the heading as row 1; 0 is the whole file. */
export interface IntakeError {
  row: number;
  column: string;
  value: string;
  /** Machine word for what was expected; the interface words it. */
  expected: IntakeExpectation;
  /** Number of the order that cannot be taken because of it, where it is known. */
  order: string;
}

export type IntakeExpectation =
  | 'a-column'
  | 'a-value'
  | 'a-known-customer'
  | 'a-known-item'
  | 'a-known-channel'
  | 'a-kind'
  | 'another-site'
  | 'a-date'
  | 'a-whole-number'
  | 'one-date-only'
  | 'one-number-only'
  | 'one-to-nine'
  | 'yes-or-no'
  | 'a-pack-of-the-item'
  | 'a-country-code'
  | 'one-value-per-order'
  | 'a-line-once'
  | 'csv'
  | 'json'
  | 'xml'
  | 'an-order'
  | 'a-list'
  | 'a-readable-file'
  | 'a-smaller-file'
  | 'a-simpler-file'
  | 'nothing-released-yet'
  | 'as-many-fields-as-headings'
  | 'an-address'
  | 'short-tags'
  | 'at-most-length';
