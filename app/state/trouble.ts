import { calendarDay, clock, i18n, number, overWords } from '../text/index.ts';
import type { Trouble } from './call.ts';

/** Words a refusal: what happened, what was expected, what to do. */
export function words({ code, facts, fields, requestId }: Trouble): string {
  const key = `refusal.${code}`;
  if (!i18n.exists(key)) return i18n.t('state.unexpected', { requestId: requestId || '–' });
  const said: Record<string, unknown> = { ...facts };
  for (const [name, value] of Object.entries(facts)) if (typeof value === 'number') said[name] = number(value);
  if (typeof facts['state'] === 'string') {
    const state = facts['state'];
    said['state'] = (
      i18n.exists(`waves.state.${state}`) ? i18n.t(`waves.state.${state}`) : i18n.t(`waves.runState.${state}`)
    ).toLowerCase();
  }
  if (typeof facts['until'] === 'string')
    said['until'] = clock(facts['until'], Intl.DateTimeFormat().resolvedOptions().timeZone);
  if (typeof facts['keeps'] === 'string') said['keeps'] = calendarDay(facts['keeps']);
  if (Array.isArray(facts['lines']))
    said['lines'] = (facts['lines'] as { sku: string; picked: number; packed: number }[])
      .map((l) => `${l.sku} ${l.packed}/${l.picked}`)
      .join(', ');
  if (Array.isArray(facts['runs']))
    said['runs'] = (facts['runs'] as { number: string; picker: string | null }[])
      .map((r) => `${r.number}${r.picker ? ` (${r.picker})` : ''}`)
      .join(', ');
  if (Array.isArray(facts['over']))
    said['over'] = (facts['over'] as { what: string; by: number }[]).map(overWords).join(', ');
  said['fields'] = fields.map((f) => `${f.path}: ${f.message}`).join('; ');
  return i18n.t(key, said);
}

/** The trouble of a failed hook, whatever form it has. */
export function troubleOf(error: unknown): Trouble {
  if (error && typeof error === 'object' && 'code' in error && 'facts' in error) return error as Trouble;
  return { code: 'unexpected', facts: {}, fields: [], requestId: '', status: 0 };
}
