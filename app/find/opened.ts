import { remember, remembered } from '../state/index.ts';
import type { Shown } from './FoundRow.tsx';

const OPENED = 'found-and-opened';
/** Most that are shown, and that a device remembers of all people and sites. */
const MOST = 6;
const MOST_OF_ALL = 60;

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

/** Remembers that something was opened. */
export function rememberOpened(row: Shown): void {
  const mine = (r: Shown) => r.person === row.person && r.site === row.site;
  const others = all().filter((r) => !mine(r) || r.href !== row.href || r.title !== row.title);
  const own = others.filter(mine).slice(0, MOST - 1);
  remember(OPENED, JSON.stringify([row, ...own, ...others.filter((r) => !mine(r))].slice(0, MOST_OF_ALL)));
}
