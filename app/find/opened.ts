import { remember, remembered } from '../state/index.ts';
import type { Shown } from './FoundRow.tsx';

const OPENED = 'found-and-opened';
const MOST = 6;

function all(): Shown[] {
  try {
    return JSON.parse(remembered(OPENED) ?? '[]') as Shown[];
  } catch {
    return [];
  }
}

/** What a person opened last from a search on this device, the last first. */
export const openedBefore = (person: string, site: string): Shown[] =>
  all().filter((row) => row.person === person && row.site === site);

/** Remembers that something was opened; of each person and site the newest stay. */
export function rememberOpened(row: Shown): void {
  const others = all().filter((r) => r.href !== row.href || r.title !== row.title || r.person !== row.person);
  const own = others.filter((r) => r.person === row.person && r.site === row.site).slice(0, MOST - 1);
  remember(OPENED, JSON.stringify([row, ...own, ...others.filter((r) => !own.includes(r) && r.person !== row.person)]));
}
