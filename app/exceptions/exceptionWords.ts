import type { ExceptionRow } from '@hand-relay/contract';
import { i18n, number } from '../text/index.ts';
import { networkError, words } from '../state/index.ts';

/** What happened, in one line. */
export function titleOf({ kind, place, units, item, order, run, line, facts }: ExceptionRow): string {
  return i18n.t(`exceptions.title.${kind}`, {
    ...facts,
    place: place || String(facts['bin'] ?? ''),
    units: number(units),
    item: item?.name ?? String(facts['item'] ?? ''),
    order: order?.number ?? '',
    run: run?.number ?? String(facts['run'] ?? ''),
    line,
  });
}

/** Why, as the picker said it or as the server refused it. */
export function reasonOf({ kind, reason, facts }: ExceptionRow): string {
  if (kind === 'lost') return words({ ...networkError, code: String(facts['code'] ?? ''), facts });
  const key = kind === 'count' ? `counts.reason.${reason}` : `floor.reason.${reason}`;
  return reason && i18n.exists(key) ? i18n.t(key) : reason;
}
