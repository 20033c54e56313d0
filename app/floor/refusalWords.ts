import type { GotKind } from '@hand-relay/contract';
import { readCode } from '@hand-relay/core/reading/codes';
import type { PickVerdict } from '@hand-relay/core/handling/picking';
import { thisYear } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { lastOf } from './card.ts';

export type Refused = Extract<PickVerdict, { verdict: 'refused' }>;

/** Something that was awaited or read, as people call it; cartons by the end of their number. */
const named = (what: string): string =>
  i18n.exists(`what.${what}`) ? i18n.t(`what.${what}`) : /^\d{18}$/.test(what) ? lastOf(what) : what;

/** What a refused input was, what was expected, and what to do. */
export function refusalWords({ code, expected, got, units }: Refused): string {
  const facts = { expected: named(expected), got: named(got), units };
  if (code !== 'not-awaited' || facts.got !== got) return i18n.t(`refusal.${code}`, facts);
  // A code that has no place here is told by what it is.
  const read = readCode(got, thisYear());
  const kind = read.kind === 'gs1' && read.sscc !== undefined ? 'sscc' : read.kind;
  return i18n.exists(`codeKind.${kind}`)
    ? i18n.t('refusal.is-a', { ...facts, kind: i18n.t(`codeKind.${kind}`) })
    : i18n.t('refusal.not-awaited', facts);
}

/** The same, once the server has said what a code is whose form says nothing. */
export function namedRefusal(refused: Refused, got: { kind: GotKind; name: string }, bin: string): string {
  const facts = { expected: named(refused.expected), got: got.name };
  if (got.kind === 'bin' && refused.expected === bin) return i18n.t('refusal.wrong-bin', facts);
  return i18n.t('refusal.is-a', { ...facts, kind: i18n.t(`codeKind.${got.kind}`) });
}
