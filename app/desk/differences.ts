import { i18n } from '../text/index.ts';

export interface Difference {
  field: string;
  before: string;
  after: string;
}

const said = (value: string, field: string) =>
  field === 'packing' && i18n.exists(`packing.${value}`)
    ? i18n.t(`packing.${value}` as never)
    : value === 'true'
      ? i18n.t('field.yes')
      : value === 'false'
        ? i18n.t('field.no')
        : value === ''
          ? '–'
          : value;

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
