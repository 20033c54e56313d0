import { i18n } from '../text/index.ts';

export interface Difference {
  field: string;
  before: string;
  after: string;
}

function said(value: string, field: string): string {
  if (field === 'packing' && i18n.exists(`packing.${value}`)) return i18n.t(`packing.${value}` as never);
  if (value === 'true' || value === 'false') return i18n.t(value === 'true' ? 'field.yes' : 'field.no');
  return value === '' ? '–' : value;
}

/** A field in words: one of the order, a line, or a field of a line. */
function fieldName(field: string): string {
  const [, line, of] = /^line (\d+)(?: (\w+))?$/.exec(field) ?? [];
  const named = (name: string) => (i18n.exists(`field.${name}`) ? i18n.t(`field.${name}` as never) : name);
  if (line === undefined) return named(field);
  return [i18n.t('field.line', { line }), of && named(of)].filter(Boolean).join(', ');
}

/** What changed of an order, in words: a field each, as it was and as it is. */
export function differenceWords({ field, before, after }: Difference): string {
  const name = fieldName(field);
  const whole = /^line \d+$/.test(field);
  if (whole && before === '') return i18n.t('field.added', { field: name, after });
  if (whole && after === '') return i18n.t('field.gone', { field: name, before });
  return i18n.t('field.changed', { field: name, before: said(before, field), after: said(after, field) });
}
