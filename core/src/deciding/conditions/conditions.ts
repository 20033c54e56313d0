/** What can be asked of a field, by the kind of its values. */
export const testsOf = {
  text: ['is', 'is-not', 'contains', 'begins', 'is-empty'],
  number: ['is', 'at-least', 'at-most'],
  date: ['is', 'at-least', 'at-most'],
  choice: ['is', 'is-not'],
  'yes-no': ['is'],
} as const;
export type FieldKind = keyof typeof testsOf;
export type Test = (typeof testsOf)[FieldKind][number];
export const allTests = [...new Set(Object.values(testsOf).flat())] as [Test, ...Test[]];

/** A field that conditions can be put on. Dates are ISO dates, yes and no are `yes` and `no`. */
export interface ConditionField {
  name: string;
  kind: FieldKind;
  /** What a choice is among; without it a site says which there are, and any value is taken. */
  of?: readonly string[];
}

export interface Condition {
  field: string;
  test: Test;
  value: string;
}

/** Conditions of which all or any must hold. None at all holds for nothing: a rule is never empty by accident. */
export interface Conditions {
  match: 'all' | 'any';
  list: Condition[];
}

type Value = string | number | boolean | null | undefined;
/** Where a field has several values, as the items of an order, one that holds is enough. */
export type Values = Readonly<Record<string, Value | readonly Value[]>>;

function holds({ test, value }: Condition, kind: FieldKind, found: Value): boolean {
  if (kind === 'yes-no') return (found === true) === (value === 'yes');
  if (kind === 'number') {
    if (typeof found !== 'number') return false;
    const wanted = Number(value);
    return test === 'is' ? found === wanted : test === 'at-least' ? found >= wanted : found <= wanted;
  }
  const text = String(found ?? '');
  if (kind === 'date') {
    if (text === '') return false;
    return test === 'is' ? text === value : test === 'at-least' ? text >= value : text <= value;
  }
  const [have, want] = [text.trim().toLowerCase(), value.trim().toLowerCase()];
  if (test === 'is-empty') return have === '';
  if (test === 'contains') return have.includes(want);
  if (test === 'begins') return have.startsWith(want);
  return (have === want) === (test === 'is');
}

/** Whether conditions hold for values; a field that is not known never does. */
export function meets(conditions: Conditions, fields: readonly ConditionField[], values: Values): boolean {
  if (conditions.list.length === 0) return false;
  const kinds = new Map(fields.map((f) => [f.name, f.kind]));
  const one = (c: Condition) => {
    const kind = kinds.get(c.field);
    if (kind === undefined) return false;
    const found = values[c.field];
    return Array.isArray(found) ? found.some((v: Value) => holds(c, kind, v)) : holds(c, kind, found as Value);
  };
  return conditions.match === 'all' ? conditions.list.every(one) : conditions.list.some(one);
}

export type ConditionFault = 'a-field' | 'a-test' | 'a-value' | 'a-number' | 'a-date' | 'one-of';

/** What is wrong with a condition, null when nothing is. */
export function faultOf({ field, test, value }: Condition, fields: readonly ConditionField[]): ConditionFault | null {
  const known = fields.find((f) => f.name === field);
  if (!known) return 'a-field';
  if (!(testsOf[known.kind] as readonly string[]).includes(test)) return 'a-test';
  if (test === 'is-empty') return null;
  if (value.trim() === '') return 'a-value';
  if (known.kind === 'number' && !Number.isFinite(Number(value))) return 'a-number';
  if (known.kind === 'date' && !/^\d{4}-\d{2}-\d{2}$/.test(value)) return 'a-date';
  const of = known.kind === 'yes-no' ? ['yes', 'no'] : known.of;
  return of && !of.includes(value) ? 'one-of' : null;
}
